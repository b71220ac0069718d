import type { Vec } from '../../../measure/vector';
import type { Vec3 } from '../refold';
import type { Box } from './laid';

/** Flat polygons in space against convex sections of a machine, and against each other. */

/** What only touches, mm, is no hit. */
export const TOUCH_MM = 0.05;
/** The depth of a hit is found to this, mm. */
const DEPTH_MM = 0.05;

/** The half-planes of a convex section in x and z, counter-clockwise: n·p ≤ d within it. */
type Half = { nx: number; nz: number; d: number };

const halvesOf = (section: readonly Vec[]): Half[] =>
  section.map(([x1, z1], i) => {
    const [x2, z2] = section[(i + 1) % section.length]!;
    const long = Math.hypot(x2 - x1, z2 - z1);
    const [nx, nz] = [(z2 - z1) / long, (x1 - x2) / long];
    return { nx, nz, d: nx * x1 + nz * z1 };
  });

/**
 * What of a polygon lies within a section, all its sides moved inward by `less`. Empty where
 * nothing does.
 */
function within(polygon: readonly Vec3[], halves: readonly Half[], less: number): readonly Vec3[] {
  let left = polygon;
  for (const { nx, nz, d } of halves) {
    if (left.length === 0) return left;
    const off = (p: Vec3) => nx * p[0] + nz * p[2] - d + less;
    const kept: Vec3[] = [];
    left.forEach((p, i) => {
      const q = left[(i + 1) % left.length]!;
      const [a, b] = [off(p), off(q)];
      if (a <= 0) kept.push(p);
      if (a < 0 !== b < 0 && a !== b) {
        const t = a / (a - b);
        if (t > 0 && t < 1)
          kept.push([p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t, p[2] + (q[2] - p[2]) * t]);
      }
    });
    left = kept;
  }
  return left;
}

/** A convex section made ready to be held against many polygons. */
export type Ready = { halves: Half[]; box: [number, number, number, number] };

export const ready = (section: readonly Vec[]): Ready => {
  const [x, z] = [section.map((p) => p[0]), section.map((p) => p[1])];
  return {
    halves: halvesOf(section),
    box: [Math.min(...x), Math.max(...x), Math.min(...z), Math.max(...z)],
  };
};

/** From where to where along y polygons lie within any of some sections; null where they do not. */
export function spanWithin(
  polygons: readonly (readonly Vec3[])[],
  sections: readonly Ready[],
): [number, number] | null {
  let [low, high] = [Infinity, -Infinity];
  for (const { halves, box } of sections)
    for (const polygon of polygons) {
      if (isClear(polygon, box)) continue;
      for (const [, y] of within(polygon, halves, TOUCH_MM)) {
        low = Math.min(low, y);
        high = Math.max(high, y);
      }
    }
  return low <= high ? [low, high] : null;
}

/** Whether a polygon lies all on one side of an upright box. */
function isClear(polygon: readonly Vec3[], box: Ready['box']): boolean {
  let [lx, hx, lz, hz] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const [x, , z] of polygon) {
    if (x < lx) lx = x;
    if (x > hx) hx = x;
    if (z < lz) lz = z;
    if (z > hz) hz = z;
  }
  return isBeside(lx, hx, lz, hz, box);
}

/** Whether a range in x and in z lies wholly on one side of an upright box. */
const isBeside = (
  lx: number,
  hx: number,
  lz: number,
  hz: number,
  [x0, x1, z0, z1]: Ready['box'],
): boolean =>
  lx >= x1 - TOUCH_MM || hx <= x0 + TOUCH_MM || lz >= z1 - TOUCH_MM || hz <= z0 + TOUCH_MM;

/**
 * Whether what a box holds is clear of all of some sections: then no part of it needs to be looked
 * at.
 */
export function isFree(box: Box, sections: readonly Ready[]): boolean {
  for (const one of sections) if (!isBeside(box[0], box[1], box[4], box[5], one.box)) return false;
  return true;
}

/**
 * How deep polygons reach into the section they reach into deepest, mm: by how much all its sides
 * must move inward.
 */
export const depthWithin = (
  polygons: readonly (readonly Vec3[])[],
  sections: readonly Ready[],
): number => Math.max(0, ...sections.map((one) => depthIn(polygons, one)));

function depthIn(polygons: readonly (readonly Vec3[])[], { halves, box }: Ready): number {
  const isIn = (less: number) =>
    polygons.some((polygon) => within(polygon, halves, less).length > 0);
  let [low, high] = [0, Math.min(box[1] - box[0], box[3] - box[2]) / 2];
  if (!isIn(low)) return 0;
  while (high - low > DEPTH_MM) {
    const middle = (low + high) / 2;
    if (isIn(middle)) low = middle;
    else high = middle;
  }
  return high;
}

/** A flat polygon with its plane and the box round it. */
export type Sheet = { at: readonly Vec3[]; n: Vec3; d: number; low: Vec3; high: Vec3 };

export function sheetOf(at: readonly Vec3[]): Sheet {
  // Newell's normal, so that a corner in line does no harm.
  let n: [number, number, number] = [0, 0, 0];
  const [low, high]: [number, number, number][] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ] as [[number, number, number], [number, number, number]];
  at.forEach((p, i) => {
    const q = at[(i + 1) % at.length]!;
    n[0] += (p[1] - q[1]) * (p[2] + q[2]);
    n[1] += (p[2] - q[2]) * (p[0] + q[0]);
    n[2] += (p[0] - q[0]) * (p[1] + q[1]);
    for (let k = 0; k < 3; k++) {
      low![k] = Math.min(low![k]!, p[k]!);
      high![k] = Math.max(high![k]!, p[k]!);
    }
  });
  const long = Math.hypot(...n) || 1;
  n = [n[0] / long, n[1] / long, n[2] / long];
  return { at, n, d: dot3(n, at[0]!), low: low!, high: high! };
}

const dot3 = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/**
 * How deep the edges of one polygon go through another, mm, what crosses it nearer to its rim than
 * `rimMm` left out (corners that meet are fitted by hand); 0 where none do.
 */
export function through(a: Sheet, b: Sheet, rimMm: number): number {
  for (let k = 0; k < 3; k++) if (a.low[k]! > b.high[k]! || b.low[k]! > a.high[k]!) return 0;
  let depth = 0;
  a.at.forEach((p, i) => {
    const q = a.at[(i + 1) % a.at.length]!;
    const [u, v] = [dot3(b.n, p) - b.d, dot3(b.n, q) - b.d];
    if (u > 0 === v > 0 || Math.min(Math.abs(u), Math.abs(v)) < TOUCH_MM) return;
    const t = u / (u - v);
    const x: Vec3 = [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t, p[2] + (q[2] - p[2]) * t];
    if (isInside(b, x, rimMm)) depth = Math.max(depth, Math.min(Math.abs(u), Math.abs(v)));
  });
  return depth;
}

/** Planes within this sine lie alike. */
const ALIKE = 1e-3;

/**
 * How much two plates share that lie in one plane, mm: the smaller way across what is common to
 * both, where that is more than `rimMm`; 0 where they lie otherwise. Each by its two sides; one of
 * them convex.
 */
export function overlap(a: readonly Sheet[], b: readonly Sheet[], rimMm: number): number {
  const [s, t] = [a[0]!, b[0]!];
  const lean = Math.abs(dot3(s.n, t.n));
  if (lean < 1 - ALIKE) return 0;
  const heights = (sheets: readonly Sheet[]) =>
    sheets.map(({ at }) => dot3(s.n, at[0]!)).sort((p, q) => p - q) as [number, number];
  const [[a0, a1], [b0, b1]] = [heights(a), heights(b)];
  if (Math.min(a1, b1) - Math.max(a0, b0) < TOUCH_MM) return 0;
  let common: readonly Vec3[] = s.at;
  const n = t.at.length;
  for (let k = 0; k < n && common.length > 0; k++) {
    const [p, q] = [t.at[k]!, t.at[(k + 1) % n]!];
    const d: Vec3 = [q[0] - p[0], q[1] - p[1], q[2] - p[2]];
    // Inward of a side, as the polygon runs round its own normal.
    const inward: Vec3 = [
      t.n[1] * d[2] - t.n[2] * d[1],
      t.n[2] * d[0] - t.n[0] * d[2],
      t.n[0] * d[1] - t.n[1] * d[0],
    ];
    common = keptWhere(common, (x) => dot3(inward, [x[0] - p[0], x[1] - p[1], x[2] - p[2]]));
  }
  const across = widthAcross(common);
  return across > rimMm ? across : 0;
}

/** The part of a polygon where a linear measure is not below 0. */
function keptWhere(polygon: readonly Vec3[], measure: (x: Vec3) => number): Vec3[] {
  return polygon.flatMap((p, i): Vec3[] => {
    const q = polygon[(i + 1) % polygon.length]!;
    const [u, v] = [measure(p), measure(q)];
    const kept = u >= 0 ? [p] : [];
    if (u >= 0 === v >= 0) return kept;
    const k = u / (u - v);
    return [
      ...kept,
      [p[0] + (q[0] - p[0]) * k, p[1] + (q[1] - p[1]) * k, p[2] + (q[2] - p[2]) * k],
    ];
  });
}

/** The narrowest way across a polygon, square to one of its sides, mm. */
function widthAcross(polygon: readonly Vec3[]): number {
  let least = Infinity;
  polygon.forEach((p, i) => {
    const q = polygon[(i + 1) % polygon.length]!;
    const d: Vec3 = [q[0] - p[0], q[1] - p[1], q[2] - p[2]];
    const long = Math.hypot(...d);
    if (long < TOUCH_MM) return;
    least = Math.min(
      least,
      Math.max(
        ...polygon.map((x) => {
          const w: Vec3 = [x[0] - p[0], x[1] - p[1], x[2] - p[2]];
          const along = dot3(w, d) / long;
          return Math.sqrt(Math.max(0, dot3(w, w) - along * along));
        }),
      ),
    );
  });
  return Number.isFinite(least) ? least : 0;
}

/** Whether a place of a polygon's plane lies inside it, farther from its rim than `rimMm`. */
function isInside({ at, n }: Sheet, x: Vec3, rimMm: number): boolean {
  // Seen along the axis the plane is squarest to.
  const [ax, ay, az] = n.map(Math.abs) as [number, number, number];
  const [i, j] = az >= ax && az >= ay ? [0, 1] : ay >= ax ? [0, 2] : [1, 2];
  let odd = false;
  for (let k = 0; k < at.length; k++) {
    const [p, q] = [at[k]!, at[(k + 1) % at.length]!];
    if (
      p[j]! > x[j]! !== q[j]! > x[j]! &&
      x[i]! < p[i]! + ((x[j]! - p[j]!) * (q[i]! - p[i]!)) / (q[j]! - p[j]!)
    )
      odd = !odd;
    if (toEdge(x, p, q) < rimMm) return false;
  }
  return odd;
}

function toEdge(x: Vec3, p: Vec3, q: Vec3): number {
  const [u, w]: [Vec3, Vec3] = [
    [q[0] - p[0], q[1] - p[1], q[2] - p[2]],
    [x[0] - p[0], x[1] - p[1], x[2] - p[2]],
  ];
  const t = Math.min(1, Math.max(0, dot3(u, w) / (dot3(u, u) || 1)));
  return Math.hypot(w[0] - t * u[0], w[1] - t * u[1], w[2] - t * u[2]);
}
