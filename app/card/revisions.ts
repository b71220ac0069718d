import { z } from 'zod';
import { PatternSchema } from '#core/card/pattern';
import { saveRevision, stepRevision } from '../records/revisions.server';
import type { Route } from './+types/revisions';

const Body = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('save'), base: z.number().int().min(0), pattern: PatternSchema }),
  z.object({ intent: z.enum(['undo', 'redo']), base: z.number().int().min(0) }),
]);

/** Saves a revision, or goes one back or forward. 409 with the card as it stands when the base is no longer in use. */
export async function action({ request, params }: Route.ActionArgs) {
  const id = z.uuid().safeParse(params.pieceId);
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!id.success || !body.success) return Response.json({ problems: body.error?.issues ?? [] }, { status: 400 });
  const given = body.data;
  const found =
    given.intent === 'save'
      ? await saveRevision(id.data, given.base, given.pattern)
      : await stepRevision(id.data, given.base, given.intent);
  if (!found) return new Response('No such piece', { status: 404 });
  return Response.json(found.card, { status: found.kind === 'stale' ? 409 : 200 });
}
