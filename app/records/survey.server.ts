import type { MergeRules } from '#core/format/merge';
import { mergedRecord } from '#core/format/merge';
import { FINDING_MERGE } from '#core/format/mergeRules';
import type { Reading, SurveyBody, Surveyed, SurveyedFile } from '#core/survey/references';
import { SurveySchema } from '#core/survey/references';
import type { Fields } from './bodiesOfJob.server';
import { bodiesOf } from './bodiesOfJob.server';
import type { Changed } from './changed.server';
import { putMerged } from './changed.server';
import { dbOf } from './database.server';
import type { Tx } from './database.server';
import { surveyed } from './schema.server';
import type { Viewer } from './viewer.server';

const kept = bodiesOf<SurveyBody>(surveyed, 'survey_of', SurveySchema, ({ kind }) =>
  kind === 'finding' ? (FINDING_MERGE as MergeRules<Fields>) : {},
);

/** What was surveyed of a job, in the order it was written down. */
export const surveyOf = (viewer: Viewer, job: string): Promise<Surveyed[]> => kept.all(viewer, job);

/** The same as it stands in a job file. */
export const surveyFile = async (
  viewer: Viewer,
  job: string,
  tx: Tx = dbOf(viewer),
): Promise<SurveyedFile[]> =>
  (await kept.rows(tx, job)).map(({ id, at, body }) => ({ id, at: at.toISOString(), body }));

export const putSurvey = (tx: Tx, job: string, all: readonly SurveyedFile[]) =>
  kept.putAll(tx, job, all);

/** Writes something down; under an id that is there already nothing is written. */
export const addSurveyed = kept.add;

/**
 * Changes fields of something surveyed since they stood as `since` says; null when there is no such
 * thing.
 */
export const changeSurveyed = kept.change;

export type Readings = Record<string, Reading | null>;

/**
 * Puts down what was read in a round, measure by measure, since it stood as `since` says; null
 * takes a reading off.
 */
export async function readRound(
  job: string,
  id: string,
  since: Readings,
  mine: Readings,
  tx: Tx,
): Promise<Changed<Readings> | null> {
  const body = await kept.held(tx, job, id);
  if (body?.kind !== 'round') return null;
  // Nothing read is the same as no reading.
  const named = (all: Readings) =>
    Object.fromEntries(Object.keys(mine).map((key) => [key, all[key] ?? null]));
  const now = named(body.readings);
  return putMerged(mergedRecord<Readings>(named(since), mine, now), now, (merged) => {
    const readings = Object.entries({ ...body.readings, ...merged }).filter(
      ([, reading]) => reading !== null,
    );
    return kept.put(tx, job, id, {
      ...body,
      readings: Object.fromEntries(readings) as Record<string, Reading>,
    });
  });
}
