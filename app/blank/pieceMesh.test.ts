import fc from 'fast-check';
import { cardOf, cardTree, developed, given } from '#core/blank/fold/cardTree.arbitrary';
import { develop } from '#core/blank/fold/develop';
import { setEdge } from '#core/card/edit';
import type { Joint } from '#core/card/pattern';
import { spread } from '#core/measure/spread.arbitrary';
import { pieceMesh } from './pieceMesh';

/** Area of a list of triangles, by the cross product. */
function areaOf(positions: readonly number[]): number {
  let area = 0;
  for (let i = 0; i < positions.length; i += 9) {
    const at = (k: number) => positions[i + k]!;
    const [ux, uy, uz] = [at(3) - at(0), at(4) - at(1), at(5) - at(2)];
    const [vx, vy, vz] = [at(6) - at(0), at(7) - at(1), at(8) - at(2)];
    area += Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx) / 2;
  }
  return area;
}

test('flat, the drawn face of the piece has the area of its faces and bends; folded, its faces keep theirs', () => {
  fc.assert(
    fc.property(cardTree, spread(0, 1), (t, share) => {
      const card = { ...cardOf(t), relief: 'none' as const };
      const { doc, sheet } = given(card);
      const d = developed(card);
      const { facesMm2, zonesMm2 } = d.size.parts;
      const flat = pieceMesh(
        d,
        doc,
        sheet.thicknessMm,
        d.folds.map(() => 0),
        false,
      );
      expect(areaOf(flat.face) / (facesMm2 + zonesMm2)).toBeCloseTo(1, 6);
      const angles = d.folds.map((fold) => fold.bend.angleDeg * share);
      const folded = pieceMesh(d, doc, sheet.thicknessMm, angles, false);
      // The skin of a bend is longer or shorter than its neutral line, by no more than a thickness
      // round the turn.
      const turned = d.folds.reduce((sum, fold, i) => {
        const long = Math.hypot(
          fold.centre[1][0] - fold.centre[0][0],
          fold.centre[1][1] - fold.centre[0][1],
        );
        return sum + ((angles[i]! * Math.PI) / 180) * sheet.thicknessMm * long * 1.3;
      }, 0);
      expect(Math.abs(areaOf(folded.face) - facesMm2 - zonesMm2)).toBeLessThan(turned + 1);
      for (const list of [folded.face, folded.rest, folded.rims])
        expect(list.every(Number.isFinite)).toBe(true);
      expect(folded.face.length % 9).toBe(0);
      expect(folded.rims.length % 6).toBe(0);
    }),
    { numRuns: 60 },
  );
});

test('each kind of joint is shown as made once every fold is: how far the strip reaches, and which way', () => {
  const plain = {
    thicknessMm: 1,
    rule: { kind: 'k' as const, k: 0.4 },
    outline: [
      [0, 0],
      [100, 0],
      [100, 60],
      [0, 60],
    ] as [number, number][],
  };
  const { doc, sheet, practice } = given(plain);
  const box = (joint: Joint, joined: boolean) => {
    // Edge D, the bottom one, is the first in outline order.
    const card = setEdge(doc, doc.edges[0]!.id, { joint });
    const found = develop(card, sheet, practice);
    if (!found.ok) throw new Error('refused');
    const { face, rest } = pieceMesh(found.development, card, 1, [], joined);
    const ys = [...face, ...rest].filter((_, i) => i % 3 === 1);
    const zs = [...face, ...rest].filter((_, i) => i % 3 === 2);
    return {
      low: Math.min(...ys),
      top: Math.max(...zs),
      bottom: Math.min(...zs),
      add: found.development.edges[0]!.allowance.addMm,
    };
  };
  const lap: Joint = { kind: 'lap', widthMm: 12 };
  expect(box(lap, false)).toMatchObject({ low: expect.closeTo(-12, 6), top: 0, bottom: -1 });
  expect(box(lap, true)).toMatchObject({ low: expect.closeTo(-12, 6), top: 0, bottom: -1 });
  const turned: Joint = { kind: 'plug-flange', widthMm: 15, turnDeg: 90 };
  const flat = box(turned, false);
  expect(flat.low).toBeCloseTo(-flat.add, 6);
  // Its width is measured from the outside of its bend, which is the back of the sheet: nothing
  // stands out beyond the card's line.
  expect(box(turned, true)).toMatchObject({
    low: expect.closeTo(0, 6),
    top: expect.closeTo(14, 6),
  });
  const hem: Joint = { kind: 'hem', widthMm: 10, gapMm: 0.5 };
  // Folded back over the face: a thickness and the gap above it, nothing beyond the edge.
  expect(box(hem, true)).toMatchObject({ low: expect.closeTo(0, 6), top: expect.closeTo(1.5, 6) });
  expect(box({ kind: 'joggle', widthMm: 12, depthMm: 2 }, true)).toMatchObject({
    low: expect.closeTo(-12, 6),
    bottom: expect.closeTo(-3, 6),
  });
});
