/**
 * A picture: four bytes to each pixel (red, green, blue, and one that is not looked at), row by row
 * from the top left. Places in it are (u, v): px to the right and down from its upper left corner,
 * so that the first pixel's middle is at (0.5, 0.5).
 */
export type Picture = { width: number; height: number; data: Uint8ClampedArray | Uint8Array };

/** One figure to each pixel, 0 dark to 255 bright. */
export type Gray = { width: number; height: number; data: Uint8Array };

/** How bright each pixel is: as the eye weighs the colours (ITU-R BT.601). */
export function brightness({ width, height, data }: Picture): Gray {
  const gray = new Uint8Array(width * height);
  for (let i = 0, k = 0; i < gray.length; i++, k += 4) gray[i] = brightOf(data, k);
  return { width, height, data: gray };
}

const brightOf = (data: Picture['data'], k: number): number =>
  (77 * data[k]! + 150 * data[k + 1]! + 29 * data[k + 2]! + 128) >> 8;

/**
 * The same picture with one pixel for each square of `by` × `by` px, which may be any size from 1:
 * the mean of what lies in it, of a pixel that lies in two by its parts. What is over at the right
 * and below is left out.
 */
export function shrunk({ width, height, data }: Picture, by: number): Picture {
  if (by <= 1) return { width, height, data };
  const [w, h] = [Math.floor(width / by), Math.floor(height / by)];
  const [columns, rows] = [squaresOf(width, by), squaresOf(height, by)];
  const small = new Uint8ClampedArray(w * h * 4).fill(255);
  // What is over goes into two squares more.
  const sums = [new Float32Array((w + 2) * 3), new Float32Array((w + 2) * 3)];
  for (let y = 0; y < height && rows.into[y]! < h; y++) {
    const part = rows.part[y]!;
    const [now, next] = sums as [Float32Array, Float32Array];
    addRow(data, 4 * y * width, columns, now, part / (by * by));
    if (part < 1) addRow(data, 4 * y * width, columns, next, (1 - part) / (by * by));
    const square = rows.into[y]!;
    if (rows.into[y + 1] === square) continue;
    for (let x = 0, k = 4 * square * w; x < w; x++, k += 4) {
      small[k] = now[3 * x]!;
      small[k + 1] = now[3 * x + 1]!;
      small[k + 2] = now[3 * x + 2]!;
    }
    sums.reverse();
    now.fill(0);
  }
  return { width: w, height: h, data: small };
}

/**
 * Which square of `by` px each of some pixels in a row begins in, and how much of the pixel lies in
 * it; the rest lies in the next.
 */
function squaresOf(pixels: number, by: number): { into: Int32Array; part: Float64Array } {
  const into = Int32Array.from({ length: pixels }, (_, i) => Math.floor(i / by));
  return { into, part: Float64Array.from(into, (square, i) => Math.min(1, (square + 1) * by - i)) };
}

function addRow(
  data: Picture['data'],
  from: number,
  { into, part }: ReturnType<typeof squaresOf>,
  sums: Float32Array,
  by: number,
): void {
  for (let x = 0, k = from; x < into.length; x++, k += 4) {
    const at = 3 * into[x]!;
    const here = by * part[x]!;
    const on = by - here;
    const r = data[k]!;
    const g = data[k + 1]!;
    const b = data[k + 2]!;
    sums[at]! += here * r;
    sums[at + 1]! += here * g;
    sums[at + 2]! += here * b;
    if (on === 0) continue;
    sums[at + 3]! += on * r;
    sums[at + 4]! += on * g;
    sums[at + 5]! += on * b;
  }
}
/**
 * How bright a picture is at a place, between the four pixels nearest to it; at the rim that of the
 * rim.
 */
export function brightAt({ width, height, data }: Picture, u: number, v: number): number {
  const x = Math.min(width - 1.001, Math.max(0, u - 0.5));
  const y = Math.min(height - 1.001, Math.max(0, v - 0.5));
  const i = Math.floor(x);
  const j = Math.floor(y);
  const k = (j * width + i) * 4;
  const above = brightOf(data, k) + (brightOf(data, k + 4) - brightOf(data, k)) * (x - i);
  const next = k + 4 * width;
  const below = brightOf(data, next) + (brightOf(data, next + 4) - brightOf(data, next)) * (x - i);
  return above + (below - above) * (y - j);
}

/** The value of one pixel, the nearest to a place. */
export const valueAt = ({ width, height, data }: Gray, u: number, v: number): number =>
  data[
    Math.min(height - 1, Math.max(0, Math.floor(v))) * width +
      Math.min(width - 1, Math.max(0, Math.floor(u)))
  ]!;

/** Red, green and blue at a place, likewise, written into `into` from `k` on. */
export function colourAt(
  { width, height, data }: Picture,
  u: number,
  v: number,
  into: Float64Array,
  k = 0,
): void {
  const x = Math.min(width - 1.001, Math.max(0, u - 0.5));
  const y = Math.min(height - 1.001, Math.max(0, v - 0.5));
  const [i, j] = [Math.floor(x), Math.floor(y)];
  const [s, t] = [x - i, y - j];
  const at = (j * width + i) * 4;
  for (let c = 0; c < 3; c++) {
    const above = data[at + c]! + (data[at + 4 + c]! - data[at + c]!) * s;
    const below =
      data[at + 4 * width + c]! + (data[at + 4 * width + 4 + c]! - data[at + 4 * width + c]!) * s;
    into[k + c] = above + (below - above) * t;
  }
}

/** Whether a place lies on a picture. */
export const isOn = (
  { width, height }: { width: number; height: number },
  u: number,
  v: number,
): boolean => u >= 0 && v >= 0 && u <= width && v <= height;
