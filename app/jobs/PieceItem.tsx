import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link, useFetcher } from 'react-router';
import type { CameAs } from '#core/format/job';
import { Thumbnail } from '../drawing/Thumbnail';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { opensAt } from '../frame/stops';
import { KIND_WORDS } from '../piece/kindWords';
import { useWho } from '../frame/recordedBy';
import { RoadLine } from '../piece/road/RoadLine';
import type { PieceKind } from '#core/format/lists';
import { stopsOn } from '../piece/road/road';
import type { Summary } from '../piece/loaded/summary';

/** A piece as the list of a job shows it. */
export type PieceRow = Summary & {
  id: string;
  name: string;
  kind: PieceKind;
  part: string;
  metal: string;
  thicknessMm: number;
  structural: boolean;
  /** The piece it was made from. */
  from: { name: string; as: CameAs | null } | null;
};

/**
 * A piece in the list of a job: what it is, how far it has come, and what can be done with it as a
 * whole.
 */
export function PieceItem({
  row,
  archived,
  sentAs,
}: {
  row: PieceRow;
  archived: boolean;
  sentAs: string;
}) {
  const { showThin } = usePreferences();
  const looks = useWho()?.role === 'looks';
  return (
    <Box
      component="li"
      sx={{
        bgcolor: 'var(--panel)',
        border: '1.5px solid var(--rule)',
        display: 'flex',
        flexDirection: 'column',
      }}
    >
      <Box
        component={Link}
        to={`/pieces/${row.id}/${looks ? 'record' : nextStage(row)}`}
        sx={{
          display: 'flex',
          gap: 2,
          p: 2,
          color: 'inherit',
          textDecoration: 'none',
          flex: 1,
          '&:hover': { bgcolor: 'var(--chalk)' },
        }}
      >
        <Box sx={{ width: 132, height: 96, flex: 'none', bgcolor: 'var(--bench-top)', p: 1 }}>
          {row.silhouette ? (
            <Thumbnail of={row.silhouette} material={row.material} />
          ) : (
            <Box
              sx={{
                height: '100%',
                display: 'grid',
                placeItems: 'center',
                color: 'var(--pencil)',
                fontSize: '0.9rem',
              }}
            >
              {row.kind === 'made' ? 'no card yet' : 'no edges yet'}
            </Box>
          )}
        </Box>
        <Box sx={{ minWidth: 0, flex: 1 }}>
          <Typography variant="h2">{row.name}</Typography>
          <Box sx={{ color: 'var(--pencil)', lineHeight: 1.25 }}>{row.part}</Box>
          <Box sx={{ mt: 0.5, fontSize: '0.92rem' }}>
            {row.kind !== 'made' && `${KIND_WORDS[row.kind]} · `}
            {row.metal}, <span className="figure">{showThin(row.thicknessMm)}</span>
            {row.structural && ' · structural'}
          </Box>
          {row.from && (
            <Box sx={{ color: 'var(--pencil)', fontSize: '0.92rem' }}>
              {row.from.as === 'again' ? 'Once more after' : 'Other side of'} {row.from.name}
            </Box>
          )}
        </Box>
      </Box>
      {row.road ? (
        <RoadLine piece={row.id} road={row.road} />
      ) : (
        <Told>How far it has come could not be told here. Open it to see.</Told>
      )}
      <Box sx={{ display: 'flex', justifyContent: 'flex-end', borderTop: '1px solid var(--rule)' }}>
        <Button
          component={Link}
          to={`/pieces/${row.id}/record`}
          color="inherit"
          size="small"
          sx={{ mr: 'auto' }}
        >
          What was done
        </Button>
        {!looks && (
          <>
            <PieceButton intent="duplicate" piece={row.id} label="Duplicate" sentAs={sentAs} />
            <PieceButton
              intent={archived ? 'restore-piece' : 'archive-piece'}
              piece={row.id}
              label={archived ? 'Take out again' : 'Put away'}
            />
          </>
        )}
      </Box>
    </Box>
  );
}

function PieceButton(given: { intent: string; piece: string; label: string; sentAs?: string }) {
  const { intent, piece, label, sentAs } = given;
  // Not a navigation: whoever touches a link next takes nothing of it back.
  const fetcher = useFetcher();
  return (
    <fetcher.Form method="post">
      <input type="hidden" name="intent" value={intent} />
      <input type="hidden" name="piece" value={piece} />
      {sentAs && <input type="hidden" name="key" value={sentAs} />}
      <Button type="submit" color="inherit" size="small">
        {label}
      </Button>
    </fetcher.Form>
  );
}

/** Where a click on a piece leads: to what is next, or when all is done to where it opens. */
const nextStage = ({ road, kind }: Pick<PieceRow, 'road' | 'kind'>): string =>
  stopsOn(road ?? {}).find(([, { state }]) => state === 'next' || state === 'attention')?.[0].id ??
  opensAt(kind);
