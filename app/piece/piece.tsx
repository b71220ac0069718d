import Box from '@mui/material/Box';
import { Suspense, lazy, memo, useMemo, useState } from 'react';
import type { ShouldRevalidateFunctionArgs } from 'react-router';
import { Outlet, data, isRouteErrorResponse } from 'react-router';
import { z } from 'zod';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/piece';
import type { PieceBarProps } from './PieceBar';
import { PieceBar } from './PieceBar';
import { StopRail } from './road/StopRail';
import type { SentPage } from './loaded/loaded.server';
import { loadPage } from './loaded/loaded.server';
import { openedPage } from './loaded/openedPage';
import {
  InHandContext,
  PickContext,
  PieceContext,
  ReadingsContext,
  usePick,
  usePiece,
} from './pieceContext';
import { usePieceView } from './usePieceView';
import { useNewerBehind } from './useNewerBehind';
import { useRoadKeys } from './useRoadKeys';
import { useStepping } from './useStepping';
import { Waits } from './Waits';

// Wanted only when two pages have changed one card.
const Conflict = lazy(() => import('./Conflict'));

export async function loader({ params, context }: Route.LoaderArgs) {
  const viewer = context.get(viewerIn);
  const id = z.uuid().safeParse(params.pieceId);
  const loaded = id.success ? await loadPage(viewer, id.data) : null;
  if (!loaded) throw data(null, { status: 404 });
  return loaded;
}

/** Null while the server does not answer: the page then stands on what it last had. */
export async function clientLoader({
  serverLoader,
}: Route.ClientLoaderArgs): Promise<SentPage | null> {
  try {
    return await serverLoader();
  } catch (error) {
    if (isRouteErrorResponse(error)) throw error;
    return null;
  }
}

/**
 * From one stop of a piece to another it opens from what is here: on a line that is dying nobody
 * waits for what they have. Whether there is anything newer is asked behind (`useNewerBehind`).
 */
export const shouldRevalidate = ({
  currentUrl,
  nextUrl,
  currentParams,
  nextParams,
  formMethod,
  defaultShouldRevalidate,
}: ShouldRevalidateFunctionArgs): boolean =>
  currentParams.pieceId === nextParams.pieceId && currentUrl.href !== nextUrl.href && !formMethod
    ? false
    : defaultShouldRevalidate;

export const meta = ({ loaderData }: Route.MetaArgs) => [
  { title: `${loaderData?.facts.name ?? 'Piece'} · Patrone` },
];

/**
 * A piece: its name, its road, and whichever stage is open. Holds the documents that every stage
 * works from.
 */
export default function PiecePage({ loaderData, params }: Route.ComponentProps) {
  const [known, setKnown] = useState(loaderData);
  if (loaderData !== null && loaderData !== known) setKnown(loaderData);
  const sent = loaderData ?? known;
  if (sent?.id !== params.pieceId.toLowerCase()) throw new TypeError('No answer from the server');
  // A new piece is a new page: nothing of the last one's card may stay behind.
  return <PieceRoad key={sent.id} sent={sent} />;
}

function PieceRoad({ sent }: { sent: SentPage }) {
  const loaded = useMemo(() => openedPage(sent), [sent]);
  useNewerBehind();
  const { view, picked, inHand, readings } = usePieceView(loaded);
  return (
    <PieceContext.Provider value={view}>
      <PickContext.Provider value={picked}>
        <InHandContext.Provider value={inHand}>
          <ReadingsContext.Provider value={readings}>
            <PieceLayout job={loaded.job} name={loaded.facts.name} archived={loaded.archived} />
          </ReadingsContext.Provider>
        </InHandContext.Provider>
      </PickContext.Provider>
    </PieceContext.Provider>
  );
}

/**
 * Bar, road and stop of a piece. Rests while something is dragged: only who asks for what is in
 * hand is drawn then.
 */
const PieceLayout = memo(function PieceLayout({ job, name, archived }: PieceBarProps) {
  const view = usePiece();
  const stepping = useStepping(view);
  useRoadKeys(view.id, view.facts.kind, view.pattern, usePick(), stepping);
  return (
    <Box
      sx={{
        height: { md: 'calc(100dvh - var(--above, 0px))' },
        minHeight: 'calc(100dvh - var(--above, 0px))',
        display: 'flex',
        flexDirection: 'column',
      }}
    >
      <PieceBar job={job} name={name} archived={archived} stepping={stepping} />
      <StopRail piece={view.id} road={view.road} />
      <Waits />
      <Box
        component="main"
        sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' }}
      >
        {view.patternEditor.theirs || view.planEditor.theirs ? (
          <Suspense>
            <Conflict />
          </Suspense>
        ) : (
          <Outlet />
        )}
      </Box>
    </Box>
  );
});
