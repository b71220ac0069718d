import { data } from 'react-router';
import { z } from 'zod';
import { piecesBeyond } from '#core/joint/joint';
import { MAX_STRUCTURE, StructureSchema } from '#core/joint/structure';
import { inShort, toldOf } from '../records/changed.server';
import { dbOf } from '../records/database.server';
import { jobById } from '../records/jobs.server';
import { once } from '../records/once.server';
import { Key, idOr404, parsedJson } from '../records/parse.server';
import {
  addStructured,
  beyondOf,
  changeStructured,
  isOfJob,
  structureOf,
} from '../records/structure.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/structured';
import { STRUCTURE_WORDS } from './jointWords';

const id = z.string().regex(/^[\w-]{1,24}$/);
const fields = z.record(z.string().max(20), z.unknown());
/** `seenFrom`: the piece on whose page this is said. */
const Body = z
  .discriminatedUnion('intent', [
    z.object({
      intent: z.literal('new'),
      all: z
        .array(z.object({ id, body: StructureSchema }))
        .min(1)
        .max(50),
    }),
    z.object({ intent: z.literal('change'), id, since: fields, mine: fields }),
  ])
  .and(Key.extend({ seenFrom: z.uuid().optional() }));

/**
 * Writes down a named part, a joint or a hollow of a job, or changes what is said of it; answers all
 * of the job as they are now, and the pieces that the page's own meets. 409 with what to say where
 * another page has said something else meanwhile.
 */
export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const job = await jobById(viewer, idOr404(params.jobId));
  if (!job) throw data(null, { status: 404 });
  const { key, seenFrom, ...given } = await parsedJson(request, Body);
  const refused = (message: string) => Response.json({ message }, { status: 422 });
  if (given.intent === 'new') {
    if ((await structureOf(viewer, job.id)).length >= MAX_STRUCTURE)
      return refused(`More than ${MAX_STRUCTURE} parts and joints cannot be put down of one job.`);
    const named = given.all.map(({ body }) => body);
    if (!(await isOfJob(dbOf(viewer), job.id, named)))
      return refused('A piece that is named there is not of this job: load the page again.');
  }
  const found = await once(viewer, key, async (tx) => {
    if (given.intent === 'change')
      return changeStructured(job.id, given.id, given.since, given.mine, tx);
    for (const { id, body } of given.all) await addStructured(job.id, id, body, tx);
    return { kind: 'saved' as const };
  });
  if (!found) throw data(null, { status: 404 });
  const structure = await structureOf(viewer, job.id);
  const beyond = seenFrom && (await beyondOf(viewer, piecesBeyond(structure, seenFrom)));
  const answer = { structure, ...(beyond && { beyond }) };
  if (found.kind === 'saved') return Response.json(answer);
  const told = toldOf(found, STRUCTURE_WORDS, inShort);
  return Response.json({ ...answer, ...told }, { status: 409 });
}
