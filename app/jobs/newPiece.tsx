import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link, data, redirect } from 'react-router';
import { PieceFactsSchema } from '#core/format/job';
import { emptyPlan } from '#core/weld/emptyPlan';
import { opensAt } from '../frame/stops';
import { usePreferences } from '../frame/preferences';
import { orSay } from '../forms/orSay';
import { forgetDraft } from '../forms/useDraft';
import { PieceForm, newPieceFacts } from '../piece/PieceForm';
import { putFirst } from '../records/documents.server';
import { jobById } from '../records/jobs.server';
import { once } from '../records/once.server';
import { Key, idOr404, sentence } from '../records/parse.server';
import { createPiece } from '../records/pieces.server';
import { shopSettings } from '../records/shop.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/newPiece';

export async function loader({ params, context }: Route.LoaderArgs) {
  const viewer = context.get(viewerIn);
  const job = await jobById(viewer, idOr404(params.jobId));
  if (!job) throw data(null, { status: 404 });
  return { job: { id: job.id, name: job.name } };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const job = await jobById(viewer, idOr404(params.jobId));
  if (!job) throw data(null, { status: 404 });
  const parsed = Key.extend({ mine: PieceFactsSchema }).safeParse(
    await request.json().catch(() => null),
  );
  if (!parsed.success) return data({ message: sentence(parsed.error) }, { status: 400 });
  const { key, mine } = parsed.data;
  const { units } = await shopSettings(viewer);
  const id = await once(viewer, key, async (tx) => {
    const piece = await createPiece(viewer, job.id, mine, tx);
    // What is usual in a shop of inches is round in inches, whichever the page shows later.
    if (units !== 'mm') await putFirst(tx, piece, 'plan', emptyPlan(units));
    return piece;
  });
  return redirect(`/pieces/${id}/${opensAt(mine.kind)}`);
}

export async function clientAction({ serverAction, params }: Route.ClientActionArgs) {
  try {
    return await orSay(serverAction);
  } catch (answer) {
    // Sent on to the new piece: what was typed is in its record now.
    if (answer instanceof Response) forgetDraft(`new piece ${params.jobId}`);
    throw answer;
  }
}

export default function NewPiece({ loaderData }: Route.ComponentProps) {
  const { unit } = usePreferences();
  return (
    <>
      <Typography variant="h1" sx={{ mb: 2.5 }}>
        A new piece for {loaderData.job.name}
      </Typography>
      <PieceForm
        about={`new piece ${loaderData.job.id}`}
        initial={newPieceFacts(unit)}
        button={(kind) => (kind === 'made' ? 'On to its card' : 'On to its edges')}
      >
        <Button component={Link} to={`/jobs/${loaderData.job.id}`} color="inherit">
          Not now
        </Button>
      </PieceForm>
    </>
  );
}
