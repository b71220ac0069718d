import { cholesky, solved } from '../solve/symmetric';
import type { Vec } from '../measure/vector';
import { cross, distance, sub } from '../measure/vector';
import type { Gray } from './picture';
import { isOn, valueAt } from './picture';
import type { Region } from './regions';
import { means, regionsOf } from './regions';
import type { Corner } from './scaleFrame';
import { ARM, ARM_WIDE, WINDOWS, WINDOW_PLACES } from './scaleFrame';

/**
 * An angle of the scale frame as it was found: which one, and where the corners of its hull are in
 * the picture, px.
 */
export type FoundAngle = {
  corner: Corner;
  hull: Vec[];
  /** How well it fits, the less the better. */ off: number;
};

/** The convex hull of an angle of the size of A4: what a region that may be one is held against. */
export const HULL: readonly Vec[] = [
  [0, 0],
  [ARM, 0],
  [ARM, ARM_WIDE],
  [ARM_WIDE, ARM],
  [0, ARM],
];

/**
 * Ways to tell dark from bright: a pixel is dark below `under` times the mean over a window of that
 * share of the picture's side.
 */
const LOOKS = [
  { part: 1 / 8, under: 0.65 },
  { part: 1 / 16, under: 0.75 },
  { part: 1 / 4, under: 0.5 },
  { part: 1 / 24, under: 0.85 },
];
/** Smallest region that is looked at, px, and the narrowest. */
const MIN_PIXELS = 120;
const MIN_WIDE = 12;
/** A hull is off by no more than this share of its size. */
const MAX_OFF = 0.07;
/** Black and white of an angle are apart by this much at least. */
const MIN_CONTRAST = 24;

/**
 * The angles of a scale frame in a picture, each corner's by how well it fits, the best first.
 * Several ways to tell dark from bright are tried until all four are there.
 */
export function findAngles(gray: Gray): FoundAngle[] {
  const found: FoundAngle[] = [];
  for (const look of LOOKS) {
    for (const region of darkRegions(gray, look.part, look.under)) {
      const angle = angleIn(gray, region);
      if (angle && !found.some((other) => distance(other.hull[0]!, angle.hull[0]!) < 4))
        found.push(angle);
    }
    if (new Set(found.map(({ corner }) => corner)).size === 4) break;
  }
  return found.sort((a, b) => a.off - b.off);
}

function darkRegions({ width, height, data }: Gray, part: number, under: number): Region[] {
  const mean = means(data, width, height, Math.round((Math.max(width, height) * part) / 2));
  const dark = new Uint8Array(data.length);
  for (let i = 0; i < dark.length; i++) if (data[i]! < under * mean[i]!) dark[i] = 1;
  return regionsOf(dark, width, height, MIN_PIXELS).filter(
    ({ x0, y0, x1, y1 }) =>
      x1 - x0 >= MIN_WIDE && y1 - y0 >= MIN_WIDE && x1 - x0 < width / 2 && y1 - y0 < height / 2,
  );
}

/** The angle that a dark region is; null where it is none. */
function angleIn(gray: Gray, region: Region): FoundAngle | null {
  const hull = fiveCorners(hullOf(region, gray.width));
  if (hull.length !== 5) return null;
  let best: { off: number; affine: Affine; hull: Vec[] } | null = null;
  for (let turn = 0; turn < 5; turn++) {
    const seen = HULL.map((_, i) => hull[(i + turn) % 5]!);
    const affine = affineThrough(HULL, seen);
    if (!affine) continue;
    const size = Math.sqrt(Math.abs(affine[0] * affine[4] - affine[1] * affine[3])) * ARM;
    const worst = Math.max(...HULL.map((p, i) => distance(taken(affine, p), seen[i]!)));
    if (size > 0 && (!best || worst / size < best.off))
      best = { off: worst / size, affine, hull: seen };
  }
  // As it is seen from above: y runs up on paper and down in a picture.
  if (
    !best ||
    best.off > MAX_OFF ||
    best.affine[0] * best.affine[4] - best.affine[1] * best.affine[3] >= 0
  )
    return null;
  const corner = cornerOf(gray, best.affine);
  return corner === null ? null : { corner, hull: best.hull, off: best.off };
}

/** Places of an angle that are black whatever its windows, and places beside it that are white. */
const BLACK: readonly Vec[] = [
  [13, 6],
  [26.5, 6],
  [38, 6],
  [6, 13],
  [6, 26.5],
  [6, 38],
  [1.5, 1.5],
];
const WHITE: readonly Vec[] = [
  [-3, 10],
  [-3, 30],
  [10, -3],
  [30, -3],
  [-2.5, -2.5],
];

function cornerOf(gray: Gray, affine: Affine): Corner | null {
  const look = (p: Vec) => {
    const [u, v] = taken(affine, p);
    return isOn(gray, u, v) ? valueAt(gray, u, v) : NaN;
  };
  const black = Math.max(...BLACK.map(look));
  const white = Math.min(...WHITE.map(look));
  if (!(white - black > MIN_CONTRAST)) return null;
  const middle = (BLACK.map(look).reduce((a, b) => a + b) / BLACK.length + white) / 2;
  const seen = WINDOW_PLACES.map((p) => look(p) > middle);
  const at = WINDOWS.findIndex((windows) => windows.every((open, i) => open === seen[i]));
  return at < 0 ? null : (at as Corner);
}

/**
 * The convex hull of a region's pixels, their corners taken, in the way that +x, then +y is turned.
 */
function hullOf({ pixels, y0, y1 }: Region, width: number): Vec[] {
  const rows = y1 - y0 + 1;
  const first = new Float64Array(rows).fill(Infinity);
  const last = new Float64Array(rows).fill(-Infinity);
  for (const at of pixels) {
    const row = ((at / width) | 0) - y0;
    const x = at % width;
    if (x < first[row]!) first[row] = x;
    if (x + 1 > last[row]!) last[row] = x + 1;
  }
  const points: Vec[] = [];
  for (let row = 0; row < rows; row++)
    for (const y of [y0 + row, y0 + row + 1]) points.push([first[row]!, y], [last[row]!, y]);
  points.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  // Andrew's monotone chain.
  const chain = (all: readonly Vec[]): Vec[] => {
    const out: Vec[] = [];
    for (const p of all) {
      while (
        out.length >= 2 &&
        cross(sub(out[out.length - 1]!, out[out.length - 2]!), sub(p, out[out.length - 1]!)) <= 0
      )
        out.pop();
      out.push(p);
    }
    return out.slice(0, -1);
  };
  return [...chain(points), ...chain([...points].reverse())];
}

/**
 * A hull with corners taken away, always the one that matters least, until five are left; turned as
 * an angle's is seen.
 */
function fiveCorners(hull: readonly Vec[]): Vec[] {
  const left = [...hull];
  while (left.length > 5) {
    let [least, at] = [Infinity, 0];
    for (let i = 0; i < left.length; i++) {
      const [a, b, c] = [
        left[(i + left.length - 1) % left.length]!,
        left[i]!,
        left[(i + 1) % left.length]!,
      ];
      const area = Math.abs(cross(sub(b, a), sub(c, a)));
      if (area < least) [least, at] = [area, i];
    }
    left.splice(at, 1);
  }
  return left.reverse();
}

/** u = a·x + b·y + c, v = d·x + e·y + f. */
export type Affine = readonly [number, number, number, number, number, number];
const taken = (t: Affine, [x, y]: Vec): Vec => [
  t[0] * x + t[1] * y + t[2],
  t[3] * x + t[4] * y + t[5],
];

/**
 * The affine map that takes points to points with the least squares; null where they lie in line.
 */
function affineThrough(from: readonly Vec[], to: readonly Vec[]): Affine | null {
  const m = new Float64Array(9);
  const [u, v] = [new Float64Array(3), new Float64Array(3)];
  from.forEach(([x, y], i) => {
    const row = [x, y, 1];
    for (let j = 0; j < 3; j++) {
      for (let k = 0; k < 3; k++) m[3 * j + k]! += row[j]! * row[k]!;
      u[j]! += row[j]! * to[i]![0];
      v[j]! += row[j]! * to[i]![1];
    }
  });
  const l = cholesky(m, 3);
  return l && ([...solved(l, 3, u), ...solved(l, 3, v)] as unknown as Affine);
}
