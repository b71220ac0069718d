import { and, desc, eq, max } from 'drizzle-orm';
import type { PatternDoc } from '#core/card/pattern';
import { emptyPattern } from '#core/card/kinds';
import { db } from './database.server';
import type { Tx } from './database.server';
import { pieces, revisions } from './schema.server';

/** A card as it stands: the revision in use and whether there is one to go back or forward to. */
export type CardState = {
  revision: number;
  pattern: PatternDoc;
  canUndo: boolean;
  canRedo: boolean;
  savedAt: string | null;
};

const at = (piece: string, number: number) => and(eq(revisions.piece, piece), eq(revisions.number, number));

async function stateOf(tx: Tx, piece: string, number: number): Promise<CardState> {
  const [row] = await tx.select().from(revisions).where(at(piece, number));
  const [next] = await newestChild(tx, piece, number);
  return {
    revision: number,
    pattern: row?.pattern ?? emptyPattern(),
    canUndo: number > 0,
    canRedo: next !== undefined,
    savedAt: row?.at.toISOString() ?? null,
  };
}

const newestChild = (tx: Tx, piece: string, number: number) =>
  tx
    .select({ number: revisions.number })
    .from(revisions)
    .where(and(eq(revisions.piece, piece), eq(revisions.parent, number)))
    .orderBy(desc(revisions.number))
    .limit(1);

export const cardState = (piece: string, revision: number) => stateOf(db, piece, revision);

export type Saved = { kind: 'saved' | 'stale'; card: CardState };

/** The piece's row, held until the transaction ends, so that of two savers one is told it is stale. */
async function held(tx: Tx, piece: string): Promise<number | null> {
  const [row] = await tx.select({ revision: pieces.revision }).from(pieces).where(eq(pieces.id, piece)).for('update');
  return row?.revision ?? null;
}

const use = (tx: Tx, piece: string, revision: number) =>
  tx.update(pieces).set({ revision }).where(eq(pieces.id, piece));

/**
 * Stores a new revision made from `base`. When the one in use is no longer `base`, nothing is stored and the card as it
 * stands comes back as `stale`. Null when there is no such piece.
 */
export function saveRevision(piece: string, base: number, pattern: PatternDoc): Promise<Saved | null> {
  return db.transaction(async (tx): Promise<Saved | null> => {
    const current = await held(tx, piece);
    if (current === null) return null;
    if (current !== base) return { kind: 'stale', card: await stateOf(tx, piece, current) };
    const [last] = await tx
      .select({ number: max(revisions.number) })
      .from(revisions)
      .where(eq(revisions.piece, piece));
    const number = (last?.number ?? 0) + 1;
    await tx.insert(revisions).values({ piece, number, parent: base, pattern });
    await use(tx, piece, number);
    return { kind: 'saved', card: await stateOf(tx, piece, number) };
  });
}

/** Goes back to the revision before, or forward to the last one made from this. Null when there is no such piece. */
export function stepRevision(piece: string, base: number, step: 'undo' | 'redo'): Promise<Saved | null> {
  return db.transaction(async (tx): Promise<Saved | null> => {
    const current = await held(tx, piece);
    if (current === null) return null;
    if (current !== base) return { kind: 'stale', card: await stateOf(tx, piece, current) };
    let to = current;
    if (step === 'undo') {
      const [row] = await tx.select({ parent: revisions.parent }).from(revisions).where(at(piece, current));
      to = row?.parent ?? 0;
    } else {
      const [child] = await newestChild(tx, piece, current);
      to = child?.number ?? current;
    }
    await use(tx, piece, to);
    return { kind: 'saved', card: await stateOf(tx, piece, to) };
  });
}
