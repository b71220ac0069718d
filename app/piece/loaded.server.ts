import { documentState } from '../records/documents.server';
import { fitsOf } from '../records/fits.server';
import { jobById } from '../records/jobs.server';
import { factsOf, pieceById, lastPrintOf } from '../records/pieces.server';
import { shopSettings } from '../records/shop.server';
import type { Viewer } from '../records/viewer.server';
import { inspectionsOf, weldsOf } from '../records/welds.server';

/** All that a piece's page stands on; null where there is no such piece. */
export async function loadPiece(viewer: Viewer, id: string) {
  const piece = await pieceById(viewer, id);
  if (!piece) return null;
  const [job, card, plan, shop, fits, welds, inspections, printed] = await Promise.all([
    jobById(viewer, piece.job),
    documentState(viewer, piece.id, 'card'),
    documentState(viewer, piece.id, 'plan'),
    shopSettings(viewer),
    fitsOf(viewer, piece.id),
    weldsOf(viewer, piece.id),
    inspectionsOf(viewer, piece.id),
    lastPrintOf(viewer, piece.id),
  ]);
  return {
    id: piece.id,
    /** How often it had been touched before what follows was read. */
    touched: piece.touched,
    archived: piece.archived !== null,
    job: { id: job!.id, name: job!.name },
    facts: factsOf(piece),
    card,
    plan,
    shop,
    records: { fits, welds, inspections },
    printed,
  };
}
export type Loaded = NonNullable<Awaited<ReturnType<typeof loadPiece>>>;
