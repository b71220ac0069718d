import { randomUUID } from 'node:crypto';
import { data } from 'react-router';
import { z } from 'zod';
import { readPattern } from '#core/card/read';
import { PieceFactsSchema } from '#core/format/job';
import { newJoint, piecesBeyond } from '#core/joint/joint';
import { emptyPlan } from '#core/weld/emptyPlan';
import { putFirst } from '../../records/documents.server';
import { once } from '../../records/once.server';
import { Key, idOr404, parsedJson } from '../../records/parse.server';
import { createPiece, factsOf, pieceById } from '../../records/pieces.server';
import { shopSettings } from '../../records/shop.server';
import { addStructured, beyondOf, structureOf } from '../../records/structure.server';
import { viewerIn } from '../../records/viewer.server';
import type { Route } from './+types/otherPart';

const edgeId = z.string().min(1).max(24);
const Body = Key.extend({
  name: PieceFactsSchema.shape.name,
  /** Read by the one door of cards, below. */
  card: z.unknown(),
  /**
   * Its edges along the seam, and the edge of the piece this is asked of that each meets; null where
   * whoever asks says that once it is known.
   */
  seams: z.array(z.strictObject({ edge: edgeId, meets: edgeId.nullable() })).max(100),
  /** Whether the card of the piece this is asked of is turned over. */
  turned: z.boolean(),
});

/**
 * Makes a part that belongs to this piece a piece of its own, the other part of a panel or a strip
 * that is welded on: the same metal, its card as it was laid flat, its seam said to meet this one. Answers its id,
 * and the joints of the job as they are now.
 */
export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const piece = await pieceById(viewer, idOr404(params.pieceId));
  if (!piece) throw data(null, { status: 404 });
  const { key, name, card, seams, turned } = await parsedJson(request, Body);
  const read = readPattern(card);
  if (!read.ok)
    return Response.json(
      { problems: read.problems, message: 'The other part could not be kept as it is.' },
      { status: 422 },
    );
  const { units } = await shopSettings(viewer);
  const id = await once(viewer, key, async (tx) => {
    const made = await createPiece(viewer, piece.job, { ...factsOf(piece), name }, tx);
    await putFirst(tx, made, 'card', read.doc);
    await putFirst(tx, made, 'plan', emptyPlan(units));
    for (const { edge, meets } of seams) {
      if (meets === null) continue;
      const joint = newJoint(
        { piece: piece.id, edge: meets, turned, stretch: null },
        { piece: made, edge, turned: read.doc.turned, stretch: null },
      );
      await addStructured(piece.job, randomUUID().slice(0, 8), joint, tx);
    }
    return made;
  });
  const structure = await structureOf(viewer, piece.job);
  const beyond = await beyondOf(viewer, piecesBeyond(structure, piece.id));
  return Response.json({ id, structure, beyond });
}
