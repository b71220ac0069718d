import type { Fitted } from '../measure/arcFit';
import { arcsThrough } from '../measure/arcFit';
import type { Result } from '../measure/result';
import { failure } from '../measure/result';
import type { Segment } from '../measure/segment';
import { reversed } from '../measure/segment';
import type { Vec } from '../measure/vector';

/** A station along a straight edge and the drop from there, square to it, to the surface, mm. */
export type Ordinate = readonly [station: number, drop: number];

/**
 * A profile from ordinates: the fewest lines and arcs within `toleranceMm` of every reading, from
 * the first station to the last. Where the readings show a kink it is kept. The straight edge is the x axis, the surface lies below it: y =
 * −drop. Stations in any order; of two at one place the later reading is an error.
 *
 * Problems: `profile-station` (about: the numbers, from 1, of readings that are none or stand at
 * one station with another), those of `arcsThrough`.
 */
export function profileOf(
  ordinates: readonly Ordinate[],
  toleranceMm: number,
): Result<{ arcs: Segment[]; worstMm: number }> {
  const read = ordinates
    .map(([at, drop], i) => ({ at, drop, number: i + 1 }))
    .sort((a, b) => a.at - b.at);
  const bad = read.filter(
    ({ at, drop }, i) => !Number.isFinite(at + drop) || (i > 0 && at === read[i - 1]!.at),
  );
  if (bad.length > 0)
    return failure({ code: 'profile-station', about: bad.map(({ number }) => String(number)) });
  const points = read.map(({ at, drop }): Vec => [at, 0 - drop]);
  const [there, back] = [points, [...points].reverse()].map((all) =>
    arcsThrough(all, toleranceMm, 'read'),
  ) as [Result<Fitted>, Result<Fitted>];
  if (!there.ok || !back.ok) return there;
  // Walked from either end it may be parted elsewhere: the fewer, or the nearer, whichever way the
  // strip was laid.
  const fewer = there.arcs.length - back.arcs.length || there.worstMm - back.worstMm;
  return fewer <= 0 ? there : { ...back, arcs: [...back.arcs].reverse().map(reversed) };
}
