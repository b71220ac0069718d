import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream as WebStream } from 'node:stream/web';
import { data } from 'react-router';
import { z } from 'zod';
import { cut } from '#core/card/cut';
import { storable } from '#core/card/text';
import { PICTURE_OWNERS } from '#core/format/lists';
import { once } from '../records/once.server';
import { idOr404 } from '../records/parse.server';
import { addPicture, isThere, picturesOf } from '../records/pictures.server';
import { viewerIn } from '../records/viewer.server';
import { TookTooLong, inWorker } from '../workers/pool.server';
import type { Route } from './+types/pictures';
import { MAX_PICTURE_BYTES, NO_PICTURE_WORDS, keepPicture } from './keepPicture';
import { incoming } from './pictureFiles.server';

/** Longest that a picture may take to be taken in, ms. */
const LIMIT_MS = 60_000;

const Asked = z.object({
  piece: z.uuid().nullable(),
  owner: z.enum(PICTURE_OWNERS),
  of: z.string().max(60).refine(storable),
  name: z.string().refine(storable),
  key: z.uuid().optional(),
});

const tooLarge = (name: string) =>
  `${name} is larger than 25 MB. Make it smaller and add it again.`;

/**
 * The body of a request, put on the disk as it comes; false where it is larger than a picture may
 * be.
 */
async function received(request: Request, path: string): Promise<boolean> {
  let bytes = 0;
  const counted = new Transform({
    transform(chunk: Buffer, _, next) {
      bytes += chunk.length;
      next(bytes > MAX_PICTURE_BYTES ? new RangeError('too large') : null, chunk);
    },
  });
  try {
    const body = request.body ? Readable.fromWeb(request.body as WebStream) : Readable.from([]);
    await pipeline(body, counted, createWriteStream(path, { mode: 0o600 }), {
      signal: request.signal,
    });
    return true;
  } catch (error) {
    if (error instanceof RangeError) return false;
    throw error;
  }
}

/**
 * Takes in one picture, the body of the request as it is, and hangs it on what the address says
 * (`owner`, `of`, `piece`); `name` is what its file was called. Answers the pictures of that piece,
 * or of the job, as they are now; 4xx with a sentence for what is no picture that can be taken in,
 * and for what it is to hang on not being there.
 */
export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const query = new URL(request.url).searchParams;
  const asked = Asked.safeParse({
    piece: query.get('piece'),
    owner: query.get('owner'),
    of: query.get('of') ?? '',
    name: query.get('name') ?? '',
    key: query.get('key') ?? undefined,
  });
  if (!asked.success)
    throw data({ message: 'That says not what the picture hangs on.' }, { status: 400 });
  const { piece, owner, of, key } = asked.data;
  const name = cut(asked.data.name || 'picture', 120);
  const on = { job: idOr404(params.jobId), piece, owner, of };
  if (!(await isThere(viewer, on)))
    return Response.json(
      { message: 'What it was to hang on is not there any more.' },
      { status: 404 },
    );
  const path = join(await incoming(), randomUUID());
  try {
    if (!(await received(request, path)))
      return Response.json({ message: tooLarge(name) }, { status: 413 });
    const kept = await inWorker(keepPicture, { path }, { limitMs: LIMIT_MS });
    if (!kept.ok)
      return Response.json({ message: `${name} ${NO_PICTURE_WORDS[kept.why]}` }, { status: 415 });
    await once(viewer, key, async (tx) => {
      await addPicture(on, { ...kept.picture, name }, tx);
      return true;
    });
    return Response.json({ pictures: await picturesOf(viewer, on) });
  } catch (error) {
    if (!(error instanceof TookTooLong)) throw error;
    return Response.json(
      { message: `${name} took longer to unpack than it may (a minute).` },
      { status: 422 },
    );
  } finally {
    await rm(path, { force: true });
  }
}
