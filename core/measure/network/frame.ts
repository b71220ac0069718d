import type { Places } from './adjust';

/**
 * Nearer to the line or plane of those before than this share of the whole, a point is no anchor.
 */
const OFF = 1e-6;

/**
 * A shape in the frame in which it is adjusted: origin at its first anchor, the next on +x, the
 * next on the +y side and so on. Anchors are the held points that span the most, then the others,
 * each in their order. What no held point settles is held in that frame; `outward` and `turned`
 * lead places and covariances back to where the held points are.
 */
export type Frame = {
  places: Places;
  anchors: number[];
  outward: (at: ArrayLike<number>) => number[];
  /** A covariance of d × d. */
  turned: (covariance: Float64Array) => Float64Array;
};

/** `shape` in its frame; `held` by point, null for those that are not. */
export function frameOf(shape: Places, held: readonly (readonly number[] | null)[]): Frame {
  const { dimension: d, at } = shape;
  const place = (i: number): number[] => [...at.subarray(i * d, (i + 1) * d)];
  const order = held
    .map((_, i) => i)
    .sort((a, b) => Number(held[a] === null) - Number(held[b] === null) || a - b);
  const anchors = [order[0]!];
  const origin = place(anchors[0]!);
  const axes: number[][] = [];
  const size = Math.max(...order.map((i) => length(minus(place(i), origin))), 1e-9);
  for (const i of order) {
    if (axes.length === d) break;
    const off = beside(minus(place(i), origin), axes);
    if (length(off) <= OFF * size) continue;
    axes.push(over(off, length(off)));
    anchors.push(i);
  }
  completed(axes, d);
  // The same axes where the held points are, as far as they say.
  const world: number[][] = [];
  const start = held[anchors[0]!] ?? Array.from({ length: d }, () => 0);
  for (const i of anchors.slice(1)) {
    const there = held[i];
    if (!there) break;
    const off = beside(minus(there, start), world);
    if (length(off) <= 1e-9) break;
    world.push(over(off, length(off)));
  }
  completed(world, d);
  const inFrame = (
    from: readonly number[],
    zero: readonly number[],
    along: readonly number[][],
  ): number[] => {
    const off = minus(from, zero);
    return along.map((axis) => dot(axis, off));
  };
  const places: Places = {
    dimension: d,
    at: new Float64Array(at.length),
    held: new Uint8Array(at.length),
  };
  held.forEach((there, i) => {
    places.at.set(there ? inFrame(there, start, world) : inFrame(place(i), origin, axes), i * d);
    if (there) places.held.fill(1, i * d, (i + 1) * d);
  });
  anchors.forEach((i, k) => {
    if (held[i]) return;
    for (let j = k; j < d; j++) {
      places.at[i * d + j] = 0;
      places.held[i * d + j] = 1;
    }
  });
  return {
    places,
    anchors,
    outward: (from) =>
      start.map((x, k) => world.reduce((sum, axis, j) => sum + axis[k]! * from[j]!, x)),
    turned: (covariance) => {
      const out = new Float64Array(d * d);
      for (let a = 0; a < d; a++)
        for (let b = 0; b < d; b++)
          for (let j = 0; j < d; j++)
            for (let k = 0; k < d; k++)
              out[a * d + b]! += world[j]![a]! * covariance[j * d + k]! * world[k]![b]!;
      return out;
    },
  };
}

const minus = (a: readonly number[], b: readonly number[]): number[] => a.map((x, k) => x - b[k]!);
const dot = (a: readonly number[], b: readonly number[]): number =>
  a.reduce((sum, x, k) => sum + x * b[k]!, 0);
const length = (a: readonly number[]): number => Math.sqrt(dot(a, a));
const over = (a: readonly number[], by: number): number[] => a.map((x) => x / by);

/** What of `a` lies beside all the axes. */
const beside = (a: readonly number[], axes: readonly number[][]): number[] =>
  axes.reduce(
    (rest, axis) => {
      const on = dot(rest, axis);
      return rest.map((x, k) => x - on * axis[k]!);
    },
    [...a],
  );

/**
 * Axes up to as many as there are dimensions: the last turns counter-clockwise from the others, the
 * rest lie nearest +x, +y, +z.
 */
function completed(axes: number[][], d: number): void {
  while (axes.length < d) {
    if (axes.length === d - 1 && d > 1) {
      axes.push(acrossAll(axes, d));
      continue;
    }
    const units = Array.from({ length: d }, (_, k) =>
      Array.from({ length: d }, (__, j) => Number(j === k)),
    );
    const wanted = [...units.slice(axes.length), ...units.slice(0, axes.length)];
    const off = wanted.map((unit) => beside(unit, axes)).find((one) => length(one) > 0.5)!;
    axes.push(over(off, length(off)));
  }
}

/** A quarter turn to the left of the one axis, or what stands on both by the right hand. */
function acrossAll(axes: readonly number[][], d: number): number[] {
  const [a, b] = [axes[0]!, axes[1]];
  if (d === 2 || !b) return [-a[1]!, a[0]!];
  return [
    a[1]! * b[2]! - a[2]! * b[1]!,
    a[2]! * b[0]! - a[0]! * b[2]!,
    a[0]! * b[1]! - a[1]! * b[0]!,
  ];
}
