import type { Vec } from '../measure/vector';
import type { Picture } from './picture';
import { shrunk } from './picture';
import type { PlaneView } from './straighten';
import { picturing } from './straighten';

/**
 * A picture of the plane seen square on, true to scale: its upper left corner lies at (leftMm,
 * topMm), and each pixel is `stepMm` wide and high. y runs up on the plane, rows run down.
 */
export type StraightPicture = Picture & { leftMm: number; topMm: number; stepMm: number };

/**
 * Distance between places that are mapped exactly, pixels; between them the map is interpolated
 * linearly.
 */
const EXACT_EVERY = 16;

/** How much of the plane a pixel shows about a place, mm. */
export function mmPerPx(view: PlaneView, at: Vec): number {
  const picture = picturing(view);
  const [a, b, c] = [picture(at), picture([at[0] + 1, at[1]]), picture([at[0], at[1] + 1])];
  return 1 / Math.sqrt(Math.abs((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])));
}

/**
 * A rectangle of the plane, mm, as it would be seen square on; white where the picture does not
 * show it.
 */
export function straightPicture(
  picture: Picture,
  view: PlaneView,
  [x0, y0, x1, y1]: readonly [number, number, number, number],
  stepMm: number,
): StraightPicture {
  const by = Math.max(1, Math.floor(stepMm / mmPerPx(view, [(x0 + x1) / 2, (y0 + y1) / 2])));
  const from = shrunk(picture, by);
  const place = picturing(view);
  const width = Math.max(1, Math.round((x1 - x0) / stepMm));
  const height = Math.max(1, Math.round((y1 - y0) / stepMm));
  const data = new Uint8ClampedArray(width * height * 4).fill(255);
  const columns = Math.ceil(width / EXACT_EVERY) + 1;
  const rowOf = (j: number) =>
    Array.from({ length: columns }, (_, i): Vec => {
      const [u, v] = place([
        x0 + (i * EXACT_EVERY + 0.5) * stepMm,
        y1 - (j * EXACT_EVERY + 0.5) * stepMm,
      ]);
      return [u / by - 0.5, v / by - 0.5];
    });
  let above = rowOf(0);
  for (let j = 0; j * EXACT_EVERY < height; j++) {
    const below = rowOf(j + 1);
    for (let y = j * EXACT_EVERY; y < Math.min(height, (j + 1) * EXACT_EVERY); y++) {
      const t = y / EXACT_EVERY - j;
      for (let i = 0; i + 1 < columns; i++) {
        const u0 = above[i]![0] + (below[i]![0] - above[i]![0]) * t;
        const v0 = above[i]![1] + (below[i]![1] - above[i]![1]) * t;
        const du =
          (above[i + 1]![0] + (below[i + 1]![0] - above[i + 1]![0]) * t - u0) / EXACT_EVERY;
        const dv =
          (above[i + 1]![1] + (below[i + 1]![1] - above[i + 1]![1]) * t - v0) / EXACT_EVERY;
        const start = i * EXACT_EVERY;
        const end = Math.min(width, start + EXACT_EVERY);
        for (let x = start; x < end; x++)
          put(from, u0 + du * (x - start), v0 + dv * (x - start), data, (y * width + x) * 4);
      }
    }
    above = below;
  }
  return { width, height, data, leftMm: x0, topMm: y1, stepMm };
}

function put(
  { width, height, data }: Picture,
  x: number,
  y: number,
  into: Uint8ClampedArray,
  k: number,
): void {
  const i = Math.floor(x);
  const j = Math.floor(y);
  if (!(i >= 0 && j >= 0 && i + 1 < width && j + 1 < height)) return;
  const s = x - i;
  const t = y - j;
  const at = (j * width + i) * 4;
  const next = at + 4 * width;
  for (let c = 0; c < 3; c++) {
    const up = data[at + c]! + (data[at + 4 + c]! - data[at + c]!) * s;
    const down = data[next + c]! + (data[next + 4 + c]! - data[next + c]!) * s;
    into[k + c] = up + (down - up) * t;
  }
}

/**
 * Where on the plane a place of a straight picture lies, in its pixels from the upper left corner.
 */
export const placeOf = ({ leftMm, topMm, stepMm }: StraightPicture, x: number, y: number): Vec => [
  leftMm + x * stepMm,
  topMm - y * stepMm,
];

/** The same with one pixel for each square of `by` × `by`, any size from 1. */
export const coarser = (straight: StraightPicture, by: number): StraightPicture => ({
  ...straight,
  ...shrunk(straight, by),
  stepMm: straight.stepMm * by,
});
