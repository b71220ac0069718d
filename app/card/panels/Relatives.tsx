import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import { usePiece } from '../../piece/pieceContext';

/** The piece this one was made from, those made from it, and the making of another. */
export function Relatives() {
  const { id, from, made } = usePiece();
  return (
    <Box component="section" aria-label="The other side" sx={{ display: 'grid', gap: 1 }}>
      <Typography variant="h3">The other side, and further tries</Typography>
      {from && (
        <Relative
          piece={id}
          other={from.id}
          said={from.as === 'again' ? 'Made once more after' : 'Made for the other side of'}
          name={from.name}
          why={from.why}
          changed={from.changed}
        />
      )}
      {made.map((other) => (
        <Relative
          key={other.id}
          piece={id}
          other={other.id}
          said={other.as === 'again' ? 'Made once more as' : 'Its other side is'}
          name={other.name}
          why={other.why}
          changed={0}
        />
      ))}
      <Box>
        <Button variant="outlined" component={Link} to={`/pieces/${id}/card/another`}>
          Make the other side, or once more
        </Button>
      </Box>
      <Box>
        <Button color="inherit" component={Link} to={`/pieces/${id}/card/over`}>
          Lay another card on this one
        </Button>
      </Box>
    </Box>
  );
}

type RelativeProps = {
  piece: string;
  other: string;
  said: string;
  name: string;
  why: string;
  /**
   * How much has changed there that this one could take over; null where nothing is known any more.
   */
  changed: number | null;
};

function Relative({ piece, other, said, name, why, changed }: RelativeProps) {
  return (
    <Box
      sx={{ borderLeft: `5px solid ${changed === 0 ? 'var(--rule)' : 'var(--torch)'}`, pl: 1.5 }}
    >
      <Typography>
        {said} <b>{name}</b>
        {why && `: ${why}`}
      </Typography>
      {changed === null && (
        <Typography variant="body2">
          This card was begun anew since: nothing is known of that one.
        </Typography>
      )}
      {changed !== null && changed > 0 && (
        <Typography role="status" variant="body2">
          {changed === 1 ? 'One thing has' : `${changed} things have`} changed there since. Nothing
          is taken over by itself: look, and take what you want.
        </Typography>
      )}
      <Stack direction="row" spacing={1} sx={{ mt: 0.5 }}>
        <Button
          size="small"
          variant="outlined"
          component={Link}
          to={`/pieces/${piece}/card/beside/${other}`}
        >
          Side by side
        </Button>
        <Button size="small" color="inherit" component={Link} to={`/pieces/${other}/card`}>
          Go to it
        </Button>
      </Stack>
    </Box>
  );
}
