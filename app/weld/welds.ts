import { data } from 'react-router';
import { z } from 'zod';
import { InspectionSchema, WeldSchema } from '#core/format/job';
import { idOr404, parsedJson } from '../records/parse.server';
import { pieceById } from '../records/pieces.server';
import { addInspection, addWeld, inspectionsOf, setRemedy, weldsOf, withdrawRecord } from '../records/welds.server';
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
export async function action({ request, params }: Route.ActionArgs) {
  const piece = await pieceById(idOr404(params.pieceId));
  if (!piece) throw data(null, { status: 404 });
  const given = await parsedJson(request, Body);
  if (given.intent === 'weld') await addWeld(piece.id, given.weld);
  else if (given.intent === 'inspection') await addInspection(piece.id, given.inspection);
  else {
    const withdrawn = { at: new Date().toISOString(), why: given.intent === 'withdraw' ? given.why : '' };
    const found =
      given.intent === 'withdraw'
        ? await withdrawRecord(piece.id, given.what, given.id, withdrawn)
        : await setRemedy(piece.id, given.id, given.remedy);
    if (!found) throw data(null, { status: 404 });
  }
  const [welds, inspections] = await Promise.all([weldsOf(piece.id), inspectionsOf(piece.id)]);
  return Response.json({ welds, inspections });
}
