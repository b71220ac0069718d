import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Typography from '@mui/material/Typography';
import { Suspense, lazy } from 'react';
import { data, useSearchParams } from 'react-router';
import { PieceFactsSchema } from '#core/format/job';
import { lengthsFor } from '../frame/preferences';
import { orSay } from '../forms/orSay';
import { StopMark } from '../frame/StopMark';
import { Tally } from '../frame/Tally';
import { unlessOnlyQuery } from '../frame/onlyQuery';
import { useNewer } from '../frame/useNewer';
import { verdictOf } from '../piece/loaded/verdictKept.server';
import { FACT_WORDS, PieceForm, factSaid } from '../piece/PieceForm';
import { usePiece } from '../piece/pieceContext';
import { answerOf, changedOf } from '../records/changed.server';
import { idOr404, sentence } from '../records/parse.server';
import { hoursRecorded, pieceSurveyOf } from '../records/pieceSurvey.server';
import { picturesOf } from '../records/pictures.server';
import { changePiece, pieceById } from '../records/pieces.server';
import { shopSettings } from '../records/shop.server';
import { surveyOf } from '../records/survey.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/survey';
import { CuttingOut } from './CuttingOut';
import { FoundHere } from './FoundHere';
import { TakenReferences } from './TakenReferences';
import type { PartState } from './partStates';
import { PARTS, usePartStates, useSurveyTally } from './partStates';
import { SelfSavedWord } from '../forms/SelfSavedWord';
import { PieceSurveyContext, usePieceSurvey, usePieceSurveyOf } from './usePieceSurvey';
import { SurveyContext, useSurveyOf } from './useSurvey';

// What has a chart or a table of its own is fetched when it is looked at.
const WhatSheet = lazy(() => import('./StockCandidates'));
const Choosing = lazy(() => import('./Choosing'));

export async function loader({ params, context }: Route.LoaderArgs) {
  const viewer = context.get(viewerIn);
  const piece = await pieceById(viewer, idOr404(params.pieceId));
  if (!piece) throw data(null, { status: 404 });
  const { id, job, structural, touched } = piece;
  const { layersApartMm } = await shopSettings(viewer);
  const [all, pictures, hours, verdict] = await Promise.all([
    surveyOf(viewer, job),
    picturesOf(viewer, { job, piece: null }),
    hoursRecorded(viewer, id),
    verdictOf(viewer, {
      id,
      job,
      structural,
      survey: pieceSurveyOf(piece),
      touched,
      layersApartMm,
    }),
  ]);
  return { all, pictures, hours, verdict };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const id = idOr404(params.pieceId);
  const parsed = changedOf(PieceFactsSchema).safeParse(await request.json().catch(() => null));
  if (!parsed.success) return data({ message: sentence(parsed.error) }, { status: 400 });
  const { since, mine } = parsed.data;
  const changed = await changePiece(viewer, id, since, mine);
  if (!changed) throw data(null, { status: 404 });
  return answerOf(changed, FACT_WORDS, (field, value) =>
    factSaid(field, value, lengthsFor(request)),
  );
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => orSay(serverAction);

export const shouldRevalidate = unlessOnlyQuery;

/**
 * The survey of a piece before anything of it is cut: each part with how it stands, one of them
 * open.
 */
export default function SurveyStage({ loaderData }: Route.ComponentProps) {
  const { job } = usePiece();
  const [pictures, takePictures] = useNewer(loaderData.pictures);
  const survey = useSurveyOf(job, loaderData.all);
  const saved = usePieceSurveyOf(loaderData.verdict);
  return (
    <SurveyContext.Provider value={survey}>
      <PieceSurveyContext.Provider
        value={{ ...saved, pictures, takePictures, hours: loaderData.hours }}
      >
        <Parts />
      </PieceSurveyContext.Provider>
    </SurveyContext.Provider>
  );
}

function Parts() {
  const { facts, id } = usePiece();
  const [query, setQuery] = useSearchParams();
  const states = usePartStates();
  const saved = usePieceSurvey();
  const asked = PARTS.find((part) => part.id === query.get('part'))?.id;
  const open = asked ?? (states.references.wants ? 'references' : 'found');
  return (
    <Box sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
      <Box
        sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: { xs: 'column', md: 'row' } }}
      >
        <Box
          component="nav"
          aria-label="Parts of the survey"
          // On a phone one thing at a time: the parts, or the one that is open.
          sx={{
            flex: { md: '0 0 236px' },
            bgcolor: 'var(--panel)',
            borderRight: { md: '1.5px solid var(--rule)' },
            overflowY: { md: 'auto' },
            display: { xs: asked ? 'none' : 'block', md: 'block' },
          }}
        >
          {PARTS.map((part) => (
            <PartButton
              key={part.id}
              label={part.label}
              on={part.id === open}
              {...states[part.id]}
              onOpen={() =>
                setQuery(
                  { part: part.id },
                  { replace: asked !== undefined, preventScrollReset: true },
                )
              }
            />
          ))}
        </Box>
        <Box
          sx={{
            flex: 1,
            minWidth: 0,
            overflowY: { md: 'auto' },
            p: { xs: 2, md: 2.5 },
            display: { xs: asked ? 'block' : 'none', md: 'block' },
          }}
        >
          <ButtonBase
            onClick={() => setQuery({})}
            sx={{
              display: { md: 'none' },
              mb: 1.5,
              minHeight: 44,
              fontWeight: 600,
              fontFamily: 'Barlow, sans-serif',
              fontSize: '1rem',
            }}
          >
            ‹ All of the survey
          </ButtonBase>
          <Box sx={{ mb: 2, '&:empty': { display: 'none' } }}>
            <SelfSavedWord {...saved} />
          </Box>
          <Suspense fallback={<Box sx={{ height: 300 }} />}>
            {open === 'found' && <FoundHere />}
            {open === 'references' && <TakenReferences />}
            {open === 'cutting' && <CuttingOut />}
            {open === 'sheet' && <WhatSheet />}
            {open === 'choice' && <Choosing />}
            {open === 'what' && (
              <Box sx={{ maxWidth: 960 }}>
                <Typography variant="h2" sx={{ mb: 2 }}>
                  What it is, and what it is made of
                </Typography>
                <PieceForm key={id} about={`piece ${id}`} initial={facts} button={() => 'Keep'} />
              </Box>
            )}
          </Suspense>
        </Box>
      </Box>
      <SurveyTally />
    </Box>
  );
}

const SurveyTally = () => <Tally figures={useSurveyTally()} />;

function PartButton(given: PartState & { label: string; on: boolean; onOpen: () => void }) {
  const { label, on, state, said, wants, onOpen } = given;
  return (
    <ButtonBase
      onClick={onOpen}
      aria-current={on ? 'page' : undefined}
      aria-label={`${label}: ${said}${wants ? ', needs attention' : ''}`}
      sx={{
        width: '100%',
        display: 'flex',
        alignItems: 'flex-start',
        justifyContent: 'flex-start',
        fontFamily: 'Barlow, sans-serif',
        gap: 1.2,
        textAlign: 'left',
        px: 1.6,
        py: 1.3,
        minHeight: 60,
        borderBottom: '1px solid var(--rule)',
        borderLeft: '4px solid',
        borderLeftColor: { xs: 'transparent', md: on ? 'var(--torch)' : 'transparent' },
        bgcolor: { md: on ? 'var(--chalk)' : undefined },
      }}
    >
      <Box sx={{ pt: 0.3 }}>
        <StopMark state={state} />
      </Box>
      <Box>
        <Box className="condensed" sx={{ fontSize: '1.12rem', fontWeight: 600, lineHeight: 1.15 }}>
          {label}
        </Box>
        <Box
          sx={{
            fontSize: '0.9rem',
            lineHeight: 1.3,
            color: wants ? 'var(--torch)' : 'var(--pencil)',
          }}
        >
          {said}
        </Box>
      </Box>
    </ButtonBase>
  );
}
