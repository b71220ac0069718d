import { and, eq, inArray, sql } from 'drizzle-orm';
import { emptyPattern } from '#core/card/emptyPattern';
import type { PatternDoc } from '#core/card/pattern';
import type { MergeRules } from '#core/format/merge';
import { HOLLOW_MERGE, PART_MERGE } from '#core/format/mergeRules';
import { ENDS } from '#core/joint/kinds';
import type { Beyond } from '#core/joint/meetings';
import type { Joint, StructureBody, Structured, StructureFile } from '#core/joint/structure';
import { StructureSchema } from '#core/joint/structure';
import { withPieces } from '#core/joint/withPieces';
import type { Fields } from './bodiesOfJob.server';
import { bodiesOf } from './bodiesOfJob.server';
import { dbOf } from './database.server';
import type { Tx } from './database.server';
import { stateOf } from './documents.server';
import type { PieceRecords } from './records.server';
import { byKind } from './records.server';
import { keptBeside } from './surfaces.server';
import { documents, pieces, structure } from './schema.server';
import type { Viewer } from './viewer.server';

const kept = bodiesOf<StructureBody>(structure, 'structure_of', StructureSchema, ({ kind }) =>
  kind === 'part'
    ? (PART_MERGE as MergeRules<Fields>)
    : kind === 'hollow'
      ? (HOLLOW_MERGE as MergeRules<Fields>)
      : {},
);

/** The named parts, joints and hollows of a job, in the order they were written down. */
export const structureOf = (viewer: Viewer, job: string): Promise<Structured[]> =>
  kept.all(viewer, job);

/** Writes one down; under an id that is there already nothing is written. */
export const addStructured = kept.add;

/** Changes fields of one since they stood as `since` says; null when there is none. */
export const changeStructured = kept.change;

/** The ids of pieces that a body names. */
function piecesNamed(body: StructureBody): string[] {
  const named =
    body.kind === 'joint'
      ? ENDS.map((end) => body[end])
      : body.kind === 'hollow'
        ? body.bounds
        : [];
  return named.flatMap((one) => ('piece' in one ? [one.piece] : []));
}

/** Whether all pieces that bodies name are of the job. */
export async function isOfJob(
  tx: Tx,
  job: string,
  bodies: readonly StructureBody[],
): Promise<boolean> {
  const named = [...new Set(bodies.flatMap(piecesNamed))];
  if (named.length === 0) return true;
  const found = await tx.$count(pieces, and(eq(pieces.job, job), inArray(pieces.id, named)));
  return found === named.length;
}

/** A piece beyond a joint, with what was written down of it. */
export type BeyondWithRecords = Beyond & { records: PieceRecords };

/** A card as far as its edges ask: its outline and its edges. */
const outlineOnly = ({ corners, sides, edges, turned }: PatternDoc): PatternDoc => ({
  ...emptyPattern(),
  corners,
  sides,
  edges,
  turned,
});

/** Pieces at the other ends of joints, by their ids, as they stand. */
export async function beyondOf(
  viewer: Viewer,
  ids: readonly string[],
): Promise<BeyondWithRecords[]> {
  if (ids.length === 0) return [];
  const rows = await dbOf(viewer).query.pieces.findMany({
    columns: { id: true, name: true, metal: true, thicknessMm: true, archived: true },
    where: (piece) => inArray(piece.id, [...ids]),
    with: {
      heads: {
        columns: { kind: true, number: true },
        with: {
          document: {
            columns: { seq: true, at: true, body: true },
            extras: (document) => ({ kept: keptBeside(document).as('kept') }),
          },
        },
      },
      records: { orderBy: (record, { asc }) => asc(record.seq) },
    },
  });
  return rows.map(({ heads, records, archived, ...piece }) => {
    const head = (kind: 'card' | 'plan') => {
      const found = heads.find((row) => row.kind === kind);
      return found && { ...found, next: false };
    };
    return {
      ...piece,
      archived: archived !== null,
      pattern: outlineOnly(stateOf('card', head('card')).doc),
      plan: stateOf('plan', head('plan')).doc,
      records: byKind(records),
    };
  });
}

/**
 * The same as in a job file, pieces by their place there (`placeOf`). Left out is what names a piece
 * that is not in it, or an edge that no saved card of its piece has had: such a file would be refused
 * where it is taken in.
 */
export async function structureFile(
  tx: Tx,
  job: string,
  placeOf: ReadonlyMap<string, number>,
): Promise<StructureFile[]> {
  const { rows: cards } = await tx.execute<{ piece: string; edges: string[] }>(sql`
    select d.piece, jsonb_agg(distinct e.id) as edges
    from ${documents} d join ${pieces} p on p.id = d.piece, jsonb_array_elements_text(d.edges) as e(id)
    where p.job = ${job} and d.kind = 'card' group by d.piece`);
  const edges = new Map(cards.map((card) => [card.piece, new Set(card.edges)]));
  const isThere = (end: Joint['first'] | Joint['second']) =>
    'part' in end || edges.get(end.piece)?.has(end.edge) === true;
  const found = (await kept.rows(tx, job)).flatMap(({ id, at, body }) => {
    if (body.kind === 'joint' && !ENDS.every((end) => isThere(body[end]))) return [];
    const placed = withPieces(body, (piece) => placeOf.get(piece));
    return placed ? [{ id, at: at.toISOString(), body: placed }] : [];
  });
  // A hollow that is bounded by what was left out goes without that.
  const ids = new Set(found.map(({ id }) => id));
  return found.map(({ body, ...one }) =>
    body.kind === 'hollow'
      ? {
          ...one,
          body: { ...body, bounds: body.bounds.filter((b) => !('joint' in b) || ids.has(b.joint)) },
        }
      : { ...one, body },
  );
}

/** Puts in what a job file says, once its pieces are in: `ids` by their place in it. */
export const putStructure = (
  tx: Tx,
  job: string,
  all: readonly StructureFile[],
  ids: readonly string[],
) =>
  kept.putAll(
    tx,
    job,
    all.flatMap(({ body, ...one }) => {
      const placed = withPieces(body, (place) => ids[place]);
      return placed ? [{ ...one, body: placed }] : [];
    }),
  );
