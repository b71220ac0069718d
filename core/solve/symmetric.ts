/**
 * Symmetric matrices of n × n, row by row in one array: what least squares needs, in its plainest
 * form. Made for some hundred unknowns.
 */
export type Square = Float64Array;

/**
 * The lower triangle L of a = L·Lᵀ, or null where a is not positive definite. Only the lower
 * triangle of `a` is read.
 */
export function cholesky(a: Square, n: number): Square | null {
  const l = new Float64Array(n * n);
  for (let i = 0; i < n; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = a[i * n + j]!;
      for (let k = 0; k < j; k++) sum -= l[i * n + k]! * l[j * n + k]!;
      if (i !== j) l[i * n + j] = sum / l[j * n + j]!;
      else if (sum > 0) l[i * n + i] = Math.sqrt(sum);
      else return null;
    }
  }
  return l;
}

/** The x of L·Lᵀ·x = b. */
export function solved(l: Square, n: number, b: ArrayLike<number>): Float64Array {
  const x = Float64Array.from(b);
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) x[i]! -= l[i * n + k]! * x[k]!;
    x[i]! /= l[i * n + i]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) x[i]! -= l[k * n + i]! * x[k]!;
    x[i]! /= l[i * n + i]!;
  }
  return x;
}

/** (L·Lᵀ)⁻¹, whole. */
export function inverse(l: Square, n: number): Square {
  const whole = new Float64Array(n * n);
  const unit = new Float64Array(n);
  for (let j = 0; j < n; j++) {
    unit.fill(0);
    unit[j] = 1;
    const column = solved(l, n, unit);
    for (let i = 0; i < n; i++) whole[i * n + j] = column[i]!;
  }
  return whole;
}

/**
 * Eigenvalues, largest first, and the eigenvectors that belong to them, each of length 1: Jacobi's
 * turns, one pair of axes after another until nothing is left beside the diagonal (Golub & Van
 * Loan, Matrix Computations, 8.5).
 */
export function eigen(a: Square, n: number): { values: number[]; vectors: Float64Array[] } {
  const m = Float64Array.from(a);
  const v = Array.from({ length: n }, (_, i) => {
    const row = new Float64Array(n);
    row[i] = 1;
    return row;
  });
  const size = Math.sqrt(m.reduce((sum, x) => sum + x * x, 0));
  for (let sweep = 0; sweep < 60; sweep++) {
    let off = 0;
    for (let i = 0; i < n; i++) for (let j = 0; j < i; j++) off += m[i * n + j]! ** 2;
    if (Math.sqrt(off) <= 1e-15 * size) break;
    for (let p = 0; p < n; p++) for (let q = p + 1; q < n; q++) turn(m, v, n, p, q);
  }
  const order = Array.from({ length: n }, (_, i) => i).sort(
    (i, j) => m[j * n + j]! - m[i * n + i]!,
  );
  return { values: order.map((i) => m[i * n + i]!), vectors: order.map((i) => v[i]!) };
}

/** Turns the axes p and q so that nothing is left between them; the rows of `v` turn along. */
function turn(m: Square, v: Float64Array[], n: number, p: number, q: number): void {
  const apq = m[p * n + q]!;
  if (apq === 0) return;
  const theta = (m[q * n + q]! - m[p * n + p]!) / (2 * apq);
  const t = (theta < 0 ? -1 : 1) / (Math.abs(theta) + Math.sqrt(theta * theta + 1));
  const c = 1 / Math.sqrt(t * t + 1);
  const s = t * c;
  for (let k = 0; k < n; k++) {
    const [kp, kq] = [m[k * n + p]!, m[k * n + q]!];
    m[k * n + p] = c * kp - s * kq;
    m[k * n + q] = s * kp + c * kq;
  }
  for (let k = 0; k < n; k++) {
    const [pk, qk] = [m[p * n + k]!, m[q * n + k]!];
    m[p * n + k] = c * pk - s * qk;
    m[q * n + k] = s * pk + c * qk;
  }
  for (let k = 0; k < n; k++) {
    const [vp, vq] = [v[p]![k]!, v[q]![k]!];
    v[p]![k] = c * vp - s * vq;
    v[q]![k] = s * vp + c * vq;
  }
}
