import type { Vec } from '../../../measure/vector';
import type { Frame, Vec3 } from '../refold';
import { composed, apply, inverse } from './foldTransforms';

/**
 * A plate of a piece as the two sides of its sheet: the rim on its face, and how high the sides
 * lie.
 */
export type Shell = { rim: readonly Vec[]; heights: readonly [number, number] };
/** The two sides of a plate, as places. */
export type Sides = Vec3[][];
/** What a plate lies within, along the axes: from and to in x, in y and in z, mm. */
export type Box = readonly [x0: number, x1: number, y0: number, y1: number, z0: number, z1: number];

/** A plate where a frame puts it. */
export const laid = ({ rim, heights }: Shell, frame: Frame): Sides =>
  heights.map((height) => rim.map(([x, y]): Vec3 => apply(frame, [x, y, height])));

/** The box round a plate where a frame puts it, without laying it. */
export function boxOf({ rim, heights }: Shell, { x, y, z, origin }: Frame): Box {
  let [x0, x1, y0, y1, z0, z1] = [Infinity, -Infinity, Infinity, -Infinity, Infinity, -Infinity];
  for (const [a, b] of rim) {
    const [u, v, w] = [x[0] * a + y[0] * b, x[1] * a + y[1] * b, x[2] * a + y[2] * b];
    if (u < x0) x0 = u;
    if (u > x1) x1 = u;
    if (v < y0) y0 = v;
    if (v > y1) y1 = v;
    if (w < z0) z0 = w;
    if (w > z1) z1 = w;
  }
  const [low, high] = heights;
  const lift = (k: 0 | 1 | 2) =>
    [
      origin[k] + Math.min(z[k] * low, z[k] * high),
      origin[k] + Math.max(z[k] * low, z[k] * high),
    ] as const;
  const [[ax, bx], [ay, by], [az, bz]] = [lift(0), lift(1), lift(2)];
  return [x0 + ax, x1 + bx, y0 + ay, y1 + by, z0 + az, z1 + bz];
}

/**
 * A turn about the line, with what the bend gives way by: x′ = cos·x − sin·z + across, z′ = sin·x +
 * cos·z + up.
 */
export type Turn = { cos: number; sin: number; across: number; up: number };

/** The turn from one frame to another that lies only turned about y from it. */
export function turnBetween(from: Frame, to: Frame): Turn {
  const { x, origin } = composed(to, inverse(from));
  return { cos: x[0], sin: x[2], across: origin[0], up: origin[2] };
}

/** The boxes a plate is in at each of some turns about the line, from where a frame puts it. */
export function boxesTurned({ rim, heights }: Shell, frame: Frame, turns: readonly Turn[]): Box[] {
  const { x, y, z, origin } = frame;
  // Each corner on both sides, seen along the line.
  const seen = new Float64Array(4 * rim.length);
  let [n, y0, y1] = [0, Infinity, -Infinity];
  for (const [a, b] of rim)
    for (const height of heights) {
      seen[n++] = x[0] * a + y[0] * b + z[0] * height + origin[0];
      seen[n++] = x[2] * a + y[2] * b + z[2] * height + origin[2];
      const along = x[1] * a + y[1] * b + z[1] * height + origin[1];
      if (along < y0) y0 = along;
      if (along > y1) y1 = along;
    }
  return turns.map(({ cos, sin, across, up }): Box => {
    let [x0, x1, z0, z1] = [Infinity, -Infinity, Infinity, -Infinity];
    for (let i = 0; i < n; i += 2) {
      const [u, w] = [cos * seen[i]! - sin * seen[i + 1]!, sin * seen[i]! + cos * seen[i + 1]!];
      if (u < x0) x0 = u;
      if (u > x1) x1 = u;
      if (w < z0) z0 = w;
      if (w > z1) z1 = w;
    }
    return [x0 + across, x1 + across, y0, y1, z0 + up, z1 + up];
  });
}

/** The box round some. */
export const round = (boxes: readonly Box[]): Box =>
  boxes.reduce((a, b): Box => [
    Math.min(a[0], b[0]),
    Math.max(a[1], b[1]),
    Math.min(a[2], b[2]),
    Math.max(a[3], b[3]),
    Math.min(a[4], b[4]),
    Math.max(a[5], b[5]),
  ]);

/** Whether two boxes do not even touch. */
export const apart = (a: Box, b: Box): boolean =>
  a[0] > b[1] || b[0] > a[1] || a[2] > b[3] || b[2] > a[3] || a[4] > b[5] || b[4] > a[5];
