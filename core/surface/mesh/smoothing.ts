import { cholesky, solved } from '../../solve/symmetric';

/**
 * A cubic without kinks through or past given values: its knots, its values there and its second
 * derivatives there.
 */
export type Cubic = {
  knots: readonly number[];
  values: readonly number[];
  bends: readonly number[];
};

/**
 * The cubic that bends least of all that stay near `values` at `knots` (strictly rising, two or
 * more): through them where `give` is 0, the straight line of least squares where it is large
 * (Reinsch 1967). Straight beyond its ends.
 */
export function smoothed(knots: readonly number[], values: readonly number[], give: number): Cubic {
  const n = knots.length;
  if (n < 3) return { knots, values, bends: knots.map(() => 0) };
  const h = knots.slice(1).map((x, i) => x - knots[i]!);
  const m = n - 2;
  // (R + give·QᵀQ)·γ = Qᵀ·y for the second derivatives inside.
  const rows = Array.from(
    { length: m },
    (_, j): Map<number, number> =>
      new Map([
        [j, 1 / h[j]!],
        [j + 1, -1 / h[j]! - 1 / h[j + 1]!],
        [j + 2, 1 / h[j + 1]!],
      ]),
  );
  const system = new Float64Array(m * m);
  for (let i = 0; i < m; i++)
    for (let j = Math.max(0, i - 2); j <= i; j++) {
      let sum = 0;
      for (const [k, q] of rows[i]!) sum += q * (rows[j]!.get(k) ?? 0);
      // The bend goes on evenly over the first and the last piece: a panel does not run out
      // straight at its edges.
      const ends = (i === 0 ? h[0]! / 6 : 0) + (i === m - 1 ? h[m]! / 6 : 0);
      const r = i === j ? (h[i]! + h[i + 1]!) / 3 + ends : i === j + 1 ? h[i]! / 6 : 0;
      system[i * m + j] = r + give * sum;
    }
  const right = rows.map((row) => [...row].reduce((sum, [k, q]) => sum + q * values[k]!, 0));
  const lower = cholesky(system, m);
  const inner = lower ? [...solved(lower, m, right)] : right.map(() => 0);
  const near = [...values];
  inner.forEach((bend, j) => rows[j]!.forEach((q, k) => (near[k]! -= give * q * bend)));
  return { knots, values: near, bends: [inner[0]!, ...inner, inner[m - 1]!] };
}

/** The cubic at `x`. */
export function cubicAt({ knots, values, bends }: Cubic, x: number): number {
  const n = knots.length;
  if (n === 1) return values[0]!;
  let [low, high] = [0, n - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (knots[middle]! <= x) low = middle;
    else high = middle;
  }
  const h = knots[high]! - knots[low]!;
  const at = Math.min(knots[high]!, Math.max(knots[low]!, x));
  const [a, b] = [(knots[high]! - at) / h, (at - knots[low]!) / h];
  const inside =
    a * values[low]! +
    b * values[high]! +
    ((a ** 3 - a) * bends[low]! + (b ** 3 - b) * bends[high]!) * ((h * h) / 6);
  if (at === x) return inside;
  // Beyond the ends: on along the slope there.
  const slope =
    (values[high]! - values[low]!) / h +
    (x < at ? -(2 * bends[low]! + bends[high]!) : bends[low]! + 2 * bends[high]!) * (h / 6);
  return inside + slope * (x - at);
}

/**
 * Of the cubics for one row of values the smoothest that is off none of them by more than
 * `tolerance`.
 */
export function smoothest(
  knots: readonly number[],
  rows: readonly (readonly number[])[],
  tolerance: number,
): Cubic[] {
  const made = (give: number): Cubic[] => rows.map((values) => smoothed(knots, values, give));
  const off = (cubics: readonly Cubic[]): number =>
    Math.max(
      ...knots.map((_, i) =>
        Math.hypot(...cubics.map((cubic, row) => cubic.values[i]! - rows[row]![i]!)),
      ),
    );
  if (!(tolerance > 0) || knots.length < 3) return made(0);
  const whole = (knots[knots.length - 1]! - knots[0]!) ** 3;
  let [low, high] = [whole * 1e-12, whole * 1e6];
  if (off(made(low)) > tolerance) return made(0);
  if (off(made(high)) <= tolerance) return made(high);
  for (let i = 0; i < 50; i++) {
    const middle = Math.sqrt(low * high);
    if (off(made(middle)) <= tolerance) low = middle;
    else high = middle;
  }
  return made(low);
}
