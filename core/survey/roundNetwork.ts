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

/**
 * The network of one round: its points by the distances that were read in it, named by their ids. What cannot be placed is
 * left out and named, with the tapes to it; the rest is placed without it.
 */
export function networkOfRound(
  points: readonly Surveyed<ReferencePlace>[],
  measures: readonly Surveyed<Measure>[],
  round: Surveyed<Round>,
  dimension: Dimension,
): RoundNetwork {
  const there = new Set(points.map((point) => point.id));
  let tapes = measures.flatMap(({ id, of, from, to, u }) => {
    const mm = readIn(round, { id });
    const whole =
      of === 'distance' && from !== null && to !== null && from !== to && there.has(from) && there.has(to);
    return whole && mm !== null && mm > 0 ? [{ from, to, mm, uMm: u }] : [];
  });
  const loose: string[] = [];
  for (;;) {
    const used = points.filter(({ id }) => tapes.some((tape) => tape.from === id || tape.to === id));
    if (used.length < 2) return { found: null, loose };
    const found = adjustNetwork({ dimension, points: used.map(({ id }) => ({ name: id })), tapes });
    if (found.ok) return { found, loose };
    const out = new Set(found.problems.flatMap((problem) => problem.about ?? []));
    if (out.size === 0) return { found: null, loose };
    loose.push(...out);
    tapes = tapes.filter((tape) => !out.has(tape.from) && !out.has(tape.to));
  }
}
