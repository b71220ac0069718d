import type { Adjustment, Dimension } from '../measure/network/network';
import { adjustNetwork } from '../measure/network/network';
import { readIn } from './moved';
import type { Measure, ReferencePlace, Round, Surveyed } from './references';

export type RoundNetwork = {
  /** The points that the distances of the round place; null where there are not enough for any. */
  found: Adjustment | null;
  /** Points with distances that do not place them. */
  loose: string[];
};

/** A distance as it was read, by the ids of its ends. */
export type ReadDistance = { from: string; to: string; mm: number; uMm: number };

/** The distances between points that `valueOf` gives a reading of. */
export function distancesRead(
  points: readonly { id: string }[],
  measures: readonly Surveyed<Measure>[],
  valueOf: (measure: Surveyed<Measure>) => number | null,
): ReadDistance[] {
  const there = new Set(points.map(({ id }) => id));
  return measures.flatMap((measure) => {
    const { of, from, to, u } = measure;
    const whole =
      of === 'distance' &&
      from !== null &&
      to !== null &&
      from !== to &&
      there.has(from) &&
      there.has(to);
    const mm = whole ? valueOf(measure) : null;
    return whole && mm !== null && mm > 0 ? [{ from, to, mm, uMm: u }] : [];
  });
}

/**
 * The network of some distances: points by what is taped between them, named by their ids. What
 * cannot be placed is left out and named, with the tapes to it; the rest is placed without it.
 */
export function networkOf(
  points: readonly { id: string }[],
  read: readonly ReadDistance[],
  dimension: Dimension,
): RoundNetwork {
  let tapes = read;
  const loose: string[] = [];
  for (;;) {
    const used = points.filter(({ id }) =>
      tapes.some((tape) => tape.from === id || tape.to === id),
    );
    if (used.length < 2) return { found: null, loose };
    const found = adjustNetwork({ dimension, points: used.map(({ id }) => ({ name: id })), tapes });
    if (found.ok) return { found, loose };
    const out = new Set(found.problems.flatMap((problem) => problem.about ?? []));
    if (out.size === 0) return { found: null, loose };
    loose.push(...out);
    tapes = tapes.filter((tape) => !out.has(tape.from) && !out.has(tape.to));
  }
}

/** The network of one round. */
const networkOfRound = (
  points: readonly Surveyed<ReferencePlace>[],
  measures: readonly Surveyed<Measure>[],
  round: Surveyed<Round>,
  dimension: Dimension,
): RoundNetwork =>
  networkOf(
    points,
    distancesRead(points, measures, (measure) => readIn(round, measure)),
    dimension,
  );

/**
 * The nets of a round: in the plane one for each side of the vehicle that has points, in space one
 * of all.
 */
export type NetKey = ReferencePlace['side'] | 'space';

/** Which nets there are to see, those with the most points first. */
export function netKeys(points: readonly Surveyed<ReferencePlace>[], space: boolean): NetKey[] {
  if (space) return ['space'];
  const count = new Map<NetKey, number>();
  for (const { side } of points) count.set(side, (count.get(side) ?? 0) + 1);
  return [...count.keys()].sort((a, b) => count.get(b)! - count.get(a)!);
}

export type Nets = Partial<Record<NetKey, RoundNetwork>>;

/** All nets of a round. */
export function netsOf(
  points: readonly Surveyed<ReferencePlace>[],
  measures: readonly Surveyed<Measure>[],
  round: Surveyed<Round>,
  space: boolean,
): Nets {
  const nets = netKeys(points, space).map((key) => {
    const here = space ? points : points.filter(({ side }) => side === key);
    return [key, networkOfRound(here, measures, round, space ? 3 : 2)] as const;
  });
  return Object.fromEntries(nets);
}
