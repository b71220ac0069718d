import ArrowBack from '@mui/icons-material/ArrowBack';
import Redo from '@mui/icons-material/Redo';
import Undo from '@mui/icons-material/Undo';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import { Suspense, lazy, useCallback, useEffect, useMemo, useState } from 'react';
import { Link, Outlet, data, isRouteErrorResponse, useNavigate, useRevalidator } from 'react-router';
import { z } from 'zod';
import { develop } from '#core/blank/fold/develop';
import { sheetMetal } from '#core/blank/fold/practice';
import { checkCard } from '#core/card/check';
import { metalById } from '#core/metal/metals';
import { fitsOf } from '../records/fits.server';
import { jobById } from '../records/jobs.server';
import { factsOf, pieceById, printsOfJob } from '../records/pieces.server';
import { cardState } from '../records/revisions.server';
import { shopSettings } from '../records/shop.server';
import { inspectionsOf, weldsOf } from '../records/welds.server';
import type { Route } from './+types/piece';
import { StageRail } from './StageRail';
import { TopBar } from './TopBar';
import { useKeys } from './keys';
import type { Pick } from './pieceContext';
import { PieceContext } from './pieceContext';
import { STAGES, roadOf } from './stages';
import type { CardEditor } from './useCard';
import { useCard } from './useCard';

// Wanted only when two pages have changed one card.
const Conflict = lazy(() => import('../drawing/Conflict'));

export async function loader({ params }: Route.LoaderArgs) {
  const id = z.uuid().safeParse(params.pieceId);
  const piece = id.success ? await pieceById(id.data) : null;
  if (!piece) throw data(null, { status: 404 });
  const [job, card, shop, fits, welds, inspections, prints] = await Promise.all([
    jobById(piece.job),
    cardState(piece.id, piece.revision),
    shopSettings(),
    fitsOf(piece.id),
    weldsOf(piece.id),
    inspectionsOf(piece.id),
    printsOfJob(piece.job),
  ]);
  return {
    id: piece.id,
    archived: piece.archived !== null,
    job: { id: job!.id, name: job!.name },
    facts: factsOf(piece),
    card,
    shop,
    fits,
    welds,
    inspections,
    printed: prints.get(piece.id) ?? null,
  };
}

type Loaded = Awaited<ReturnType<Route.ClientLoaderArgs['serverLoader']>>;

/** What this page last had from the server, to stand on while the server does not answer. */
let lastKnown: Loaded | null = null;

/** Reading the piece again after an edit must not take the page away when the server is gone just then. */
export async function clientLoader({ serverLoader, params }: Route.ClientLoaderArgs) {
  try {
    return await serverLoader();
  } catch (error) {
    if (lastKnown?.id === params.pieceId && !isRouteErrorResponse(error)) return lastKnown;
    throw error;
  }
}

export const meta = ({ loaderData }: Route.MetaArgs) => [{ title: `${loaderData?.facts.name ?? 'Piece'} · Patrone` }];

function SaveLine({ card }: { card: CardEditor }) {
  const time = card.savedAt
    ? new Date(card.savedAt).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
    : null;
  const said = {
    saved: time ? `Saved ${time}` : '',
    saving: 'Saving …',
    kept: 'No answer from the server: kept in this browser, trying again',
    conflict: 'Saved elsewhere too: choose below',
  }[card.status];
  return (
    <Box
      role="status"
      suppressHydrationWarning
      sx={{
        fontSize: '0.9rem',
        color: card.status === 'kept' || card.status === 'conflict' ? 'var(--torch)' : 'var(--pencil)',
        display: card.status === 'saved' || card.status === 'saving' ? { xs: 'none', sm: 'block' } : 'block',
        maxWidth: { xs: 130, sm: 300, md: 'none' },
        lineHeight: 1.1,
        textAlign: 'right',
      }}
    >
      {said}
    </Box>
  );
}

/** A piece: its name, its road, and whichever stage is open. Holds the card that every stage works from. */
export default function PiecePage({ loaderData }: Route.ComponentProps) {
  useEffect(() => {
    lastKnown = loaderData;
  }, [loaderData]);
  // A new piece is a new page: nothing of the last one's card may stay behind.
  return <PieceRoad key={loaderData.id} loaded={loaderData} />;
}

function PieceRoad({ loaded }: { loaded: Route.ComponentProps['loaderData'] }) {
  const { id, job, facts, shop, fits, welds, inspections } = loaded;
  const revalidator = useRevalidator();
  const navigate = useNavigate();
  const [pick, setPick] = useState<Pick>(null);
  const card = useCard(
    id,
    loaded.card,
    useCallback(() => void revalidator.revalidate(), [revalidator]),
  );
  const { pattern } = card;
  const metal = metalById(facts.metal);
  const problems = useMemo(() => checkCard(pattern), [pattern]);
  const development = useMemo(
    () => develop(pattern, sheetMetal(metal, facts.thicknessMm, shop), shop, problems),
    [pattern, problems, metal, facts.thicknessMm, shop],
  );
  const road = roadOf({
    pattern,
    problems,
    development,
    revision: card.revision,
    printed: loaded.printed,
    fit: fits[fits.length - 1] ?? null,
    welds,
    inspections,
  });
  const view = {
    id,
    facts,
    metal,
    shop,
    card,
    pattern,
    problems,
    development,
    road,
    fits,
    welds,
    inspections,
    pick,
    setPick,
  };

  // The same road is the same object, so that the rail rests while a corner is dragged.
  const roadKey = JSON.stringify(road);
  const settledRoad = useMemo(() => JSON.parse(roadKey) as typeof road, [roadKey]);

  const nextOf = (kind: 'edge' | 'fold', ids: string[], step: number) => {
    if (ids.length === 0) return;
    const at = pick?.kind === kind ? ids.indexOf(pick.id) : step > 0 ? -1 : 0;
    setPick({ kind, id: ids[(at + step + ids.length) % ids.length]! });
  };
  const edgesByLetter = [...pattern.edges]
    .sort((a, b) => a.letter.length - b.letter.length || a.letter.localeCompare(b.letter))
    .map((e) => e.id);
  useKeys({
    ...Object.fromEntries(
      STAGES.map((stage) => [String(stage.key), () => void navigate(`/pieces/${id}/${stage.id}`)]),
    ),
    e: () => nextOf('edge', edgesByLetter, 1),
    'Shift+E': () => nextOf('edge', edgesByLetter, -1),
    f: () =>
      nextOf(
        'fold',
        pattern.folds.map((f) => f.id),
        1,
      ),
    z: card.canUndo ? card.undo : undefined,
    'Shift+Z': card.canRedo ? card.redo : undefined,
    Escape: () => setPick(null),
  });

  return (
    <PieceContext.Provider value={view}>
      <Box sx={{ height: { md: '100dvh' }, minHeight: '100dvh', display: 'flex', flexDirection: 'column' }}>
        <TopBar
          right={
            <>
              <SaveLine card={card} />
              <Tooltip title="Undo on the card (Z)">
                <span>
                  <IconButton aria-label="Undo" disabled={!card.canUndo} onClick={card.undo}>
                    <Undo />
                  </IconButton>
                </span>
              </Tooltip>
              <Tooltip title="Redo on the card (Shift+Z)">
                <span>
                  <IconButton aria-label="Redo" disabled={!card.canRedo} onClick={card.redo}>
                    <Redo />
                  </IconButton>
                </span>
              </Tooltip>
            </>
          }
        >
          <IconButton
            component={Link}
            to={`/jobs/${job.id}`}
            aria-label={`Back to ${job.name}`}
            sx={{ display: { xs: 'none', sm: 'inline-flex' } }}
          >
            <ArrowBack />
          </IconButton>
          <Box
            component={Link}
            to={`/jobs/${job.id}`}
            className="condensed"
            sx={{
              color: 'var(--pencil)',
              textDecoration: 'none',
              whiteSpace: 'nowrap',
              display: { xs: 'none', md: 'inline' },
              fontSize: '1.1rem',
            }}
          >
            {job.name}
          </Box>
          <Box component="span" sx={{ color: 'var(--rule)', display: { xs: 'none', md: 'inline' } }}>
            /
          </Box>
          <Box
            component="h1"
            className="condensed"
            sx={{
              m: 0,
              fontSize: '1.35rem',
              fontWeight: 600,
              overflow: 'hidden',
              textOverflow: 'ellipsis',
              whiteSpace: 'nowrap',
            }}
          >
            {facts.name}
          </Box>
          {loaded.archived && (
            <Box sx={{ fontSize: '0.85rem', px: 1, border: '1px solid var(--rule)' }}>put away</Box>
          )}
        </TopBar>
        <StageRail piece={id} road={settledRoad} />
        <Box component="main" sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
          {card.theirs ? (
            <Suspense>
              <Conflict />
            </Suspense>
          ) : (
            <Outlet />
          )}
        </Box>
      </Box>
    </PieceContext.Provider>
  );
}
