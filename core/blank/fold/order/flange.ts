import { dot, sub } from '../../../measure/vector';
import type { Development } from '../developed';

/** The face beyond a fold, where nothing hangs on it: a flange. Null for what is none. */
export function flangeOf({ folds }: Development, fold: number): number | null {
  const { child } = folds[fold]!;
  return folds.some(({ parent }) => parent === child) ? null : child;
}

/**
 * How far the flat of a flange reaches from the bend of its fold, mm, where it is deepest; null for
 * what is none.
 */
export function flangeDepth(development: Development, fold: number): number | null {
  const face = flangeOf(development, fold);
  if (face === null) return null;
  const { tangents, across } = development.folds[fold]!;
  return Math.max(
    ...development.faces[face]!.pieces.map(({ segment }) =>
      dot(sub(segment.a, tangents[1][0]), across),
    ),
  );
}
