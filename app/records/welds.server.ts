import { and, asc, eq } from 'drizzle-orm';
import type { InspectionRecord, WeldRecord, Withdrawn } from '#core/format/job';
import { dbOf } from './database.server';
import type { Tx } from './database.server';
import { inspections, pieces, welds } from './schema.server';
import type { Viewer } from './viewer.server';

export type Weld = WeldRecord & { id: string };
export type Inspection = InspectionRecord & { id: string };

const weldOf = (row: typeof welds.$inferSelect): Weld => ({
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

const inspectionOf = (row: typeof inspections.$inferSelect): Inspection => ({
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
export const weldsOf = async (viewer: Viewer, piece: string): Promise<Weld[]> =>
  (await dbOf(viewer).select().from(welds).where(eq(welds.piece, piece)).orderBy(asc(welds.seq))).map(weldOf);

export const inspectionsOf = async (viewer: Viewer, piece: string): Promise<Inspection[]> =>
  (
    await dbOf(viewer).select().from(inspections).where(eq(inspections.piece, piece)).orderBy(asc(inspections.seq))
  ).map(inspectionOf);

const grouped = <T>(rows: { piece: string; record: T }[]): Map<string, T[]> => {
  const by = new Map<string, T[]>();
  for (const { piece, record } of rows) by.set(piece, [...(by.get(piece) ?? []), record]);
  return by;
};

export async function weldsOfJob(viewer: Viewer, job: string): Promise<Map<string, Weld[]>> {
  const rows = await dbOf(viewer)
    .select({ row: welds })
    .from(welds)
    .innerJoin(pieces, eq(pieces.id, welds.piece))
    .where(eq(pieces.job, job));
  return grouped(rows.map(({ row }) => ({ piece: row.piece, record: weldOf(row) })));
}

export async function inspectionsOfJob(viewer: Viewer, job: string): Promise<Map<string, Inspection[]>> {
  const rows = await dbOf(viewer)
    .select({ row: inspections })
    .from(inspections)
    .innerJoin(pieces, eq(pieces.id, inspections.piece))
    .where(eq(pieces.job, job));
  return grouped(rows.map(({ row }) => ({ piece: row.piece, record: inspectionOf(row) })));
}

export const addWeld = (viewer: Viewer, piece: string, weld: WeldRecord, tx: Tx = dbOf(viewer)) =>
  tx.insert(welds).values({ ...weld, piece, at: new Date(weld.at) });

export const addInspection = (viewer: Viewer, piece: string, inspection: InspectionRecord, tx: Tx = dbOf(viewer)) =>
  tx.insert(inspections).values({ ...inspection, piece, at: new Date(inspection.at) });

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
