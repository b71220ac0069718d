import fc from 'fast-check';
import { moveCorner } from '#core/card/edit';
import { emptyPattern } from '#core/card/emptyPattern';
import { alongEdge } from '#core/card/foldPlace';
import { countingIds } from '#core/card/kinds';
import { outlineFromPoints } from '#core/card/legs';
import { edgeLength, patternParts, segmentsOfEdge } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { pointAlong } from '#core/measure/run';
import { spread } from '#core/measure/spread.arbitrary';
import type { Vec } from '#core/measure/vector';
import { distance } from '#core/measure/vector';
import { asItLies, keyStep, movedAlong, placeOn } from './hand';

/** A round-about card, some sides bowed, the first two sides one edge. */
const card: fc.Arbitrary<PatternDoc> = fc
  .array(fc.record({ r: spread(60, 120), bulge: spread(-0.3, 0.3), bowed: fc.boolean() }), {
    minLength: 4,
    maxLength: 8,
  })
  .map((list) => {
    const built = outlineFromPoints(
      list.map(({ r }, i): Vec => [
        r * Math.cos((2 * Math.PI * i) / list.length),
        r * Math.sin((2 * Math.PI * i) / list.length),
      ]),
    );
    if (!built.ok) throw new Error('no outline');
    const path = built.path.map((s, i) => (list[i]!.bowed ? { ...s, bulge: list[i]!.bulge } : s));
    const parts = patternParts(path, countingIds());
    const [first, second, ...rest] = parts.edges;
    return {
      ...emptyPattern(),
      ...parts,
      edges: [{ ...first!, sides: [...first!.sides, ...second!.sides] }, ...rest],
    };
  });

test('a place so far along an edge is there on the metal, whatever sides the edge has, and never off its ends', () => {
  fc.assert(
    fc.property(card, fc.nat(7), spread(-50, 400), (doc, which, mm) => {
      const edge = doc.edges[which % doc.edges.length]!;
      const long = edgeLength(doc, edge);
      const place = placeOn(doc, edge, mm)!;
      const held = Math.min(long, Math.max(0, mm));
      expect(alongEdge(doc, place.spot)!.atMm).toBeCloseTo(held, 6);
      expect(distance(place.point, pointAlong(segmentsOfEdge(doc, edge), held)!)).toBeLessThan(
        1e-6,
      );
    }),
  );
});

test('arrow keys lead a place along its edge and back, stop at its ends, and begin at its middle', () => {
  const keys = fc.array(fc.tuple(fc.constantFrom(-1, 1), fc.boolean()), { maxLength: 30 });
  fc.assert(
    fc.property(
      card,
      fc.nat(7),
      keys,
      fc.constantFrom('mm' as const, 'in' as const),
      (doc, which, pressed, unit) => {
        const edge = doc.edges[which % doc.edges.length]!;
        const long = edgeLength(doc, edge);
        let at = movedAlong(doc, edge, null, 0)!;
        let mm = long / 2;
        for (const [way, shift] of pressed) {
          at = movedAlong(doc, edge, at, way * keyStep(unit, shift))!;
          mm = Math.min(long, Math.max(0, mm + way * keyStep(unit, shift)));
          expect(alongEdge(doc, at.spot)!.atMm).toBeCloseTo(mm, 5);
        }
      },
    ),
  );
  expect([keyStep('mm', false), keyStep('mm', true)]).toEqual([0.5, 10]);
  expect([keyStep('in', false) / 25.4, keyStep('in', true) / 25.4]).toEqual([1 / 32, 1 / 2]);
});

test('a place in hand keeps to its edge when the card is changed under it, and is gone with its side', () => {
  fc.assert(
    fc.property(
      card,
      fc.nat(7),
      spread(1, 20),
      fc.nat(7),
      spread(-15, 15),
      (doc, which, mm, corner, by) => {
        const edge = doc.edges[which % doc.edges.length]!;
        const at = placeOn(doc, edge, mm)!;
        const c = doc.corners[corner % doc.corners.length]!;
        const moved = moveCorner(doc, c.id, [c.x + by, c.y - by]);
        const now = asItLies(moved, at)!;
        expect(alongEdge(moved, now.spot)!.atMm).toBeCloseTo(mm, 5);
        expect(distance(now.point, pointAlong(segmentsOfEdge(moved, edge), mm)!)).toBeLessThan(
          1e-6,
        );
        expect(
          asItLies({ ...doc, sides: doc.sides.filter((s) => s.id !== at.place.side) }, at),
        ).toBeNull();
      },
    ),
  );
});
