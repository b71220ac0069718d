import { inside } from '../measure/path';
import { cholesky, solved } from '../measure/symmetric';
import type { Vec } from '../measure/vector';
import { along, mix, sub, unit } from '../measure/vector';
import type { FoundFrame } from './findFrame';
import type { StraightPicture } from './straightPicture';

/** Paper between the marks and where a card goes is white when it is at least so bright against the paper's rim. */
const AS_WHITE = 0.8;

/**
 * Which pixels a card is looked for in: inside the frame and outside its marks. Where all between the marks is white paper,
 * right up to them; where the middle is black, or cut out so that the bench is seen, only there.
 */
export function whereOf(straight: StraightPicture, frame: FoundFrame): Uint8Array {
  const { width, height } = straight;
  const found = new Uint8Array(width * height);
  const plain = filledBy(straight, frame.inside);
  const where = frame.wider && isWhite(straight, frame, plain) ? filledBy(straight, frame.wider) : plain;
  found.set(where);
  for (const polygon of frame.notInside) {
    const out = filledBy(straight, polygon);
    for (let i = 0; i < out.length; i++) if (out[i]) found[i] = 0;
  }
  return found;
}

/** Whether the rim of the middle is as white as the paper about it. */
function isWhite(straight: StraightPicture, frame: FoundFrame, middle: Uint8Array): boolean {
  const { width, height } = straight;
  const wide = filledBy(straight, frame.wider!);
  const { lit } = litAt(straight, frame.white);
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

/** Places on the bench just inside the rim of where a card is looked for, in order round it, beside what lies on it. */
export function benchPlaces(frame: FoundFrame): Vec[] {
  const around = frame.inside;
  const n = around.length;
  const middle: Vec = [around.reduce((s, p) => s + p[0], 0) / n, around.reduce((s, p) => s + p[1], 0) / n];
  const within = around.map((p) => along(p, unit(sub(middle, p)), BENCH_MM));
  return within
    .flatMap((a, i) => Array.from({ length: ALONG_RIM }, (_, k) => mix(a, within[(i + 1) % n]!, k / ALONG_RIM)))
    .filter((p) => !frame.notInside.some((polygon) => inside(p, polygon)));
}

/** The pixels whose middles lie in a convex polygon, whichever way it goes round. */
export function filledBy(straight: StraightPicture, polygon: readonly Vec[]): Uint8Array {
  const { width, height } = straight;
  const found = new Uint8Array(width * height);
  const n = polygon.length;
  const sides = Float64Array.from({ length: 3 * n }, (_, k) => {
    const a = polygon[Math.floor(k / 3)]!;
    const way = sub(polygon[(Math.floor(k / 3) + 1) % n]!, a);
    return k % 3 === 0 ? way[0] : k % 3 === 1 ? way[1] : way[0] * a[1] - way[1] * a[0];
  });
  for (let y = 0; y < height; y++) {
    const py = straight.topMm - (y + 0.5) * straight.stepMm;
    for (let x = 0; x < width; x++) {
      const px = straight.leftMm + (x + 0.5) * straight.stepMm;
      let left = 0;
      let right = 0;
      for (let k = 0; k < 3 * n; k += 3) {
        const side = sides[k]! * py - sides[k + 1]! * px - sides[k + 2]!;
        if (side > 0) left++;
        else if (side < 0) right++;
      }
      if (left === 0 || right === 0) found[y * width + x] = 1;
    }
  }
  return found;
}

/** How bright white would be at each pixel, and whether a hard shadow lies across. */
export type Lit = { lit: Float32Array; stepped: boolean };

/**
 * How bright white paper would be at each pixel, 1 to 255: from where it is known to be white, its logarithm taken to
 * change evenly over the picture (a plane through few places, a curved surface through many, with a step where a hard
 * shadow crosses), strays left out. Where
 * nothing is known to be white, what is brighter than all but a hundredth. Of bench in place of white, blocks so large are
 * looked at: what is even about it is then how bright the bench would be.
 */
export function litAt(straight: StraightPicture, white: readonly Vec[], blockMm = 0): Lit {
  const { width, height, leftMm, topMm, stepMm } = straight;
  const found = new Float32Array(width * height);
  const seen = white.flatMap(([x, y]) => {
    const [i, j] = [Math.floor((x - leftMm) / stepMm), Math.floor((topMm - y) / stepMm)];
    // What lies beyond the straight picture is taken at its rim's nearest pixel only when it lies right beside it.
    const [ci, cj] = [Math.min(width - 1, Math.max(0, i)), Math.min(height - 1, Math.max(0, j))];
    const bright = blockMm > 0 ? blockAt(straight, ci, cj, Math.round(blockMm / 2 / stepMm)) : brightAt(straight, cj * width + ci);
    return bright > 8 && Math.hypot(ci - i, cj - j) * stepMm < 25 ? [{ x: ci / width, y: cj / height, log: Math.log(bright) }] : [];
  }); // prettier-ignore
  if (seen.length < 4) {
    const some = Array.from({ length: Math.ceil(found.length / 53) }, (_, k) => brightAt(straight, k * 53)).sort((a, b) => a - b); // prettier-ignore
    return { lit: found.fill(Math.max(1, some[Math.floor(some.length * 0.99)] ?? 255)), stepped: false };
  }
  const shadow = seen.length >= 24 ? shadowOf(seen) : null;
  const terms = (p: { x: number; y: number }) => termsAt(p, seen.length >= 24, shadow);
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
    return { lit: found.fill(Math.exp(seen.reduce((sum, one) => sum + one.log, 0) / seen.length)), stepped: false };
  const now = surface;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x += 4) {
      const log = heightOf(now, terms({ x: (x + 2) / width, y: y / height }));
      found.fill(Math.min(255, Math.max(1, Math.exp(log))), y * width + x, y * width + Math.min(width, x + 4));
    }
  return { lit: found, stepped: shadow !== null };
}

type White = { x: number; y: number; log: number };
/** The straight edge of a shadow: the shadow lies where nx·x + ny·y > c. */
type Shadow = { nx: number; ny: number; c: number };
/** White that goes darker or brighter by more than this from one place to the next but one is in a shadow there. */
const SHADOW_STEP = 0.14;

/** Where a hard shadow crosses the paper: the line between the two places at which white steps down and up; null for none. */
function shadowOf(seen: readonly White[]): Shadow | null {
  const n = seen.length;
  const steps = seen.map((one, i) => ({ i, by: seen[(i + 2) % n]!.log - one.log }));
  const down = steps.reduce((most, one) => (one.by < most.by ? one : most));
  const up = steps.reduce((most, one) => (one.by > most.by ? one : most));
  if (down.by > -SHADOW_STEP || up.by < SHADOW_STEP) return null;
  const between = (i: number) => {
    const [a, b] = [seen[i]!, seen[(i + 2) % n]!];
    return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
  };
  const [p, q] = [between(down.i), between(up.i)];
  const [nx, ny] = [q.y - p.y, p.x - q.x];
  if (Math.hypot(nx, ny) < 0.1) return null;
  const c = nx * p.x + ny * p.y;
  const dark = seen[(down.i + 3) % n]!;
  const sign = nx * dark.x + ny * dark.y > c ? 1 : -1;
  return { nx: sign * nx, ny: sign * ny, c: sign * c };
}

/** What a logarithm of brightness is made up of at a place. */
function termsAt({ x, y }: { x: number; y: number }, curved: boolean, shadow: Shadow | null): number[] {
  const plane = curved ? [1, x, y, x * y, x * x, y * y] : [1, x, y];
  if (shadow) plane.push(shadow.nx * x + shadow.ny * y > shadow.c ? 1 : 0);
  return plane;
}

const heightOf = (surface: Float64Array, terms: readonly number[]): number =>
  terms.reduce((sum, term, i) => sum + term * surface[i]!, 0);

function surfaceThrough(seen: readonly White[], termsOf: (p: White) => number[]): Float64Array | null {
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
