import { cholesky, inverse, solved } from './symmetric';

/**
 * Where a sum of squares is least: the unknowns, that sum, and (JᵀJ)⁻¹ there, null where the
 * residuals do not say all.
 */
export type LeastSquares = { x: Float64Array; sum: number; covariance: Float64Array | null };

/**
 * Levenberg's and Marquardt's steps (Marquardt 1963) to the least sum of squares of residuals near
 * a beginning; derivatives by differences. Made for up to some twenty unknowns.
 *
 * @param start the unknowns to begin at
 * @param residuals writes all residuals at some unknowns
 * @param count how many residuals there are
 * @param sizes a change of each unknown that is small, for the differences
 */
export function leastSquares(
  start: ArrayLike<number>,
  residuals: (x: Float64Array, into: Float64Array) => void,
  count: number,
  sizes: ArrayLike<number>,
  turns = 40,
): LeastSquares {
  const n = start.length;
  let x = Float64Array.from(start);
  let off = new Float64Array(count);
  residuals(x, off);
  let sum = squares(off);
  let damping = 1e-3;
  let matrix = new Float64Array(n * n);
  for (let turn = 0; turn < turns; turn++) {
    const columns = derivatives(x, off, residuals, sizes);
    matrix = normals(columns, n);
    const right = columns.map((column) => -column.reduce((all, d, i) => all + d * off[i]!, 0));
    let better = false;
    let gain = 0;
    for (let attempt = 0; attempt < 12 && !better; attempt++) {
      const damped = Float64Array.from(matrix);
      for (let i = 0; i < n; i++) damped[i * n + i]! *= 1 + damping;
      const l = cholesky(damped, n);
      const step = l && solved(l, n, right);
      const next = step && (x.map((figure, i) => figure + step[i]!) as Float64Array<ArrayBuffer>);
      const then = new Float64Array(count);
      if (next) residuals(next, then);
      const now = next ? squares(then) : Infinity;
      if (next && now <= sum) {
        gain = sum - now;
        [x, off, sum, better] = [next, then, now, true];
        damping = Math.max(1e-12, damping / 10);
      } else damping *= 10;
    }
    if (!better || gain <= 1e-12 * sum) break;
  }
  const l = cholesky(normals(derivatives(x, off, residuals, sizes), n), n);
  return { x, sum, covariance: l && inverse(l, n) };
}

const squares = (off: Float64Array): number => {
  let sum = 0;
  for (const one of off) sum += one * one;
  return Number.isFinite(sum) ? sum : Infinity;
};

function derivatives(
  x: Float64Array,
  off: Float64Array,
  residuals: (x: Float64Array, into: Float64Array) => void,
  sizes: ArrayLike<number>,
): Float64Array[] {
  const [ahead, back] = [new Float64Array(off.length), new Float64Array(off.length)];
  return Array.from(x, (figure, k) => {
    const by = sizes[k]!;
    const moved = Float64Array.from(x);
    moved[k] = figure + by;
    residuals(moved, ahead);
    moved[k] = figure - by;
    residuals(moved, back);
    return ahead.map((one, i) => (one - back[i]!) / (2 * by));
  });
}

function normals(columns: readonly Float64Array[], n: number): Float64Array<ArrayBuffer> {
  const matrix = new Float64Array(n * n);
  for (let j = 0; j < n; j++)
    for (let k = 0; k <= j; k++) {
      let sum = 0;
      const [a, b] = [columns[j]!, columns[k]!];
      for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
      matrix[j * n + k] = matrix[k * n + j] = sum;
    }
  return matrix;
}
