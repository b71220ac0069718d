import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Slider from '@mui/material/Slider';
import Typography from '@mui/material/Typography';
import { usePiece } from '../../piece/pieceContext';

/** The picture that a card was traced from: how much of it shows through, and taking it away. */
export function FadeUnderlay({
  opacity,
  setOpacity,
  takeAway,
}: {
  opacity: number;
  setOpacity: (opacity: number) => void;
  takeAway: () => void;
}) {
  const { pattern } = usePiece();
  return (
    <Box sx={{ mt: 2.5, px: 0.5 }}>
      <Typography variant="h3">The picture behind the card</Typography>
      {pattern.turned ? (
        <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
          It shows the card before it was turned over, and is not laid under it.
        </Typography>
      ) : (
        <Slider
          aria-label="How much of the picture shows"
          value={Math.round(opacity * 100)}
          onChange={(_, value) => setOpacity((value as number) / 100)}
          sx={{ mx: 1, width: 'calc(100% - 16px)' }}
        />
      )}
      <Button variant="outlined" onClick={takeAway}>
        Take the picture away
      </Button>
    </Box>
  );
}
