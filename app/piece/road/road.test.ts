import fc from 'fast-check';
import { develop } from '#core/blank/fold/develop';
import { unfolded } from '#core/blank/fold/folding';
import { DEFAULT_SHOP, sheetMetal } from '#core/blank/fold/practice';
import { checkCard } from '#core/card/check';
import { emptyPattern } from '#core/card/emptyPattern';
import { metalById } from '#core/metal/metals';
import type { InspectionRecord, WeldRecord } from '#core/format/job';
import type { StepWork } from '#core/shape/shaping';
import { noWork, unshaped } from '#core/shape/shaping';
import type { ShapeStep } from '#core/shape/shapeStep';
import { unsurveyed } from '#core/survey/pieceSurvey';
import { emptyPlan } from '#core/weld/emptyPlan';
import { seamsOf } from '#core/weld/seams';
import { isJoined } from '#core/weld/start';
import { demoJob } from '../../../demo/job';
import type { Road } from './road';
import { roadOf, stopsOn } from './road';

const roadFor = (name: string, change: Partial<Parameters<typeof roadOf>[0]> = {}) => {
  const piece = demoJob().pieces.find((p) => p.name === name)!;
  const pattern = change.pattern ?? piece.card.versions[piece.card.current - 1]!.doc;
  const development = develop(
    pattern,
    sheetMetal(metalById(piece.metal), piece.thicknessMm, DEFAULT_SHOP),
    DEFAULT_SHOP,
  );
  return roadOf({
    kind: piece.kind,
    cutDown: piece.cutDown,
    folding: unfolded(),
    steps: [],
    shaping: unshaped(),
    survey: unsurveyed(),
    structural: piece.structural,
    surveyWarnings: [],
    pattern,
    joined: {
      pattern,
      plan: piece.plan.versions[piece.plan.current - 1]?.doc ?? emptyPlan(),
      thicknessAt: () => piece.thicknessMm,
      structuralAt: () => change.structural ?? piece.structural,
    },
    thicknessMm: piece.thicknessMm,
    digest: 'now',
    problems: checkCard(pattern),
    development,
    revision: piece.card.current,
    printed: null,
    fit: piece.fits[piece.fits.length - 1] ?? null,
    welds: piece.welds,
    inspections: piece.inspections,
    ...change,
  }) as Required<Road>;
};

test('a new piece starts at its card; nothing later claims to be done', () => {
  const road = roadFor('Step-well tray', {
    pattern: emptyPattern(),
    fit: null,
    welds: [],
    inspections: [],
  });
  expect(road.card.state).toBe('next');
  expect([road.blank, road.sheet, road.fit, road.weld].map((stop) => stop.state)).toEqual([
    'ahead',
    'ahead',
    'ahead',
    'ahead',
  ]);
});

test('the stops follow what was read and found', () => {
  const tray = roadFor('Step-well tray', { printed: { revision: 3, digest: null } });
  expect(tray).toMatchObject({
    card: { state: 'done' },
    sheet: { state: 'done' },
    fit: { state: 'done' },
    weld: { state: 'done' },
  });
  // By its number where the print does not say what it was made from; by that where it does.
  const sheet = (printed: Parameters<typeof roadOf>[0]['printed']) =>
    roadFor('Step-well tray', { printed, fit: null }).sheet.note;
  expect(sheet({ revision: 2, digest: null })).toBe('Changed since print');
  expect(sheet({ revision: 2, digest: 'now' })).toBe('Printed');
  expect(sheet({ revision: 3, digest: 'then' })).toBe('Changed since print');
  expect(roadFor('Battery shelf').fit.state).toBe('attention');
  const open = demoJob().pieces[0]!.inspections.map((i) => ({ ...i, remedy: '' }));
  expect(roadFor('Step-well tray', { inspections: open }).weld.state).toBe('attention');
});

test('exactly one stop is next, unless something before it wants mending first', () => {
  for (const piece of demoJob().pieces) {
    for (const revision of [null, 1, piece.card.current]) {
      const printed = revision === null ? null : { revision, digest: null };
      const road = roadFor(piece.name, { printed });
      const of = (state: string) =>
        stopsOn(road)
          .filter(([, stop]) => stop.state === state)
          .map(([{ key }]) => key);
      const [next, ahead] = [of('next'), of('ahead')];
      expect(next.length).toBeLessThanOrEqual(1);
      for (const key of ahead) expect(key).toBeGreaterThan(next[0] ?? 0);
      // A number once learnt stays with its stop.
      expect(stopsOn(road).map(([{ key }]) => key)).toEqual(
        piece.kind === 'made' ? [1, 2, 3, 4, 5, 6, 7] : [1, 2, 6, 7],
      );
    }
  }
});

test('a card with a fault has no blank and is what wants attention; a warning on the blank does not hold the road up', () => {
  const tray = demoJob().pieces[0]!.card.versions[2]!.doc;
  const first = tray.corners[0]!.id;
  const crossed = {
    ...tray,
    folds: [],
    corners: tray.corners.map((c) => (c.id === first ? { ...c, x: 700, y: 500 } : c)),
  };
  const broken = roadFor('Step-well tray', {
    pattern: crossed,
    fit: null,
    welds: [],
    inspections: [],
  });
  expect(broken.card).toMatchObject({
    state: 'attention',
    note: expect.stringContaining('to mend'),
  });
  expect(broken.blank).toMatchObject({ state: 'attention', note: 'No blank yet' });
  expect(stopsOn(broken).filter(([, { state }]) => state === 'next')).toEqual([]);

  const fold = { ...tray.folds[0]!, radiusMm: 0 };
  const near = {
    ...tray,
    holes: [{ id: 'h', x: 210, y: 5, diameterMm: 8 }],
    folds: [fold, ...tray.folds.slice(1)],
  };
  const warned = roadFor('Step-well tray', {
    pattern: near,
    fit: null,
    welds: [],
    inspections: [],
  });
  expect(warned.blank).toMatchObject({
    state: 'attention',
    note: expect.stringMatching(/^\d+ warning/),
  });
  expect(warned.sheet.state).toBe('next');
});

test('welds count by edge, and those of an edge that was made one with another still count', () => {
  const piece = demoJob().pieces[0]!;
  const pattern = piece.card.versions[2]!.doc;
  const joined = pattern.edges.filter((edge) => isJoined(edge.joint));
  expect(joined.length).toBe(2);
  const half = piece.welds.filter((weld) => weld.edge === joined[0]!.id);
  expect(roadFor('Step-well tray', { welds: half, inspections: [] }).weld).toMatchObject({
    note: '1 of 2 edges',
  });
  expect(roadFor('Step-well tray', { welds: [], inspections: [] }).weld.note).toBe('Not welded');
  const renamed = {
    ...pattern,
    edges: pattern.edges.map((edge) =>
      edge.id === joined[0]!.id
        ? { ...edge, id: 'new', was: [{ id: edge.id, letter: edge.letter, span: null }] }
        : edge,
    ),
  };
  expect(roadFor('Step-well tray', { pattern: renamed }).weld).toMatchObject({
    state: 'done',
    note: 'Welded',
  });
});

test('a trial with nothing read is no fit; one edge off is one edge off', () => {
  const piece = demoJob().pieces[1]!;
  const fit = piece.fits[0]!;
  const empty = { ...fit, edges: fit.edges.map((edge) => ({ ...edge, stations: [] })) };
  expect(roadFor('Battery shelf', { fit: empty }).fit).toMatchObject({
    state: expect.not.stringMatching('done'),
    note: 'Nothing read',
  });
  expect(roadFor('Battery shelf', { fit: null }).fit.note).toBe('Not tried');
  expect(roadFor('Battery shelf').fit).toMatchObject({ state: 'attention', note: '1 edge off' });
  const wider = {
    ...fit,
    edges: fit.edges.map((edge) => ({ ...edge, own: true, toleranceMm: 9, flushMm: 9 })),
  };
  expect(roadFor('Battery shelf', { fit: wider }).fit).toMatchObject({
    state: 'done',
    note: 'Fits',
  });
});

/** A run of things done to the sill plate, and a random card, told by what is left standing. */
type Deed =
  | { do: 'plugs'; edge: number; from: number; to: number }
  | { do: 'run'; edge: number }
  | { do: 'tacks'; edge: number }
  | { do: 'withdraw'; which: number }
  | { do: 'look'; edge: number; sound: boolean; remedy: boolean };

test('whatever is done and taken back in whatever order, green is borne by the records', () => {
  const piece = demoJob().pieces.find(({ name }) => name === 'Sill closing plate')!;
  const pattern = piece.card.versions[piece.card.current - 1]!.doc;
  const plan = piece.plan.versions[piece.plan.current - 1]?.doc ?? emptyPlan();
  const seams = seamsOf(pattern, plan, piece.thicknessMm, []);
  expect(seams).toHaveLength(3);
  const edge = fc.nat({ max: seams.length - 1 });
  const deed: fc.Arbitrary<Deed> = fc.oneof(
    fc
      .tuple(edge, fc.integer({ min: 1, max: 40 }), fc.nat({ max: 40 }))
      .map(([on, from, more]): Deed => ({ do: 'plugs', edge: on, from, to: from + more })),
    edge.map((on): Deed => ({ do: 'plugs', edge: on, from: 1, to: 60 })),
    edge.map((on): Deed => ({ do: 'run', edge: on })),
    edge.map((on): Deed => ({ do: 'tacks', edge: on })),
    fc.nat({ max: 20 }).map((which): Deed => ({ do: 'withdraw', which })),
    fc
      .tuple(edge, fc.boolean(), fc.boolean())
      .map(([on, sound, remedy]): Deed => ({ do: 'look', edge: on, sound, remedy })),
  );
  let green = 0;
  fc.assert(
    fc.property(
      fc.array(deed, { minLength: 1, maxLength: 14 }),
      fc.boolean(),
      (deeds, structural) => {
        const welds: WeldRecord[] = [];
        const inspections: InspectionRecord[] = [];
        const first = piece.welds[0]!;
        for (const one of deeds) {
          const id = 'edge' in one ? seams[one.edge]!.edge.id : '';
          if (one.do === 'withdraw') {
            const at = welds[one.which % Math.max(1, welds.length)];
            if (at) welds[welds.indexOf(at)] = { ...at, withdrawn: { at: first.at, why: 'slip' } };
          } else if (one.do === 'look')
            inspections.push({
              ...piece.inspections[0]!,
              edge: id,
              sound: one.sound,
              remedy: one.remedy ? 'put right' : '',
              withdrawn: null,
            } as InspectionRecord);
          else
            welds.push({
              ...first,
              edge: id,
              work: one.do === 'run' ? 'seam' : one.do,
              from: one.do === 'plugs' ? one.from : null,
              to: one.do === 'plugs' ? one.to : null,
              made: null,
              withdrawn: null,
            } as WeldRecord);
        }
        const { weld } = roadFor(piece.name, { welds, inspections, structural });
        const standing = welds.filter(({ withdrawn }) => !withdrawn);
        // By hand: each plug of each edge in some entry, or the edge run.
        const made = seams.every(({ edge: { id }, plugs }) => {
          const own = standing.filter((one) => one.edge === id);
          const numbers = new Set(
            own.flatMap(({ work, from, to }) =>
              work === 'plugs' && from !== null && to !== null
                ? Array.from({ length: to - from + 1 }, (_, i) => from + i)
                : [],
            ),
          );
          return (
            own.some(({ work }) => work === 'seam') ||
            (plugs.length > 0 && plugs.every((_, i) => numbers.has(i + 1)))
          );
        });
        const clean = inspections.every(({ sound, remedy }) => sound || remedy !== '');
        const seen = seams.every(({ edge: { id } }) => inspections.some((one) => one.edge === id));
        expect(weld.state === 'done').toBe(made && clean && (!structural || seen));
        if (weld.state === 'done') green++;
        else expect(weld.why.length + (standing.length === 0 ? 1 : 0)).toBeGreaterThan(0);
      },
    ),
    { numRuns: 600 },
  );
  expect(green).toBeGreaterThan(0);
});

test('one plug of many on a structural sill is one plug; a butt that is only tacked is tacked', () => {
  const piece = demoJob().pieces.find(({ name }) => name === 'Sill closing plate')!;
  const [entry] = piece.welds;
  const one = { ...entry!, from: 1, to: 1, made: null, work: 'plugs' as const };
  const road = roadFor(piece.name, { welds: [one], inspections: [], fit: null });
  expect(road.weld).toMatchObject({ state: expect.not.stringMatching('done') as string });
  expect(road.weld.why.join(' ')).toMatch(/1 of \d\d plugs/);
  const tray = demoJob().pieces[0]!;
  const tacked = tray.welds.filter(({ work }) => work !== 'seam');
  expect(roadFor(tray.name, { welds: tacked }).weld).toMatchObject({
    note: '1 of 2 edges',
    why: expect.arrayContaining([expect.stringContaining('tacked, not seamed')]) as string[],
  });
});

test('what nobody looked at is no tick; what was overtaken says so', () => {
  const tray = demoJob().pieces[0]!;
  const of = (change: Parameters<typeof roadFor>[1]) => roadFor(tray.name, change);
  expect(of({ survey: unsurveyed(), structural: true }).survey.state).toBe('unseen');
  expect(of({ survey: unsurveyed() }).survey).toMatchObject({
    state: 'unseen',
    note: 'Not looked at',
  });
  // Marked out by hand, or made by an older card, once it was tried in place.
  expect(of({ printed: null }).sheet).toMatchObject({
    state: 'overtaken',
    note: 'Marked out by hand',
  });
  expect(of({ printed: null, fit: null }).sheet.state).toBe('next');
  const fit = tray.fits[tray.fits.length - 1]!;
  expect(of({ fit: { ...fit, revision: 1 } }).fit).toMatchObject({ state: 'overtaken' });
  // A note on the card makes another revision of it, and the same blank: the trial stands.
  const digest = 'the same blank';
  const noted = of({ digest, fit: { ...fit, revision: 1, digest } });
  expect(noted.fit.state).toBe(of({}).fit.state);
  expect(of({ digest, fit: { ...fit, revision: 1, digest: 'another' } }).fit.state).toBe(
    'overtaken',
  );
  // Nothing joined: one edge of six that was read is not a fit.
  const free = tray.card.versions[2]!.doc;
  const pattern = {
    ...free,
    edges: free.edges.map((edge) => ({ ...edge, joint: { kind: 'free', trimMm: 0 } as const })),
  };
  const loose = fit.edges.map((edge) => ({ ...edge, own: true, toleranceMm: 9, flushMm: 9 }));
  expect(of({ pattern, fit: { ...fit, edges: loose.slice(0, 1) } }).fit).toMatchObject({
    note: expect.stringMatching(/^1 of \d+ edges read$/) as string,
  });
});

test('a step done to other figures, or with none of what it counts, is not shaped', () => {
  const step: ShapeStep = {
    key: 'strain e1 0',
    what: 'strain',
    about: ['e1'],
    reason: 'shrink-evenly',
    figures: { freeMm: 400, changeMm: -18 },
    counts: { of: 'bites', wanted: 84 },
  };
  const work = { ...noWork(), done: '2026-10-01T10:00:00.000Z' };
  const shape = (one: Partial<StepWork>) =>
    roadFor('Rear arch lip', {
      steps: [step],
      shaping: { ...unshaped(), work: { [step.key]: { ...work, ...one } } },
      fit: null,
    }).shape;
  expect(shape({ count: 84, as: step.figures })).toMatchObject({ state: 'done', note: 'Shaped' });
  expect(shape({ count: 0, as: step.figures }).note).toBe('1 step not counted');
  expect(shape({ count: 0, note: 'on the wheel instead' }).state).toBe('done');
  expect(shape({ count: 84, as: { freeMm: 400, changeMm: -60 } })).toMatchObject({
    state: 'overtaken',
    note: 'Made by an older card',
  });
});
