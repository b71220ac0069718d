import { data } from 'react-router';
import { writeJob } from '#core/format/job';
import { exportJob } from '../records/jobFile.server';
import { idOr404 } from '../records/parse.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/file';

/** The whole job as one JSON file. */
export async function loader({ params, context }: Route.LoaderArgs) {
  const viewer = context.get(viewerIn);
  const job = await exportJob(viewer, idOr404(params.jobId));
  if (!job) throw data(null, { status: 404 });
  const name = `${job.job.name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}.patrone.json`;
  return new Response(writeJob(job), {
    headers: {
      'Content-Type': 'application/json; charset=utf-8',
      'Content-Disposition': `attachment; filename="job.patrone.json"; filename*=UTF-8''${encodeURIComponent(name)}`,
      'Cache-Control': 'no-store',
    },
  });
}
