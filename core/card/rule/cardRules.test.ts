import fc from 'fast-check';
import { removeCorner, splitSide } from '../edit';
import { endsOfFold } from '../foldPlace';
import { spread } from '../../measure/spread.arbitrary';
import { emptyPattern } from '../emptyPattern';
import { countingIds } from '../kinds';
import { outlineFromPoints } from '../legs';
import { mirrored } from '../mirror';
import { outlineOf, patternParts, segmentOfSide } from '../outline';
import type { CardRule, FoldPath, PatternDoc } from '../pattern';
import { readPattern } from '../read';
import { curveOfCard } from '../tucksOnCard';
import { isMet, keptToRules, offNow, ruledCard } from './cardRules';
import { partsOf } from './dependents';
import { suggestedRules } from './suggestedRules';

function card(points: [number, number][], holes: [number, number][] = []): PatternDoc {
  const built = outlineFromPoints(points);
  if (!built.ok) throw new Error();
  const doc = { ...emptyPattern(), ...patternParts(built.path, countingIds('s')) };
  return { ...doc, holes: holes.map(([x, y], i) => ({ id: `h${i}`, x, y, diameterMm: 6 })) };
}
const rough = () =>
  card(
    [
      [0, 0],
      [400, 3],
      [398, 251],
      [1, 244],
    ],
    [
      [60, 60],
      [118, 63],
      [181, 58],
    ],
  );
const side = (doc: PatternDoc, i: number) => doc.sides[i]!.id;
const rules = (doc: PatternDoc): CardRule[] => [
  { id: 'r1', kind: 'parallel', sides: [side(doc, 1), side(doc, 3)] },
  { id: 'r2', kind: 'square', sides: [side(doc, 0), side(doc, 1)] },
  { id: 'r3', kind: 'length', sides: [side(doc, 0)], mm: 402 },
  { id: 'r4', kind: 'pitch', holes: ['h0', 'h1', 'h2'] },
];

test('rules stay met whatever corner is dragged, and the corner stays where it was put if it can', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 3 }),
      fc.integer({ min: -60, max: 60 }),
      fc.integer({ min: -60, max: 60 }),
      (k, dx, dy) => {
        const plain = rough();
        const first = ruledCard({ ...plain, rules: rules(plain) });
        if (!first.ok) throw new Error(JSON.stringify(first));
        const { doc } = first;
        const moved = {
          ...doc,
          corners: doc.corners.map((c, i) => (i === k ? { ...c, x: c.x + dx, y: c.y + dy } : c)),
        };
        const kept = keptToRules(doc, moved);
        for (const off of offNow(kept)) expect(isMet(off)).toBe(true);
        expect(readPattern(JSON.parse(JSON.stringify(kept))).ok).toBe(true);
        expect(
          Math.hypot(
            kept.corners[k]!.x - moved.corners[k]!.x,
            kept.corners[k]!.y - moved.corners[k]!.y,
          ),
        ).toBeLessThan(1e-6);
      },
    ),
    { numRuns: 60 },
  );
});

test('what contradicts is named by id, and nothing moves', () => {
  const plain = rough();
  const both: CardRule[] = [
    ...rules(plain),
    { id: 'r9', kind: 'length', sides: [side(plain, 0)], mm: 300 },
  ];
  expect(ruledCard({ ...plain, rules: both })).toMatchObject({
    ok: false,
    problems: [{ code: 'rules-contradict', about: ['r3', 'r9'] }],
  });
  // An edit under rules that cannot be met stands as it was made.
  const edited = { ...plain, rules: both };
  expect(keptToRules(plain, edited)).toBe(edited);
});

test('holes of one size: the mean of them, then whatever one of them is made by hand; a third taken out, the two go on', () => {
  const plain = rough();
  const sized = { ...plain, holes: plain.holes.map((hole, i) => ({ ...hole, diameterMm: 6 + i })) };
  const rule: CardRule = { id: 'z', kind: 'same-size', holes: ['h0', 'h1', 'h2'] };
  const sizes = (doc: typeof plain) => doc.holes.map(({ diameterMm }) => diameterMm);
  expect(offNow(sized, [rule])[0]).toMatchObject({ offMm: 2, leastMm: 6, mostMm: 8 });
  const done = ruledCard({ ...sized, rules: [...rules(sized), rule] });
  if (!done.ok) throw new Error(JSON.stringify(done));
  expect(sizes(done.doc)).toEqual([7, 7, 7]);
  expect(done.asMeasured.at(-1)).toMatchObject({ rule: 4, offMm: 2 });
  const drilled = keptToRules(done.doc, {
    ...done.doc,
    holes: done.doc.holes.map((hole) => (hole.id === 'h1' ? { ...hole, diameterMm: 8.5 } : hole)),
  });
  expect(sizes(drilled)).toEqual([8.5, 8.5, 8.5]);
  const two = keptToRules(drilled, { ...drilled, holes: drilled.holes.slice(1) });
  expect(two.rules.find(({ id }) => id === 'z')).toMatchObject({ holes: ['h1', 'h2'] });
  expect(readPattern(JSON.parse(JSON.stringify(two))).ok).toBe(true);
});

test('corners on one arc: the sides between them are arcs of it', () => {
  const plain = card([
    [0, 0],
    [300, 0],
    [300, 100],
    [220, 132],
    [150, 141],
    [80, 131],
    [0, 100],
  ]);
  const corners = [2, 3, 4, 5, 6].map((i) => plain.sides[i]!.from);
  const found = ruledCard({ ...plain, rules: [{ id: 'a', kind: 'arc', corners }] });
  if (!found.ok) throw new Error();
  const bulges = outlineOf(found.doc)
    .path.slice(2, 6)
    .map(({ bulge }) => bulge);
  for (const bulge of bulges) expect(bulge).toBeGreaterThan(0.03);
  expect(found.movedMm).toBeLessThan(5);
});

test('what looks meant is offered with the measured truth, until it is ruled or left', () => {
  const plain = rough();
  const kinds = (doc: PatternDoc) =>
    suggestedRules(doc, countingIds('o')).map(
      ({ rule }) =>
        `${rule.kind} ${'sides' in rule ? rule.sides.map((id) => doc.sides.findIndex((s) => s.id === id)).join() : ''}`,
    );
  expect(kinds(plain)).toContain('parallel 0,2');
  expect(suggestedRules(plain, countingIds('o'))[0]!.off.offMm).toBeGreaterThan(0.2);
  expect(
    kinds({
      ...plain,
      dismissedRules: [{ kind: 'parallel', sides: [side(plain, 0), side(plain, 2)] }],
    }),
  ).not.toContain('parallel 0,2');
  // A true rectangle asks nothing.
  expect(
    kinds(
      card([
        [0, 0],
        [400, 0],
        [400, 250],
        [0, 250],
      ]),
    ),
  ).toEqual([]);
});

test('what rules and tucks hang on may be taken away, split or turned over', () => {
  const plain = rough();
  const doc: PatternDoc = {
    ...plain,
    rules: rules(plain),
    dismissedRules: [{ kind: 'parallel', sides: [side(plain, 0), side(plain, 2)] }],
    tucks: [
      {
        id: 't',
        kind: 'tuck',
        at: { side: side(plain, 2), startMm: 50 },
        widthMm: 12,
        depthMm: 80,
      },
    ],
  };
  const less = removeCorner(doc, doc.corners[2]!.id);
  if (!less.ok) throw new Error();
  const kept = keptToRules(doc, less.doc);
  expect(readPattern(kept).ok).toBe(true);
  const split = splitSide(doc, side(plain, 2), 0.3, countingIds('n'));
  if (!split.ok) throw new Error();
  expect(readPattern(keptToRules(doc, split.doc)).ok).toBe(true);
  const over = mirrored(mirrored(doc));
  expect(over.tucks).toEqual(doc.tucks);
  // 2·atan(6/80) over the card's own area.
  const curve = curveOfCard(doc);
  expect(curve).toMatchObject({ ok: true, shape: 'bowl', totalDeg: expect.closeTo(8.578, 3) });
  expect(
    readPattern({ ...doc, rules: [{ id: 'x', kind: 'length', sides: ['gone'], mm: 3 }] }),
  ).toMatchObject({ ok: false, problems: [{ code: 'document-reference-gone', about: ['x'] }] });
});

test('a fold among the rules slides on the sides it ends on, keeps to corners and arcs, and stays where the hand put an end', () => {
  const way = (doc: PatternDoc, id: string) => {
    const fold = doc.folds.find((f) => f.id === id);
    const [a, b] = fold
      ? endsOfFold(doc, fold)!
      : [segmentOfSide(doc, id)!.a, segmentOfSide(doc, id)!.b];
    return Math.atan2(b[1] - a[1], b[0] - a[0]);
  };
  const turned = (doc: PatternDoc, a: string, b: string) =>
    Math.abs(Math.sin(way(doc, a) - way(doc, b)));
  const fold = (id: string, path: FoldPath) =>
    ({
      id,
      path,
      angleDeg: 90,
      toward: 'face',
      radiusMm: null,
      convention: 'outside-sharp',
    }) as const;
  fc.assert(
    fc.property(
      spread(30, 120),
      spread(-9, 9),
      spread(-9, 9),
      spread(-0.4, 0.4),
      fc.constantFrom('share', 'startMm', 'endMm'),
      fc.boolean(),
      (up, tilt, lean, bulge, how, inches) => {
        const k = inches ? 25.4 : 1;
        const plain = card([
          [0, 0],
          [400 * k, 3],
          [(398 + lean) * k, 251 * k],
          [1, (244 + tilt) * k],
        ]);
        const [bottom, right, top, leftSide] = plain.sides.map(({ id }) => id) as [
          string,
          string,
          string,
          string,
        ];
        const arc = {
          ...plain,
          sides: plain.sides.map((s, i) =>
            i === 2 && Math.abs(bulge) > 0.01
              ? { ...s, shape: { kind: 'arc', bulge } as const }
              : s,
          ),
        };
        const at = (side: string, mm: number, long: number) =>
          how === 'share'
            ? { side, share: mm / long }
            : how === 'startMm'
              ? { side, startMm: mm }
              : { side, endMm: long - mm };
        const doc: PatternDoc = {
          ...arc,
          folds: [
            fold('across', {
              kind: 'between',
              from: at(right, (up + tilt) * k, 248 * k),
              to: at(leftSide, (244 - up) * k, 244 * k),
            }),
            fold('beside', { kind: 'along', side: right, inMm: 60 * k }),
            fold('corner', {
              kind: 'between',
              from: { side: bottom, startMm: 200 * k },
              to: { side: top, share: 1 },
            }),
          ],
          rules: [
            { id: 'r1', kind: 'parallel', sides: [bottom, 'across'] },
            { id: 'r2', kind: 'square', sides: [bottom, 'beside'] },
            { id: 'r3', kind: 'width', sides: [bottom, 'across'], mm: 70 * k },
            { id: 'r4', kind: 'length', sides: ['corner'], mm: 320 * k },
          ],
        };
        const done = ruledCard(doc);
        if (!done.ok) throw new Error(JSON.stringify(done));
        expect(turned(done.doc, bottom, 'across')).toBeLessThan(1e-7);
        expect(Math.abs(turned(done.doc, bottom, 'beside') - 1)).toBeLessThan(1e-7);
        const [c, d] = endsOfFold(done.doc, done.doc.folds[2]!)!;
        expect(Math.hypot(c[0] - d[0], c[1] - d[1])).toBeCloseTo(320 * k, 5);
        expect(Object.keys((done.doc.folds[0]!.path as { from: object }).from)).toEqual([
          'side',
          how,
        ]);
        expect(done.doc.folds[2]!.path).toMatchObject({ to: { side: top, share: 1 } });
        for (const off of offNow(done.doc)) expect(isMet(off)).toBe(true);
        // One end put elsewhere by hand: it stays there, the other end follows.
        const path = done.doc.folds[0]!.path as Extract<FoldPath, { kind: 'between' }>;
        const by = {
          ...done.doc,
          rules: done.doc.rules.slice(0, 2),
          folds: done.doc.folds.map((f, i) =>
            i === 0 ? { ...f, path: { ...path, from: { side: right, startMm: 150 * k } } } : f,
          ),
        };
        const kept = keptToRules(done.doc, by);
        expect((kept.folds[0]!.path as typeof path).from).toEqual({
          side: right,
          startMm: expect.closeTo(150 * k, 6),
        });
        for (const off of offNow(kept)) expect(isMet(off)).toBe(true);
        expect(readPattern(JSON.parse(JSON.stringify(kept))).ok).toBe(true);
        // Taken out, its rules go with it; ones that cannot be met on the side say so.
        expect(
          keptToRules(kept, { ...kept, folds: kept.folds.slice(1) }).rules.map(({ id }) => id),
        ).toEqual(['r2']);
        const far = ruledCard({
          ...doc,
          rules: [
            { id: 'f', kind: 'width', sides: [bottom, 'across'], mm: 330 * k },
            { id: 'h', kind: 'length', sides: [right], mm: 248 * k },
            { id: 'i', kind: 'square', sides: [bottom, right] },
          ],
        });
        expect(far).toMatchObject({
          ok: false,
          problems: [{ code: 'fold-leaves-side', about: ['f'] }],
        });
      },
    ),
    { numRuns: 60 },
  );
});

test('a fold that looks parallel to a side is offered with how far it is out', () => {
  const plain = card([
    [0, 0],
    [400, 0],
    [400, 250],
    [0, 250],
  ]);
  const [bottom, right, , leftSide] = plain.sides.map(({ id }) => id) as [
    string,
    string,
    string,
    string,
  ];
  const path: FoldPath = {
    kind: 'between',
    from: { side: right, startMm: 60 },
    to: { side: leftSide, endMm: 64 },
  };
  const doc: PatternDoc = {
    ...plain,
    folds: [
      { id: 'f', path, angleDeg: 90, toward: 'face', radiusMm: null, convention: 'outside-sharp' },
    ],
  };
  const offers = suggestedRules(doc, countingIds('o')).map(
    ({ rule, off }) => [rule.kind, partsOf(rule), off.offMm] as const,
  );
  expect(offers).toContainEqual(['parallel', [bottom, 'f'], expect.closeTo(4, 3)]);
});
