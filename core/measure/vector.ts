/** A point or a displacement in the plane: millimetres, x to the right, y up. */
export type Vec = readonly [x: number, y: number];

export const add = (a: Vec, b: Vec): Vec => [a[0] + b[0], a[1] + b[1]];
export const sub = (a: Vec, b: Vec): Vec => [a[0] - b[0], a[1] - b[1]];
export const scale = (a: Vec, k: number): Vec => [a[0] * k, a[1] * k];
/** `a + k·b`, the step that most of the geometry is made of. */
export const along = (a: Vec, b: Vec, k: number): Vec => [a[0] + b[0] * k, a[1] + b[1] * k];
export const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1];
/** Twice the signed area of the triangle 0, a, b: positive when b lies to the left of a. */
export const cross = (a: Vec, b: Vec): number => a[0] * b[1] - a[1] * b[0];
export const length = (a: Vec): number => Math.hypot(a[0], a[1]);
export const distance = (a: Vec, b: Vec): number => Math.hypot(a[0] - b[0], a[1] - b[1]);
export const mix = (a: Vec, b: Vec, t: number): Vec => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
];
/** A quarter turn to the left. */
export const left = (a: Vec): Vec => [-a[1], a[0]];
/** A quarter turn to the right: outward from a counter-clockwise outline. */
export const right = (a: Vec): Vec => [a[1], -a[0]];
/** The direction of `a` with length 1, or [0, 0] for a vector too short to have one. */
export const unit = (a: Vec): Vec => {
  const l = length(a);
  return l < 1e-12 ? [0, 0] : [a[0] / l, a[1] / l];
};
/** `a` turned by `angle` radians, counter-clockwise. */
export const turned = (a: Vec, angle: number): Vec => {
  const c = Math.cos(angle);
  const s = Math.sin(angle);
  return [a[0] * c - a[1] * s, a[0] * s + a[1] * c];
};

/**
 * Distance from `p` to the straight segment `a`–`b`, and how far along it (0 to 1) the nearest
 * place is.
 */
export function nearestOnSegment(p: Vec, a: Vec, b: Vec): { distance: number; at: number } {
  const ab = sub(b, a);
  const l2 = dot(ab, ab);
  const at = l2 < 1e-18 ? 0 : Math.min(1, Math.max(0, dot(sub(p, a), ab) / l2));
  return { distance: distance(p, along(a, ab, at)), at };
}

/**
 * Where the line through `p` along `u` meets the line through `q` along `v`, or null when they are
 * parallel (to 1e-10 of a right angle for unit directions).
 */
export function meet(p: Vec, u: Vec, q: Vec, v: Vec): Vec | null {
  const d = cross(u, v);
  if (Math.abs(d) < 1e-10) return null;
  return along(p, u, cross(sub(q, p), v) / d);
}
