import { eq } from 'drizzle-orm';
import type { ReadingClash } from '#core/fit/mergeReadings';
import { mergedReadings } from '#core/fit/mergeReadings';
import { readingsNow } from '#core/fit/readingsNow';
import type { FitRecord } from '#core/format/job';
import type { Tx } from './database.server';
import { cardOf } from './documents.server';
import type { Gone } from './records.server';
import { heldRecord } from './records.server';
import { records } from './schema.server';
import type { Viewer } from './viewer.server';

type EdgeRecord = FitRecord['edges'][number];
/** An edge as it is kept: with who read there last, to be named where another has read differently. */
type KeptEdge = EdgeRecord & { readBy?: string };

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
  const found = await heldRecord(tx, piece, 'fit', id);
  if (found.kind !== 'held') return found;
  const edges = found.row.body.edges as KeptEdge[];
  const there = edges.find(({ edge }) => edge === mine.edge);
  const { readBy: by = '', ...read } = there ?? { ...mine, readBy: '' };
  const { doc } = await cardOf(viewer, piece, tx);
  const asMine = (record: EdgeRecord) => readingsNow({ ...doc, turned: mine.turned }, record);
  const now = there ? asMine(read) : null;
  const { merged, clashes, elsewhere } = mergedReadings(since && asMine(since), mine, now);
  if (!elsewhere) {
    const readBy = viewer.known?.person?.name ?? viewer.known?.device?.name ?? '';
    const put = { ...merged, readBy };
    const all = there ? edges.map((one) => (one === there ? put : one)) : [...edges, put];
    await tx
      .update(records)
      .set({ body: { ...found.row.body, edges: all } })
      .where(eq(records.id, id));
  }
  if (clashes.length === 0) return { kind: 'saved' };
  return { kind: 'read-elsewhere', clashes, elsewhere, now: merged, by };
}
