import type { Placeholder } from 'drizzle-orm';
import { and, asc, eq, sql } from 'drizzle-orm';
import type { MergeRules } from '#core/format/merge';
import { mergedRecord } from '#core/format/merge';
import { FINDING_MERGE } from '#core/format/mergeRules';
import type { Reading, SurveyBody, Surveyed, SurveyedFile } from '#core/survey/references';
import { SurveySchema } from '#core/survey/references';
import type { Changed } from './changed.server';
import { putMerged } from './changed.server';
import { dbOf, inLots, standing } from './database.server';
import type { Tx } from './database.server';
import { surveyed } from './schema.server';
import type { Viewer } from './viewer.server';

const inOrder = (tx: Tx, job: string | Placeholder) =>
  tx.select().from(surveyed).where(eq(surveyed.job, job)).orderBy(asc(surveyed.seq));

const asked = standing((db) => inOrder(db, sql.placeholder('job')).prepare('survey_of'));

/** What was surveyed of a job, in the order it was written down. */
export const surveyOf = async (viewer: Viewer, job: string): Promise<Surveyed[]> =>
  (await asked(viewer).execute({ job })).map(({ id, body }) => ({ ...body, id }));

/** The same as it stands in a job file. */
export const surveyFile = async (
  viewer: Viewer,
  job: string,
  tx: Tx = dbOf(viewer),
): Promise<SurveyedFile[]> =>
  (await inOrder(tx, job)).map(({ id, at, body }) => ({ id, at: at.toISOString(), body }));

export const putSurvey = (tx: Tx, job: string, all: readonly SurveyedFile[]) =>
  inLots(all, (lot) =>
    tx.insert(surveyed).values(lot.map((one) => ({ ...one, job, at: new Date(one.at) }))),
  );

/** Writes something down; under an id that is there already nothing is written. */
export const addSurveyed = (job: string, id: string, body: SurveyBody, tx: Tx) =>
  tx.insert(surveyed).values({ job, id, body }).onConflictDoNothing();

async function heldBody(tx: Tx, job: string, id: string): Promise<SurveyBody | null> {
  const mine = and(eq(surveyed.job, job), eq(surveyed.id, id));
  return (
    (await tx.select({ body: surveyed.body }).from(surveyed).where(mine).for('update'))[0]?.body ??
    null
  );
}

const put = (tx: Tx, job: string, id: string, body: SurveyBody) =>
  tx
    .update(surveyed)
    .set({ body })
    .where(and(eq(surveyed.job, job), eq(surveyed.id, id)));

export type Fields = Record<string, unknown>;

/**
 * Changes fields of something surveyed since they stood as `since` says; null when there is no such
 * thing.
 */
export async function changeSurveyed(
  job: string,
  id: string,
  since: Fields,
  mine: Fields,
  tx: Tx,
): Promise<Changed<Fields> | null> {
  const body = await heldBody(tx, job, id);
  if (!body) return null;
  const { kind, ...now } = body as SurveyBody & Fields;
  const rules = kind === 'finding' ? (FINDING_MERGE as MergeRules<Fields>) : {};
  const { merged, clashes } = mergedRecord<Fields>(since, mine, now, rules);
  return putMerged(
    { merged: { ...merged, kind } as Fields, clashes },
    now as Fields,
    (body) => put(tx, job, id, body as SurveyBody),
    SurveySchema,
  );
}

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
  const body = await heldBody(tx, job, id);
  if (body?.kind !== 'round') return null;
  // Nothing read is the same as no reading.
  const named = (all: Readings) =>
    Object.fromEntries(Object.keys(mine).map((key) => [key, all[key] ?? null]));
  const now = named(body.readings);
  return putMerged(mergedRecord<Readings>(named(since), mine, now), now, (merged) => {
    const readings = Object.entries({ ...body.readings, ...merged }).filter(
      ([, reading]) => reading !== null,
    );
    return put(tx, job, id, {
      ...body,
      readings: Object.fromEntries(readings) as Record<string, Reading>,
    });
  });
}
