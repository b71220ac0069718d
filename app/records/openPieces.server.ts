import { and, desc, eq, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import type { OpenPiece } from '#core/blank/fold/learnt';
import { dbOf } from './database.server';
import { CARD_IN_USE, HEAD_OF_CARD } from './documents.server';
import { documents, heads, jobs, pieces } from './schema.server';
import type { Viewer } from './viewer.server';

const FoldsSchema = z.array(z.object({ angleDeg: z.number(), radiusMm: z.number().nullable() }));

/** The latest pieces in hand that are folded, with as much of them as their folds need. */
export async function openPieces(viewer: Viewer, most: number): Promise<OpenPiece[]> {
  const rows = await dbOf(viewer)
    .select({
      id: pieces.id,
      name: pieces.name,
      job: jobs.name,
      metal: pieces.metal,
      thicknessMm: pieces.thicknessMm,
      folds: sql<unknown>`${documents.body}->'folds'`,
    })
    .from(pieces)
    .innerJoin(jobs, eq(jobs.id, pieces.job))
    .innerJoin(heads, HEAD_OF_CARD)
    .innerJoin(documents, CARD_IN_USE)
    .where(
      and(
        isNull(pieces.archived),
        isNull(jobs.archived),
        sql`jsonb_array_length(${documents.body}->'folds') > 0`,
      ),
    )
    // Along an index, so that no more bodies are unpacked than are wanted.
    .orderBy(desc(pieces.seq))
    .limit(most);
  return rows.flatMap(({ folds, ...piece }) => {
    const read = FoldsSchema.safeParse(folds);
    return read.success ? [{ ...piece, folds: read.data }] : [];
  });
}
