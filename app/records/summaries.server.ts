import { and, eq, inArray, isNull, lte, ne, or, sql } from 'drizzle-orm';
import { dbOf } from './database.server';
import { pieces, summaries } from './schema.server';
import type { Viewer } from './viewer.server';

/** Of these pieces what is remembered and still good, by piece; `madeBy` says by which program and settings it must be. */
export async function summariesOf(
  viewer: Viewer,
  ids: readonly string[],
  madeBy: string,
): Promise<Map<string, unknown>> {
  if (ids.length === 0) return new Map();
  const rows = await dbOf(viewer)
    .select({ piece: summaries.piece, summary: summaries.summary })
    .from(summaries)
    .innerJoin(pieces, and(eq(pieces.id, summaries.piece), eq(pieces.touched, summaries.of)))
    .where(and(inArray(summaries.piece, [...ids]), eq(summaries.madeBy, madeBy)));
  return new Map(rows.map((row) => [row.piece, row.summary]));
}

/** Pieces of which nothing good is remembered, the newest first, `most` at most. */
export const piecesToSumUp = async (viewer: Viewer, madeBy: string, most: number): Promise<string[]> =>
  (
    await dbOf(viewer)
      .select({ id: pieces.id })
      .from(pieces)
      .leftJoin(summaries, eq(summaries.piece, pieces.id))
      .where(or(isNull(summaries.piece), ne(summaries.of, pieces.touched), ne(summaries.madeBy, madeBy)))
      .orderBy(sql`${pieces.seq} desc`)
      .limit(most)
  ).map((row) => row.id);

/** Remembers what was made of a piece when it had been touched so often (`of`); never in place of something newer. */
export const keepSummary = (viewer: Viewer, piece: string, of: number, madeBy: string, summary: unknown) =>
  dbOf(viewer)
    .insert(summaries)
    .select(
      sql`select ${piece}::uuid, ${of}::bigint, ${madeBy}::text, ${JSON.stringify(summary)}::jsonb
      where exists (select 1 from ${pieces} where id = ${piece}::uuid)`,
    )
    .onConflictDoUpdate({
      target: summaries.piece,
      set: { of, madeBy, summary },
      setWhere: lte(summaries.of, of),
    });
