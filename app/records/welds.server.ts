import { and, asc, eq } from 'drizzle-orm';
import type { InspectionRecord, WeldRecord, Withdrawn } from '#core/format/job';
import { mergedRecord } from '#core/format/merge';
import type { Changed } from './changed.server';
import { putMerged } from './changed.server';
import { dbOf, inLots } from './database.server';
import type { Tx } from './database.server';
import { wentIn } from './parse.server';
import { inspections, welds } from './schema.server';
import type { Viewer } from './viewer.server';

export type Weld = WeldRecord & { id: string };
export type Inspection = InspectionRecord & { id: string };

export const weldOf = (row: typeof welds.$inferSelect): Weld => ({
  id: row.id,
  at: row.at.toISOString(),
  who: row.who,
  edge: row.edge,
  process: row.process,
  work: row.work,
  from: row.from,
  to: row.to,
  settings: row.settings,
  note: row.note,
  made: row.made,
  withdrawn: row.withdrawn,
});

export const inspectionOf = (row: typeof inspections.$inferSelect): Inspection => ({
  id: row.id,
  at: row.at.toISOString(),
  who: row.who,
  edge: row.edge,
  kind: row.kind,
  sound: row.sound,
  readingMm: row.readingMm,
  finding: row.finding,
  remedy: row.remedy,
  withdrawn: row.withdrawn,
});

/** Weld entries of a piece, in the order they were written. */
export const weldsOf = async (
  viewer: Viewer,
  piece: string,
  tx: Tx = dbOf(viewer),
): Promise<Weld[]> =>
  (await tx.select().from(welds).where(eq(welds.piece, piece)).orderBy(asc(welds.seq))).map(weldOf);

export const inspectionsOf = async (
  viewer: Viewer,
  piece: string,
  tx: Tx = dbOf(viewer),
): Promise<Inspection[]> =>
  (
    await tx
      .select()
      .from(inspections)
      .where(eq(inspections.piece, piece))
      .orderBy(asc(inspections.seq))
  ).map(inspectionOf);

/**
 * Puts weld entries in, under ids of their own where whoever wrote them gave them one; answers
 * their ids in the order given.
 */
export async function addWelds(
  viewer: Viewer,
  piece: string,
  all: readonly (WeldRecord & { id?: string })[],
  tx: Tx = dbOf(viewer),
): Promise<string[]> {
  const ids: string[] = [];
  await inLots(all, async (lot) => {
    const rows = lot.map((weld) => ({ ...weld, piece, at: new Date(weld.at) }));
    const put = await tx
      .insert(welds)
      .values(rows)
      .onConflictDoNothing()
      .returning({ id: welds.id });
    ids.push(...wentIn(put, lot.length));
  });
  return ids;
}

/** Puts inspections in; answers their ids in the order given. */
export async function addInspections(
  viewer: Viewer,
  piece: string,
  all: readonly (InspectionRecord & { id?: string })[],
  tx: Tx = dbOf(viewer),
): Promise<string[]> {
  const ids: string[] = [];
  await inLots(all, async (lot) => {
    const rows = lot.map((inspection) => ({ ...inspection, piece, at: new Date(inspection.at) }));
    const put = await tx
      .insert(inspections)
      .values(rows)
      .onConflictDoNothing()
      .returning({ id: inspections.id });
    ids.push(...wentIn(put, lot.length));
  });
  return ids;
}

type Gone = { kind: 'none' } | { kind: 'taken-back' };

/** What was done about a finding, written down later, or written anew since it said `since`. */
export async function setRemedy(
  piece: string,
  id: string,
  since: string,
  remedy: string,
  tx: Tx,
): Promise<Changed<{ remedy: string }> | Gone> {
  const mine = and(eq(inspections.id, id), eq(inspections.piece, piece));
  const [row] = await tx.select().from(inspections).where(mine).for('update');
  if (!row) return { kind: 'none' };
  if (row.withdrawn) return { kind: 'taken-back' };
  const now = { remedy: row.remedy };
  return putMerged(mergedRecord({ remedy: since }, { remedy }, now), now, (merged) =>
    tx.update(inspections).set(merged).where(mine),
  );
}

/**
 * Takes a weld entry or an inspection back: it stays in the record, with when and why. Once, and
 * for good.
 */
export async function withdrawRecord(
  piece: string,
  what: 'weld' | 'inspection',
  id: string,
  withdrawn: Withdrawn,
  tx: Tx,
): Promise<{ kind: 'saved' } | Gone> {
  const table = what === 'weld' ? welds : inspections;
  const mine = and(eq(table.id, id), eq(table.piece, piece));
  const [row] = await tx
    .select({ withdrawn: table.withdrawn })
    .from(table)
    .where(mine)
    .for('update');
  if (!row) return { kind: 'none' };
  if (row.withdrawn) return { kind: 'taken-back' };
  await tx.update(table).set({ withdrawn }).where(mine);
  return { kind: 'saved' };
}
