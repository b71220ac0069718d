import type { Measure, Round, Surveyed } from './references';

/**
 * Whether two readings of one measure differ by more than they can be out: |a − b| > 2·√(u₁² +
 * u₂²), mm and one standard deviation each (or degrees, with degrees).
 */
export const differ = (a: number, uA: number, b: number, uB: number): boolean =>
  Math.abs(a - b) > 2 * Math.hypot(uA, uB);

/** What became of a measure since another round: by how much, and what may be said of it. */
export type Change = {
  measure: Surveyed<Measure>;
  from: Surveyed<Round>;
  to: Surveyed<Round>;
  by: number;
  /** More than the readings can be out. */
  shown: boolean;
  /** More than the tolerance asked for, where one is. */
  beyond: boolean;
};

/** The value that was read of a measure in a round; null where it was not. */
export const readIn = (round: Round, measure: { id: string }): number | null =>
  round.readings[measure.id]?.value ?? null;

/**
 * What changed from one round to another, in the order of the measures; those read in both only.
 */
export function changesBetween(
  measures: readonly Surveyed<Measure>[],
  from: Surveyed<Round>,
  to: Surveyed<Round>,
): Change[] {
  return measures.flatMap((measure): Change[] => {
    const [a, b] = [readIn(from, measure), readIn(to, measure)];
    if (a === null || b === null) return [];
    const by = b - a;
    return [
      {
        measure,
        from,
        to,
        by,
        shown: differ(a, measure.u, b, measure.u),
        beyond: measure.tolerance !== null && Math.abs(by) > measure.tolerance,
      },
    ];
  });
}

/**
 * Whether a change is told as moved: the readings show it, or it is over the tolerance asked for.
 */
export const hasMoved = ({ shown, beyond }: Change): boolean => shown || beyond;

/**
 * What moved up to the last round: each measure against the first round it was read in, the latest
 * reading of each. In the order of the rounds given.
 */
export const movedSoFar = (
  measures: readonly Surveyed<Measure>[],
  rounds: readonly Surveyed<Round>[],
): Change[] =>
  measures.flatMap((measure) => {
    const change = sinceFirstRead(measure, rounds);
    return change && hasMoved(change) ? change : [];
  });

/**
 * What became of one measure from the first round it was read in to the last; null before there are
 * two.
 */
export function sinceFirstRead(
  measure: Surveyed<Measure>,
  rounds: readonly Surveyed<Round>[],
): Change | null {
  const read = rounds.filter((round) => readIn(round, measure) !== null);
  const [first, last] = [read[0], read[read.length - 1]];
  return first && last && first !== last
    ? (changesBetween([measure], first, last)[0] ?? null)
    : null;
}
