import { data } from 'react-router';
import { z } from 'zod';
import { ShapingSchema, StepWorkSchema } from '#core/shape/shapingSchema';
import { toldOf } from '../records/changed.server';
import { once } from '../records/once.server';
import { Key, idOr404, parsedJson } from '../records/parse.server';
import { pieceById } from '../records/pieces.server';
import { changeShaping, shapingOf } from '../records/shaping.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/shaping';

const { order, own } = ShapingSchema.shape;
const Some = z.strictObject({
  order: order.optional(),
  own: own.optional(),
  work: z.record(z.string().min(1).max(160), StepWorkSchema.nullable()).optional(),
});
const Body = z.object({ since: Some, mine: Some }).and(Key);

/**
 * Changes some of how a piece is shaped; answers the whole of it as it is now. 409 with what to say
 * where another page has said something else meanwhile.
 */
export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const id = idOr404(params.pieceId);
  const { key, since, mine } = await parsedJson(request, Body);
  const found = await once(viewer, key, (tx) => changeShaping(id, since, mine, tx));
  const piece = await pieceById(viewer, id);
  if (!found || !piece) throw data(null, { status: 404 });
  const answer = { shaping: shapingOf(piece) };
  if (found.kind === 'saved') return Response.json(answer);
  const steps = Object.keys(found.now).filter((name) => name.startsWith('work '));
  const said = { order: 'The order', own: 'Steps of your own' };
  const { message } = toldOf<Record<string, unknown>>(
    found,
    { ...said, ...Object.fromEntries(steps.map((name) => [name, 'A step'])) },
    () => '…',
  );
  const { order: hadOrder, own: hadOwn, work } = answer.shaping;
  const now = {
    order: hadOrder,
    own: hadOwn,
    ...Object.fromEntries(Object.entries(work).map(([step, one]) => [`work ${step}`, one])),
  };
  return Response.json({ ...answer, message, now }, { status: 409 });
}
