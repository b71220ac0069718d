import { inside } from '../measure/path';
import { cholesky, solved } from '../solve/symmetric';
import type { Vec } from '../measure/vector';
import { along, mix, sub, unit } from '../measure/vector';
import type { FoundFrame } from './findFrame';
import { grown } from './regions';
import type { ShadowEdge } from './shadows';
import { shadowEdges } from './shadows';
import type { StraightPicture } from './straightPicture';

/**
 * Paper between the marks and where a card goes is white when it is at least so bright against the
 * paper's rim.
 */
const AS_WHITE = 0.8;

/**
 * Which pixels a card is looked for in: inside the frame and outside its marks. Where all between
 * the marks is white paper, right up to them; where the middle is black, or cut out so that the
 * bench is seen, only there. And the hard shadows that lie across it.
 */
export function whereOf(
  straight: StraightPicture,
  frame: FoundFrame,
): { where: Uint8Array; shadows: ShadowEdge[] } {
  const plain = filledBy(straight, frame.inside);
  const shadows = shadowEdges(straight, besideMarks(straight, frame, plain));
  const wide =
    frame.wider && isWhite(straight, frame, plain, shadows)
      ? filledBy(straight, frame.wider)
      : plain;
  return { where: besideMarks(straight, frame, wide), shadows };
}

/**
 * Width about a mark in which its paper may still be seen, mm: what is taken for bench there would
 * make a white card look like it.
 */
const MARK_RIM_MM = 3;

function besideMarks(straight: StraightPicture, frame: FoundFrame, some: Uint8Array): Uint8Array {
  const { width, height, stepMm } = straight;
  const marks = new Uint8Array(width * height);
  for (const polygon of frame.notInside) fill(straight, polygon, marks);
  const out = grown(marks, width, height, Math.max(2, Math.round(MARK_RIM_MM / stepMm)));
  return some.map((one, i) => (out[i] ? 0 : one));
}

/** Whether the rim of the middle is as white as the paper about it. */
function isWhite(
  straight: StraightPicture,
  frame: FoundFrame,
  middle: Uint8Array,
  shadows: readonly ShadowEdge[],
): boolean {
  const { width, height } = straight;
  const wide = filledBy(straight, frame.wider!);
  const lit = litAt(straight, frame.white, shadows);
  const rim = Math.max(3, Math.round(4 / straight.stepMm));
  let [white, all] = [0, 0];
  for (let y = rim; y < height - rim; y++)
    for (let x = rim; x < width - rim; x++) {
      const at = y * width + x;
      if (!middle[at] || !wide[at]) continue;
      const edge = [at - rim, at + rim, at - rim * width, at + rim * width].some((k) => !middle[k]);
      if (!edge) continue;
      all++;
      if (brightAt(straight, at) > AS_WHITE * lit[at]!) white++;
    }
  return all > 0 && white > 0.7 * all;
}

const brightAt = ({ data }: StraightPicture, at: number): number =>
  0.3 * data[4 * at]! + 0.59 * data[4 * at + 1]! + 0.11 * data[4 * at + 2]!;

/** The mean of a block of pixels about one. */
function blockAt(straight: StraightPicture, i: number, j: number, reach: number): number {
  const { width, height } = straight;
  let [sum, count] = [0, 0];
  for (let y = Math.max(0, j - reach); y <= Math.min(height - 1, j + reach); y++)
    for (let x = Math.max(0, i - reach); x <= Math.min(width - 1, i + reach); x++) {
      sum += brightAt(straight, y * width + x);
      count++;
    }
  return sum / count;
}

/** How deep along the rim the bench is looked at, mm. */
export const BENCH_MM = 14;
/** Places on each side of the rim. */
const ALONG_RIM = 40;

/**
 * Places on the bench just inside the rim of where a card is looked for, in order round it, beside
 * what lies on it.
 */
export function benchPlaces(frame: FoundFrame): Vec[] {
  const around = frame.inside;
  const n = around.length;
  const middle: Vec = [
    around.reduce((s, p) => s + p[0], 0) / n,
    around.reduce((s, p) => s + p[1], 0) / n,
  ];
  const within = around.map((p) => along(p, unit(sub(middle, p)), BENCH_MM));
  return within
    .flatMap((a, i) =>
      Array.from({ length: ALONG_RIM }, (_, k) => mix(a, within[(i + 1) % n]!, k / ALONG_RIM)),
    )
    .filter((p) => !frame.notInside.some((polygon) => inside(p, polygon)));
}

/** The pixels whose middles lie in a convex polygon, whichever way it goes round. */
function filledBy(straight: StraightPicture, polygon: readonly Vec[]): Uint8Array {
  const found = new Uint8Array(straight.width * straight.height);
  fill(straight, polygon, found);
  return found;
}

/**
 * Sets the pixels whose middles lie in a convex polygon: row by row, from where a row enters it to
 * where it leaves.
 */
function fill(straight: StraightPicture, polygon: readonly Vec[], into: Uint8Array): void {
  const { width, height, leftMm, topMm, stepMm } = straight;
  for (let y = 0; y < height; y++) {
    const py = topMm - (y + 0.5) * stepMm;
    let [from, to] = [Infinity, -Infinity];
    polygon.forEach((a, i) => {
      const b = polygon[(i + 1) % polygon.length]!;
      if (a[1] > py === b[1] > py) return;
      const x = a[0] + ((b[0] - a[0]) * (py - a[1])) / (b[1] - a[1]);
      from = Math.min(from, x);
      to = Math.max(to, x);
    });
    const first = Math.max(0, Math.ceil((from - leftMm) / stepMm - 0.5));
    const last = Math.min(width - 1, Math.floor((to - leftMm) / stepMm - 0.5));
    if (first <= last) into.fill(1, y * width + first, y * width + last + 1);
  }
}

/**
 * How bright white paper would be at each pixel, 1 to 255: from where it is known to be white, its
 * logarithm taken to change evenly over the picture (a plane through few places, a curved surface
 * through many) but for the steps of hard shadows, strays left out. Where nothing is known to be
 * white, what is brighter than all but a hundredth. Of bench in place of white, blocks so large are
 * looked at: what is even about it is then how bright the bench would be.
 */
export function litAt(
  straight: StraightPicture,
  white: readonly Vec[],
  shadows: readonly ShadowEdge[],
  blockMm = 0,
): Float32Array {
  const { width, height, leftMm, topMm, stepMm } = straight;
  const found = new Float32Array(width * height);
  const seen = white.flatMap(([x, y]) => {
    const [i, j] = [Math.floor((x - leftMm) / stepMm), Math.floor((topMm - y) / stepMm)];
    // What lies beyond the straight picture is taken at its rim's nearest pixel only when it lies
    // right beside it.
    const [ci, cj] = [Math.min(width - 1, Math.max(0, i)), Math.min(height - 1, Math.max(0, j))];
    const bright =
      blockMm > 0
        ? blockAt(straight, ci, cj, Math.round(blockMm / 2 / stepMm))
        : brightAt(straight, cj * width + ci);
    return bright > 8 && Math.hypot(ci - i, cj - j) * stepMm < 25
      ? [{ x: ci / width, y: cj / height, log: Math.log(bright) - shadeAt(shadows, ci, cj) }]
      : [];
  });
  if (seen.length < 4) {
    const some = Array.from({ length: Math.ceil(found.length / 53) }, (_, k) =>
      brightAt(straight, k * 53),
    ).sort((a, b) => a - b);
    return found.fill(Math.max(1, some[Math.floor(some.length * 0.99)] ?? 255));
  }
  const curved = seen.length >= 24;
  const terms = ({ x, y }: { x: number; y: number }) =>
    curved ? [1, x, y, x * y, x * x, y * y] : [1, x, y];
  let kept = seen;
  let surface: Float64Array | null = null;
  for (let turn = 0; turn < 3; turn++) {
    surface = surfaceThrough(kept, terms);
    if (!surface) break;
    const now = surface;
    const off = kept.map((one) => Math.abs(one.log - heightOf(now, terms(one))));
    const middle = [...off].sort((a, b) => a - b)[off.length >> 1]!;
    kept = kept.filter((_, i) => off[i]! <= Math.max(0.05, 3 * middle));
  }
  if (!surface)
    return found.fill(Math.exp(seen.reduce((sum, one) => sum + one.log, 0) / seen.length));
  const now = surface;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x += 4) {
      const log = heightOf(now, terms({ x: (x + 2) / width, y: y / height }));
      const end = Math.min(width, x + 4);
      for (let k = x; k < end; k++) found[y * width + k] = brightOf(log + shadeAt(shadows, k, y));
    }
  return found;
}

const brightOf = (log: number): number => Math.min(255, Math.max(1, Math.exp(log)));

/**
 * By how much the shadows together make a pixel brighter than it would be on the one side of all of
 * them, as a logarithm.
 */
const shadeAt = (shadows: readonly ShadowEdge[], x: number, y: number): number =>
  shadows.reduce(
    (sum, { nx, ny, c, log }) => (nx * (x + 0.5) + ny * (y + 0.5) > c ? sum + log : sum),
    0,
  );

type White = { x: number; y: number; log: number };
const heightOf = (surface: Float64Array, terms: readonly number[]): number =>
  terms.reduce((sum, term, i) => sum + term * surface[i]!, 0);

function surfaceThrough(
  seen: readonly White[],
  termsOf: (p: White) => number[],
): Float64Array | null {
  const n = seen.length > 0 ? termsOf(seen[0]!).length : 0;
  const m = new Float64Array(n * n);
  const right = new Float64Array(n);
  for (const one of seen) {
    const row = termsOf(one);
    for (let i = 0; i < n; i++) {
      right[i]! += row[i]! * one.log;
      for (let j = 0; j < n; j++) m[i * n + j]! += row[i]! * row[j]!;
    }
  }
  for (let i = 0; i < n; i++) m[i * n + i]! += 1e-9;
  const l = cholesky(m, n);
  return l && solved(l, n, right);
}
