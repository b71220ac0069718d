import { open } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { data } from 'react-router';
import { idOr404 } from '../records/parse.server';
import { pictureById } from '../records/pictures.server';
import { viewerIn } from '../records/viewer.server';
import { TookTooLong, inWorker } from '../workers/pool.server';
import type { Route } from './+types/picture';
import { copyPicture } from './keepPicture';
import type { PictureSize } from './pictureFiles.server';
import { SIZES, isThere, picturePath } from './pictureFiles.server';

const LIMIT_MS = 60_000;

/** A copy that could not be made in time is missing, and no fault of the server's. */
const notInTime = (error: unknown): void => {
  if (!(error instanceof TookTooLong)) throw error;
};

const MISSING =
  'The file of this picture is missing or damaged. A backup may have it: ./patrone restore.';

/**
 * A picture in a size. It never changes: a browser that has it asks only whether it may still show
 * it, so that a device that was thrown out shows it no more.
 */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const viewer = context.get(viewerIn);
  const size = params.size as PictureSize;
  const picture = Object.hasOwn(SIZES, size)
    ? await pictureById(viewer, idOr404(params.pictureId))
    : null;
  if (!picture) throw data(null, { status: 404 });
  const { digest, type } = picture;
  const tag = `"${digest}-${size}"`;
  const kept = { 'Cache-Control': 'private, no-cache', ETag: tag };
  if (request.headers.get('If-None-Match') === tag)
    return new Response(null, { status: 304, headers: kept });
  const path = picturePath(digest, type, size);
  // Copies can always be made again; of a restored backup they have to be.
  if (
    size !== 'whole' &&
    !(await isThere(path)) &&
    (await isThere(picturePath(digest, type, 'whole')))
  )
    await inWorker(copyPicture, { digest, type }, { limitMs: LIMIT_MS }).catch(notInTime);
  const file = (await isThere(path)) ? await open(path).catch(() => null) : null;
  if (!file)
    return new Response(MISSING, {
      status: 404,
      headers: { 'Content-Type': 'text/plain; charset=utf-8' },
    });
  return new Response(Readable.toWeb(file.createReadStream()) as ReadableStream, {
    headers: {
      'Content-Type': size === 'whole' ? `image/${type}` : 'image/jpeg',
      'Content-Length': String((await file.stat()).size),
      ...kept,
      'Content-Disposition': `inline; filename*=UTF-8''${encodeURIComponent(picture.name)}`,
      'X-Content-Type-Options': 'nosniff',
    },
  });
}
