import type { Mesh } from '../mesh/mesh';
import { cornersOf, cross3, dot3, length3, sub3, triangleCount, unit3 } from '../mesh/mesh';

/**
 * How a blank is weighed. `balance` 0 … 1, from stretch to shrink: w₋/w₊ = 10^(3·(1 − 2·balance)), w₊ + w₋
 * = 1. Metal that has to be gained costs w₊ per square, metal that has to be lost w₋.
 */
export type Weights = { stretch: number; shrink: number };

export function weightsOf(balance: number): Weights {
  const ratio = 10 ** (3 * (1 - 2 * balance));
  return { stretch: 1 / (1 + ratio), shrink: ratio / (1 + ratio) };
}

/**
 * The panel triangle by triangle, each laid flat by itself: area, and the gradients of its three
 * corner functions in its own plane, six figures a triangle (x, y of each).
 */
export type Panel = {
  triangles: Uint32Array;
  area: Float64Array;
  gradients: Float64Array;
  whole: number;
};

export function panelOf(mesh: Mesh): Panel {
  const count = triangleCount(mesh);
  const area = new Float64Array(count);
  const gradients = new Float64Array(6 * count);
  let whole = 0;
  for (let t = 0; t < count; t++) {
    const [a, b, c] = cornersOf(mesh, t);
    const [ab, ac] = [sub3(b, a), sub3(c, a)];
    const x = length3(ab);
    const along = dot3(ac, unit3(ab));
    const off = length3(cross3(ab, ac)) / x;
    // Corners at (0, 0), (x, 0), (along, off).
    area[t] = (x * off) / 2;
    whole += area[t]!;
    gradients.set([-1 / x, (along - x) / (x * off), 1 / x, -along / (x * off), 0, 1 / off], 6 * t);
  }
  return { triangles: mesh.triangles, area, gradients, whole };
}

/**
 * What a piece of metal costs that is `s` times as long in the flat as on the panel (σ = 1/s), per
 * area of the panel.
 */
const costOf = (s: number, { stretch, shrink }: Weights): number =>
  (s < 1 ? stretch : shrink) * (1 / s - 1) ** 2;

/** The map panel → flat of a triangle, written into `to`: row by row. */
function mapOf(
  { triangles, gradients }: Panel,
  flat: Float64Array,
  t: number,
  to: Float64Array,
): void {
  let [a, b, c, d] = [0, 0, 0, 0];
  for (let k = 0; k < 3; k++) {
    const v = triangles[3 * t + k]!;
    const gx = gradients[6 * t + 2 * k]!;
    const gy = gradients[6 * t + 2 * k + 1]!;
    const u = flat[2 * v]!;
    const w = flat[2 * v + 1]!;
    a += u * gx;
    b += u * gy;
    c += w * gx;
    d += w * gy;
  }
  to[0] = a;
  to[1] = b;
  to[2] = c;
  to[3] = d;
}

/**
 * Singular values of a map, the larger first; the smaller is below nought where the triangle is
 * flipped.
 */
function singular(m: Float64Array): [number, number] {
  const turning = Math.hypot(m[0]! + m[3]!, m[2]! - m[1]!) / 2;
  const shearing = Math.hypot(m[0]! - m[3]!, m[2]! + m[1]!) / 2;
  return [turning + shearing, turning - shearing];
}

/** The weighed energy of a flat, as a mean over the panel; infinite where a triangle is flipped. */
export function energyOf(panel: Panel, flat: Float64Array, weights: Weights): number {
  const map = new Float64Array(4);
  let sum = 0;
  for (let t = 0; t < panel.area.length; t++) {
    mapOf(panel, flat, t, map);
    const [s1, s2] = singular(map);
    if (!(s2 > 0)) return Infinity;
    sum += panel.area[t]! * (costOf(s1, weights) + costOf(s2, weights));
  }
  return sum / panel.whole;
}

/**
 * Principal strains of each triangle from flat to panel (+ stretch), the greater first, two figures
 * a triangle.
 */
export function strainsOf(panel: Panel, flat: Float64Array): Float64Array {
  const map = new Float64Array(4);
  const found = new Float64Array(2 * panel.area.length);
  for (let t = 0; t < panel.area.length; t++) {
    mapOf(panel, flat, t, map);
    const [s1, s2] = singular(map);
    found[2 * t] = 1 / s2 - 1;
    found[2 * t + 1] = 1 / s1 - 1;
  }
  return found;
}

/** In the flat, the direction of each triangle's greater strain, radians from +x, −π/2 … π/2. */
export function directionsOf(panel: Panel, flat: Float64Array): Float64Array {
  const m = new Float64Array(4);
  const found = new Float64Array(panel.area.length);
  for (let t = 0; t < panel.area.length; t++) {
    mapOf(panel, flat, t, m);
    // The flat's own stretch M·Mᵀ has its long axis where the panel has its short one.
    const [xx, xy, yy] = [
      m[0]! ** 2 + m[1]! ** 2,
      m[0]! * m[2]! + m[1]! * m[3]!,
      m[2]! ** 2 + m[3]! ** 2,
    ];
    const long = Math.atan2(2 * xy, xx - yy) / 2;
    found[t] = long > 0 ? long - Math.PI / 2 : long + Math.PI / 2;
  }
  return found;
}

/** The mean of (σ1 − 1)² + (σ2 − 1)² over the panel, both ways weighed alike. */
export const plainEnergy = (panel: Panel, flat: Float64Array): number =>
  2 * energyOf(panel, flat, { stretch: 0.5, shrink: 0.5 });

/**
 * What one triangle gives to Newton's step, at a place where it is not flipped: its gradient (6
 * figures) and its Hessian (6 × 6, row by row) with every eigenvalue at least nought, by the
 * analytic eigensystem of isotropic energies (Smith, de Goes & Kim 2019). Both per mean of the
 * panel.
 */
export function newtonOf(
  panel: Panel,
  flat: Float64Array,
  weights: Weights,
  t: number,
  gradient: Float64Array,
  hessian: Float64Array | null,
): void {
  const { gradients } = panel;
  const share = panel.area[t]! / panel.whole;
  mapOf(panel, flat, t, MAP);
  const e = (MAP[0]! + MAP[3]!) / 2;
  const f = (MAP[0]! - MAP[3]!) / 2;
  const g = (MAP[2]! + MAP[1]!) / 2;
  const h = (MAP[2]! - MAP[1]!) / 2;
  const turning = Math.hypot(e, h);
  const shearing = Math.hypot(f, g);
  const [s1, s2] = [turning + shearing, turning - shearing];
  const cr = e / turning;
  const sr = h / turning;
  const cs = shearing > 1e-300 ? f / shearing : 1;
  const ss = shearing > 1e-300 ? g / shearing : 0;
  // First and second derivatives of the cost by each singular value.
  const [w1, w2] = [
    s1 < 1 ? weights.stretch : weights.shrink,
    s2 < 1 ? weights.stretch : weights.shrink,
  ];
  const d1 = (-2 * w1 * (1 / s1 - 1)) / (s1 * s1);
  const d2 = (-2 * w2 * (1 / s2 - 1)) / (s2 * s2);
  const both = share * (d1 + d2) * 0.5;
  const apart = share * (d1 - d2) * 0.5;
  for (let k = 0; k < 3; k++) {
    const gx = gradients[6 * t + 2 * k]!;
    const gy = gradients[6 * t + 2 * k + 1]!;
    // Modes of the map at this corner: alike in both directions, turned, one against the other, and
    // that turned.
    const a0 = cr * gx - sr * gy;
    const a1 = sr * gx + cr * gy;
    const b0 = cs * gx + ss * gy;
    const b1 = ss * gx - cs * gy;
    gradient[2 * k] = both * a0 + apart * b0;
    gradient[2 * k + 1] = both * a1 + apart * b1;
    if (!hessian) continue;
    MODES[2 * k] = a0;
    MODES[2 * k + 1] = a1;
    MODES[6 + 2 * k] = b0;
    MODES[6 + 2 * k + 1] = b1;
    MODES[12 + 2 * k] = -a1;
    MODES[12 + 2 * k + 1] = a0;
    MODES[18 + 2 * k] = -ss * gx + cs * gy;
    MODES[18 + 2 * k + 1] = cs * gx + ss * gy;
  }
  if (!hessian) return;
  const c1 = Math.max(0, (2 * w1 * (3 - 2 * s1)) / s1 ** 4);
  const c2 = Math.max(0, (2 * w2 * (3 - 2 * s2)) / s2 ** 4);
  const spin = Math.max(0, (d1 + d2) / (s1 + s2));
  const flip = shearing > 1e-9 ? Math.max(0, (d1 - d2) / (s1 - s2)) : (c1 + c2) / 2;
  const even = (share * (c1 + c2)) / 4;
  const odd = (share * (c1 - c2)) / 4;
  const [half, quarter] = [(share * spin) / 2, (share * flip) / 2];
  for (let i = 0; i < 6; i++) {
    const [a, b, c, d] = [MODES[i]!, MODES[6 + i]!, MODES[12 + i]!, MODES[18 + i]!];
    for (let j = 0; j <= i; j++) {
      const [p, q] = [MODES[j]!, MODES[6 + j]!];
      hessian[6 * i + j] =
        even * (a * p + b * q) +
        odd * (a * q + b * p) +
        half * c * MODES[12 + j]! +
        quarter * d * MODES[18 + j]!;
    }
  }
}

const MAP = new Float64Array(4);
const MODES = new Float64Array(24);

/** The longest step along `by` (0 … 1) before which no triangle of a flat is flipped. */
export function longestStep(triangles: Uint32Array, flat: Float64Array, by: Float64Array): number {
  let step = Infinity;
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [2 * triangles[i]!, 2 * triangles[i + 1]!, 2 * triangles[i + 2]!];
    const px = flat[b]! - flat[a]!;
    const py = flat[b + 1]! - flat[a + 1]!;
    const qx = flat[c]! - flat[a]!;
    const qy = flat[c + 1]! - flat[a + 1]!;
    const rx = by[b]! - by[a]!;
    const ry = by[b + 1]! - by[a + 1]!;
    const sx = by[c]! - by[a]!;
    const sy = by[c + 1]! - by[a + 1]!;
    // Twice the area along the step: area + once·t + twice·t².
    const area = px * qy - py * qx;
    const once = px * sy - py * sx + rx * qy - ry * qx;
    const twice = rx * sy - ry * sx;
    const under = once * once - 4 * twice * area;
    if (under < 0) continue;
    const root = Math.sqrt(under);
    // The root nearest to nought on the positive side, without losing figures.
    const q = -(once + (once < 0 ? -root : root)) / 2;
    for (const t of [q / twice, area / q]) if (t > 0 && t < step) step = t;
  }
  return step;
}
