import { data } from 'react-router';
import { z } from 'zod';
import { readPattern } from '#core/card/read';
import { PieceFactsSchema } from '#core/format/job';
import { emptyPlan } from '#core/weld/emptyPlan';
import { setPlan } from '#core/weld/planned';
import { putFirst } from '../../records/documents.server';
import { once } from '../../records/once.server';
import { Key, idOr404, parsedJson } from '../../records/parse.server';
import { createPiece, factsOf, pieceById } from '../../records/pieces.server';
import { shopSettings } from '../../records/shop.server';
import { viewerIn } from '../../records/viewer.server';
import type { Route } from './+types/otherPart';

const Body = Key.extend({
  name: PieceFactsSchema.shape.name,
  /** Read by the one door of cards, below. */
  card: z.unknown(),
  /** Its edges along the seam: they meet the piece this is asked of. */
  seams: z.array(z.string().max(24)).max(100),
});

/**
 * Makes a part that belongs to this piece a piece of its own, the other part of a panel or a strip
 * that is welded on: the same metal, its card as it was laid flat, its seam said to meet this one.
 */
export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const piece = await pieceById(viewer, idOr404(params.pieceId));
  if (!piece) throw data(null, { status: 404 });
  const { key, name, card, seams } = await parsedJson(request, Body);
  const read = readPattern(card);
  if (!read.ok)
    return Response.json(
      { problems: read.problems, message: 'The other part could not be kept as it is.' },
      { status: 422 },
    );
  const { units } = await shopSettings(viewer);
  const plan = seams.reduce(
    (sofar, edge) => setPlan(sofar, edge, { meets: piece.name }),
    emptyPlan(units),
  );
  const id = await once(viewer, key, async (tx) => {
    const made = await createPiece(viewer, piece.job, { ...factsOf(piece), name }, tx);
    await putFirst(tx, made, 'card', read.doc);
    await putFirst(tx, made, 'plan', plan);
    return made;
  });
  return Response.json({ id });
}
