import { mkdtemp, open, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { data } from 'react-router';
import { incoming } from '../pictures/pictureFiles.server';
import { jobById } from '../records/jobs.server';
import { idOr404 } from '../records/parse.server';
import { viewerIn } from '../records/viewer.server';
import { inWorker } from '../workers/pool.server';
import type { Route } from './+types/file';
import { writeOut } from './jobFiles';

/** Longest that writing a job out may come no further, ms; in all it takes what it takes. */
const QUIET_MS = 60_000;

/**
 * The whole job as one file: a zip of its text and its pictures, or with `?plain` its text alone,
 * as JSON. First put on the disk whole: what is sent is a job as it stood at one moment, or
 * nothing.
 */
export async function loader({ params, request, context }: Route.LoaderArgs) {
  const viewer = context.get(viewerIn);
  const job = await jobById(viewer, idOr404(params.jobId));
  if (!job) throw data(null, { status: 404 });
  const folder = await mkdtemp(join(await incoming(), 'out-'));
  try {
    const path = join(folder, 'job');
    const plain = new URL(request.url).searchParams.has('plain');
    const found = await inWorker(
      writeOut,
      { job: job.id, path, plain },
      { quietMs: QUIET_MS, signal: request.signal },
    );
    if (!found) throw data(null, { status: 404 });
    // Open, it can be sent though its name is gone already: nothing is left behind, however the
    // sending ends.
    const file = await open(path);
    const name = `${job.name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}.patrone.${plain ? 'json' : 'zip'}`;
    return new Response(Readable.toWeb(file.createReadStream()) as ReadableStream, {
      headers: {
        'Content-Type': plain ? 'application/json; charset=utf-8' : 'application/zip',
        'Content-Length': String((await file.stat()).size),
        'Content-Disposition': `attachment; filename="job.patrone.${plain ? 'json' : 'zip'}"; filename*=UTF-8''${encodeURIComponent(name)}`,
        'Cache-Control': 'no-store',
      },
    });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
