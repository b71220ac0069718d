import { and, desc, eq, gt, max, sql } from 'drizzle-orm';
import { isMainThread } from 'node:worker_threads';
import { LRUCache } from 'lru-cache';
import type { PartIds } from '#core/card/crownParts';
import { namedParts, withParts } from '#core/card/crownParts';
import { emptyPattern } from '#core/card/emptyPattern';
import type { DocumentKind, Documents } from '#core/format/documents';
import { DOCUMENTS } from '#core/format/documents';
import type { History } from '#core/format/job';
import type { Problem } from '#core/measure/result';
import { emptyPlan } from '#core/weld/emptyPlan';
import { dbOf, inLots } from './database.server';
import type { Tx } from './database.server';
import { documents, heads, pieces, prints, records } from './schema.server';
import type { Kept } from './surfaces.server';
import { apart, keepParts, keptBeside, partsOf, sweepParts } from './surfaces.server';
import type { Viewer } from './viewer.server';

/**
 * A document as it stands: the version in use and whether there is one to go back or forward to.
 */
export type DocState<Doc> = {
  number: number;
  doc: Doc;
  /** What the heavy parts of `doc` are kept under. */
  parts: PartIds;
  canUndo: boolean;
  canRedo: boolean;
  savedAt: string | null;
  /**
   * Why the version in use can't be read; the document is then empty, and an earlier version can be
   * gone back to.
   */
  broken: Problem[] | null;
  /** The server’s clock, ms: it is no older than that. */
  asOf?: number;
};
export type CardState = DocState<Documents['card']>;
export type PlanState = DocState<Documents['plan']>;

const EMPTY: { [K in DocumentKind]: () => Documents[K] } = { card: emptyPattern, plan: emptyPlan };

/** Beside pieces: which version of a piece's card is in use, and that version. */
export const HEAD_OF_CARD = and(eq(heads.piece, pieces.id), eq(heads.kind, 'card'));
export const CARD_IN_USE = and(
  eq(documents.piece, pieces.id),
  eq(documents.kind, 'card'),
  eq(documents.number, heads.number),
);

const of = (piece: string, kind: DocumentKind) =>
  and(eq(documents.piece, piece), eq(documents.kind, kind));
const at = (piece: string, kind: DocumentKind, number: number) =>
  and(of(piece, kind), eq(documents.number, number));

type Opened<K extends DocumentKind> = { doc: Documents[K]; broken: Problem[] | null };

/** What is stored, through its one door, with the parts it names. */
function opened<K extends DocumentKind>(kind: K, body: unknown, kept: Kept): Opened<K> {
  const read = DOCUMENTS[kind].read(withParts(body, kept));
  return read.ok ? { doc: read.doc, broken: null } : { doc: EMPTY[kind](), broken: read.problems };
}

/**
 * Versions that were read are held up to this many characters of JSON; as objects about thrice that.
 * A worker holds fewer: there every card drags along what was reckoned of it, and is seldom asked for
 * twice.
 */
const MAX_KNOWN_CHARACTERS = isMainThread ? 16e6 : 1e6;

/** A version never changes: read once, it is known by its row as long as it was used of late. */
const known = new LRUCache<number, Opened<DocumentKind>>({
  maxSize: MAX_KNOWN_CHARACTERS,
  sizeCalculation: ({ doc }) => JSON.stringify(doc).length,
});
function openedOnce<K extends DocumentKind>(
  kind: K,
  { seq, body, kept }: { seq: number; body: unknown; kept: Kept | null },
): Opened<K> {
  const before = known.get(seq) as Opened<K> | undefined;
  if (before) return before;
  const now = opened(kind, body, kept ?? {});
  known.set(seq, now as Opened<DocumentKind>);
  return now;
}

async function headOf(tx: Tx, piece: string, kind: DocumentKind): Promise<number> {
  const [row] = await tx
    .select({ number: heads.number })
    .from(heads)
    .where(and(eq(heads.piece, piece), eq(heads.kind, kind)));
  return row?.number ?? 0;
}

const newestChild = (tx: Tx, piece: string, kind: DocumentKind, number: number) =>
  tx
    .select({ number: documents.number })
    .from(documents)
    .where(and(of(piece, kind), eq(documents.parent, number)))
    .orderBy(desc(documents.number))
    .limit(1);

/**
 * A document as it stands, from the row that says which version is in use and whether any was made
 * from that.
 */
export function stateOf<K extends DocumentKind>(
  kind: K,
  head: { number: number; next: boolean; document: VersionRow | null } | undefined,
): DocState<Documents[K]> {
  const row = head?.document;
  const { doc, broken } = row ? openedOnce(kind, row) : { doc: EMPTY[kind](), broken: null };
  const number = head?.number ?? 0;
  const parts = broken ? {} : namedParts(row?.body);
  const savedAt = row?.at.toISOString() ?? null;
  return { number, doc, parts, broken, canUndo: number > 0, canRedo: head?.next ?? false, savedAt };
}

/** A version as it is stored, and the parts it names. */
type VersionRow = { seq: number; at: Date; body: unknown; kept: Kept | null };

const VERSION = { seq: documents.seq, at: documents.at, body: documents.body };
/** Columns of the row that is selected, named with their table: inside it there is another. */
const BY_NAME = {
  piece: sql.raw('documents.piece'),
  surfaces: sql.raw('documents.surfaces'),
};

async function stateAt<K extends DocumentKind>(
  tx: Tx,
  piece: string,
  kind: K,
  number: number,
): Promise<DocState<Documents[K]>> {
  const [document] =
    number > 0
      ? await tx
          .select({ ...VERSION, kept: keptBeside(BY_NAME) })
          .from(documents)
          .where(at(piece, kind, number))
      : [];
  const [next] = await newestChild(tx, piece, kind, number);
  return stateOf(kind, { number, next: next !== undefined, document: document ?? null });
}

/** Of a piece: the heavy parts that a document sent for it names, by their ids. */
export const keptParts = (viewer: Viewer, piece: string, body: unknown): Promise<Kept> =>
  partsOf(dbOf(viewer), piece, [body]);

export type Saved<Doc> = { kind: 'saved' | 'stale'; state: DocState<Doc> };

/**
 * The piece's row, held until the transaction ends, so that of two savers one is told it is stale.
 */
async function held(tx: Tx, piece: string): Promise<boolean> {
  const [row] = await tx
    .select({ id: pieces.id })
    .from(pieces)
    .where(eq(pieces.id, piece))
    .for('update');
  return row !== undefined;
}

async function takeUp(tx: Tx, piece: string, kind: DocumentKind, number: number): Promise<void> {
  const mine = and(eq(heads.piece, piece), eq(heads.kind, kind));
  const moved = await tx
    .update(heads)
    .set({ number })
    .where(mine)
    .returning({ number: heads.number });
  if (moved.length === 0) await tx.insert(heads).values({ piece, kind, number });
}

/** Changes about one thing that follow each other within this are thinned to the last. */
const FINE_TUNING_MS = 60_000;

/** Whether something was made from a version of a card, so that it stays in the history. */
async function isPinned(tx: Tx, piece: string, number: number): Promise<boolean> {
  const { rows } = await tx.execute<{ pinned: boolean }>(sql`
    select exists(select 1 from ${prints} where piece = ${piece} and revision = ${number})
      or exists(select 1 from ${records} where piece = ${piece} and revision = ${number}) as pinned`);
  return rows[0]?.pinned === true;
}

/**
 * Where a new version made from `base` hangs: on `base`, or on what `base` was made from where both
 * are fine tuning of one thing and nothing else knows of `base`, which is then left out.
 */
async function parentFor(
  tx: Tx,
  piece: string,
  kind: DocumentKind,
  base: number,
  about: string,
): Promise<{ parent: number; thinned: boolean }> {
  const keep = { parent: base, thinned: false };
  if (base === 0 || about === '') return keep;
  const [row] = await tx
    .select()
    .from(documents)
    .where(at(piece, kind, base));
  if (!row || row.about !== about || Date.now() - row.at.getTime() > FINE_TUNING_MS) return keep;
  const [child] = await newestChild(tx, piece, kind, base);
  if (child || (kind === 'card' && (await isPinned(tx, piece, base)))) return keep;
  return { parent: row.parent, thinned: true };
}

/** Whether all that came after `base`, up to the version in use, was written by one page. */
async function onlyBy(
  tx: Tx,
  piece: string,
  kind: DocumentKind,
  base: number,
  current: number,
  by: string,
): Promise<boolean> {
  if (by === '' || current < base) return false;
  const since = await tx
    .select({ by: documents.by })
    .from(documents)
    .where(and(of(piece, kind), gt(documents.number, base)));
  return since.length > 0 && since.every((row) => row.by === by);
}

/**
 * Stores a new version made from `base` by the open page `by`. When the one in use is no longer
 * `base`, nothing is stored and the document as it stands comes back as `stale`, unless it is the
 * same document, or nobody but that page has written since: then only the answers to its own saves
 * were lost, and it goes on from them. Null when there is no such piece.
 */
export function saveDocument<K extends DocumentKind>(
  viewer: Viewer,
  piece: string,
  kind: K,
  base: number,
  doc: Documents[K],
  about: string,
  by = '',
): Promise<Saved<Documents[K]> | null> {
  return dbOf(viewer).transaction(async (tx): Promise<Saved<Documents[K]> | null> => {
    if (!(await held(tx, piece))) return null;
    const current = await headOf(tx, piece, kind);
    if (current !== base) {
      const state = await stateAt(tx, piece, kind, current);
      // Sent again because the answer was lost, or the same on two pages: it is there already.
      if (!state.broken && JSON.stringify(state.doc) === JSON.stringify(doc))
        return { kind: 'saved', state };
      if (!(await onlyBy(tx, piece, kind, base, current, by))) return { kind: 'stale', state };
    }
    return { kind: 'saved', state: await putVersion(tx, piece, kind, current, doc, about, by) };
  });
}

/** A new version made from `base`, taken up. */
async function putVersion<K extends DocumentKind>(
  tx: Tx,
  piece: string,
  kind: K,
  base: number,
  doc: Documents[K],
  about: string,
  by: string,
): Promise<DocState<Documents[K]>> {
  const [last] = await tx
    .select({ number: max(documents.number) })
    .from(documents)
    .where(of(piece, kind));
  const number = (last?.number ?? 0) + 1;
  const { parent, thinned } = await parentFor(tx, piece, kind, base, about);
  const { version } = DOCUMENTS[kind];
  const { body, parts, heavy } = apart(doc);
  await keepParts(tx, piece, heavy);
  const [row] = await tx
    .insert(documents)
    .values({ piece, kind, number, parent, version, about, by, body })
    .returning({ at: documents.at });
  if (thinned) {
    const [gone] = await tx
      .delete(documents)
      .where(at(piece, kind, base))
      .returning({ body: documents.body });
    const named = new Set(Object.values(parts));
    if (Object.values(namedParts(gone?.body)).some((id) => !named.has(id)))
      await sweepParts(tx, piece);
  }
  await takeUp(tx, piece, kind, number);
  return {
    number,
    doc,
    parts,
    broken: null,
    canUndo: true,
    canRedo: false,
    savedAt: row!.at.toISOString(),
  };
}

/**
 * The cards of two pieces, for a change of both that is made whole or not at all; null where one of
 * them is not there.
 */
export const withCards = <Answer>(
  viewer: Viewer,
  pieceIds: readonly [string, string],
  change: (
    cards: [CardState, CardState],
    put: (piece: string, doc: Documents['card']) => Promise<void>,
  ) => Promise<Answer>,
): Promise<Answer | null> =>
  dbOf(viewer).transaction(async (tx) => {
    // In one order, so that of two who change both none waits for the other in a ring.
    for (const piece of [...pieceIds].sort()) if (!(await held(tx, piece))) return null;
    const states: CardState[] = [];
    for (const piece of pieceIds)
      states.push(await stateAt(tx, piece, 'card', await headOf(tx, piece, 'card')));
    return change(states as [CardState, CardState], async (piece, doc) => {
      await putVersion(tx, piece, 'card', states[pieceIds.indexOf(piece)]!.number, doc, '', '');
    });
  });

/** Gives a piece that is new its first version of a document. */
export async function putFirst<K extends DocumentKind>(
  tx: Tx,
  piece: string,
  kind: K,
  doc: Documents[K],
): Promise<void> {
  await putVersion(tx, piece, kind, 0, doc, '', '');
}

/** The card of a piece as it stands. */
export const cardOf = async (
  viewer: Viewer,
  piece: string,
  tx: Tx = dbOf(viewer),
): Promise<CardState> => stateAt(tx, piece, 'card', await headOf(tx, piece, 'card'));

export type Step = 'undo' | 'redo' | 'last-good';

/**
 * Goes back to the version before, forward to the last one made from this, or back to the nearest
 * one that `isGood` accepts. Null when there is no such piece.
 */
export function stepDocument<K extends DocumentKind>(
  viewer: Viewer,
  piece: string,
  kind: K,
  base: number,
  step: Step,
  isGood: (doc: Documents[K]) => boolean,
): Promise<Saved<Documents[K]> | null> {
  return dbOf(viewer).transaction(async (tx): Promise<Saved<Documents[K]> | null> => {
    if (!(await held(tx, piece))) return null;
    const current = await headOf(tx, piece, kind);
    if (current !== base) return { kind: 'stale', state: await stateAt(tx, piece, kind, current) };
    const parentOf = async (number: number): Promise<number> => {
      const [row] = await tx
        .select({ parent: documents.parent })
        .from(documents)
        .where(at(piece, kind, number));
      return row?.parent ?? 0;
    };
    let to = current;
    if (step === 'redo') to = (await newestChild(tx, piece, kind, current))[0]?.number ?? current;
    else to = await parentOf(current);
    if (step === 'last-good') {
      for (; to > 0; to = await parentOf(to)) {
        const { doc, broken } = await stateAt(tx, piece, kind, to);
        if (!broken && isGood(doc)) break;
      }
    }
    await takeUp(tx, piece, kind, to);
    return { kind: 'saved', state: await stateAt(tx, piece, kind, to) };
  });
}

/** The whole history of a document, for a job file; versions that can't be read stay out of it. */
export async function historyOf<K extends DocumentKind>(
  viewer: Viewer,
  piece: string,
  kind: K,
  tx: Tx = dbOf(viewer),
): Promise<History<Documents[K]>> {
  const rows = await tx.select().from(documents).where(of(piece, kind)).orderBy(documents.number);
  const current = await headOf(tx, piece, kind);
  const kept = await partsOf(
    tx,
    piece,
    rows.map((row) => row.body),
  );
  const good = rows.flatMap((row) => {
    const { doc, broken } = opened(kind, row.body, kept);
    return broken
      ? []
      : [{ number: row.number, parent: row.parent, at: row.at.toISOString(), doc }];
  });
  const numbers = new Set(good.map((v) => v.number));
  // What hung on one that can't be read hangs on the nearest before it that can.
  const parentOf = new Map(rows.map((row) => [row.number, row.parent]));
  const standing = (number: number): number => {
    let at = number;
    while (at > 0 && !numbers.has(at)) at = parentOf.get(at) ?? 0;
    return at;
  };
  return {
    current: standing(current),
    versions: good.map((v) => ({ ...v, parent: standing(v.parent) })),
  };
}

/** Takes a history in with a piece that is new. */
export async function putHistory<K extends DocumentKind>(
  tx: Tx,
  piece: string,
  kind: K,
  { current, versions }: History<Documents[K]>,
): Promise<void> {
  const { version } = DOCUMENTS[kind];
  const heavy: { id: string; json: string }[] = [];
  const rows = versions.map(({ number, parent, at: moment, doc }) => {
    const stored = apart(doc);
    heavy.push(...stored.heavy);
    const { body } = stored;
    return { piece, kind, number, parent, version, at: new Date(moment), body };
  });
  await keepParts(tx, piece, heavy);
  await inLots(rows, (lot) => tx.insert(documents).values(lot));
  // All of it may be undone, and can be done again.
  if (versions.length > 0) await takeUp(tx, piece, kind, current);
}

/** Gives a piece that is new the document of another as its first version. */
export async function copyDocument(
  tx: Tx,
  from: string,
  to: string,
  kind: DocumentKind,
): Promise<void> {
  const current = await headOf(tx, from, kind);
  if (current === 0) return;
  const [row] = await tx
    .select()
    .from(documents)
    .where(at(from, kind, current));
  if (!row) return;
  const { version, body } = row;
  const kept = await partsOf(tx, from, [body]);
  await keepParts(
    tx,
    to,
    Object.entries(kept).map(([id, part]) => ({ id, json: JSON.stringify(part) })),
  );
  await tx.insert(documents).values({ piece: to, kind, number: 1, parent: 0, version, body });
  await takeUp(tx, to, kind, 1);
}
