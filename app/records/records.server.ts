import { and, asc, eq } from 'drizzle-orm';
import type { Withdrawn } from '#core/format/job';
import type { RecordKind } from '#core/format/lists';
import { mergedRecord } from '#core/format/merge';
import type { RecordLists, RecordOf } from '#core/format/records';
import { RECORDS, listsOf } from '#core/format/records';
import type { Changed } from './changed.server';
import { putMerged } from './changed.server';
import { dbOf, inLots } from './database.server';
import type { Tx } from './database.server';
import { wentIn } from './parse.server';
import { records } from './schema.server';
import type { Viewer } from './viewer.server';

/** A record as it is kept, under its id. */
export type Kept<K extends RecordKind> = RecordOf<K> & { id: string };
export type Fit = Kept<'fit'>;
export type Weld = Kept<'weld'>;
export type Inspection = Kept<'inspection'>;

type AllKept = { [K in RecordKind]: Kept<K> };
/** The records of a piece: a list for each kind. */
export type PieceRecords = RecordLists<AllKept>;

export type RecordRow = typeof records.$inferSelect;

/** What a row says, as its schema takes it. */
export const saidIn = (row: RecordRow): Record<string, unknown> => ({
  ...row.body,
  at: row.at.toISOString(),
  withdrawn: row.withdrawn,
});

/** A record from its row; null for one that this program cannot read (`check-data` names it). */
function recordOf<K extends RecordKind>(kind: K, row: RecordRow): Kept<K> | null {
  const read = RECORDS[kind].schema.safeParse(saidIn(row));
  return read.success ? ({ id: row.id, ...read.data } as unknown as Kept<K>) : null;
}

/** Records from their rows, in the order of entry, a list for each kind in its own order. */
export const byKind = (rows: readonly RecordRow[]): PieceRecords =>
  listsOf<AllKept>(<K extends RecordKind>(kind: K) => {
    const mine = rows.filter((row) => row.kind === kind);
    if (RECORDS[kind].inOrderOf === 'at') mine.sort((a, b) => a.at.getTime() - b.at.getTime());
    return mine.flatMap((row) => recordOf(kind, row) ?? []) as AllKept[K][];
  });

/** The records of a piece. */
export const recordsOf = async (
  viewer: Viewer,
  piece: string,
  tx: Tx = dbOf(viewer),
): Promise<PieceRecords> =>
  byKind(await tx.select().from(records).where(eq(records.piece, piece)).orderBy(asc(records.seq)));

/**
 * Puts records of one kind in, under ids of their own where whoever wrote them gave them one; answers
 * their ids in the order given.
 */
export async function addRecords<K extends RecordKind>(
  tx: Tx,
  piece: string,
  kind: K,
  all: readonly (RecordOf<K> & { id?: string })[],
): Promise<string[]> {
  const ids: string[] = [];
  await inLots(all, async (lot) => {
    const rows = lot.map(({ id, at, withdrawn, ...body }) => ({
      id,
      piece,
      kind,
      at: new Date(at),
      withdrawn,
      body,
    }));
    const put = await tx
      .insert(records)
      .values(rows)
      .onConflictDoNothing()
      .returning({ id: records.id });
    ids.push(...wentIn(put, lot.length));
  });
  return ids;
}

/** Why a record cannot be changed: there is none such, or it was taken back. */
export type Gone = { kind: 'none' } | { kind: 'taken-back' };

/**
 * A record of a piece that stands, its row held until the transaction ends; or why there is none.
 */
export async function heldRecord(
  tx: Tx,
  piece: string,
  kind: RecordKind,
  id: string,
): Promise<{ kind: 'held'; row: RecordRow } | Gone> {
  const mine = and(eq(records.id, id), eq(records.piece, piece), eq(records.kind, kind));
  const [row] = await tx.select().from(records).where(mine).for('update');
  if (!row) return { kind: 'none' };
  return row.withdrawn ? { kind: 'taken-back' } : { kind: 'held', row };
}

/** Takes a record back: it stays, with when and why. Once, and for good. */
export async function withdrawRecord(
  tx: Tx,
  piece: string,
  kind: RecordKind,
  id: string,
  withdrawn: Withdrawn,
): Promise<{ kind: 'saved' } | Gone> {
  const found = await heldRecord(tx, piece, kind, id);
  if (found.kind !== 'held') return found;
  await tx.update(records).set({ withdrawn }).where(eq(records.id, id));
  return { kind: 'saved' };
}

/** What of a record may be changed after. */
export type ChangedOf<K extends RecordKind> = Pick<
  RecordOf<K>,
  (typeof RECORDS)[K]['changed'][number] & keyof RecordOf<K>
>;

/** Changes what is said in a record since `since`. */
export async function changeRecord<K extends RecordKind>(
  tx: Tx,
  piece: string,
  kind: K,
  id: string,
  since: ChangedOf<K>,
  mine: ChangedOf<K>,
): Promise<Changed<ChangedOf<K>> | Gone> {
  const found = await heldRecord(tx, piece, kind, id);
  if (found.kind !== 'held') return found;
  const { row } = found;
  const said = saidIn(row);
  const now = Object.fromEntries(
    RECORDS[kind].changed.map((field) => [field, said[field]]),
  ) as ChangedOf<K>;
  return putMerged(mergedRecord(since, mine, now), now, (merged) => {
    const { at, ...body } = merged as Record<string, unknown>;
    return tx
      .update(records)
      .set({
        ...(typeof at === 'string' && { at: new Date(at) }),
        body: { ...row.body, ...body },
      })
      .where(eq(records.id, id));
  });
}
