import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import { cubicAt, smoothed } from './smoothing';

/**
 * A reading of the real panel against a strip: the panel's depth below it at a station, mm (below
 * 0: above it).
 */
export type StripGap = { at: number; lowMm: number };

/**
 * Between two readings: what the metal along the strip is short of (+) or has too much of (−), mm
 * and as a share of what it is.
 */
export type StillToDo = { from: number; to: number; changeMm: number; share: number };

/** Steps that a line along the metal is measured in. */
const STEPS = 400;

/**
 * What a panel still lacks along a strip: the strip's line has its length from reading to reading;
 * the panel's own, which lies below it by what was read, is shorter or longer. Gaps between
 * readings go smoothly from one to the next; beyond the first and the last they stay. Length across
 * the strip is not known from it.
 *
 * Problems: `strip-gaps` (under two readings, off the strip, two at one station, no figure).
 */
export function stillToDo(
  ordinates: readonly (readonly [number, number])[],
  gaps: readonly StripGap[],
): Result<{ spans: StillToDo[]; changeMm: number }> {
  const read = [...gaps].sort((a, b) => a.at - b.at);
  const [first, last] = [ordinates[0]?.[0] ?? 0, ordinates[ordinates.length - 1]?.[0] ?? 0];
  const bad = read.some(
    ({ at, lowMm }, i) =>
      !Number.isFinite(at + lowMm) ||
      at < first - 1e-6 ||
      at > last + 1e-6 ||
      (i > 0 && at - read[i - 1]!.at < 1e-6),
  );
  if (read.length < 2 || ordinates.length < 2 || bad)
    return failure({ code: 'strip-gaps', about: [] });
  const strip = smoothed(
    ordinates.map(([s]) => s),
    ordinates.map(([, drop]) => -drop),
    0,
  );
  const gap = smoothed(
    read.map(({ at }) => at),
    read.map(({ lowMm }) => lowMm),
    0,
  );
  const low = (s: number): number =>
    cubicAt(gap, Math.min(read[read.length - 1]!.at, Math.max(read[0]!.at, s)));
  const places = [first, ...read.map(({ at }) => at).filter((at) => at > first && at < last), last];
  const long = (from: number, to: number, height: (s: number) => number): number => {
    let sum = 0;
    for (let i = 0; i < STEPS; i++) {
      const [a, b] = [from + ((to - from) * i) / STEPS, from + ((to - from) * (i + 1)) / STEPS];
      sum += Math.hypot(b - a, height(b) - height(a));
    }
    return sum;
  };
  const spans = places.slice(1).map((to, i): StillToDo => {
    const from = places[i]!;
    const wanted = long(from, to, (s) => cubicAt(strip, s));
    const now = long(from, to, (s) => cubicAt(strip, s) - low(s));
    return { from, to, changeMm: wanted - now, share: wanted / now - 1 };
  });
  return { ok: true, spans, changeMm: spans.reduce((sum, { changeMm }) => sum + changeMm, 0) };
}
