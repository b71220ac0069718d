import { points } from '../../../measure/path';
import type { Segment } from '../../../measure/segment';
import { line } from '../../../measure/segment';
import { SAME_PLACE_MM } from '../../../measure/tolerance';
import type { Vec } from '../../../measure/vector';
import { distance } from '../../../measure/vector';
import type { JointAllowance } from '../../blank';
import type { Development } from '../developed';
import { withStrips } from '../foldedOutline';

/** The flat parts of a blank as plates: each face's outline on the blank as places. */
export type Plate = { face: number; outline: Vec[] };

/** Arcs of a face are followed to this, mm. */
const FOLLOWED_MM = 0.2;

/**
 * One plate for each face of the blank, in their order, with the strips of joints that lie in its
 * plane (laps, joggles, metal to trim); those that are turned over, and flanges, are left off: they
 * are turned when the folds are made.
 */
export function platesOf({
  faces,
  net,
  edges,
}: Pick<Development, 'faces' | 'net' | 'edges'>): Plate[] {
  const adds = ({ addMm, turn, flange }: JointAllowance) => !turn && !flange && addMm > 0;
  const flat = new Map(
    edges.flatMap(({ id, allowance }) => (adds(allowance) ? [[id, allowance] as const] : [])),
  );
  const gross = flat.size > 0 ? withStrips(net, flat).gross : [];
  const isAdded = new Set(
    gross.flatMap(({ face, edge }) => (edge !== null && flat.has(edge) ? [face] : [])),
  );
  return faces.map(({ pieces }, face) => {
    // Where the outline leaves a face it comes back at the other end of the bend: a straight
    // tangent between.
    const rim = isAdded.has(face) ? gross.filter((piece) => piece.face === face) : pieces;
    const ends = rim.map(({ segment }) => segment);
    const closed = ends.flatMap((segment, i): Segment[] => {
      const next = ends[(i + 1) % ends.length]!;
      return distance(segment.b, next.a) > SAME_PLACE_MM
        ? [segment, line(segment.b, next.a)]
        : [segment];
    });
    return { face, outline: points(closed, FOLLOWED_MM) };
  });
}

/** For each fold which faces lie beyond it, seen from the base. */
export function beyond({ faces, folds, order }: Development): boolean[][] {
  return folds.map((_, fold) => {
    const far = faces.map(() => false);
    for (const face of order.slice(1)) {
      const own = faces[face]!.fold;
      far[face] = own === fold || far[folds[own]!.parent]!;
    }
    return far;
  });
}
