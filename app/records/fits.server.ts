import { and, asc, eq, inArray } from 'drizzle-orm';
import type { ReadingClash } from '#core/fit/mergeReadings';
import { mergedReadings } from '#core/fit/mergeReadings';
import { readingsNow } from '#core/fit/readingsNow';
import type { FitRecord, Withdrawn } from '#core/format/job';
import { mergedRecord } from '#core/format/merge';
import type { Changed } from './changed.server';
import { putMerged } from './changed.server';
import { dbOf } from './database.server';
import type { Tx } from './database.server';
import { cardOf } from './documents.server';
import { wentIn } from './parse.server';
import { fitEdges, fits } from './schema.server';
import type { Viewer } from './viewer.server';

export type Fit = FitRecord & { id: string };

type EdgeRow = typeof fitEdges.$inferSelect;

/** A trial from its row and those of its edges, in their order. */
export const fitOf = (row: typeof fits.$inferSelect, edges: readonly EdgeRow[]): Fit => ({
  id: row.id,
  at: row.at.toISOString(),
  who: row.who,
  held: row.held,
  notes: row.notes,
  revision: row.revision,
  ...(row.digest !== null && { digest: row.digest }),
  withdrawn: row.withdrawn,
  edges: edges.map(({ edge, turned, own, targetMm, toleranceMm, flushMm, stations }) => ({
    edge,
    turned,
    own,
    targetMm,
    toleranceMm,
    flushMm,
    stations,
  })),
});

async function withEdges(tx: Tx, rows: (typeof fits.$inferSelect)[]): Promise<Fit[]> {
  if (rows.length === 0) return [];
  const ids = rows.map((row) => row.id);
  const edges = await tx
    .select()
    .from(fitEdges)
    .where(inArray(fitEdges.fit, ids))
    .orderBy(asc(fitEdges.seq));
  const of = new Map(ids.map((id) => [id, [] as EdgeRow[]]));
  for (const edge of edges) of.get(edge.fit)!.push(edge);
  return rows.map((row) => fitOf(row, of.get(row.id)!));
}

/** Trial fits of a piece, oldest first. */
export const fitsOf = async (
  viewer: Viewer,
  piece: string,
  tx: Tx = dbOf(viewer),
): Promise<Fit[]> =>
  withEdges(
    tx,
    await tx.select().from(fits).where(eq(fits.piece, piece)).orderBy(asc(fits.at), asc(fits.seq)),
  );

/**
 * A trial fit with all its readings, or none of it; under an id of its own where whoever wrote it
 * gave it one.
 */
export async function createFit(
  viewer: Viewer,
  piece: string,
  { id, ...fit }: FitRecord & { id?: string },
  outer?: Tx,
): Promise<string> {
  const put = async (tx: Tx): Promise<string> => {
    const { at, who, held, notes, revision, digest, withdrawn } = fit;
    const put = await tx
      .insert(fits)
      .values({ id, piece, at: new Date(at), who, held, notes, revision, digest, withdrawn })
      .onConflictDoNothing()
      .returning({ id: fits.id });
    const [made] = wentIn(put, 1) as [string];
    if (fit.edges.length > 0)
      await tx.insert(fitEdges).values(fit.edges.map((edge) => ({ ...edge, fit: made })));
    return made;
  };
  return outer ? put(outer) : dbOf(viewer).transaction(put);
}

/**
 * A trial of a piece, its row held until the transaction ends; null where the piece has none such.
 */
async function heldFit(
  tx: Tx,
  piece: string,
  id: string,
): Promise<typeof fits.$inferSelect | null> {
  const mine = and(eq(fits.id, id), eq(fits.piece, piece));
  return (await tx.select().from(fits).where(mine).for('update'))[0] ?? null;
}

type Gone = { kind: 'none' } | { kind: 'taken-back' };

/** Takes a trial back: it stays in the record, with when and why. Once, and for good. */
export async function withdrawFit(
  piece: string,
  id: string,
  withdrawn: Withdrawn,
  tx: Tx,
): Promise<{ kind: 'saved' } | Gone> {
  const row = await heldFit(tx, piece, id);
  if (!row) return { kind: 'none' };
  if (row.withdrawn) return { kind: 'taken-back' };
  await tx.update(fits).set({ withdrawn }).where(eq(fits.id, id));
  return { kind: 'saved' };
}

/** What is said of a whole trial. */
export type FitSaid = Pick<FitRecord, 'at' | 'held' | 'notes'>;

/** Changes what is said of a trial since `since`. */
export async function changeFit(
  piece: string,
  id: string,
  since: FitSaid,
  mine: FitSaid,
  tx: Tx,
): Promise<Changed<FitSaid> | Gone> {
  const row = await heldFit(tx, piece, id);
  if (!row) return { kind: 'none' };
  if (row.withdrawn) return { kind: 'taken-back' };
  const now: FitSaid = { at: row.at.toISOString(), held: row.held, notes: row.notes };
  return putMerged(mergedRecord(since, mine, now), now, ({ at, held, notes }) =>
    tx
      .update(fits)
      .set({ at: new Date(at), held, notes })
      .where(eq(fits.id, id)),
  );
}

type EdgeRecord = FitRecord['edges'][number];
/** Readings that another has made differently: whatever is not disputed has gone in all the same. */
export type ReadElsewhere = {
  kind: 'read-elsewhere';
  clashes: ReadingClash[];
  elsewhere: boolean;
  /** What stands there. */
  now: EdgeRecord;
  /** Who read it; empty if not known. */
  by: string;
};
export type EdgeSaved = { kind: 'saved' } | ReadElsewhere | Gone;

/**
 * Puts down what was read along one edge at one trial since `since`, with what others have read
 * there meanwhile, as the card lies on the page that sends it: it may have been turned over in
 * between, on either page.
 */
export async function saveFitEdge(
  viewer: Viewer,
  piece: string,
  id: string,
  since: EdgeRecord | null,
  mine: EdgeRecord,
  tx: Tx,
): Promise<EdgeSaved> {
  const row = await heldFit(tx, piece, id);
  if (!row) return { kind: 'none' };
  if (row.withdrawn) return { kind: 'taken-back' };
  const there = await tx
    .select()
    .from(fitEdges)
    .where(and(eq(fitEdges.fit, id), eq(fitEdges.edge, mine.edge)));
  const { doc } = await cardOf(viewer, piece, tx);
  const asMine = (record: EdgeRecord) => readingsNow({ ...doc, turned: mine.turned }, record);
  const now = fitOf(row, there).edges.map(asMine)[0] ?? null;
  const { merged, clashes, elsewhere } = mergedReadings(since && asMine(since), mine, now);
  if (!elsewhere) {
    const readBy = viewer.known?.person?.name ?? viewer.known?.device?.name ?? '';
    const { edge: _, ...set } = { ...merged, readBy };
    await tx
      .insert(fitEdges)
      .values({ ...merged, readBy, fit: id })
      .onConflictDoUpdate({ target: [fitEdges.fit, fitEdges.edge], set });
  }
  if (clashes.length === 0) return { kind: 'saved' };
  const by = there[0]?.readBy ?? '';
  return { kind: 'read-elsewhere', clashes, elsewhere, now: merged, by };
}
