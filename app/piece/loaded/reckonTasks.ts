import type { SurveyVerdict, SurveyWarning } from '#core/survey/verdict';
import { task } from '../../workers/task';
import type { SurveyedPiece } from './surveyVerdict.server';
import type { Summary } from './summary';

/** What is reckoned of pieces for lists and pages, in worker threads. */

/**
 * What is to be said of the surveys of pieces (those of which there is anything), by piece, and how
 * often each had been touched by then: reckoned before, with a time limit of its own. `warnings`
 * null: it took too long.
 */
export type Judgements = Map<string, { touched: number; warnings: SurveyWarning[] | null }>;

/**
 * Sums pieces up, remembers it, and gives it by piece. One that cannot be summed up is remembered
 * as such; one that is gone is left out.
 */
export const summaryTask = task<
  { pieces: string[]; madeBy: string; judged: Judgements },
  [string, Summary][]
>('sum-up', 'shown');

export const surveyVerdictTask = task<SurveyedPiece, SurveyVerdict>('judge-survey', 'shown');

/**
 * What is remembered of a piece that took too long is good for the day: on a machine less busy it
 * may be summed up.
 */
export const gaveUp = (madeBy: string) =>
  `${madeBy} gave up ${new Date().toISOString().slice(0, 10)}`;
