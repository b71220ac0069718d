import { eigen } from '../solve/symmetric';
import type { Vec } from '../measure/vector';

/** A projective map of the plane, row by row, the last figure 1 where that can be. */
export type Homography = readonly [
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  number,
];

/** Where a map takes a point; infinite where that is on its horizon. */
export function mapped(h: Homography, [x, y]: Vec): Vec {
  const w = h[6] * x + h[7] * y + h[8];
  return [(h[0] * x + h[1] * y + h[2]) / w, (h[3] * x + h[4] * y + h[5]) / w];
}

/** First `b`, then `a`. */
export function after(a: Homography, b: Homography): Homography {
  const c = Array.from({ length: 9 }, (_, i) => {
    const [row, column] = [3 * Math.floor(i / 3), i % 3];
    return a[row]! * b[column]! + a[row + 1]! * b[column + 3]! + a[row + 2]! * b[column + 6]!;
  });
  return scaled(c);
}

/** The way back; null where there is none. */
export function inverted(h: Homography): Homography | null {
  const [a, b, c, d, e, f, g, i, j] = h;
  const cofactors = [
    e * j - f * i,
    c * i - b * j,
    b * f - c * e,
    f * g - d * j,
    a * j - c * g,
    c * d - a * f,
    d * i - e * g,
    b * g - a * i,
    a * e - b * d,
  ];
  const whole = a * cofactors[0]! + b * cofactors[3]! + c * cofactors[6]!;
  return Math.abs(whole) > 1e-300 && cofactors.every(Number.isFinite) ? scaled(cofactors) : null;
}

function scaled(c: readonly number[]): Homography {
  const by = Math.abs(c[8]!) > 1e-12 * Math.max(...c.map(Math.abs)) ? c[8]! : 1;
  return c.map((x) => x / by) as unknown as Homography;
}

/**
 * The projective map that takes points to points with the least algebraic error: the normalised
 * direct linear transform (Hartley & Zisserman, Multiple View Geometry, algorithm 4.2). Exact
 * through four; null for fewer, or where three of four lie in line.
 */
export function homographyThrough(from: readonly Vec[], to: readonly Vec[]): Homography | null {
  if (from.length < 4 || from.length !== to.length) return null;
  const [s, t] = [settled(from), settled(to)];
  if (!s || !t) return null;
  const m = new Float64Array(81);
  from.forEach((p, i) => {
    const [x, y] = mapped(s, p);
    const [u, v] = mapped(t, to[i]!);
    for (const row of [
      [x, y, 1, 0, 0, 0, -u * x, -u * y, -u],
      [0, 0, 0, x, y, 1, -v * x, -v * y, -v],
    ])
      for (let j = 0; j < 9; j++) for (let k = 0; k < 9; k++) m[9 * j + k]! += row[j]! * row[k]!;
  });
  const { values, vectors } = eigen(m, 9);
  // A second direction without error: the points do not say which map it is.
  if (!(values[7]! > 1e-12 * values[0]!)) return null;
  const back = inverted(t);
  const h = vectors[8]!;
  const found = back && after(after(back, Array.from(h) as unknown as Homography), s);
  return found && inverted(found) ? found : null;
}

/** The map that brings points about the origin, √2 from it on the average. */
function settled(points: readonly Vec[]): Homography | null {
  const n = points.length;
  const cx = points.reduce((sum, p) => sum + p[0], 0) / n;
  const cy = points.reduce((sum, p) => sum + p[1], 0) / n;
  const away = points.reduce((sum, p) => sum + Math.hypot(p[0] - cx, p[1] - cy), 0) / n;
  if (!(away > 0) || !Number.isFinite(away)) return null;
  const k = Math.SQRT2 / away;
  return [k, 0, -k * cx, 0, k, -k * cy, 0, 0, 1];
}
