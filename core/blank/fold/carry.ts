import type { FaceTree } from '../../card/faces';
import { distanceToPolygon, inside, points } from '../../measure/path';
import { ROUNDING_MM } from '../../measure/tolerance';
import type { Vec } from '../../measure/vector';
import { add, along, distance, dot, left, sub, unit } from '../../measure/vector';
import type { BlankFace, BlankFold } from './developed';

/** How close arcs are followed when it is asked which face a point lies on, mm. */
const TOLERANCE_MM = 0.05;

/**
 * Where points of the card come to on the blank: each goes with its face; inside a bend it keeps
 * its share of the way round, so that marks made on the card beside a fold come out in their order.
 * Points off the card go with the base.
 */
export function carrier(
  tree: FaceTree,
  folds: readonly BlankFold[],
  faces: readonly BlankFace[],
): (p: Vec) => Vec {
  let polygons: Vec[][] | null = null;
  return (p) => {
    // Made when the first point is asked for: most cards carry none.
    polygons ??= tree.faces.map((face) =>
      points(
        face.bounds.map((b) => b.segment),
        TOLERANCE_MM,
      ),
    );
    const found = polygons.findIndex((polygon) => inside(p, polygon));
    const home = found < 0 ? besideRim(p, polygons, tree.base) : found;
    for (const bound of tree.faces[home]!.bounds) {
      if (bound.kind !== 'fold') continue;
      const fold = folds[bound.fold]!;
      // A mark on the tangent itself (no radius, measured inside) leaves no bend beside it.
      if (fold.setbackMm < ROUNDING_MM) continue;
      const { a, b } = bound.segment;
      const depth = dot(sub(p, a), left(unit(sub(b, a))));
      const t = dot(sub(p, a), sub(b, a)) / distance(a, b) ** 2;
      // Off the card it may lie on the other side of a fold than the face it goes with.
      if (depth < -ON_RIM_MM || depth >= fold.setbackMm || t < 0 || t > 1) continue;
      const across = home === fold.parent ? -depth : depth;
      const share = (across + fold.setbackMm) / (2 * fold.setbackMm);
      const onZone = share * fold.allowance.allowanceMm - fold.setbackMm;
      return add(along(p, fold.across, onZone - across), faces[fold.parent]!.placement.shift);
    }
    return add(p, faces[home]!.placement.shift);
  };
}

/** A place on the rim, where neither side is inside, goes with the face it lies beside. */
const ON_RIM_MM = 1e-3;

function besideRim(p: Vec, polygons: readonly (readonly Vec[])[], base: number): number {
  const off = polygons.map((polygon) => distanceToPolygon(p, polygon));
  const nearest = off.indexOf(Math.min(...off));
  return off[nearest]! <= TOLERANCE_MM + ON_RIM_MM ? nearest : base;
}
