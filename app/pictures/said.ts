import { data } from 'react-router';
import { z } from 'zod';
import { PictureSaidSchema } from '#core/picture/marks';
import { changedOf, toldOf } from '../records/changed.server';
import { once } from '../records/once.server';
import { Key, idOr404, parsedJson } from '../records/parse.server';
import { changePicture, pictureById, picturesOf, putPictureAway } from '../records/pictures.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/said';

const Body = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('say'), ...changedOf(PictureSaidSchema).shape }),
  z.object({ intent: z.literal('put-away') }),
  z.object({ intent: z.literal('take-out') }),
]);

/**
 * Changes what is said of a picture and drawn over it, or puts it away; answers the pictures of its
 * piece, or of the job, as they are now. 409 with what to say, and what is there (`now`), where
 * another page has said something else meanwhile.
 */
export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const picture = await pictureById(viewer, idOr404(params.pictureId));
  if (!picture) throw data(null, { status: 404 });
  const { key, ...given } = await parsedJson(request, Body.and(Key));
  const found = await once(viewer, key, async (tx) => {
    if (given.intent === 'say') return changePicture(picture.id, given.since, given.mine, tx);
    await putPictureAway(picture.id, given.intent === 'put-away', tx);
    return { kind: 'saved' as const };
  });
  const pictures = await picturesOf(viewer, picture);
  if (!found || found.kind === 'saved') return Response.json({ pictures });
  const shown = (field: 'caption' | 'marks', value: unknown) =>
    field === 'marks' ? `${(value as unknown[]).length} marks` : String(value);
  const told = toldOf(found, { caption: 'Words', marks: 'Marks' }, shown);
  return Response.json({ pictures, ...told }, { status: 409 });
}
