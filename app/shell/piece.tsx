import ArrowBack from '@mui/icons-material/ArrowBack';
import Redo from '@mui/icons-material/Redo';
import Undo from '@mui/icons-material/Undo';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import { Suspense, lazy, useCallback, useEffect, useMemo, useState } from 'react';
import { Link, Outlet, data, isRouteErrorResponse, useLocation, useNavigate, useRevalidator } from 'react-router';
import { z } from 'zod';
import { emptyPattern } from '#core/card/emptyPattern';
import { plugHoles, plugsOnBlank } from '#core/weld/plugs';
import { emptyPlan } from '#core/weld/emptyPlan';
import { readingsNow } from '#core/fit/readingsNow';
import { metalById } from '#core/metal/metals';
import { fitsOf } from '../records/fits.server';
import { jobById } from '../records/jobs.server';
import { factsOf, pieceById, printsOfJob } from '../records/pieces.server';
import { documentState } from '../records/documents.server';
import { shopSettings } from '../records/shop.server';
import { inspectionsOf, weldsOf } from '../records/welds.server';
import type { Route } from './+types/piece';
import { StageRail } from './StageRail';
import { TopBar } from './TopBar';
import { useKeys } from './keys';
import type { Pick, StopUndo } from './pieceContext';
import { PieceContext } from './pieceContext';
import { STAGES, roadOf } from './stages';
import type { Editor } from './useDocument';
import { useDocument } from './useDocument';
import { changesOfCard, changesOfPlan } from './changes';
import { printDigest } from './printDigest';
import { reckoned } from './reckoned';
import { usePreferences } from './preferences';

// Wanted only when two pages have changed one card.
const Conflict = lazy(() => import('../drawing/Conflict'));

export async function loader({ params }: Route.LoaderArgs) {
  const id = z.uuid().safeParse(params.pieceId);
  const piece = id.success ? await pieceById(id.data) : null;
  if (!piece) throw data(null, { status: 404 });
  const [job, card, plan, shop, fits, welds, inspections, prints] = await Promise.all([
    jobById(piece.job),
    documentState(piece.id, 'card'),
    documentState(piece.id, 'plan'),
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
    plan,
    shop,
    fits,
    welds,
    inspections,
    printed: prints.get(piece.id) ?? null,
  };
}

/** What was undone is told for so long. */
const UNDONE_SHOWN_MS = 6000;

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

/** How saving stands: of the card and the plan whichever wants attention more, and what was just undone. */
function SaveLine({ editors, said: undone }: { editors: Saving; said: string | null }) {
  const rank = ['conflict', 'refused', 'kept', 'saving', 'saved'];
  const card = [...editors].sort((a, b) => rank.indexOf(a.status) - rank.indexOf(b.status))[0]!;
  const savedAt = editors
    .map((e) => e.savedAt ?? '')
    .sort()
    .pop();
  const time = savedAt ? new Date(savedAt).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' }) : null;
  const said = {
    saved: time ? `Saved ${time}` : '',
    saving: 'Saving …',
    kept: 'No answer from the server: kept in this browser, trying again',
    conflict: 'Saved elsewhere too: choose below',
    refused: `Not saved: ${card.refusal?.message ?? ''} Undo takes it back.`,
  }[card.status];
  return (
    <Box
      role="status"
      suppressHydrationWarning
      sx={{
        fontSize: '0.9rem',
        color: card.status !== 'saved' && card.status !== 'saving' ? 'var(--torch)' : 'var(--pencil)',
        display: card.status === 'saved' || card.status === 'saving' ? { xs: 'none', sm: 'block' } : 'block',
        maxWidth: { xs: 130, sm: 300, md: 'none' },
        lineHeight: 1.1,
        textAlign: 'right',
      }}
    >
      {card.status === 'saved' && undone ? undone : said}
    </Box>
  );
}

type Saving = readonly { [K in 'status' | 'savedAt' | 'refusal']: Editor<unknown>[K] }[];

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
  const { show } = usePreferences();
  const again = useCallback(() => void revalidator.revalidate(), [revalidator]);
  const card = useDocument(id, 'card', loaded.card, emptyPattern().version, again);
  const plan = useDocument(id, 'plan', loaded.plan, emptyPlan().version, again);
  const [stopUndo, setUndo] = useState<StopUndo>(null);
  const pattern = card.doc;
  const metal = metalById(facts.metal);
  const { problems: found, development } = useMemo(
    () => reckoned(pattern, metal, facts.thicknessMm, shop),
    [pattern, metal, facts.thicknessMm, shop],
  );
  // A version that can't be read shows as an empty card; what is wrong with it comes first.
  const problems = useMemo(() => [...(loaded.card.broken ?? []), ...found], [loaded.card.broken, found]);
  const digest = useMemo(
    () =>
      development.ok
        ? printDigest(
            development.development,
            plugHoles(plugsOnBlank(pattern, plan.doc, facts.thicknessMm, development.development)),
            metal,
            facts.thicknessMm,
            shop,
          )
        : null,
    [development, pattern, plan.doc, metal, facts.thicknessMm, shop],
  );
  // Trials that stand, their readings at their places on the card as it is now.
  const standing = useMemo(
    () =>
      fits
        .filter((fit) => !fit.withdrawn)
        .map((fit) =>
          fit.edges.every((edge) => edge.turned === pattern.turned)
            ? fit
            : { ...fit, edges: fit.edges.map((edge) => readingsNow(pattern, edge)) },
        ),
    [fits, pattern],
  );
  const road = roadOf({
    pattern,
    plan: plan.doc,
    thicknessMm: facts.thicknessMm,
    digest,
    problems,
    development,
    revision: card.number,
    printed: loaded.printed,
    fit: standing[standing.length - 1] ?? null,
    welds,
    inspections,
  });
  const view = {
    id,
    facts,
    metal,
    shop,
    card,
    plan,
    pattern,
    problems,
    development,
    road,
    fits: standing,
    welds,
    inspections,
    pick,
    setPick,
    setUndo,
  };

  // Undo acts on what the stop shows: its own last step, the plan where welding is planned, else the card.
  const { pathname } = useLocation();
  const stop = pathname.split('/').pop();
  const [undone, setUndone] = useState<string | null>(null);
  useEffect(() => {
    const quiet = setTimeout(() => setUndone(null), UNDONE_SHOWN_MS);
    return () => clearTimeout(quiet);
  }, [undone]);
  const told = (word: string, changes: string[]) =>
    setUndone(`${word}: ${changes[0] ?? 'nothing changed'}${changes.length > 1 ? ` and ${changes.length - 1} more` : ''}`); // prettier-ignore
  const step = async (way: 'undo' | 'redo') => {
    const word = way === 'undo' ? 'Undone' : 'Done again';
    if (stop === 'weld') {
      const moved = await plan[way]();
      if (moved) told(word, changesOfPlan(moved.from, moved.to, card.doc));
    } else {
      const moved = await card[way]();
      if (moved) told(word, changesOfCard(moved.from, moved.to, show));
    }
  };
  const undoReading = () => {
    const said = stopUndo?.undo();
    if (said) setUndone(said);
  };
  const acting = stop === 'weld' ? plan : card;
  const undo = stop === 'fit' ? (stopUndo ? undoReading : undefined) : acting.canUndo ? () => void step('undo') : undefined; // prettier-ignore
  const redo = stop !== 'fit' && acting.canRedo ? () => void step('redo') : undefined;
  const what = stop === 'fit' ? 'the last reading' : stop === 'weld' ? 'the plan' : 'the card';

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
    z: undo,
    'Shift+Z': redo,
    Escape: () => setPick(null),
  });

  return (
    <PieceContext.Provider value={view}>
      <Box sx={{ height: { md: '100dvh' }, minHeight: '100dvh', display: 'flex', flexDirection: 'column' }}>
        <TopBar
          right={
            <>
              <SaveLine editors={[card, plan]} said={undone} />
              <Tooltip title={`Undo ${what} (Z)`}>
                <span>
                  <IconButton aria-label="Undo" disabled={!undo} onClick={undo}>
                    <Undo />
                  </IconButton>
                </span>
              </Tooltip>
              <Tooltip title={`Redo ${what} (Shift+Z)`}>
                <span>
                  <IconButton aria-label="Redo" disabled={!redo} onClick={redo}>
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
          {card.theirs || plan.theirs ? (
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
