import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import type { ChangedPiece } from '#core/blank/fold/learnt';
import { usePreferences } from '../frame/preferences';

const FEW = 6;

/** Pieces of which folds take off another length: the most that one changes by. */
export function Changes({ changes, none }: { changes: readonly ChangedPiece[]; none: string }) {
  const { showThin } = usePreferences();
  if (changes.length === 0) return <Typography>{none}</Typography>;
  return (
    <Box component="ul" aria-label="Pieces that change" sx={{ m: 0, pl: 2.5 }}>
      {changes.slice(0, FEW).map(({ piece, mostMm, folds }) => (
        <li key={piece.id}>
          <Box component={Link} to={`/pieces/${piece.id}/blank`} sx={{ color: 'var(--link)' }}>
            {piece.name}
          </Box>
          {`: ${folds === 1 ? 'one fold takes' : `${folds} folds take`} up to `}
          <span className="figure">{showThin(mostMm)}</span> more or less
        </li>
      ))}
      {changes.length > FEW && <li>and {changes.length - FEW} more</li>}
    </Box>
  );
}
