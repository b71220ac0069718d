import { and, asc, desc, eq, inArray, isNull, ne, sql } from 'drizzle-orm';
import type { SQL } from 'drizzle-orm';
import { hoursOfFaults } from '#core/cutdown/progress';
import type { PieceKind } from '#core/format/lists';
import { mergedRecord } from '#core/format/merge';
import { PIECE_SURVEY_MERGE } from '#core/format/mergeRules';
import type { OptionKind } from '#core/survey/kinds';
import type { PieceSurvey } from '#core/survey/pieceSurvey';
import { PieceSurveySchema, unsurveyed } from '#core/survey/pieceSurvey';
import type { OtherPiece } from '#core/survey/verdict';
import type { Changed } from './changed.server';
import { putMerged } from './changed.server';
import { cutDownOf } from './cutDown.server';
import { dbOf } from './database.server';
import type { Tx } from './database.server';
import { pieces } from './schema.server';
import { readFields, writtenOver } from './readFields.server';
import type { Viewer } from './viewer.server';

/**
 * What is surveyed of a piece; what has been added to a survey since it was written is as nothing
 * surveyed.
 */
export const pieceSurveyOf = ({ survey }: { survey: Partial<PieceSurvey> }): PieceSurvey =>
  readFields(PieceSurveySchema, survey, unsurveyed());

/** The other pieces of a job in hand that take references away or have something cut out. */
export async function othersSurveyed(
  viewer: Viewer,
  job: string,
  piece: string,
): Promise<OtherPiece[]> {
  const rows = await dbOf(viewer)
    .select({ name: pieces.name, survey: pieces.survey })
    .from(pieces)
    .where(
      and(
        eq(pieces.job, job),
        ne(pieces.id, piece),
        isNull(pieces.archived),
        sql`survey->'takes' <> '[]'`,
      ),
    )
    .orderBy(asc(pieces.seq));
  return rows.map((row) => ({ name: row.name, survey: pieceSurveyOf(row) }));
}

/**
 * Of these pieces those of whose survey there is something to say: references that go, a cut,
 * layers.
 */
export async function surveyedAmong(viewer: Viewer, ids: readonly string[]) {
  const rows = await dbOf(viewer)
    .select({
      id: pieces.id,
      job: pieces.job,
      structural: pieces.structural,
      survey: pieces.survey,
      touched: pieces.touched,
    })
    .from(pieces)
    .where(
      and(
        inArray(pieces.id, [...ids]),
        sql`(survey->'takes' <> '[]' or survey->'cutOut' <> 'null' or survey->'layerCuts' <> '[]')`,
      ),
    );
  return rows.map((row) => ({ ...row, survey: pieceSurveyOf(row) }));
}

/** Pieces of a job in hand by what they name of its survey: for pages of the job. */
export async function piecesNaming(
  viewer: Viewer,
  job: string,
): Promise<{ id: string; name: string; survey: PieceSurvey }[]> {
  const rows = await dbOf(viewer)
    .select({ id: pieces.id, name: pieces.name, survey: pieces.survey })
    .from(pieces)
    .where(and(eq(pieces.job, job), isNull(pieces.archived)))
    .orderBy(asc(pieces.seq));
  return rows.map((row) => ({ ...row, survey: pieceSurveyOf(row) }));
}

/** Pieces not further back than this are looked at for the hours that were recorded. */
const LATEST_PIECES = 200;

/** What a piece that was not made here was, among the options. */
const OPTION_OF: Partial<Record<PieceKind, OptionKind>> = { bought: 'buy', donor: 'donor' };

/**
 * Hours that other pieces of this shop took, by what was chosen for them, the latest first; of those
 * that were bought or cut from a donor, where nobody said, what putting their faults right took.
 */
export async function hoursRecorded(
  viewer: Viewer,
  piece: string,
): Promise<Partial<Record<OptionKind, number[]>>> {
  const latest = (which: SQL) =>
    dbOf(viewer)
      .select({
        seq: pieces.seq,
        kind: pieces.kind,
        survey: pieces.survey,
        cutDown: pieces.cutDown,
      })
      .from(pieces)
      .where(and(ne(pieces.id, piece), which))
      .orderBy(desc(pieces.seq))
      .limit(LATEST_PIECES);
  const [told, brought] = await Promise.all([
    latest(sql`survey->'choice'->>'hoursTaken' is not null`),
    latest(sql`kind <> 'made' and survey->'choice'->>'hoursTaken' is null`),
  ]);
  const found: Partial<Record<OptionKind, number[]>> = {};
  for (const { kind, survey, cutDown } of [...told, ...brought].sort((a, b) => b.seq - a.seq)) {
    const of = OPTION_OF[kind];
    const correcting = hoursOfFaults(cutDownOf({ cutDown }));
    const { options, choice } = pieceSurveyOf({ survey });
    const taken = options.find(({ id }) => id === choice?.option);
    if (taken && choice?.hoursTaken != null) (found[taken.of] ??= []).push(choice.hoursTaken);
    else if (of && correcting !== null) (found[of] ??= []).push(correcting);
  }
  return found;
}

/**
 * Changes some of what is surveyed of a piece since it stood as `since` says; null when there is no
 * such piece.
 */
export async function changePieceSurvey(
  piece: string,
  since: Partial<PieceSurvey>,
  mine: Partial<PieceSurvey>,
  tx: Tx,
): Promise<Changed<Partial<PieceSurvey>> | null> {
  // The others of the job are told by the database that this one has changed: all are locked in one
  // order first.
  const ofJob = tx.select({ job: pieces.job }).from(pieces).where(eq(pieces.id, piece));
  const rows = await tx
    .select({ id: pieces.id, survey: pieces.survey })
    .from(pieces)
    .where(
      and(
        eq(pieces.job, ofJob),
        sql`(id = ${piece} or survey->'takes' <> '[]' or survey->'cutOut' <> 'null')`,
      ),
    )
    .orderBy(asc(pieces.id))
    .for('update');
  const row = rows.find(({ id }) => id === piece);
  if (!row) return null;
  const now = pieceSurveyOf(row);
  return putMerged(
    mergedRecord<Partial<PieceSurvey>>(since, mine, now, PIECE_SURVEY_MERGE),
    now,
    (merged) =>
      tx
        .update(pieces)
        .set({
          survey: writtenOver({ ...unsurveyed(), ...row.survey }, now, merged) as PieceSurvey,
        })
        .where(eq(pieces.id, piece)),
    PieceSurveySchema.partial(),
  );
}
