import { and, asc, eq, isNull, ne, sql } from 'drizzle-orm';
import type { BeadExit } from '#core/card/beadExits';
import { exitsOf } from '#core/card/beadExits';
import type { Bead } from '#core/card/pattern';
import { readPattern } from '#core/card/read';
import { dbOf } from './database.server';
import { CARD_IN_USE, HEAD_OF_CARD } from './documents.server';
import { documents, heads, pieces } from './schema.server';
import type { Viewer } from './viewer.server';

/** A bead of another piece of the job, and where it leaves that piece. */
export type BeadBeside = {
  piece: string;
  name: string;
  number: number;
  bead: Bead;
  exits: BeadExit[];
};

const MOST = 200;

/** A card without its crown, which may be heavy and has no part in its beads. */
const uncrowned = sql<unknown>`case when ${documents.body} ? 'crown'
  then jsonb_set(${documents.body}, '{crown}', 'null') else ${documents.body} end`;

/** The beads of the other pieces of a piece's job, as their cards are now. */
export async function beadsBeside(viewer: Viewer, piece: string): Promise<BeadBeside[]> {
  const own = dbOf(viewer).select({ job: pieces.job }).from(pieces).where(eq(pieces.id, piece));
  const rows = await dbOf(viewer)
    .select({ piece: pieces.id, name: pieces.name, body: uncrowned })
    .from(pieces)
    .innerJoin(heads, HEAD_OF_CARD)
    .innerJoin(documents, CARD_IN_USE)
    .where(
      and(
        sql`${pieces.job} = (${own})`,
        ne(pieces.id, piece),
        isNull(pieces.archived),
        sql`jsonb_array_length(coalesce(${documents.body}->'beads', '[]')) > 0`,
      ),
    )
    .orderBy(asc(pieces.seq))
    .limit(MOST);
  return rows.flatMap(({ piece: id, name, body }) => {
    const read = readPattern(body);
    return read.ok
      ? read.doc.beads.map((bead, i) => ({
          piece: id,
          name,
          number: i + 1,
          bead,
          exits: exitsOf(read.doc, bead),
        }))
      : [];
  });
}
