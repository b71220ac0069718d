/** What `leastOf` found: the place, its value, how many steps were taken. */
export type Least = { x: Float64Array; value: number; steps: number };

/** Number of last steps kept for the curvature (7 in Nocedal & Wright). */
const REMEMBERED = 8;

/**
 * The least of a smooth function of many figures near `from`, by the steps remembered (Liu &
 * Nocedal 1989; two loops and backtracking as in Nocedal & Wright, Numerical Optimization, 7.4).
 * `of` gives the value and writes the gradient. Ends when a step gains less than the share `enough`
 * of the value, or after `most` steps; yields the steps taken, every tenth.
 */
export function* leastOf(
  of: (x: Float64Array, gradient: Float64Array) => number,
  from: Float64Array,
  { most, enough }: { most: number; enough: number },
): Generator<number, Least> {
  const n = from.length;
  let x = Float64Array.from(from);
  let gradient = new Float64Array(n);
  let value = of(x, gradient);
  const known: { s: Float64Array; y: Float64Array; by: number }[] = [];
  let still = 0;
  let steps = 0;
  for (; steps < most && still < REMEMBERED; steps++) {
    if (steps % 10 === 9) yield steps;
    const way = Float64Array.from(gradient);
    const shares: number[] = [];
    for (let i = known.length - 1; i >= 0; i--) {
      const { s, y, by } = known[i]!;
      shares[i] = dot(s, way) / by;
      add(way, y, -shares[i]!);
    }
    const newest = known[known.length - 1];
    const scale = newest
      ? newest.by / dot(newest.y, newest.y)
      : 1 / Math.max(1e-300, Math.sqrt(dot(gradient, gradient)));
    for (let k = 0; k < n; k++) way[k]! *= scale;
    for (let i = 0; i < known.length; i++) {
      const { s, y, by } = known[i]!;
      add(way, s, shares[i]! - dot(y, way) / by);
    }
    const slope = -dot(way, gradient);
    if (!(slope < 0)) break;
    const next = new Float64Array(n);
    const nextGradient = new Float64Array(n);
    let [step, now] = [1, Infinity];
    for (let tries = 0; tries < 40; tries++, step /= 2) {
      for (let k = 0; k < n; k++) next[k] = x[k]! - step * way[k]!;
      now = of(next, nextGradient);
      if (now <= value + 1e-4 * step * slope) break;
    }
    if (!(now < value)) break;
    const s = next.map((at, k) => at - x[k]!);
    const y = nextGradient.map((g, k) => g - gradient[k]!);
    const by = dot(s, y);
    if (by > 1e-12 * Math.sqrt(dot(s, s) * dot(y, y))) {
      known.push({ s, y, by });
      if (known.length > REMEMBERED) known.shift();
    }
    still = value - now < enough * value ? still + 1 : 0;
    [x, gradient, value] = [next, nextGradient, now];
  }
  return { x, value, steps };
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
}

function add(to: Float64Array, what: Float64Array, times: number): void {
  for (let i = 0; i < to.length; i++) to[i]! += what[i]! * times;
}
