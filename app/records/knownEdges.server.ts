import { sql } from 'drizzle-orm';
import { dbOf } from './database.server';
import { documents } from './schema.server';
import type { Viewer } from './viewer.server';

/**
 * Whether any version of the card of a piece has had an edge: what is said of an edge that never
 * was is said of nothing.
 */
export async function edgeEver(viewer: Viewer, piece: string, edge: string): Promise<boolean> {
  const { rows } = await dbOf(viewer).execute<{ ever: boolean }>(sql`
    select exists(select 1 from ${documents} where piece = ${piece} and kind = 'card'
      and edges @> ${JSON.stringify([edge])}::jsonb) as ever`);
  return rows[0]?.ever === true;
}

/** Refuses what is said of an edge that no version of the piece's card has had. */
export async function knownEdges(
  viewer: Viewer,
  piece: string,
  edges: readonly string[],
): Promise<void> {
  for (const edge of edges) {
    if (await edgeEver(viewer, piece, edge)) continue;
    throw Response.json(
      { message: 'That edge is on no version of the card: load the page again.' },
      { status: 422 },
    );
  }
}
