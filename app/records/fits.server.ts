import { asc, eq, inArray } from 'drizzle-orm';
import type { FitRecord, Withdrawn } from '#core/format/job';
import { dbOf } from './database.server';
import type { Tx } from './database.server';
import { fitEdges, fits } from './schema.server';
import type { Viewer } from './viewer.server';

export type Fit = FitRecord & { id: string };

type EdgeRow = typeof fitEdges.$inferSelect;

/** A trial from its row and those of its edges, in their order. */
export const fitOf = (row: typeof fits.$inferSelect, edges: readonly EdgeRow[]): Fit => ({
  id: row.id,
  at: row.at.toISOString(),
  held: row.held,
  notes: row.notes,
  revision: row.revision,
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
  const edges = await tx.select().from(fitEdges).where(inArray(fitEdges.fit, ids)).orderBy(asc(fitEdges.seq));
  const of = new Map(ids.map((id) => [id, [] as EdgeRow[]]));
  for (const edge of edges) of.get(edge.fit)!.push(edge);
  return rows.map((row) => fitOf(row, of.get(row.id)!));
}

/** Trial fits of a piece, oldest first. */
export const fitsOf = async (viewer: Viewer, piece: string, tx: Tx = dbOf(viewer)): Promise<Fit[]> =>
  withEdges(tx, await tx.select().from(fits).where(eq(fits.piece, piece)).orderBy(asc(fits.at), asc(fits.seq)));

/** A trial fit with all its readings, or none of it. */
export async function createFit(viewer: Viewer, piece: string, fit: FitRecord, outer?: Tx): Promise<string> {
  const put = async (tx: Tx): Promise<string> => {
    const { at, held, notes, revision, withdrawn } = fit;
    const [row] = await tx
      .insert(fits)
      .values({ piece, at: new Date(at), held, notes, revision, withdrawn })
      .returning({ id: fits.id });
    if (fit.edges.length > 0) await tx.insert(fitEdges).values(fit.edges.map((edge) => ({ ...edge, fit: row!.id })));
    return row!.id;
  };
  return outer ? put(outer) : dbOf(viewer).transaction(put);
}

/** Takes a trial back: it stays in the record, with when and why. */
export const withdrawFit = (viewer: Viewer, id: string, withdrawn: Withdrawn, tx: Tx = dbOf(viewer)) =>
  tx.update(fits).set({ withdrawn }).where(eq(fits.id, id));

export const changeFit = (
  viewer: Viewer,
  id: string,
  change: { at: string; held: FitRecord['held']; notes: string },
  tx: Tx = dbOf(viewer),
) =>
  tx
    .update(fits)
    .set({ ...change, at: new Date(change.at) })
    .where(eq(fits.id, id));

/** Puts down all that was read along one edge at one fit, in place of what was there. */
export const saveFitEdge = (viewer: Viewer, fit: string, edge: FitRecord['edges'][number], tx: Tx = dbOf(viewer)) =>
  tx
    .insert(fitEdges)
    .values({ ...edge, fit })
    .onConflictDoUpdate({
      target: [fitEdges.fit, fitEdges.edge],
      set: {
        turned: edge.turned,
        own: edge.own,
        targetMm: edge.targetMm,
        toleranceMm: edge.toleranceMm,
        flushMm: edge.flushMm,
        stations: edge.stations,
      },
    });

export async function pieceOfFit(viewer: Viewer, id: string): Promise<string | null> {
  return (await dbOf(viewer).select({ piece: fits.piece }).from(fits).where(eq(fits.id, id)))[0]?.piece ?? null;
}
