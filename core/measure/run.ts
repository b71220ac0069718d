import type { Segment } from './segment';
import { directionAt, pointAt, segmentLength } from './segment';
import { ROUNDING_MM } from './tolerance';
import type { Vec } from './vector';
import { right } from './vector';

/** The point so far along a run of segments, mm from its start. */
export function pointAlong(run: readonly Segment[], mm: number): Vec | null {
  let left = mm;
  for (const s of run) {
    const l = segmentLength(s);
    if (left <= l + ROUNDING_MM) return pointAt(s, l === 0 ? 0 : Math.min(1, Math.max(0, left / l)));
    left -= l;
  }
  const last = run[run.length - 1];
  return last ? last.b : null;
}

/** The outward direction of a run (to its right) so far along it. */
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

export const runLength = (run: readonly Segment[]): number => run.reduce((sum, s) => sum + segmentLength(s), 0);

/** The middle of a run by length, and the outward direction there; null for a run of nothing. */
export function middleOf(run: readonly Segment[]): { at: Vec; out: Vec } | null {
  const half = runLength(run) / 2;
  const at = pointAlong(run, half);
  return at && { at, out: outwardAlong(run, half) };
}
