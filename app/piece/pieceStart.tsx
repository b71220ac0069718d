import { redirect } from 'react-router';
import { z } from 'zod';
import { opensAt } from '../frame/stops';
import { pieceById } from '../records/pieces.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/pieceStart';

/** A piece without a stage in its address opens where its outline or its edges are. */
export async function loader({ params, context }: Route.LoaderArgs) {
  const viewer = context.get(viewerIn);
  const known =
    z.uuid().safeParse(params.pieceId).success && (await pieceById(viewer, params.pieceId));
  if (!known) throw new Response(null, { status: 404 });
  return redirect(`/pieces/${params.pieceId}/${opensAt(known.kind)}`);
}
