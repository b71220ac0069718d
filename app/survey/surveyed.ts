import { data } from 'react-router';
import { z } from 'zod';
import { MAX_SURVEYED, ReadingSchema, SurveySchema } from '#core/survey/references';
import { inShort, toldOf } from '../records/changed.server';
import { jobById } from '../records/jobs.server';
import { once } from '../records/once.server';
import { Key, idOr404, parsedJson } from '../records/parse.server';
import type { Fields } from '../records/bodiesOfJob.server';
import type { Readings } from '../records/survey.server';
import { addSurveyed, changeSurveyed, readRound, surveyOf } from '../records/survey.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/surveyed';

const id = z.string().regex(/^[\w-]{1,24}$/);
const fields = z.record(z.string().max(20), z.unknown());
const readings = z.record(id, ReadingSchema.nullable());
const Body = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('new'), id, body: SurveySchema }),
  z.object({ intent: z.literal('change'), id, since: fields, mine: fields }),
  z.object({ intent: z.literal('read'), id, since: readings, mine: readings }),
]);

const WORDS = {
  name: 'Name',
  where: 'Where',
  side: 'Side',
  partner: 'Partner',
  from: 'From',
  to: 'To',
  u: 'How good',
  tolerance: 'Tolerance',
  at: 'When',
  stage: 'Stage',
  layers: 'Layers',
  looks: 'Looks',
  made: 'What it is made of',
  in: 'In since',
  out: 'Out since',
  corners: 'Corners',
};

/**
 * Writes down a point, a measure or a round of a job, changes what is said of it, or puts down what
 * was read; answers all that is surveyed of the job as it is now. 409 with what to say, and what is
 * there (`now`), where another page has said something else meanwhile.
 */
export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const job = await jobById(viewer, idOr404(params.jobId));
  if (!job) throw data(null, { status: 404 });
  const { key, ...given } = await parsedJson(request, Body.and(Key));
  if (given.intent === 'new' && (await surveyOf(viewer, job.id)).length >= MAX_SURVEYED)
    return Response.json(
      { message: `More than ${MAX_SURVEYED} things cannot be surveyed of one job.` },
      { status: 422 },
    );
  const found = await once(viewer, key, async (tx) => {
    switch (given.intent) {
      case 'new':
        await addSurveyed(job.id, given.id, given.body, tx);
        return { kind: 'saved' as const };
      case 'change':
        return changeSurveyed(job.id, given.id, given.since, given.mine, tx);
      case 'read':
        return readRound(job.id, given.id, given.since, given.mine, tx);
    }
  });
  if (!found) throw data(null, { status: 404 });
  const survey = await surveyOf(viewer, job.id);
  if (found.kind === 'saved') return Response.json({ survey });
  const names = new Map(survey.map((one) => [one.id, one.name]));
  const shown = (field: string, value: unknown) =>
    given.intent === 'read'
      ? String((value as { value?: number } | null)?.value ?? 'nothing')
      : inShort(field, value);
  const said = given.intent === 'read' ? Object.fromEntries(names) : WORDS;
  const told = toldOf<Fields | Readings>(found, said, shown);
  return Response.json({ survey, ...told }, { status: 409 });
}
