/**
 * A region of one kind that hangs together: its pixels, by number, and the rectangle they lie in.
 */
export type Region = { pixels: Int32Array; x0: number; y0: number; x1: number; y1: number };

/**
 * The regions of pixels that are set and hang together by their sides, those of at least `least`
 * pixels, in the order of their first pixels.
 */
export function regionsOf(
  mask: Uint8Array,
  width: number,
  height: number,
  least: number,
): Region[] {
  const left = Uint8Array.from(mask);
  const stack = new Int32Array(width * height);
  const found: Region[] = [];
  for (let start = 0; start < left.length; start++) {
    if (!left[start]) continue;
    let top = 1;
    let from = 0;
    stack[0] = start;
    left[start] = 0;
    let x0 = width;
    let y0 = height;
    let x1 = 0;
    let y1 = 0;
    // What was looked at stays on the stack below: in the end it holds the region.
    while (from < top) {
      const at = stack[from++]!;
      const x = at % width;
      const y = (at / width) | 0;
      if (x < x0) x0 = x;
      if (x > x1) x1 = x;
      if (y < y0) y0 = y;
      if (y > y1) y1 = y;
      for (let side = 0; side < 4; side++) {
        if (
          side === 0
            ? x === 0
            : side === 1
              ? x + 1 === width
              : side === 2
                ? y === 0
                : y + 1 === height
        )
          continue;
        const next =
          side === 0 ? at - 1 : side === 1 ? at + 1 : side === 2 ? at - width : at + width;
        if (!left[next]) continue;
        left[next] = 0;
        stack[top++] = next;
      }
    }
    if (top >= least) found.push({ pixels: stack.slice(0, top), x0, y0, x1, y1 });
  }
  return found;
}

/**
 * The mean of each pixel's square of 2·reach + 1, as far as it lies on the picture: sums that slide
 * along rows, then down columns.
 */
export function means(
  data: ArrayLike<number>,
  width: number,
  height: number,
  reach: number,
): Float32Array {
  const rows = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    let sum = 0;
    for (let x = 0; x < Math.min(reach, width); x++) sum += data[row + x]!;
    for (let x = 0; x < width; x++) {
      if (x + reach < width) sum += data[row + x + reach]!;
      if (x > reach) sum -= data[row + x - reach - 1]!;
      rows[row + x] = sum / (Math.min(width - 1, x + reach) - Math.max(0, x - reach) + 1);
    }
  }
  const found = new Float32Array(width * height);
  const sums = new Float64Array(width);
  for (let y = 0; y < Math.min(reach, height); y++)
    for (let x = 0; x < width; x++) sums[x]! += rows[y * width + x]!;
  for (let y = 0; y < height; y++) {
    const into = (y + reach) * width;
    const out = (y - reach - 1) * width;
    const share = 1 / (Math.min(height - 1, y + reach) - Math.max(0, y - reach) + 1);
    for (let x = 0; x < width; x++) {
      if (y + reach < height) sums[x]! += rows[into + x]!;
      if (out >= 0) sums[x]! -= rows[out + x]!;
      found[y * width + x] = sums[x]! * share;
    }
  }
  return found;
}

/**
 * Set pixels grown (`by` above 0) or eaten away (below 0) by a square of `by` pixels all round;
 * beyond the picture nothing is set.
 */
export function grown(mask: Uint8Array, width: number, height: number, by: number): Uint8Array {
  const sign = by > 0 ? 1 : 0;
  const reach = Math.abs(by);
  const rows = new Uint8Array(width * height).fill(1 - sign);
  for (let y = 0; y < height; y++) spread(mask, rows, y * width, 1, width, reach, sign);
  const found = new Uint8Array(width * height).fill(1 - sign);
  for (let x = 0; x < width; x++) spread(rows, found, x, width, height, reach, sign);
  return found;
}

/** Along one row or column: what has the sign within reach gets it. */
function spread(
  from: Uint8Array,
  into: Uint8Array,
  start: number,
  step: number,
  count: number,
  reach: number,
  sign: number,
): void {
  let until = -1;
  let done = 0;
  if (sign === 0)
    for (let k = 0; k < Math.min(reach, count); k++) {
      into[start + k * step] = 0;
      into[start + (count - 1 - k) * step] = 0;
    }
  for (let i = 0; i < count; i++) {
    if (from[start + i * step] !== sign) continue;
    until = Math.min(count - 1, i + reach);
    for (let k = Math.max(done, i - reach); k <= until; k++) into[start + k * step] = sign;
    done = until + 1;
  }
}
