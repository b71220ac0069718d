import fc from 'fast-check';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import { outlineByTape } from './byTape';
import { emptyPattern } from './emptyPattern';
import { patternFigure, placesOf, withHolePattern, withPatternFigure } from './holePattern';
import type { HolePattern } from './holePattern';
import { countingIds } from './kinds';
import { isMet, offNow } from './rule/cardRules';

const off = fc.tuple(spread(-60, 60), spread(-60, 60));
const outline = fc.tuple(off, off, off, off, off).map((list) =>
  [
    [0, 0],
    [500, 0],
    [560, 240],
    [260, 330],
    [-40, 260],
  ].map(([x, y], i): Vec => [x! + list[i]![0], y! + list[i]![1]]),
);
const PAIRS = [
  [0, 1],
  [1, 2],
  [2, 3],
  [3, 4],
  [4, 0],
  [0, 2],
  [0, 3],
  [1, 3],
  [2, 4],
  [1, 4],
] as const;
const taped = (at: readonly Vec[]) =>
  PAIRS.map(([from, to]) => ({ from, to, mm: distance(at[from]!, at[to]!) }));

test('corner to corner and across gives the outline back, whichever way round it was gone; the tape that is off is named', () => {
  fc.assert(
    fc.property(outline, fc.boolean(), (at, over) => {
      const given = over ? [...at].reverse() : at;
      const found = outlineByTape(5, taped(given), 1);
      if (!found.ok) throw new Error(JSON.stringify(found.problems));
      for (let i = 0; i < 5; i++)
        for (let j = 0; j < i; j++)
          expect(distance(found.corners[i]!, found.corners[j]!)).toBeCloseTo(
            distance(given[i]!, given[j]!),
            4,
          );
      const around = found.corners.reduce(
        (sum, p, i) =>
          sum + p[0] * found.corners[(i + 1) % 5]![1] - p[1] * found.corners[(i + 1) % 5]![0],
        0,
      );
      expect(around).toBeGreaterThan(0);
      expect(found).toMatchObject({ redundancy: 3, suspect: null });
    }),
    { numRuns: 60 },
  );
  // On a plain one, whichever tape is misread by 12 mm is the one that is named.
  const plain: Vec[] = [
    [0, 0],
    [500, 0],
    [560, 240],
    [260, 430],
    [-40, 260],
  ];
  PAIRS.forEach((_, wrong) => {
    const misread = taped(plain).map((tape, i) =>
      i === wrong ? { ...tape, mm: tape.mm + 12 } : tape,
    );
    expect(outlineByTape(5, misread, 1)).toMatchObject({ ok: true, suspect: wrong });
  });
});

test('what the tapes leave open is told: a four-cornered card without a diagonal', () => {
  const sides = [0, 1, 2, 3].map((from) => ({ from, to: (from + 1) % 4, mm: 100 }));
  expect(outlineByTape(4, sides, 1)).toMatchObject({
    ok: false,
    problems: [{ code: 'undetermined' }],
  });
  expect(outlineByTape(2, [], 1)).toMatchObject({
    ok: false,
    problems: [{ code: 'too-few-corners' }],
  });
});

test('patterns of holes meet the rules they are put in with, wherever and however turned', () => {
  const kinds = fc.oneof(
    fc.record({
      kind: fc.constant('row' as const),
      count: fc.integer({ min: 1, max: 12 }),
      pitchMm: spread(10, 90),
    }),
    fc.record({
      kind: fc.constant('circle' as const),
      count: fc.integer({ min: 2, max: 12 }),
      acrossMm: spread(20, 300),
    }),
    fc.record({
      kind: fc.constant('rectangle' as const),
      longMm: spread(20, 300),
      wideMm: spread(20, 300),
    }),
  );
  const any = fc
    .tuple(kinds, fc.tuple(spread(-200, 200), spread(-200, 200)), spread(-180, 180), spread(3, 12))
    .map(([kind, at, turnDeg, diameterMm]): HolePattern => ({ ...kind, at, turnDeg, diameterMm }));
  fc.assert(
    fc.property(any, (pattern) => {
      const doc = withHolePattern(emptyPattern(), pattern, countingIds('h'));
      expect(doc.holes).toHaveLength(pattern.kind === 'rectangle' ? 4 : pattern.count);
      for (const rule of offNow(doc)) expect(isMet(rule)).toBe(true);
      for (const rule of doc.rules) {
        const figure = patternFigure(doc, rule);
        if (figure)
          expect(figure.mm).toBeCloseTo(
            figure.what === 'size'
              ? pattern.diameterMm
              : pattern.kind === 'row'
                ? pattern.pitchMm
                : pattern.kind === 'circle'
                  ? pattern.acrossMm
                  : NaN,
            9,
          );
        // Drawn out it is the same pattern, with that figure.
        const other = withPatternFigure(doc, rule, 33);
        if (figure) expect(patternFigure(other, rule)!.mm).toBeCloseTo(33, 9);
        for (const off of offNow(other)) expect(isMet(off)).toBe(true);
      }
      const [a, b] = placesOf(pattern);
      if (pattern.kind === 'row' && pattern.count > 1)
        expect(distance(a!, b!)).toBeCloseTo(pattern.pitchMm, 9);
      if (pattern.kind === 'circle')
        for (const p of placesOf(pattern))
          expect(distance(p, pattern.at)).toBeCloseTo(pattern.acrossMm / 2, 9);
    }),
    { numRuns: 80 },
  );
});
