import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import { usePiece } from '../../piece/pieceContext';

/** What else is read of the real thing: its profiles, and distances on a picture of it. */
export function ReadOff() {
  const { id, pattern } = usePiece();
  const { length } = pattern.profiles;
  return (
    <Box component="section" aria-label="Profiles and pictures">
      <Typography variant="h3">Profiles and pictures</Typography>
      {length > 0 && (
        <Typography sx={{ mb: 1 }}>
          {pattern.profiles.map(({ name }) => name).join(', ')}
        </Typography>
      )}
      <Stack direction="row" spacing={1} useFlexGap sx={{ flexWrap: 'wrap' }}>
        <Button variant="outlined" component={Link} to={`/pieces/${id}/card/profiles`}>
          {length > 0 ? 'Its profiles' : 'Read a profile'}
        </Button>
        <Button variant="outlined" component={Link} to={`/pieces/${id}/card/measured`}>
          Measure on a picture
        </Button>
        <Button variant="outlined" component={Link} to={`/pieces/${id}/card/crown`}>
          {pattern.crown ? 'Its crown' : 'Curved two ways'}
        </Button>
      </Stack>
    </Box>
  );
}
