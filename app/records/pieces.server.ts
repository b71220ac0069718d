import { and, asc, desc, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import { cut } from '#core/card/cut';
import { PieceFactsSchema } from '#core/format/job';
import type { PieceFacts } from '#core/format/job';
import { mergedRecord } from '#core/format/merge';
import type { Changed } from './changed.server';
import { putMerged } from './changed.server';
import { dbOf } from './database.server';
import type { Tx } from './database.server';
import { copyDocument } from './documents.server';
import { pieces, prints } from './schema.server';
import type { Viewer } from './viewer.server';

/** Part of a list: so many after the first so many. */
export type Window = { skip: number; most: number };

export type Piece = typeof pieces.$inferSelect;

/** Only the facts of a piece: for forms, copies and files. */
export const factsOf = (piece: PieceFacts): PieceFacts => PieceFactsSchema.strip().parse(piece);

const kept = (archived: boolean) => (archived ? isNotNull(pieces.archived) : isNull(pieces.archived));

/** A page of the pieces of a job in the order they were begun, and how many there are in all. */
export async function piecesOfJob(
  viewer: Viewer,
  job: string,
  archived: boolean,
  { skip, most }: Window,
): Promise<{ pieces: Piece[]; all: number }> {
  const here = and(eq(pieces.job, job), kept(archived));
  const [rows, all] = await Promise.all([
    dbOf(viewer).select().from(pieces).where(here).orderBy(asc(pieces.seq)).offset(skip).limit(most),
    dbOf(viewer).$count(pieces, here),
  ]);
  return { pieces: rows, all };
}

/** The first pieces in hand of several jobs, `most` of each, by job, in the order they were begun. */
export async function firstPiecesOf(
  viewer: Viewer,
  jobs: readonly string[],
  most: number,
): Promise<Map<string, string[]>> {
  const by = new Map(jobs.map((job) => [job, [] as string[]]));
  if (jobs.length === 0) return by;
  const { rows } = await dbOf(viewer).execute<{ job: string; id: string }>(sql`
    select j.id as job, p.id from unnest(${sql.param([...jobs])}::uuid[]) as j(id)
    cross join lateral (
      select id, seq from ${pieces} where job = j.id and archived is null order by seq limit ${most}
    ) p order by p.seq`);
  for (const { job, id } of rows) by.get(job)?.push(id);
  return by;
}

export async function pieceById(viewer: Viewer, id: string): Promise<Piece | null> {
  return (await dbOf(viewer).select().from(pieces).where(eq(pieces.id, id)))[0] ?? null;
}

export async function createPiece(
  viewer: Viewer,
  job: string,
  facts: PieceFacts,
  tx: Tx = dbOf(viewer),
): Promise<string> {
  const [row] = await tx
    .insert(pieces)
    .values({ ...facts, job })
    .returning({ id: pieces.id });
  return row!.id;
}

/** A thickness and how it was chosen say one thing. */
const TOGETHER = [['thicknessMm', 'thickness']] as const;

/** Changes what is said of a piece since `since`; null when there is no such piece. */
export const changePiece = (
  viewer: Viewer,
  id: string,
  since: PieceFacts,
  mine: PieceFacts,
): Promise<Changed<PieceFacts> | null> =>
  dbOf(viewer).transaction(async (tx) => {
    const [row] = await tx.select().from(pieces).where(eq(pieces.id, id)).for('update');
    if (!row) return null;
    const now = factsOf(row);
    return putMerged(mergedRecord(since, mine, now, TOGETHER), now, (facts) =>
      tx.update(pieces).set(facts).where(eq(pieces.id, id)),
    );
  });

export const archivePiece = (viewer: Viewer, id: string, archived: boolean) =>
  dbOf(viewer)
    .update(pieces)
    .set({ archived: archived ? new Date() : null })
    .where(eq(pieces.id, id));

/** A copy of a piece with its card as it is now; what was fitted, welded and printed stays with the original. */
export async function duplicatePiece(viewer: Viewer, id: string, tx: Tx): Promise<string | null> {
  const [piece] = await tx.select().from(pieces).where(eq(pieces.id, id));
  if (!piece) return null;
  const copy = await createPiece(viewer, piece.job, { ...factsOf(piece), name: `${cut(piece.name, 72)} (copy)` }, tx);
  for (const kind of ['card', 'plan'] as const) await copyDocument(tx, id, copy, kind);
  return copy;
}

/** Writes down that a pattern left the house, and what it was made from. */
export const notePrint = (viewer: Viewer, piece: string, what: string, revision: number, digest: string) =>
  dbOf(viewer).insert(prints).values({ piece, what, revision, digest });

/** The last time a pattern of a piece left the house. */
export type Print = { revision: number; digest: string | null; at: string };

/** The last print of a piece; null before there is one. */
export async function lastPrintOf(viewer: Viewer, piece: string): Promise<Print | null> {
  const [row] = await dbOf(viewer)
    .select()
    .from(prints)
    .where(eq(prints.piece, piece))
    .orderBy(desc(prints.seq))
    .limit(1);
  return row ? { revision: row.revision, digest: row.digest, at: row.at.toISOString() } : null;
}
