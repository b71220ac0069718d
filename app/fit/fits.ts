import { data } from 'react-router';
import { z } from 'zod';
import { FitSchema } from '#core/format/job';
import { TAKEN_BACK, changedOf, toldOf } from '../records/changed.server';
import { saveFitEdge } from '../records/fitReadings.server';
import { addRecords, changeRecord, recordsOf, withdrawRecord } from '../records/records.server';
import { knownEdges } from '../records/knownEdges.server';
import { once } from '../records/once.server';
import { Key, NewId, idOr404, parsedJson } from '../records/parse.server';
import { pieceById } from '../records/pieces.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/fits';
import { HELD_WORDS } from '../frame/recordWords';

const Said = FitSchema.pick({ at: true, held: true, notes: true });
const Edge = FitSchema.shape.edges.element;
const Body = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('new'), id: NewId, fit: FitSchema }),
  z.object({ intent: z.literal('change'), id: z.uuid(), ...changedOf(Said).shape }),
  z.object({
    intent: z.literal('withdraw'),
    what: z.literal('trial'),
    id: z.uuid(),
    why: z.string().min(1).max(400),
  }),
  z.object({
    intent: z.literal('edge'),
    id: z.uuid(),
    edge: Edge,
    since: Edge.nullable().default(null),
  }),
]);

/**
 * Starts a trial fit, changes what is said of it, or puts down what was read along an edge; answers
 * the trials as they are now. 409 with what to say, and what is there (`now`), where another page
 * has said something else meanwhile.
 */
export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const piece = await pieceById(viewer, idOr404(params.pieceId));
  if (!piece) throw data(null, { status: 404 });
  const { key, ...given } = await parsedJson(request, Body.and(Key));
  if (given.intent === 'edge') await knownEdges(viewer, piece.id, [given.edge.edge]);
  if (given.intent === 'new')
    await knownEdges(
      viewer,
      piece.id,
      given.fit.edges.map((read) => read.edge),
    );
  const answer = async (status: number, more: object = {}) =>
    Response.json({ ...more, fits: (await recordsOf(viewer, piece.id)).fits }, { status });
  const found = await once(viewer, key, async (tx) => {
    switch (given.intent) {
      case 'new':
        await addRecords(tx, piece.id, 'fit', [{ ...given.fit, id: given.id }]);
        return null;
      case 'change':
        return changeRecord(tx, piece.id, 'fit', given.id, given.since, given.mine);
      case 'edge':
        return saveFitEdge(viewer, piece.id, given.id, given.since, given.edge, tx);
      case 'withdraw':
        return withdrawRecord(tx, piece.id, 'fit', given.id, {
          at: new Date().toISOString(),
          why: given.why,
        });
    }
  });
  if (found?.kind === 'none') throw data(null, { status: 404 });
  if (found?.kind === 'taken-back') return answer(409, { message: TAKEN_BACK });
  if (found?.kind === 'clash' || found?.kind === 'unfit') {
    const shown = (field: string, value: unknown) =>
      field === 'held' ? HELD_WORDS[value as keyof typeof HELD_WORDS] : String(value);
    return answer(409, toldOf(found, { at: 'When', held: 'Held by', notes: 'Noticed' }, shown));
  }
  if (found?.kind === 'read-elsewhere')
    return answer(409, {
      message: 'Another page has read differently there. What is not disputed went in.',
      now: { edge: found.now, clashes: found.clashes, elsewhere: found.elsewhere, by: found.by },
    });
  return answer(200);
}
