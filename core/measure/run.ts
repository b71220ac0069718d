import type { Ramp } from './ramp';
import { isEven, rampAt } from './ramp';
import type { Segment } from './segment';
import {
  bulgeThrough,
  directionAt,
  isStraight,
  line,
  nearest,
  offsetRight,
  part,
  pointAt,
  segmentLength,
} from './segment';
import { ROUNDING_MM } from './tolerance';
import type { Vec } from './vector';
import { along, cross, right, sub } from './vector';

/** Maximum part of an arc beside which the distance changes, radians. */
const TAPERED_ARC = Math.PI / 24;

/** The point `mm` along a run of segments from its start. */
export function pointAlong(run: readonly Segment[], mm: number): Vec | null {
  let left = mm;
  for (const s of run) {
    const l = segmentLength(s);
    if (left <= l + ROUNDING_MM)
      return pointAt(s, l === 0 ? 0 : Math.min(1, Math.max(0, left / l)));
    left -= l;
  }
  const last = run[run.length - 1];
  return last ? last.b : null;
}

/** The outward direction of a run (to its right) at `mm` along it. */
export function outwardAlong(run: readonly Segment[], mm: number): Vec {
  let left = mm;
  for (const s of run) {
    const l = segmentLength(s);
    if (left <= l + ROUNDING_MM) return right(directionAt(s, l === 0 ? 0 : Math.min(1, left / l)));
    left -= l;
  }
  const last = run[run.length - 1];
  return last ? right(directionAt(last, 1)) : [0, 0];
}

export const runLength = (run: readonly Segment[]): number =>
  run.reduce((sum, s) => sum + segmentLength(s), 0);

/**
 * The part of a run between two places, mm from its start; empty where there is nothing between
 * them.
 */
export function partOfRun(run: readonly Segment[], fromMm: number, toMm: number): Segment[] {
  let start = 0;
  return run.flatMap((s): Segment[] => {
    const l = segmentLength(s);
    const [from, to] = [Math.max(0, fromMm - start), Math.min(l, toMm - start)];
    start += l;
    return to - from > ROUNDING_MM ? [part(s, from / l, to / l)] : [];
  });
}

/**
 * The place of a run nearest to a point: how far along, mm, the point there, and how far off it
 * lies to the right of the run (negative: to its left). Null for a run of nothing.
 */
export function nearestOnRun(
  run: readonly Segment[],
  p: Vec,
): { alongMm: number; at: Vec; rightMm: number; way: Vec } | null {
  let start = 0;
  let best: { off: number; alongMm: number; at: Vec; way: Vec } | null = null;
  for (const s of run) {
    const found = nearest(s, p);
    const l = segmentLength(s);
    if (!best || found.distance < best.off)
      best = {
        off: found.distance,
        alongMm: start + found.at * l,
        at: pointAt(s, found.at),
        way: directionAt(s, found.at),
      };
    start += l;
  }
  return (
    best && {
      alongMm: best.alongMm,
      at: best.at,
      way: best.way,
      rightMm: cross(sub(p, best.at), best.way) >= 0 ? best.off : -best.off,
    }
  );
}

/**
 * The parallel of a run on its right, at the distance `off` along it (negative: on its left).
 * Straight parts stay straight; an arc becomes an arc where the distance stays the same, else short
 * arcs through the places reckoned.
 */
export function besideRun(run: readonly Segment[], off: Ramp): Segment[] {
  if (isEven(off)) return run.map((s) => offsetRight(s, off[0]![1]));
  const total = runLength(run);
  let gone = 0;
  return run.flatMap((s) => {
    const l = segmentLength(s);
    const from = gone;
    gone += l;
    const beside = (t: number): Vec =>
      along(pointAt(s, t), right(directionAt(s, t)), rampAt(off, (from + t * l) / total));
    // Where it begins to get wider or narrower otherwise there is a corner.
    const turns = [
      0,
      ...off.map(([share]) => (share * total - from) / l).filter((t) => t > 1e-9 && t < 1 - 1e-9),
      1,
    ];
    return turns.slice(1).flatMap((to, k): Segment[] => {
      const start = turns[k]!;
      if (isStraight(s)) return [line(beside(start), beside(to))];
      const parts = Math.max(
        1,
        Math.ceil(Math.abs(4 * Math.atan(s.bulge) * (to - start)) / TAPERED_ARC),
      );
      const at = (i: number) => beside(start + ((to - start) * i) / parts);
      return Array.from({ length: parts }, (_, i): Segment => ({
        a: at(i),
        b: at(i + 1),
        bulge: bulgeThrough(at(i), at(i + 0.5), at(i + 1)),
      }));
    });
  });
}

/** The middle of a run by length, and the outward direction there; null for a run of nothing. */
export function middleOf(run: readonly Segment[]): { at: Vec; out: Vec } | null {
  const half = runLength(run) / 2;
  const at = pointAlong(run, half);
  return at && { at, out: outwardAlong(run, half) };
}
