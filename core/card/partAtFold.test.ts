import fc from 'fast-check';
import { cardOf, cardTree, given } from '../blank/fold/cardTree.arbitrary';
import { develop } from '../blank/fold/develop';
import { DEFAULT_SHOP, sheetMetal } from '../blank/fold/practice';
import { area } from '../measure/path';
import { spread } from '../measure/spread.arbitrary';
import { distance } from '../measure/vector';
import { metalById } from '../metal/metals';
import { checkCard } from './check';
import { emptyPattern } from './emptyPattern';
import { endsOfFold } from './foldPlace';
import { countingIds } from './kinds';
import { outlineFromPoints } from './legs';
import { edgeLength, outlineOf, patternParts } from './outline';
import { partAtFold } from './partAtFold';
import { readPattern } from './read';
import type { CardConvention } from './kinds';
import type { PatternDoc } from './pattern';

const areaOf = (doc: PatternDoc) => area(outlineOf(doc).path);
const stops = (doc: PatternDoc) => checkCard(doc).filter(({ severity }) => severity === 'stop');

test('cut apart along any fold: nothing is lost but what is drawn back, every other fold stays where it is', () => {
  let drawnBack = 0;
  fc.assert(
    fc.property(cardTree, spread(0, 2), fc.boolean(), (tree, mm, back) => {
      const { doc, sheet, practice } = given(cardOf(tree));
      const backMm = back ? mm : 0;
      for (const { id } of doc.folds) {
        const parts = partAtFold(doc, id, backMm, countingIds('n'));
        if (!parts) {
          // Only where a neighbour's wall is in the way of drawing back.
          expect(backMm).toBeGreaterThan(0);
          continue;
        }
        if (backMm > 0) drawnBack++;
        const ends = endsOfFold(
          doc,
          doc.folds.find((fold) => fold.id === id)!,
        )!;
        const seams = parts.map(({ card, seam }) =>
          edgeLength(
            card,
            card.edges.find((edge) => edge.id === seam)!,
          ),
        );
        const off = seams.reduce((sum, long) => sum + (backMm * (long + distance(...ends))) / 2, 0);
        const kept = parts.reduce((sum, { card }) => sum + areaOf(card), 0);
        expect(kept).toBeCloseTo(areaOf(doc) - off, 4);
        expect(parts.flatMap(({ card }) => card.folds.map((fold) => fold.id)).sort()).toEqual(
          doc.folds.flatMap((fold) => (fold.id === id ? [] : [fold.id])).sort(),
        );
        for (const { card } of parts) {
          expect(readPattern(card).ok).toBe(true);
          expect(stops(card)).toEqual([]);
          expect(develop(card, sheet, practice).ok).toBe(true);
          for (const fold of card.folds) {
            const was = endsOfFold(
              doc,
              doc.folds.find((one) => one.id === fold.id)!,
            )!;
            const is = endsOfFold(card, fold)!;
            for (const k of [0, 1] as const) expect(distance(was[k], is[k])).toBeLessThan(0.01);
          }
        }
      }
    }),
    { numRuns: 40 },
  );
  expect(drawnBack).toBeGreaterThan(20);
});

test('what is laid along an edge of the other part, holes, beads and rules go with their part', () => {
  const built = outlineFromPoints([
    [0, 0],
    [200, 0],
    [200, 120],
    [0, 120],
  ]);
  if (!built.ok) throw new Error('no outline');
  const plain: PatternDoc = { ...emptyPattern(), ...patternParts(built.path, countingIds('s')) };
  const [low] = plain.sides.map(({ id }) => id) as [string];
  const fold = (id: string, inMm: number, convention: CardConvention) => ({
    ...{ id, path: { kind: 'along' as const, side: low, inMm }, angleDeg: 90, convention },
    ...{ toward: 'face' as const, radiusMm: 2 },
  });
  const bead = (id: string, y: number) => ({
    ...{ id, path: { kind: 'between' as const, from: [40, y], to: [160, y], bulge: 0 } },
    ...{ section: { kind: 'arc' as const, widthMm: 8, heightMm: 2 }, toward: 'face' as const },
    ...{ drawsIn: null, acrossRadiusMm: null, acrossOn: null, atFolds: null, meets: null },
  });
  const card = (convention: CardConvention): PatternDoc => ({
    ...plain,
    folds: [fold('f', 30, convention), fold('g', 80, convention)],
    holes: [10, 100].map((y) => ({ id: `h${y}`, x: 20, y, diameterMm: 5 })),
    beads: [bead('b', 50) as PatternDoc['beads'][number]],
    // From rim to rim: one on each part, and one over the fold, which is scribed on both.
    marks: [
      ['low', 0, 15, 200, 15],
      ['high', 0, 60, 200, 60],
      ['over', 100, 0, 100, 120],
    ].map(([id, ax, ay, bx, by]) => ({
      ...{ id: id as string, name: '', from: [ax, ay] as [number, number] },
      to: [bx, by] as [number, number],
    })),
    rules: [
      { id: 'own', kind: 'same-size', holes: ['h10', 'h100'] },
      { id: 'parallel', kind: 'parallel', sides: ['g', plain.sides[2]!.id] },
    ],
  });
  const steel = sheetMetal(metalById('dc01'), 1.5, DEFAULT_SHOP);
  for (const made of ['outside-sharp', 'inside-sharp'] as const) {
    const doc = card(made);
    const found = develop(doc, steel, DEFAULT_SHOP);
    if (!found.ok) throw new Error(JSON.stringify(found.problems));
    const { setbackMm, allowance } = found.development.folds[0]!;
    const [stays, other] = partAtFold(
      doc,
      'f',
      setbackMm - allowance.insideSetbackMm,
      countingIds('n'),
    )!;
    // Two plates whose inner corners touch, outside 30 and so on: each is its outside figure less
    // the thickness; measured inside, all of it.
    const less = made === 'outside-sharp' ? 1.5 : 0;
    expect(areaOf(other.card)).toBeCloseTo(200 * (30 - less), 6);
    expect(areaOf(stays.card)).toBeCloseTo(200 * (90 - less), 6);
    expect(stays.card.folds.map(({ id }) => id)).toEqual(['g']);
    expect(endsOfFold(stays.card, stays.card.folds[0]!)!.map(([, y]) => y)).toEqual([80, 80]);
    expect([other, stays].map(({ card }) => card.holes.map(({ id }) => id))).toEqual([
      ['h10'],
      ['h100'],
    ]);
    expect([other, stays].map(({ card }) => card.beads.length)).toEqual([0, 1]);
    expect([other, stays].map(({ card }) => card.marks.map(({ id }) => id))).toEqual([
      ['low', 'over'],
      ['high', 'over'],
    ]);
    expect([other, stays].map(({ card }) => card.rules.map(({ id }) => id))).toEqual([
      [],
      ['parallel'],
    ]);
  }
  // A bead over the fold would be cut: it is not done.
  const over = { ...card('inside-sharp'), beads: [bead('b', 50)] as PatternDoc['beads'] };
  over.beads[0]!.path = { kind: 'between', from: [100, 20], to: [100, 50], bulge: 0 };
  expect(partAtFold(over, 'f', 0, countingIds('n'))).toBeNull();
  expect(partAtFold({ ...plain, folds: [] }, 'f', 0, countingIds('n'))).toBeNull();
});
