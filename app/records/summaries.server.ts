import { eq, isNull, lte, ne, notInArray, or, sql } from 'drizzle-orm';
import { dbOf } from './database.server';
import { pieces, summaries } from './schema.server';
import type { Viewer } from './viewer.server';

/**
 * Pieces of which nothing good is remembered, by none of those `madeBy` names, the newest first,
 * `most` at most.
 */
export const piecesToSumUp = async (
  viewer: Viewer,
  madeBy: readonly string[],
  most: number,
): Promise<string[]> =>
  (
    await dbOf(viewer)
      .select({ id: pieces.id })
      .from(pieces)
      .leftJoin(summaries, eq(summaries.piece, pieces.id))
      .where(
        or(
          isNull(summaries.piece),
          ne(summaries.of, pieces.touched),
          notInArray(summaries.madeBy, [...madeBy]),
        ),
      )
      .orderBy(sql`${pieces.seq} desc`)
      .limit(most)
  ).map((row) => row.id);

/** Stores the summary of a piece at its touch count `of`; never in place of something newer. */
export const keepSummary = (
  viewer: Viewer,
  piece: string,
  of: number,
  madeBy: string,
  summary: unknown,
) =>
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
