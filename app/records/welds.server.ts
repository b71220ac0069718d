import { and, asc, eq } from 'drizzle-orm';
import type { InspectionRecord, WeldRecord, Withdrawn } from '#core/format/job';
import { dbOf, inLots } from './database.server';
import type { Tx } from './database.server';
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
export const weldsOf = async (viewer: Viewer, piece: string, tx: Tx = dbOf(viewer)): Promise<Weld[]> =>
  (await tx.select().from(welds).where(eq(welds.piece, piece)).orderBy(asc(welds.seq))).map(weldOf);

export const inspectionsOf = async (viewer: Viewer, piece: string, tx: Tx = dbOf(viewer)): Promise<Inspection[]> =>
  (await tx.select().from(inspections).where(eq(inspections.piece, piece)).orderBy(asc(inspections.seq))).map(
    inspectionOf,
  );

export const addWelds = (viewer: Viewer, piece: string, all: readonly WeldRecord[], tx: Tx = dbOf(viewer)) =>
  inLots(all, (lot) => tx.insert(welds).values(lot.map((weld) => ({ ...weld, piece, at: new Date(weld.at) }))));

export const addInspections = (
  viewer: Viewer,
  piece: string,
  all: readonly InspectionRecord[],
  tx: Tx = dbOf(viewer),
) =>
  inLots(all, (lot) =>
    tx.insert(inspections).values(lot.map((inspection) => ({ ...inspection, piece, at: new Date(inspection.at) }))),
  );

/** What was done about a finding, written down later. False when there is no such inspection of the piece. */
export const setRemedy = async (
  viewer: Viewer,
  piece: string,
  id: string,
  remedy: string,
  tx: Tx = dbOf(viewer),
): Promise<boolean> =>
  (
    await tx
      .update(inspections)
      .set({ remedy })
      .where(and(eq(inspections.id, id), eq(inspections.piece, piece)))
      .returning({ id: inspections.id })
  ).length > 0;

/** Takes a weld entry or an inspection back: it stays in the record, with when and why. False when there is none such. */
export async function withdrawRecord(
  viewer: Viewer,
  piece: string,
  what: 'weld' | 'inspection',
  id: string,
  withdrawn: Withdrawn,
  tx: Tx = dbOf(viewer),
): Promise<boolean> {
  const table = what === 'weld' ? welds : inspections;
  const changed = await tx
    .update(table)
    .set({ withdrawn })
    .where(and(eq(table.id, id), eq(table.piece, piece)))
    .returning({ id: table.id });
  return changed.length > 0;
}
