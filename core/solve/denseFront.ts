/** Columns reckoned at once before their effect on the rest is. */
const PANEL = 16;

/**
 * The first `p` columns of a dense front factored in place, and their effect on the rest taken off
 * it.
 */
export function factorColumns(front: Float64Array, size: number, p: number): boolean {
  for (let from = 0; from < p; from += PANEL) {
    const to = Math.min(p, from + PANEL);
    takeOff(front, size, from, size, from, to, from);
    for (let i = from; i < to; i++) {
      const at = i * size;
      for (let j = from; j < i; j++) {
        const row = j * size;
        let sum = front[at + j]!;
        for (let k = from; k < j; k++) sum -= front[at + k]! * front[row + k]!;
        front[at + j] = sum / front[row + j]!;
      }
      let d = front[at + i]!;
      for (let k = from; k < i; k++) d -= front[at + k]! * front[at + k]!;
      if (!(d > 0)) return false;
      front[at + i] = Math.sqrt(d);
    }
    divide(front, size, from, to);
  }
  takeOff(front, size, p, size, p, size, p);
  return true;
}

/**
 * The rows under a panel divided by its triangle, four rows at a time: each waits for its own sums
 * alone.
 */
function divide(f: Float64Array, size: number, from: number, to: number): void {
  let i = to;
  for (; i + 4 <= size; i += 4) {
    const a = i * size;
    const b = a + size;
    const c = b + size;
    const d = c + size;
    for (let j = from; j < to; j++) {
      const row = j * size;
      let x = f[a + j]!;
      let y = f[b + j]!;
      let z = f[c + j]!;
      let w = f[d + j]!;
      for (let k = from; k < j; k++) {
        const l = f[row + k]!;
        x -= f[a + k]! * l;
        y -= f[b + k]! * l;
        z -= f[c + k]! * l;
        w -= f[d + k]! * l;
      }
      const over = 1 / f[row + j]!;
      f[a + j] = x * over;
      f[b + j] = y * over;
      f[c + j] = z * over;
      f[d + j] = w * over;
    }
  }
  for (; i < size; i++) {
    const a = i * size;
    for (let j = from; j < to; j++) {
      const row = j * size;
      let x = f[a + j]!;
      for (let k = from; k < j; k++) x -= f[a + k]! * f[row + k]!;
      f[a + j] = x / f[row + j]!;
    }
  }
}

/**
 * Takes the products of the first `depth` columns off rows `i0`–`i1`, columns `j0`–`j1`, on and
 * below the diagonal; two rows by four columns at a time, so that what is read is used several
 * times.
 */
function takeOff(
  f: Float64Array,
  size: number,
  i0: number,
  i1: number,
  j0: number,
  j1: number,
  depth: number,
): void {
  if (depth === 0) return;
  for (let i = i0; i < i1; i += 2) {
    const two = i + 1 < i1;
    const a = i * size;
    const b = two ? a + size : a;
    const end = Math.min(j1, i + 2);
    let j = j0;
    for (; j + 4 <= end; j += 4) {
      const q = j * size;
      const r = q + size;
      const s = r + size;
      const t = s + size;
      let a0 = 0;
      let a1 = 0;
      let a2 = 0;
      let a3 = 0;
      let b0 = 0;
      let b1 = 0;
      let b2 = 0;
      let b3 = 0;
      for (let k = 0; k < depth; k++) {
        const x = f[a + k]!;
        const y = f[b + k]!;
        const c0 = f[q + k]!;
        const c1 = f[r + k]!;
        const c2 = f[s + k]!;
        const c3 = f[t + k]!;
        a0 += x * c0;
        a1 += x * c1;
        a2 += x * c2;
        a3 += x * c3;
        b0 += y * c0;
        b1 += y * c1;
        b2 += y * c2;
        b3 += y * c3;
      }
      f[a + j]! -= a0;
      f[a + j + 1]! -= a1;
      f[a + j + 2]! -= a2;
      f[a + j + 3]! -= a3;
      if (!two) continue;
      f[b + j]! -= b0;
      f[b + j + 1]! -= b1;
      f[b + j + 2]! -= b2;
      f[b + j + 3]! -= b3;
    }
    for (; j < end; j++) {
      const q = j * size;
      let x = 0;
      let y = 0;
      for (let k = 0; k < depth; k++) {
        const c = f[q + k]!;
        x += f[a + k]! * c;
        y += f[b + k]! * c;
      }
      f[a + j]! -= x;
      if (two) f[b + j]! -= y;
    }
  }
}
