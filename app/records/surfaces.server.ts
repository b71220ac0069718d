import { createHash } from 'node:crypto';
import { and, eq, inArray, notExists, sql } from 'drizzle-orm';
import type { SQLWrapper } from 'drizzle-orm';
import type { PartIds } from '#core/card/crownParts';
import { heavyParts, namedParts, namingParts } from '#core/card/crownParts';
import { inLots } from './database.server';
import type { Tx } from './database.server';
import { documents, surfaces } from './schema.server';

/** Parts of cards by their ids. */
export type Kept = Readonly<Record<string, unknown>>;

/** A version as it is stored: its heavy parts apart, each named by what is in it. */
export type Apart = { body: unknown; parts: PartIds; heavy: { id: string; json: string }[] };

export function apart(doc: unknown): Apart {
  const heavy = heavyParts(doc).map(({ place, json }) => ({
    ...{ place, json },
    id: createHash('sha256').update(json).digest('base64url'),
  }));
  const parts: PartIds = Object.fromEntries(heavy.map(({ place, id }) => [place, id]));
  return { body: namingParts(doc, parts), parts, heavy };
}

/** Keeps parts of cards of a piece; those that are there stay. */
export async function keepParts(
  tx: Tx,
  piece: string,
  heavy: readonly { id: string; json: string }[],
): Promise<void> {
  const once = [...new Map(heavy.map((part) => [part.id, part])).values()];
  const rows = once.map(({ id, json }) => ({ piece, id, body: JSON.parse(json) as unknown }));
  await inLots(rows, (lot) => tx.insert(surfaces).values(lot).onConflictDoNothing());
}

/** Of a piece: the parts that `bodies` name. */
export async function partsOf(tx: Tx, piece: string, bodies: readonly unknown[]): Promise<Kept> {
  const ids = [...new Set(bodies.flatMap((body) => Object.values(namedParts(body))))];
  if (ids.length === 0) return {};
  const rows = await tx
    .select({ id: surfaces.id, body: surfaces.body })
    .from(surfaces)
    .where(and(eq(surfaces.piece, piece), inArray(surfaces.id, ids)));
  return Object.fromEntries(rows.map(({ id, body }) => [id, body]));
}

/**
 * The parts that a version names, as a column beside it: of one moment with it, though another page
 * lets go of them meanwhile. Null for none.
 */
export const keptBeside = (version: { piece: SQLWrapper; surfaces: SQLWrapper }) =>
  sql<Kept | null>`(select jsonb_object_agg(part.id, part.body) from ${surfaces} part
    where part.piece = ${version.piece} and ${version.surfaces} ? part.id)`;

/** Lets go of the parts that no version of the piece's card names any more. */
export async function sweepParts(tx: Tx, piece: string): Promise<void> {
  const naming = tx
    .select({ seq: documents.seq })
    .from(documents)
    .where(and(eq(documents.piece, piece), sql`${documents.surfaces} ? ${surfaces.id}`));
  await tx.delete(surfaces).where(and(eq(surfaces.piece, piece), notExists(naming)));
}
