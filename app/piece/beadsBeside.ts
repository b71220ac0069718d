import { beadsBeside } from '../records/beadsBeside.server';
import { idOr404 } from '../records/parse.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/beadsBeside';

/** The beads that a bead of this piece can carry on. */
export const loader = async ({ params, context }: Route.LoaderArgs) =>
  Response.json(await beadsBeside(context.get(viewerIn), idOr404(params.pieceId)));
