import { data } from 'react-router';
import { z } from 'zod';
import { FoldingSchema } from '#core/blank/fold/folding';
import { inShort, toldOf } from '../records/changed.server';
import { changeFolding, foldingOf } from '../records/folding.server';
import { once } from '../records/once.server';
import { Key, idOr404, parsedJson } from '../records/parse.server';
import { pieceById } from '../records/pieces.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/folding';
import { FOLDING_WORDS } from '../folding/foldingWords';

const Some = FoldingSchema.partial();
const Body = z.object({ since: Some, mine: Some }).and(Key);

/**
 * Changes some of how a piece is folded; answers the whole of it as it is now. 409 with what to
 * say, and what is there (`now`), where another page has said something else meanwhile.
 */
export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const id = idOr404(params.pieceId);
  const { key, since, mine } = await parsedJson(request, Body);
  const found = await once(viewer, key, (tx) => changeFolding(id, since, mine, tx));
  const piece = await pieceById(viewer, id);
  if (!found || !piece) throw data(null, { status: 404 });
  const answer = { folding: foldingOf(piece) };
  if (found.kind === 'saved') return Response.json(answer);
  const told = toldOf(found, FOLDING_WORDS, inShort);
  return Response.json({ ...answer, ...told }, { status: 409 });
}
