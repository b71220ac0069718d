import { asc, desc, sql } from 'drizzle-orm';
import type { PgColumn } from 'drizzle-orm/pg-core';
import type { CameAs } from '#core/format/job';
import type { StructureBody, Structured } from '#core/joint/structure';
import type { Shaping } from '#core/shape/shaping';
import { standing } from './database.server';
import type { CardState, PlanState } from './documents.server';
import { stateOf } from './documents.server';
import type { Piece, Print } from './pieces.server';
import { printOf } from './pieces.server';
import type { Picture } from './pictures.server';
import { pictureOf } from './pictures.server';
import type { PieceRecords } from './records.server';
import { byKind } from './records.server';
import { documents, structure } from './schema.server';
import { shapingOf } from './shaping.server';
import { keptBeside } from './surfaces.server';
import type { Viewer } from './viewer.server';

export type WholePiece = {
  piece: Piece;
  job: { id: string; name: string };
  structure: Structured[];
  card: CardState;
  plan: PlanState;
  records: PieceRecords;
  pictures: Picture[];
  printed: Print | null;
  /** The piece it was made from, and its card. */
  from: { id: string; name: string; card: CardState; shaping: Shaping } | null;
  /** The pieces that were made from it. */
  made: { id: string; name: string; cameAs: CameAs | null; cameWhy: string }[];
};

/** A version in use, with the heavy parts that it names. */
const version = {
  columns: { seq: true, at: true, body: true },
  extras: (document: { piece: PgColumn; surfaces: PgColumn }) => ({
    kept: keptBeside(document).as('kept'),
  }),
} as const;

const asked = standing((db) =>
  db.query.pieces
    .findFirst({
      where: (piece, { eq }) => eq(piece.id, sql.placeholder('id')),
      extras: (piece) => ({
        structure: sql<{ id: string; body: StructureBody }[]>`(select coalesce(
          jsonb_agg(jsonb_build_object('id', s.id, 'body', s.body) order by s.seq), '[]')
          from ${structure} s where s.job = ${piece.job})`.as('structure'),
      }),
      with: {
        job: { columns: { id: true, name: true } },
        heads: {
          columns: { kind: true, number: true },
          with: { document: version },
          extras: (head) => ({
            next: sql<boolean>`exists (select 1 from ${documents} d where d.piece = ${head.piece}
              and d.kind = ${head.kind} and d.parent = ${head.number})`.as('next'),
          }),
        },
        records: { orderBy: (record) => asc(record.seq) },
        pictures: { orderBy: (picture) => asc(picture.seq) },
        prints: { orderBy: (print) => desc(print.seq), limit: 1 },
        from: {
          columns: { id: true, name: true, shaping: true },
          with: {
            heads: {
              columns: { number: true },
              where: (head, { eq }) => eq(head.kind, 'card'),
              with: { document: version },
            },
          },
        },
        made: {
          columns: { id: true, name: true, cameAs: true, cameWhy: true },
          orderBy: (piece) => asc(piece.seq),
        },
      },
    })
    .prepare('whole_piece'),
);

/**
 * All that the page of a piece stands on, as it stands at one moment, by one statement; null where
 * there is no such piece.
 */
export async function wholePiece(viewer: Viewer, id: string): Promise<WholePiece | null> {
  const found = await asked(viewer).execute({ id });
  if (!found || !viewer.sees(found.job.id)) return null;
  const { job, heads, records, pictures, prints, from, made, structure: joined, ...piece } = found;
  const head = (kind: 'card' | 'plan') => heads.find((row) => row.kind === kind);
  return {
    piece: { ...piece, job: job.id },
    job,
    structure: joined.map(({ id, body }) => ({ ...body, id })),
    card: stateOf('card', head('card')),
    plan: stateOf('plan', head('plan')),
    records: byKind(records),
    pictures: pictures.map(pictureOf),
    printed: prints[0] ? printOf(prints[0]) : null,
    from: from && {
      id: from.id,
      name: from.name,
      shaping: shapingOf(from),
      card: stateOf('card', from.heads[0] && { ...from.heads[0], next: false }),
    },
    made,
  };
}
