import Box from '@mui/material/Box';
import { Suspense, lazy, useState } from 'react';
import { Outlet, data, isRouteErrorResponse } from 'react-router';
import { z } from 'zod';
import type { Route } from './+types/piece';
import { PieceBar } from './PieceBar';
import { StageRail } from './StageRail';
import type { Loaded } from './loaded.server';
import { loadPiece } from './loaded.server';
import { PickContext, PieceContext } from './pieceContext';
import { usePieceView } from './usePieceView';
import { useRoadKeys } from './useRoadKeys';
import { useStepping } from './useStepping';

// Wanted only when two pages have changed one card.
const Conflict = lazy(() => import('./Conflict'));

export async function loader({ params }: Route.LoaderArgs) {
  const id = z.uuid().safeParse(params.pieceId);
  const loaded = id.success ? await loadPiece(id.data) : null;
  if (!loaded) throw data(null, { status: 404 });
  return loaded;
}

/** Null while the server does not answer: the page then stands on what it last had. */
export async function clientLoader({ serverLoader }: Route.ClientLoaderArgs): Promise<Loaded | null> {
  try {
    return await serverLoader();
  } catch (error) {
    if (isRouteErrorResponse(error)) throw error;
    return null;
  }
}

export const meta = ({ loaderData }: Route.MetaArgs) => [{ title: `${loaderData?.facts.name ?? 'Piece'} · Patrone` }];

/** A piece: its name, its road, and whichever stage is open. Holds the documents that every stage works from. */
export default function PiecePage({ loaderData, params }: Route.ComponentProps) {
  const [known, setKnown] = useState(loaderData);
  if (loaderData !== null && loaderData !== known) setKnown(loaderData);
  const loaded = loaderData ?? known;
  if (loaded?.id !== params.pieceId) throw new TypeError('No answer from the server');
  // A new piece is a new page: nothing of the last one's card may stay behind.
  return <PieceRoad key={loaded.id} loaded={loaded} />;
}

function PieceRoad({ loaded }: { loaded: Loaded }) {
  const { view, picked } = usePieceView(loaded);
  const { pattern, patternEditor, planEditor } = view;
  const stepping = useStepping(view);
  useRoadKeys(loaded.id, pattern, picked, stepping);
  return (
    <PieceContext.Provider value={view}>
      <PickContext.Provider value={picked}>
        <Box sx={{ height: { md: '100dvh' }, minHeight: '100dvh', display: 'flex', flexDirection: 'column' }}>
          <PieceBar job={loaded.job} name={loaded.facts.name} archived={loaded.archived} stepping={stepping} />
          <StageRail piece={loaded.id} road={view.road} />
          <Box component="main" sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
            {patternEditor.theirs || planEditor.theirs ? (
              <Suspense>
                <Conflict />
              </Suspense>
            ) : (
              <Outlet />
            )}
          </Box>
        </Box>
      </PickContext.Provider>
    </PieceContext.Provider>
  );
}
