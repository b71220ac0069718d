import { arcsThrough } from '../measure/arcFit';
import type { Result } from '../measure/result';
import { failure } from '../measure/result';
import type { Segment } from '../measure/segment';
import type { Vec } from '../measure/vector';

/** A station along a straight edge and the drop from there, square to it, to the surface, mm. */
export type Ordinate = readonly [station: number, drop: number];

/**
 * A profile from ordinates: the fewest lines and arcs within `toleranceMm` of every reading, from
 * the first station to the last. The straight edge is the x axis, the surface lies below it: y =
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
  return arcsThrough(
    read.map(({ at, drop }): Vec => [at, -drop]),
    toleranceMm,
  );
}
