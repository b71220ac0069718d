import { data } from 'react-router';
import { z } from 'zod';
import { FitSchema } from '#core/format/job';
import { HELD } from '#core/format/lists';
import { changeFit, createFit, fitsOf, pieceOfFit, saveFitEdge, withdrawFit } from '../records/fits.server';
import { once } from '../records/once.server';
import { Key, idOr404, parsedJson } from '../records/parse.server';
import { pieceById } from '../records/pieces.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/fits';

const Body = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('new'), fit: FitSchema }),
  z.object({
    intent: z.literal('change'),
    id: z.uuid(),
    at: z.iso.datetime(),
    held: z.enum(HELD),
    notes: z.string().max(4000),
  }),
  z.object({
    intent: z.literal('withdraw'),
    what: z.literal('trial'),
    id: z.uuid(),
    why: z.string().min(1).max(400),
  }),
  z.object({ intent: z.literal('edge'), id: z.uuid(), edge: FitSchema.shape.edges.element }),
]);

/** Starts a trial fit, changes what is said of it, or puts down what was read along an edge; answers the trials as they are now. */
export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const piece = await pieceById(viewer, idOr404(params.pieceId));
  if (!piece) throw data(null, { status: 404 });
  const { key, ...given } = await parsedJson(request, Body.and(Key));
  await once(viewer, key, async (tx) => {
    if (given.intent === 'new') return createFit(viewer, piece.id, given.fit, tx);
    if ((await pieceOfFit(viewer, given.id)) !== piece.id) throw data(null, { status: 404 });
    const { id } = given;
    if (given.intent === 'change')
      return changeFit(viewer, id, { at: given.at, held: given.held, notes: given.notes }, tx);
    if (given.intent === 'edge') return saveFitEdge(viewer, id, given.edge, tx);
    return withdrawFit(viewer, id, { at: new Date().toISOString(), why: given.why }, tx);
  });
  return Response.json({ fits: await fitsOf(viewer, piece.id) });
}
