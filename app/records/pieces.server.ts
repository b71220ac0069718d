import { and, asc, eq, inArray, isNotNull, isNull } from 'drizzle-orm';
import { cut } from '#core/card/cut';
import type { PatternDoc } from '#core/card/pattern';
import { readPattern } from '#core/card/read';
import { PieceFactsSchema } from '#core/format/job';
import type { PieceFacts } from '#core/format/job';
import { mergedRecord } from '#core/format/merge';
import type { Changed } from './changed.server';
import { putMerged } from './changed.server';
import { dbOf } from './database.server';
import { copyDocument } from './documents.server';
import { documents, heads, pieces, prints } from './schema.server';
import type { Viewer } from './viewer.server';

export type Piece = typeof pieces.$inferSelect;

/** Only the facts of a piece: for forms, copies and files. */
export const factsOf = (piece: PieceFacts): PieceFacts => PieceFactsSchema.strip().parse(piece);

export const piecesOfJob = (viewer: Viewer, job: string, archived: boolean): Promise<Piece[]> =>
  dbOf(viewer)
    .select()
    .from(pieces)
    .where(and(eq(pieces.job, job), archived ? isNotNull(pieces.archived) : isNull(pieces.archived)))
    .orderBy(asc(pieces.seq));

export async function pieceById(viewer: Viewer, id: string): Promise<Piece | null> {
  return (await dbOf(viewer).select().from(pieces).where(eq(pieces.id, id)))[0] ?? null;
}

export async function createPiece(viewer: Viewer, job: string, facts: PieceFacts): Promise<string> {
  const [row] = await dbOf(viewer)
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
export function duplicatePiece(viewer: Viewer, id: string): Promise<string | null> {
  return dbOf(viewer).transaction(async (tx) => {
    const [piece] = await tx.select().from(pieces).where(eq(pieces.id, id));
    if (!piece) return null;
    const [copy] = await tx
      .insert(pieces)
      .values({ ...factsOf(piece), name: `${cut(piece.name, 72)} (copy)`, job: piece.job })
      .returning({ id: pieces.id });
    for (const kind of ['card', 'plan'] as const) await copyDocument(tx, id, copy!.id, kind);
    return copy!.id;
  });
}

/** Writes down that a pattern left the house, and what it was made from. */
export const notePrint = (viewer: Viewer, piece: string, what: string, revision: number, digest: string) =>
  dbOf(viewer).insert(prints).values({ piece, what, revision, digest });

/** The last time a pattern of a piece left the house. */
export type Print = { revision: number; digest: string | null; at: string };

/** The last print of the blank of each piece of a job, by piece; of its card where only that was printed. */
export async function printsOfJob(viewer: Viewer, job: string): Promise<Map<string, Print>> {
  const rows = await dbOf(viewer)
    .select({ print: prints })
    .from(prints)
    .innerJoin(pieces, eq(pieces.id, prints.piece))
    .where(eq(pieces.job, job))
    .orderBy(asc(prints.seq));
  return new Map(
    rows.map(({ print }) => [
      print.piece,
      { revision: print.revision, digest: print.digest, at: print.at.toISOString() },
    ]),
  );
}

/** The cards in use of the pieces in hand of several jobs, by job, in the order the pieces were begun. */
export async function patternsByJob(
  viewer: Viewer,
  jobs: readonly string[],
): Promise<Map<string, (PatternDoc | null)[]>> {
  const by = new Map(jobs.map((job) => [job, [] as (PatternDoc | null)[]]));
  if (jobs.length === 0) return by;
  const rows = await dbOf(viewer)
    .select({ job: pieces.job, body: documents.body })
    .from(pieces)
    .leftJoin(heads, and(eq(heads.piece, pieces.id), eq(heads.kind, 'card')))
    .leftJoin(
      documents,
      and(eq(documents.piece, pieces.id), eq(documents.kind, 'card'), eq(documents.number, heads.number)),
    )
    .where(and(inArray(pieces.job, [...jobs]), isNull(pieces.archived)))
    .orderBy(asc(pieces.seq));
  for (const { job, body } of rows) {
    const read = body === null ? null : readPattern(body);
    by.get(job)?.push(read?.ok ? read.doc : null);
  }
  return by;
}
