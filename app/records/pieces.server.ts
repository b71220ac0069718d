import { alias } from 'drizzle-orm/pg-core';
import { and, asc, eq, getTableColumns, isNotNull, isNull, sql } from 'drizzle-orm';
import { cut } from '#core/card/cut';
import type { PieceFacts } from '#core/format/job';
import { mergedRecord } from '#core/format/merge';
import { PIECE_MERGE } from '#core/format/mergeRules';
import type { Changed } from './changed.server';
import { putMerged } from './changed.server';
import { dbOf, standing } from './database.server';
import type { Tx } from './database.server';
import { copyDocument } from './documents.server';
import { pieces, prints, summaries } from './schema.server';
import type { Viewer } from './viewer.server';

/** Part of a list: at most `most` entries after the first `skip`. */
export type Window = { skip: number; most: number };

export type Piece = typeof pieces.$inferSelect;
/** The piece it came from, how, and why. */
export type Came = Pick<Piece, 'cameFrom' | 'cameAs' | 'cameWhy'>;

/** Only the facts of a piece: for forms, copies and files. */
export const factsOf = (piece: PieceFacts): PieceFacts => {
  const { name, kind, part, side, metal, thicknessMm, thickness, structural, notes } = piece;
  return { name, kind, part, side, metal, thicknessMm, thickness, structural, notes };
};

const kept = (archived: boolean) =>
  archived ? isNotNull(pieces.archived) : isNull(pieces.archived);

/**
 * What is remembered of a piece for lists, and by which program and settings it was made; null
 * where it has changed since.
 */
export type Remembered = { madeBy: string; summary: unknown } | null;
const remembered = { madeBy: summaries.madeBy, summary: summaries.summary };
const stillGood = and(eq(summaries.piece, pieces.id), eq(summaries.of, pieces.touched));

/**
 * What a list says of a piece: its survey, folding and shaping can be long and stay where they are.
 */
const { id, name, kind, part, metal, thicknessMm, structural, cameAs } = getTableColumns(pieces);
const from = alias(pieces, 'from');
const listed = {
  id,
  name,
  kind,
  part,
  metal,
  thicknessMm,
  structural,
  cameAs,
  fromName: from.name,
};

const pageOf = (archived: boolean) =>
  standing((db) =>
    db
      .select({ piece: listed, remembered, all: sql<string>`count(*) over ()` })
      .from(pieces)
      .leftJoin(summaries, stillGood)
      .leftJoin(from, eq(from.id, pieces.cameFrom))
      .where(and(eq(pieces.job, sql.placeholder('job')), kept(archived)))
      .orderBy(asc(pieces.seq))
      .offset(sql.placeholder('skip'))
      .limit(sql.placeholder('most'))
      .prepare(archived ? 'pieces_archived' : 'pieces_in_hand'),
  );
const [inHand, putAway] = [pageOf(false), pageOf(true)];

export type ListedPiece = Pick<Piece, Exclude<keyof typeof listed, 'fromName'>> & {
  /** The name of the piece it was made from. */
  fromName: string | null;
  remembered: Remembered;
};

/** A page of the pieces of a job in the order they were begun, and how many there are in all. */
export async function piecesOfJob(
  viewer: Viewer,
  job: string,
  archived: boolean,
  { skip, most }: Window,
): Promise<{ pieces: ListedPiece[]; all: number }> {
  const rows = await (archived ? putAway : inHand)(viewer).execute({ job, skip, most });
  const beyond = () => dbOf(viewer).$count(pieces, and(eq(pieces.job, job), kept(archived)));
  const all = rows[0] ? Number(rows[0].all) : skip > 0 ? await beyond() : 0;
  return { pieces: rows.map(({ piece, remembered }) => ({ ...piece, remembered })), all };
}

export async function pieceById(viewer: Viewer, id: string): Promise<Piece | null> {
  const [found] = await dbOf(viewer).select().from(pieces).where(eq(pieces.id, id));
  return found && viewer.sees(found.job) ? found : null;
}

export async function createPiece(
  viewer: Viewer,
  job: string,
  facts: PieceFacts,
  tx: Tx = dbOf(viewer),
  came: Came | null = null,
): Promise<string> {
  const [row] = await tx
    .insert(pieces)
    .values({ ...facts, ...came, job })
    .returning({ id: pieces.id });
  return row!.id;
}

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
    return putMerged(mergedRecord(since, mine, now, PIECE_MERGE), now, (facts) =>
      tx.update(pieces).set(facts).where(eq(pieces.id, id)),
    );
  });

export const archivePiece = (viewer: Viewer, id: string, archived: boolean) =>
  dbOf(viewer)
    .update(pieces)
    .set({ archived: archived ? new Date() : null })
    .where(eq(pieces.id, id));

/**
 * A copy of a piece with its card as it is now; what was fitted, welded and printed stays with the
 * original.
 */
export async function duplicatePiece(viewer: Viewer, id: string, tx: Tx): Promise<string | null> {
  const [piece] = await tx.select().from(pieces).where(eq(pieces.id, id));
  if (!piece) return null;
  const { cameFrom, cameAs, cameWhy } = piece;
  const facts = { ...factsOf(piece), name: `${cut(piece.name, 72)} (copy)` };
  const copy = await createPiece(viewer, piece.job, facts, tx, { cameFrom, cameAs, cameWhy });
  for (const kind of ['card', 'plan'] as const) await copyDocument(tx, id, copy, kind);
  return copy;
}

/** Writes down that a pattern left the house, and what it was made from. */
export const notePrint = (piece: string, what: string, revision: number, digest: string, tx: Tx) =>
  tx.insert(prints).values({ piece, what, revision, digest });

/** The last time a pattern of a piece left the house. */
export type Print = { revision: number; digest: string | null; at: string };

export const printOf = ({ revision, digest, at }: typeof prints.$inferSelect): Print => ({
  revision,
  digest,
  at: at.toISOString(),
});
