import { points } from '../../../measure/path';
import type { Vec } from '../../../measure/vector';
import type { Development } from '../developed';

/**
 * The flat parts of a blank as plates: each face's outline on the blank as places, and to each fold's far face the metal of
 * the bend itself, from tangent to tangent.
 */
export type Plate = { face: number; outline: Vec[] };

/** Arcs of a face are followed to this, mm. */
const FOLLOWED_MM = 0.2;

/** One plate for each face of the blank, in their order. */
export const platesOf = ({ faces }: Development): Plate[] =>
  faces.map(({ pieces }, face) => ({ face, outline: points(pieces.map(({ segment }) => segment), FOLLOWED_MM) })); // prettier-ignore

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
