import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { data } from 'react-router';
import { PieceFactsSchema } from '#core/format/job';
import { orSay } from '../forms/orSay';
import { FACT_WORDS, PieceForm, factSaid } from '../piece/PieceForm';
import { PiecePictures } from '../piece/PiecePictures';
import { usePiece } from '../piece/pieceContext';
import { answerOf, changedOf } from '../records/changed.server';
import { idOr404, sentence } from '../records/parse.server';
import { changePiece } from '../records/pieces.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/survey';

export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const id = idOr404(params.pieceId);
  const parsed = changedOf(PieceFactsSchema).safeParse(await request.json().catch(() => null));
  if (!parsed.success) return data({ message: sentence(parsed.error) }, { status: 400 });
  const { since, mine } = parsed.data;
  const changed = await changePiece(viewer, id, since, mine);
  if (!changed) throw data(null, { status: 404 });
  return answerOf(changed, mine, FACT_WORDS, factSaid);
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => orSay(serverAction);

/** The survey stage: what the piece is, and what it is to be made of. */
export default function SurveyStage() {
  const { facts, id } = usePiece();
  return (
    <Box sx={{ p: { xs: 2, md: 3 }, maxWidth: 1100, width: '100%', mx: 'auto', overflowY: 'auto' }}>
      <PiecePictures owner="piece" title="As it was found" />
      <Typography variant="h2" sx={{ mt: 4, mb: 2 }}>
        What it is, and what it is made of
      </Typography>
      <PieceForm key={id} about={`piece ${id}`} initial={facts} button="Keep" />
    </Box>
  );
}
