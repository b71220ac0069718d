import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { dbOf } from './database.server';
import { CARD_IN_USE, HEAD_OF_CARD } from './documents.server';
import { documents, heads, pieces } from './schema.server';
import type { Viewer } from './viewer.server';

const EdgesSchema = z.array(z.object({ id: z.string(), letter: z.string() }));

export type PieceEdges = {
  id: string;
  name: string;
  turned: boolean;
  edges: { id: string; letter: string }[];
};

/** The pieces in hand of a job that have edges, in the order they were begun. */
export async function edgesOfJob(viewer: Viewer, job: string): Promise<PieceEdges[]> {
  const rows = await dbOf(viewer)
    .select({
      id: pieces.id,
      name: pieces.name,
      turned: sql<boolean | null>`(${documents.body}->'turned')::boolean`,
      edges: sql<unknown>`jsonb_path_query_array(${documents.body}, '$.edges[*]')`,
    })
    .from(pieces)
    .innerJoin(heads, HEAD_OF_CARD)
    .innerJoin(documents, CARD_IN_USE)
    .where(and(eq(pieces.job, job), isNull(pieces.archived)))
    .orderBy(asc(pieces.seq));
  return rows.flatMap(({ edges, turned, ...piece }) => {
    const read = EdgesSchema.safeParse(edges);
    return read.success && read.data.length > 0
      ? [{ ...piece, turned: turned ?? false, edges: read.data }]
      : [];
  });
}
