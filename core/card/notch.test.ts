import fc from 'fast-check';
import { develop } from '../blank/fold/develop';
import { DEFAULT_SHOP, sheetMetal } from '../blank/fold/practice';
import { spread } from '../measure/spread.arbitrary';
import { metalById } from '../metal/metals';
import { checkCard } from './check';
import { emptyPattern } from './emptyPattern';
import { countingIds } from './kinds';
import { outlineFromPoints } from './legs';
import { canNotch, notched } from './notch';
import { edgeLength, patternParts } from './outline';
import type { Fold, PatternDoc } from './pattern';

/** A plate with an upturned edge along two of its neighbouring sides. */
function plate(l: number, w: number, ins: [number, number], first: number): PatternDoc {
  const built = outlineFromPoints([
    [0, 0],
    [l, 0],
    [l, w],
    [0, w],
  ]);
  if (!built.ok) throw new Error('no outline');
  const doc = { ...emptyPattern(), ...patternParts(built.path, countingIds('s')) };
  const fold = (k: number): Fold => ({
    id: `f${k}`,
    path: { kind: 'along', side: doc.sides[(first + k) % 4]!.id, inMm: ins[k]! },
    angleDeg: 90,
    toward: 'face',
    radiusMm: null,
    convention: 'outside-sharp',
  });
  return { ...doc, folds: [fold(0), fold(1)] };
}

test('two upturned edges on neighbouring sides: the corner is notched, and the piece folds with walls that meet', () => {
  const steel = sheetMetal(metalById('dc04'), 1, DEFAULT_SHOP);
  fc.assert(
    fc.property(
      spread(150, 400),
      spread(150, 400),
      spread(12, 40),
      spread(12, 40),
      fc.nat({ max: 3 }),
      fc.boolean(),
      (l, w, a, b, first, otherWay) => {
        const card = plate(l, w, [a, b], first);
        expect(checkCard(card).map(({ code }) => code)).toContain('folds-cross');
        expect(canNotch(card, 'f0', 'f1')).toBe(true);
        const found = notched(
          card,
          ...((otherWay ? ['f1', 'f0'] : ['f0', 'f1']) as [string, string]),
          countingIds('n'),
        );
        if (!found.ok) throw new Error(JSON.stringify(found.problems));
        const { doc } = found;
        expect(checkCard(doc).filter(({ severity }) => severity === 'stop')).toEqual([]);
        // The edges there were are there, each shorter by the notch; two new ones are its sides.
        expect(doc.edges).toHaveLength(6);
        const long = card.edges.map((edge) => edgeLength(card, edge));
        const left = card.edges.map(({ id }) =>
          edgeLength(
            doc,
            doc.edges.find((edge) => edge.id === id)!,
          ),
        );
        const [p, q] = [first % 4, (first + 1) % 4];
        left.forEach((mm, i) => {
          const k =
            doc.edges.length && card.edges[i]!.sides.includes(card.sides[p]!.id)
              ? b
              : card.edges[i]!.sides.includes(card.sides[q]!.id)
                ? a
                : 0;
          expect(mm).toBeCloseTo(long[i]! - k, 6);
        });
        const made = develop(doc, steel, DEFAULT_SHOP);
        if (!made.ok) throw new Error(JSON.stringify(made.problems));
        // Neither wall reaches into the other.
        expect(made.development.corners).toHaveLength(1);
        for (const mm of made.development.corners[0]!.cutMm) expect(mm).toBeCloseTo(1, 6);
      },
    ),
    { numRuns: 60 },
  );
  const apart = plate(200, 100, [15, 15], 0);
  expect(
    notched({ ...apart, folds: apart.folds.slice(0, 1) }, 'f0', 'f1', countingIds()),
  ).toMatchObject({ ok: false, problems: [{ code: 'no-corner-to-notch' }] });
});
