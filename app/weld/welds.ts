import { data } from 'react-router';
import { z } from 'zod';
import { InspectionSchema, WeldSchema } from '#core/format/job';
import { TAKEN_BACK, toldOf } from '../records/changed.server';
import { knownEdges } from '../records/knownEdges.server';
import { once } from '../records/once.server';
import { Key, NewId, idOr404, parsedJson } from '../records/parse.server';
import { pieceById } from '../records/pieces.server';
import { viewerIn } from '../records/viewer.server';
import { addRecords, changeRecord, recordsOf, withdrawRecord } from '../records/records.server';
import type { Route } from './+types/welds';

const { remedy } = InspectionSchema.shape;
const Body = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('weld'), id: NewId, weld: WeldSchema }),
  z.object({ intent: z.literal('inspection'), id: NewId, inspection: InspectionSchema }),
  z.object({
    intent: z.literal('withdraw'),
    what: z.enum(['weld', 'inspection']),
    id: z.uuid(),
    why: z.string().min(1).max(400),
  }),
  z.object({
    intent: z.literal('remedy'),
    id: z.uuid(),
    remedy: remedy.min(1),
    since: remedy.default(''),
  }),
]);

/**
 * Puts a weld entry, an inspection, or what was done about a finding into the record. Entries are
 * never changed after; a wrong one is taken back with a reason, and stays. Answers the records as
 * they are now; 409 with what to say where another page has said something else meanwhile.
 */
export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const piece = await pieceById(viewer, idOr404(params.pieceId));
  if (!piece) throw data(null, { status: 404 });
  const { key, ...given } = await parsedJson(request, Body.and(Key));
  if (given.intent === 'weld') await knownEdges(viewer, piece.id, [given.weld.edge]);
  if (given.intent === 'inspection') await knownEdges(viewer, piece.id, [given.inspection.edge]);
  const answer = async (status: number, more: object = {}) => {
    const { welds, inspections } = await recordsOf(viewer, piece.id);
    return Response.json({ ...more, welds, inspections }, { status });
  };
  const found = await once(viewer, key, async (tx) => {
    switch (given.intent) {
      case 'weld':
        await addRecords(tx, piece.id, 'weld', [{ ...given.weld, id: given.id }]);
        return null;
      case 'inspection':
        await addRecords(tx, piece.id, 'inspection', [{ ...given.inspection, id: given.id }]);
        return null;
      case 'withdraw':
        return withdrawRecord(tx, piece.id, given.what, given.id, {
          at: new Date().toISOString(),
          why: given.why,
        });
      case 'remedy':
        return changeRecord(
          tx,
          piece.id,
          'inspection',
          given.id,
          { remedy: given.since },
          { remedy: given.remedy },
        );
    }
  });
  if (found?.kind === 'none') throw data(null, { status: 404 });
  if (found?.kind === 'taken-back') return answer(409, { message: TAKEN_BACK });
  if (found?.kind === 'clash' || found?.kind === 'unfit')
    return answer(
      409,
      toldOf(found, { remedy: 'Done about it' }, (_, value) => String(value)),
    );
  return answer(200);
}
