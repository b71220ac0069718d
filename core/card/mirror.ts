import { boxOf } from '../measure/path';
import type { PatternDoc } from './pattern';

/**
 * The card for the other side of the vehicle: turned over left to right about the middle of its width, ids and letters
 * kept. The outline runs counter-clockwise again, the datum corner stays first, and folds go the way they went
 * (toward the face stays toward the face of the mirrored piece).
 */
export function mirrored(doc: PatternDoc): PatternDoc {
  const bounds = boxOf(doc.corners.map((c) => [c.x, c.y]));
  const flip = (x: number) => bounds.minX + bounds.maxX - x;
  // Reversing the sides about the first corner: last side first, each run backward.
  const sides = [...doc.sides].reverse().map((side) => ({ ...side, from: side.to, to: side.from }));
  const [first, ...others] = doc.corners;
  return {
    ...doc,
    corners: [...(first ? [first] : []), ...others.reverse()].map((c) => ({ ...c, x: flip(c.x) })),
    sides,
    edges: [...doc.edges].reverse().map((edge) => ({ ...edge, sides: [...edge.sides].reverse() })),
    folds: doc.folds.map((fold) => ({
      ...fold,
      from: { side: fold.from.side, at: 1 - fold.from.at },
      to: { side: fold.to.side, at: 1 - fold.to.at },
    })),
    holes: doc.holes.map((hole) => ({ ...hole, x: flip(hole.x) })),
    base: doc.base && [flip(doc.base[0]), doc.base[1]],
  };
}
