import type { Measure, ReferencePlace, Round, Surveyed } from '#core/survey/references';
import { netsOf } from '#core/survey/roundNetwork';

/** What nets are reckoned from; the rounds in the order in which they are wanted. */
export type NetsAsked = {
  points: Surveyed<ReferencePlace>[];
  measures: Surveyed<Measure>[];
  rounds: Surveyed<Round>[];
  space: boolean;
};

/**
 * Reckons the nets of a survey apart from the page, round by round: a net of nonsense takes
 * seconds.
 */
self.onmessage = ({ data: { points, measures, rounds, space } }: MessageEvent<NetsAsked>) => {
  for (const round of rounds) self.postMessage([round.id, netsOf(points, measures, round, space)]);
};
