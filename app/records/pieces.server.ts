import { and, asc, eq, inArray, isNotNull, isNull, sql } from 'drizzle-orm';
import { PieceFactsSchema } from '#core/format/job';
import type { PieceFacts } from '#core/format/job';
import type { PatternDoc } from '#core/card/pattern';
import { db } from './database.server';
import { pieces, prints, revisions } from './schema.server';

export type Piece = typeof pieces.$inferSelect;

/** Only the facts of a piece: for forms, copies and files. */
export const factsOf = (piece: PieceFacts): PieceFacts => PieceFactsSchema.strip().parse(piece);

export const piecesOfJob = (job: string, archived: boolean): Promise<Piece[]> =>
  db
    .select()
    .from(pieces)
    .where(and(eq(pieces.job, job), archived ? isNotNull(pieces.archived) : isNull(pieces.archived)))
    .orderBy(asc(pieces.seq));

export async function pieceById(id: string): Promise<Piece | null> {
  return (await db.select().from(pieces).where(eq(pieces.id, id)))[0] ?? null;
}

export async function createPiece(job: string, facts: PieceFacts): Promise<string> {
  const [row] = await db
    .insert(pieces)
    .values({ ...facts, job })
    .returning({ id: pieces.id });
  return row!.id;
}

export const changePiece = (id: string, facts: PieceFacts) => db.update(pieces).set(facts).where(eq(pieces.id, id));

export const archivePiece = (id: string, archived: boolean) =>
  db
    .update(pieces)
    .set({ archived: archived ? new Date() : null })
    .where(eq(pieces.id, id));

/** A copy of a piece with its card as it is now; what was fitted, welded and printed stays with the original. */
export function duplicatePiece(id: string): Promise<string | null> {
  return db.transaction(async (tx) => {
    const [piece] = await tx.select().from(pieces).where(eq(pieces.id, id));
    if (!piece) return null;
    const [copy] = await tx
      .insert(pieces)
      .values({
        ...factsOf(piece),
        name: `${piece.name} (copy)`.slice(0, 80),
        job: piece.job,
        revision: piece.revision > 0 ? 1 : 0,
      })
      .returning({ id: pieces.id });
    await tx.execute(sql`
      insert into revisions (piece, number, parent, pattern)
      select ${copy!.id}, 1, 0, pattern from revisions where piece = ${id} and number = ${piece.revision}`);
    return copy!.id;
  });
}

/** Writes down that a pattern left the house. */
export const notePrint = (piece: string, what: string, revision: number) =>
  db.insert(prints).values({ piece, what, revision });

/** The newest revision of each piece of a job that was printed or sent out, by piece. */
export async function printsOfJob(job: string): Promise<Map<string, number>> {
  const rows = await db
    .select({ piece: prints.piece, revision: sql<number>`max(${prints.revision})` })
    .from(prints)
    .innerJoin(pieces, eq(pieces.id, prints.piece))
    .where(eq(pieces.job, job))
    .groupBy(prints.piece);
  return new Map(rows.map((row) => [row.piece, row.revision]));
}

/** The pattern in use of each piece of a job, by piece. */
export async function patternsOfJob(job: string) {
  const rows = await db
    .select({ piece: revisions.piece, pattern: revisions.pattern })
    .from(revisions)
    .innerJoin(pieces, and(eq(pieces.id, revisions.piece), eq(pieces.revision, revisions.number)))
    .where(eq(pieces.job, job));
  return new Map(rows.map((row) => [row.piece, row.pattern]));
}

/** The patterns in use of the pieces in hand of several jobs, by job, in the order the pieces were begun. */
export async function patternsByJob(jobs: readonly string[]): Promise<Map<string, (PatternDoc | null)[]>> {
  const by = new Map(jobs.map((job) => [job, [] as (PatternDoc | null)[]]));
  if (jobs.length === 0) return by;
  const rows = await db
    .select({ job: pieces.job, pattern: revisions.pattern })
    .from(pieces)
    .leftJoin(revisions, and(eq(revisions.piece, pieces.id), eq(revisions.number, pieces.revision)))
    .where(and(inArray(pieces.job, [...jobs]), isNull(pieces.archived)))
    .orderBy(asc(pieces.seq));
  for (const { job, pattern } of rows) by.get(job)?.push(pattern);
  return by;
}
