import { develop } from '#core/blank/fold/develop';
import { USUAL_SHOP, sheetMetal } from '#core/blank/fold/practice';
import { checkCard } from '#core/card/check';
import { emptyPattern } from '#core/card/emptyPattern';
import { metalById } from '#core/metal/metals';
import { unshaped } from '#core/shape/shaping';
import { unsurveyed } from '#core/survey/pieceSurvey';
import { emptyPlan } from '#core/weld/emptyPlan';
import { isJoined } from '#core/weld/start';
import { demoJob } from '../../demo/job';
import { STAGES, roadOf } from './stages';

const roadFor = (name: string, change: Partial<Parameters<typeof roadOf>[0]> = {}) => {
  const piece = demoJob().pieces.find((p) => p.name === name)!;
  const pattern = change.pattern ?? piece.card.versions[piece.card.current - 1]!.doc;
  const development = develop(
    pattern,
    sheetMetal(metalById(piece.metal), piece.thicknessMm, USUAL_SHOP),
    USUAL_SHOP,
  );
  return roadOf({
    steps: [],
    shaping: unshaped(),
    survey: unsurveyed(),
    surveyWarnings: [],
    pattern,
    plan: piece.plan.versions[piece.plan.current - 1]?.doc ?? emptyPlan(),
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
  });
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
    roadFor('Step-well tray', { printed }).sheet.note;
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
      const next = STAGES.filter(({ id }) => road[id].state === 'next');
      const ahead = STAGES.filter(({ id }) => road[id].state === 'ahead');
      expect(next.length).toBeLessThanOrEqual(1);
      if (next[0]) for (const stage of ahead) expect(stage.key).toBeGreaterThan(next[0].key);
      // A number once learnt stays with its stop.
      expect(STAGES.map(({ key }) => key)).toEqual([1, 2, 3, 4, 5, 6, 7]);
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
  expect(broken.blank).toEqual({ state: 'attention', note: 'No blank yet' });
  expect(STAGES.filter(({ id }) => broken[id].state === 'next')).toEqual([]);

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
  expect(roadFor('Step-well tray', { pattern: renamed }).weld).toEqual({
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
  expect(roadFor('Battery shelf').fit).toEqual({ state: 'attention', note: '1 edge off' });
  const wider = {
    ...fit,
    edges: fit.edges.map((edge) => ({ ...edge, own: true, toleranceMm: 9, flushMm: 9 })),
  };
  expect(roadFor('Battery shelf', { fit: wider }).fit).toEqual({ state: 'done', note: 'Fits' });
});
