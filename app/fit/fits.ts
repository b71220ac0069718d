import { data } from 'react-router';
import { z } from 'zod';
import { FitSchema } from '#core/format/job';
import { HELD } from '#core/format/lists';
import { changeFit, createFit, fitsOf, pieceOfFit, saveFitEdge, withdrawFit } from '../records/fits.server';
import { idOr404, parsedJson } from '../records/parse.server';
import { pieceById } from '../records/pieces.server';
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
export async function action({ request, params }: Route.ActionArgs) {
  const piece = await pieceById(idOr404(params.pieceId));
  if (!piece) throw data(null, { status: 404 });
  const given = await parsedJson(request, Body);
  if (given.intent === 'new') await createFit(piece.id, given.fit);
  else if ((await pieceOfFit(given.id)) !== piece.id) throw data(null, { status: 404 });
  else if (given.intent === 'change')
    await changeFit(given.id, { at: given.at, held: given.held, notes: given.notes });
  else if (given.intent === 'withdraw') await withdrawFit(given.id, { at: new Date().toISOString(), why: given.why });
  else await saveFitEdge(given.id, given.edge);
  return Response.json({ fits: await fitsOf(piece.id) });
}
