import type { Vec } from '../measure/vector';
import { cross } from '../measure/vector';

/** Twice the area that corners go round, above 0 counter-clockwise with y up. */
export const turnOf = (corners: readonly Vec[]): number =>
  corners.reduce((sum, p, i) => sum + cross(p, corners[(i + 1) % corners.length]!), 0);
