import { and, asc, eq, isNull, ne } from 'drizzle-orm';
import type { Part } from '#core/card/link/differences';
import { madeFrom } from '#core/card/link/alignment';
import type { At, Linked } from '#core/card/link/linked';
import { catchUp, leave, withEdgeOffsets } from '#core/card/link/linked';
import type { PatternDoc, EdgeOffset } from '#core/card/pattern';
import type { CameAs, PieceFacts } from '#core/format/job';
import type { Result } from '#core/measure/result';
import { failure, stop } from '#core/measure/result';
import { dbOf } from './database.server';
import type { Tx } from './database.server';
import type { CardState } from './documents.server';
import { cardOf, copyDocument, putFirst, withCards } from './documents.server';
import type { Piece } from './pieces.server';
import { createPiece, factsOf, pieceById } from './pieces.server';
import { pieces } from './schema.server';
import type { Viewer } from './viewer.server';

/** What is to be made from a piece, and what it is to be called. */
export type Another = {
  as: CameAs;
  name: string;
  side: PieceFacts['side'];
  takeOff: EdgeOffset[];
  why: string;
};

/**
 * A piece made from another: the same metal, its card turned over or again, its plan; what was
 * fitted, welded and printed stays with the first. Null where there is no such piece.
 *
 * Problems (stop): `take-off-too-far` (about: edges along which that offset is impossible).
 */
export async function makeAnother(
  viewer: Viewer,
  tx: Tx,
  id: string,
  { as, name, side, takeOff, why }: Another,
): Promise<Result<{ id: string }> | null> {
  const [piece] = await tx.select().from(pieces).where(eq(pieces.id, id));
  if (!piece) return null;
  const card = await cardOf(viewer, id, tx);
  const { doc, failed } = madeFrom(card.doc, as, takeOff);
  if (failed.length > 0) {
    const mm = takeOff.find(({ edge }) => edge === failed[0])!.mm;
    return failure(stop('take-off-too-far', failed, { mm }));
  }
  const came = { cameFrom: id, cameAs: as, cameWhy: why };
  const made = await createPiece(viewer, piece.job, { ...factsOf(piece), name, side }, tx, came);
  if (card.number > 0) await putFirst(tx, made, 'card', doc);
  await copyDocument(tx, id, made, 'plan');
  return { ok: true, id: made };
}

/**
 * The other of two pieces of which one was made from the other: which of the two one stands at, and
 * its card.
 */
export type Other = {
  at: At;
  as: CameAs;
  why: string;
  other: { id: string; name: string; side: PieceFacts['side']; card: CardState };
};

/** Null where there is no such piece, or neither was made from the other. */
export async function otherOf(viewer: Viewer, id: string, otherId: string): Promise<Other | null> {
  const byId = async (one: string) =>
    (await dbOf(viewer).select().from(pieces).where(eq(pieces.id, one)))[0];
  const [here, there] = [await byId(id), await byId(otherId)];
  if (!here || !there || here.job !== there.job) return null;
  const at = here.cameFrom === there.id ? 'made' : there.cameFrom === here.id ? 'first' : null;
  if (!at) return null;
  const { cameAs, cameWhy } = at === 'made' ? here : there;
  const { name, side } = there;
  return {
    at,
    as: cameAs ?? 'again',
    why: cameWhy,
    other: { id: there.id, name, side, card: await cardOf(viewer, there.id) },
  };
}

/**
 * The other pieces of a piece's job that are in hand, in the order they were begun, and of the one
 * chosen among them its card.
 */
export type Others = {
  others: Pick<Piece, 'id' | 'name' | 'side'>[];
  chosen: { id: string; name: string; side: PieceFacts['side']; doc: PatternDoc } | null;
};
/** As many as can be chosen among. */
const MAX_OTHERS = 500;

/** Null where there is no such piece. */
export async function othersOf(
  viewer: Viewer,
  id: string,
  chosen: string | null,
): Promise<Others | null> {
  const here = await pieceById(viewer, id);
  if (!here) return null;
  const others = await dbOf(viewer)
    .select({ id: pieces.id, name: pieces.name, side: pieces.side })
    .from(pieces)
    .where(and(eq(pieces.job, here.job), ne(pieces.id, id), isNull(pieces.archived)))
    .orderBy(asc(pieces.seq))
    .limit(MAX_OTHERS);
  const one = others.find((other) => other.id === chosen);
  return { others, chosen: one ? { ...one, doc: (await cardOf(viewer, one.id)).doc } : null };
}

/** What is done with two cards of which one was made from the other. */
export type LinkChange =
  | { what: 'take'; parts: Part[]; over: boolean }
  | { what: 'leave'; parts: Part[] }
  | { what: 'take-off'; takeOff: EdgeOffset[] }
  | { what: 'anew' };

/**
 * Changes one of two cards, or both, as the page saw them: `stale` where either has changed since.
 * Null where one of them is not there. Problems: those of the change.
 */
export const changeLinked = (
  viewer: Viewer,
  ids: { here: string; there: string },
  seen: { here: number; there: number },
  at: At,
  as: CameAs,
  change: LinkChange,
): Promise<Result<object> | 'stale' | null> =>
  withCards(viewer, [ids.here, ids.there], async ([here, there], put) => {
    if (here.number !== seen.here || there.number !== seen.there) return 'stale' as const;
    const linked: Linked =
      at === 'made' ? { first: there.doc, made: here.doc } : { first: here.doc, made: there.doc };
    const found = changed(at, as, linked, change);
    if (!found.ok) return found;
    const [first, made] = at === 'made' ? [ids.there, ids.here] : [ids.here, ids.there];
    if (found.first !== linked.first) await put(first, found.first);
    if (found.made !== linked.made) await put(made, found.made);
    return { ok: true };
  });

function changed(at: At, as: CameAs, linked: Linked, change: LinkChange): Result<Linked> {
  switch (change.what) {
    case 'take':
      return catchUp(at, linked, change.parts, change.over);
    case 'leave':
      return leave(linked, change.parts);
    case 'take-off':
      return onMade(linked, withEdgeOffsets(linked.made, change.takeOff));
    case 'anew':
      return onMade(linked, {
        ok: true,
        doc: madeFrom(linked.first, as, linked.made.linkedFrom?.edgeOffsets ?? []).doc,
      });
  }
}

const onMade = ({ first }: Linked, found: Result<{ doc: PatternDoc }>): Result<Linked> =>
  found.ok ? { ok: true, first, made: found.doc } : found;
