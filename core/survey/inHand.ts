import type { Round, SurveyBody, Surveyed } from './references';

/** Those of one kind that are in hand. */
export const inHand = <K extends SurveyBody['kind']>(all: readonly Surveyed[], kind: K) =>
  all.filter((one) => one.kind === kind && !one.putAway) as Surveyed<
    Extract<SurveyBody, { kind: K }>
  >[];

/** Rounds in hand in the order of their dates. */
export const roundsOf = (all: readonly Surveyed[]): Surveyed<Round>[] =>
  inHand(all, 'round').sort((a, b) => a.at.localeCompare(b.at));
