import { data } from 'react-router';
import { jobById } from '../records/jobs.server';
import { idOr404 } from '../records/parse.server';
import { piecesNaming } from '../records/pieceSurvey.server';
import { picturesOf } from '../records/pictures.server';
import { surveyOf } from '../records/survey.server';
import type { Viewer } from '../records/viewer.server';

/**
 * What the pages of a job's survey stand on: all that is surveyed of it, its pictures, and its
 * pieces by what they name.
 */
export async function surveyLoaded(viewer: Viewer, jobId: string) {
  const job = await jobById(viewer, idOr404(jobId));
  if (!job) throw data(null, { status: 404 });
  const [survey, pictures, pieces] = await Promise.all([
    surveyOf(viewer, job.id),
    picturesOf(viewer, { job: job.id, piece: null }),
    piecesNaming(viewer, job.id),
  ]);
  return { job: { id: job.id, name: job.name }, survey, pictures, pieces };
}
