import { data } from 'react-router';
import { z } from 'zod';
import { CutDownSchema } from '#core/cutdown/cutDown';
import { inShort, toldOf } from '../records/changed.server';
import { changeCutDown, cutDownOf } from '../records/cutDown.server';
import { once } from '../records/once.server';
import { Key, idOr404, parsedJson } from '../records/parse.server';
import { pieceById } from '../records/pieces.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/cutting';
import { CUT_DOWN_WORDS } from '../piece/cutDownWords';

const Some = CutDownSchema.partial();
const Body = z.object({ since: Some, mine: Some }).and(Key);

/**
 * Changes some of how a piece is brought to size; answers the whole of it as it is now. 409 with
 * what to say, and what is there (`now`), where another page has said something else meanwhile.
 */
export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const id = idOr404(params.pieceId);
  const { key, since, mine } = await parsedJson(request, Body);
  const found = await once(viewer, key, (tx) => changeCutDown(id, since, mine, tx));
  const piece = await pieceById(viewer, id);
  if (!found || !piece) throw data(null, { status: 404 });
  const answer = { cutDown: cutDownOf(piece) };
  if (found.kind === 'saved') return Response.json(answer);
  const told = toldOf(found, CUT_DOWN_WORDS, inShort);
  return Response.json({ ...answer, ...told }, { status: 409 });
}
