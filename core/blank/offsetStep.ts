import { radians } from '../measure/angle';
import type { Segment } from '../measure/segment';
import { line } from '../measure/segment';
import type { Vec } from '../measure/vector';

/** Each of the two bends of a step is turned through this much where it is deep enough. */
export const STEP_ANGLE_DEG = 45;

/**
 * A step of depth `h`: two equal and opposite bends of neutral radius r and angle θ with a straight
 * between. Exact geometry: rise 2r(1−cosθ) + q·sinθ = h, run 2r·sinθ + q·cosθ, length 2rθ + q;
 * `takeUpMm` the length over the run. A step too shallow for 45° has no straight and cosθ = 1 −
 * h/2r. `path` is the middle of the sheet, from half the run before the middle to as far behind it:
 * along, and up.
 */
export function stepLine(
  depthMm: number,
  neutralRadiusMm: number,
): { takeUpMm: number; runMm: number; path: Segment[] } {
  if (!(depthMm > 0)) return { takeUpMm: 0, runMm: 0, path: [] };
  const r = neutralRadiusMm;
  let theta = radians(STEP_ANGLE_DEG);
  let q = (depthMm - 2 * r * (1 - Math.cos(theta))) / Math.sin(theta);
  if (q < 0) {
    theta = Math.acos(1 - depthMm / (2 * r));
    q = 0;
  }
  const runMm = 2 * r * Math.sin(theta) + q * Math.cos(theta);
  const half = runMm / 2;
  const up = r * (1 - Math.cos(theta));
  const near: Vec = [-half + r * Math.sin(theta), up];
  const far: Vec = [half - r * Math.sin(theta), depthMm - up];
  const bulge = Math.tan(theta / 4);
  const path: Segment[] = [
    { a: [-half, 0], b: near, bulge },
    line(near, far),
    { a: far, b: [half, depthMm], bulge: -bulge },
  ];
  return {
    takeUpMm: 2 * r * theta + q - runMm,
    runMm,
    path: path.filter(({ a, b }) => a[0] !== b[0] || a[1] !== b[1]),
  };
}
