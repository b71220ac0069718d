import { data } from 'react-router';
import { edgesOfJob } from '../records/edgesOfJob.server';
import { jobById } from '../records/jobs.server';
import { idOr404 } from '../records/parse.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/edges';

/** The edges of the pieces in hand of a job: what an edge may be said to meet. */
export async function loader({ params, context }: Route.LoaderArgs) {
  const viewer = context.get(viewerIn);
  const job = await jobById(viewer, idOr404(params.jobId));
  if (!job) throw data(null, { status: 404 });
  return Response.json({ pieces: await edgesOfJob(viewer, job.id) });
}
