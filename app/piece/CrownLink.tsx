import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import { crownStands } from '#core/card/crownStands';
import { usePiece } from './pieceContext';

/**
 * Of a card that was laid flat from a panel curved two ways: how much is to be stretched and
 * gathered, and the way to its map.
 */
export function CrownLink() {
  const { id, pattern } = usePiece();
  const { crown } = pattern;
  if (!crown) return null;
  const changed = !crownStands(pattern);
  const pct = (share: number) => `${(share * 100).toFixed(1)} %`;
  return (
    <Box
      component="section"
      aria-label="Curved two ways"
      sx={{ display: 'grid', gap: 0.8, justifyItems: 'start' }}
    >
      <Typography>
        Curved two ways: up to <span className="figure">{pct(crown.stretch)}</span> to stretch,{' '}
        <span className="figure">{pct(crown.shrink)}</span> to gather.
        {changed &&
          ' The outline has been changed since it was laid flat: these figures are of the one before.'}
      </Typography>
      <Button variant="outlined" component={Link} to={`/pieces/${id}/card/crown`}>
        Where the metal goes
      </Button>
    </Box>
  );
}
