import type { Placeholder, SQL } from 'drizzle-orm';
import { and, asc, eq, inArray, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import type { PictureOwner } from '#core/format/lists';
import { mergedRecord } from '#core/format/merge';
import { PICTURE_MERGE } from '#core/format/mergeRules';
import type { PictureSaid } from '#core/picture/marks';
import { PictureSaidSchema } from '#core/picture/marks';
import type { PictureType } from '#core/picture/privacy';
import type { Changed } from './changed.server';
import { putMerged } from './changed.server';
import { dbOf, standing } from './database.server';
import type { Tx } from './database.server';
import { edgeEver } from './knownEdges.server';
import { jobs, pictures, pieces, records, surveyed } from './schema.server';
import type { Viewer } from './viewer.server';

/** What a picture hangs on. */
export type HangsOn = {
  job: string;
  /** Null for a picture of the job itself, or of something surveyed of it. */
  piece: string | null;
  owner: PictureOwner;
  /** The id of the edge, the record or what was surveyed; empty for a job and a piece. */
  of: string;
};

export type Picture = HangsOn &
  PictureSaid & {
    id: string;
    digest: string;
    type: PictureType;
    /** Pixels, turned upright. */
    width: number;
    height: number;
    bytes: number;
    /** The name of the file as it was given. */
    name: string;
    /** As the camera's clock stood. */
    taken: string | null;
    at: string;
    putAway: string | null;
  };

export const pictureOf = (row: typeof pictures.$inferSelect): Picture => ({
  id: row.id,
  job: row.job,
  piece: row.piece,
  owner: row.owner,
  of: row.of,
  digest: row.digest,
  type: row.type,
  width: row.width,
  height: row.height,
  bytes: row.bytes,
  name: row.name,
  taken: row.taken?.toISOString() ?? null,
  at: row.at.toISOString(),
  caption: row.caption,
  marks: row.marks,
  putAway: row.putAway?.toISOString() ?? null,
});

const those = (tx: Tx, where: SQL | undefined) =>
  tx.select().from(pictures).where(where).orderBy(asc(pictures.seq));
const ofJob = (job: string | Placeholder) => and(eq(pictures.job, job), isNull(pictures.piece));
const askedOfJob = standing((db) =>
  those(db, ofJob(sql.placeholder('job'))).prepare('pictures_of_job'),
);

/**
 * The pictures of a piece and all that is of it, or of a job itself (`piece` null), in the order
 * they came in.
 */
export async function picturesOf(
  viewer: Viewer,
  { job, piece }: Pick<HangsOn, 'job' | 'piece'>,
  tx?: Tx,
): Promise<Picture[]> {
  if (!tx && piece === null) return (await askedOfJob(viewer).execute({ job })).map(pictureOf);
  return (
    await those(tx ?? dbOf(viewer), piece === null ? ofJob(job) : eq(pictures.piece, piece))
  ).map(pictureOf);
}

export async function pictureById(viewer: Viewer, id: string): Promise<Picture | null> {
  const [row] = await dbOf(viewer).select().from(pictures).where(eq(pictures.id, id));
  return row && viewer.sees(row.job) ? pictureOf(row) : null;
}

/** Whether there is what a picture is to hang on. */
export async function isThere(
  viewer: Viewer,
  { job, piece, owner, of }: HangsOn,
): Promise<boolean> {
  const db = dbOf(viewer);
  if (owner === 'job')
    return piece === null && of === '' && (await db.$count(jobs, eq(jobs.id, job))) > 0;
  if (owner === 'survey')
    // A reading is named by its round and its measure.
    return (
      piece === null &&
      (await db.$count(surveyed, and(eq(surveyed.job, job), eq(surveyed.id, of.split('.')[0]!)))) >
        0
    );
  if (
    piece === null ||
    (await db.$count(pieces, and(eq(pieces.id, piece), eq(pieces.job, job)))) === 0
  )
    return false;
  if (owner === 'piece') return of === '';
  if (owner === 'edge') return edgeEver(viewer, piece, of);
  if (!z.uuid().safeParse(of).success) return false;
  const it = and(eq(records.id, of), eq(records.piece, piece), eq(records.kind, owner));
  return (await db.$count(records, it)) > 0;
}

/**
 * Hangs a picture that is kept as a file on something. One that hangs there already is only taken
 * out again.
 */
export async function addPicture(
  on: HangsOn,
  kept: Pick<Picture, 'digest' | 'type' | 'width' | 'height' | 'bytes' | 'name' | 'taken'>,
  tx: Tx,
): Promise<void> {
  const { job, piece, owner, of } = on;
  const same = and(
    eq(pictures.digest, kept.digest),
    eq(pictures.job, job),
    piece === null ? isNull(pictures.piece) : eq(pictures.piece, piece),
    eq(pictures.owner, owner),
    eq(pictures.of, of),
  );
  const there = await tx
    .update(pictures)
    .set({ putAway: null })
    .where(same)
    .returning({ id: pictures.id });
  if (there.length > 0) return;
  const taken = kept.taken === null ? null : new Date(kept.taken);
  await tx.insert(pictures).values({ ...kept, taken, job, piece, owner, of });
}

/** Changes what is said of a picture since `since`; null when there is no such picture. */
export async function changePicture(
  id: string,
  since: PictureSaid,
  mine: PictureSaid,
  tx: Tx,
): Promise<Changed<PictureSaid> | null> {
  const [row] = await tx.select().from(pictures).where(eq(pictures.id, id)).for('update');
  if (!row) return null;
  const now = { caption: row.caption, marks: row.marks };
  return putMerged(
    mergedRecord(since, mine, now, PICTURE_MERGE),
    now,
    (said) => tx.update(pictures).set(said).where(eq(pictures.id, id)),
    PictureSaidSchema,
  );
}

/** Puts a picture away, or takes it out again; it is never thrown away. */
export const putPictureAway = (id: string, away: boolean, tx: Tx) =>
  tx
    .update(pictures)
    .set({ putAway: away ? new Date() : null })
    .where(eq(pictures.id, id));

/** Of these pictures' files those that no record speaks of. */
export async function unspokenOf<P extends { digest: string }>(
  viewer: Viewer,
  files: readonly P[],
): Promise<P[]> {
  if (files.length === 0) return [];
  const digests = files.map(({ digest }) => digest);
  const rows = await dbOf(viewer)
    .selectDistinct({ digest: pictures.digest })
    .from(pictures)
    .where(inArray(pictures.digest, digests));
  const spoken = new Set(rows.map(({ digest }) => digest));
  return files.filter(({ digest }) => !spoken.has(digest));
}
