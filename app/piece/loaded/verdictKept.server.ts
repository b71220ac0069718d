import { LRUCache } from 'lru-cache';
import type { SurveyVerdict } from '#core/survey/verdict';
import { troubleIn } from '../../records/trouble.server';
import type { Viewer } from '../../records/viewer.server';
import { inWorker } from '../../workers/pool.server';
import type { SurveyedPiece } from './surveyVerdict.server';
import { NOTHING_TO_SAY, hasSurvey } from './surveyVerdict.server';
import { surveyVerdictTask } from './reckonTasks';

/** Longest that the references of a piece may take to be reckoned, ms. */
const LIMIT_MS = 4000;
/** Delay before a verdict that took too long is tried again, ms. */
const REST_MS = 60_000;

/**
 * By the piece and how often it had been touched: the database counts that up whatever of the
 * survey changes.
 */
const known = new LRUCache<string, Promise<SurveyVerdict | null>>({ max: 300 });

/**
 * What is to be said of the survey of a piece, reckoned in a worker; null where it could not be
 * told in time.
 */
export function verdictOf(
  _viewer: Viewer,
  { touched, ...piece }: SurveyedPiece & { touched: number },
): Promise<SurveyVerdict | null> {
  if (!hasSurvey(piece.survey)) return Promise.resolve(NOTHING_TO_SAY);
  const key = `${piece.id} ${touched} ${piece.layersApartMm}`;
  const before = known.get(key);
  if (before) return before;
  const found = inWorker(surveyVerdictTask, piece, { limitMs: LIMIT_MS }).catch(
    (error: unknown) => {
      if (!troubleIn(error)) console.error('The references of a piece could not be told', error);
      // For a while and not for good: the machine may have been busy.
      known.set(key, Promise.resolve(null), { ttl: REST_MS });
      return null;
    },
  );
  known.set(key, found);
  return found;
}
