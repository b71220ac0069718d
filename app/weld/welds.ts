import { data } from 'react-router';
import { z } from 'zod';
import { InspectionSchema, WeldSchema } from '#core/format/job';
import { once } from '../records/once.server';
import { Key, idOr404, parsedJson } from '../records/parse.server';
import { pieceById } from '../records/pieces.server';
import { addInspections, addWelds, inspectionsOf, setRemedy, weldsOf, withdrawRecord } from '../records/welds.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/welds';

const Body = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('weld'), weld: WeldSchema }),
  z.object({ intent: z.literal('inspection'), inspection: InspectionSchema }),
  z.object({
    intent: z.literal('withdraw'),
    what: z.enum(['weld', 'inspection']),
    id: z.uuid(),
    why: z.string().min(1).max(400),
  }),
  z.object({ intent: z.literal('remedy'), id: z.uuid(), remedy: z.string().min(1).max(2000) }),
]);

/**
 * Puts a weld entry, an inspection, or what was done about a finding into the record. Entries are never changed
 * after; a wrong one is taken back with a reason, and stays. Answers the records as they are now.
 */
export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const piece = await pieceById(viewer, idOr404(params.pieceId));
  if (!piece) throw data(null, { status: 404 });
  const { key, ...given } = await parsedJson(request, Body.and(Key));
  await once(viewer, key, async (tx) => {
    if (given.intent === 'weld') return addWelds(viewer, piece.id, [given.weld], tx);
    if (given.intent === 'inspection') return addInspections(viewer, piece.id, [given.inspection], tx);
    const found =
      given.intent === 'withdraw'
        ? await withdrawRecord(
            viewer,
            piece.id,
            given.what,
            given.id,
            { at: new Date().toISOString(), why: given.why },
            tx,
          )
        : await setRemedy(viewer, piece.id, given.id, given.remedy, tx);
    if (!found) throw data(null, { status: 404 });
  });
  const [welds, inspections] = await Promise.all([weldsOf(viewer, piece.id), inspectionsOf(viewer, piece.id)]);
  return Response.json({ welds, inspections });
}
