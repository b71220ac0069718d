import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import { Notices } from './Notices';
import { usePiece } from './pieceContext';

/** What a stage shows of a piece that was not made here while its edges have no names. */
function NoEdges() {
  const { id } = usePiece();
  return (
    <Box sx={{ flex: 1, display: 'grid', placeItems: 'center', p: 3 }}>
      <Stack spacing={2} sx={{ maxWidth: 560 }}>
        <Typography variant="h1">First name its edges</Typography>
        <Typography>
          Gaps are read and welds are made edge by edge. Measure them with a tape, give each its
          length and what it meets, and this opens.
        </Typography>
        <Box>
          <Button variant="contained" size="large" component={Link} to={`/pieces/${id}/cutdown`}>
            Name the edges
          </Button>
        </Box>
      </Stack>
    </Box>
  );
}

/** What a stage shows while the card gives no blank: why, and the way back to mend it. */
export function NoBlank() {
  const { id, facts, patternEditor, pattern, problems, development } = usePiece();
  if (facts.kind !== 'made' && pattern.sides.length === 0) return <NoEdges />;
  const empty = pattern.sides.length === 0 && problems.every((p) => p.code === 'outline-empty');
  return (
    <Box sx={{ flex: 1, display: 'grid', placeItems: 'center', p: 3 }}>
      <Stack spacing={2} sx={{ maxWidth: 560 }}>
        <svg width="150" height="96" viewBox="0 0 150 96" aria-hidden>
          <path
            d="M8 20h92l14 16v44H8z"
            fill="var(--manila)"
            stroke="var(--manila-edge)"
            strokeWidth="2"
          />
          <path d="M8 56h106" stroke="var(--card-pencil)" strokeDasharray="9 4" strokeWidth="1.6" />
          <path d="M122 48h18m-7-7 7 7-7 7" stroke="var(--torch)" strokeWidth="3" fill="none" />
        </svg>
        <Typography variant="h1">
          {empty ? 'First the card' : 'The card wants mending first'}
        </Typography>
        <Typography>
          {empty
            ? 'The blank is reckoned from the card: put its outline and folds in, and it stands here.'
            : 'There is no blank until this is put right:'}
        </Typography>
        {!empty && !development.ok && (
          <Notices problems={problems.length > 0 ? problems : development.problems} />
        )}
        <Box>
          <Button variant="contained" size="large" component={Link} to={`/pieces/${id}/card`}>
            {empty ? 'Put the card in' : 'Mend the card'}
          </Button>
          {!empty && patternEditor.canUndo && (
            <Button variant="outlined" size="large" sx={{ ml: 1 }} onClick={patternEditor.lastGood}>
              Back to the last card that gave a blank
            </Button>
          )}
        </Box>
      </Stack>
    </Box>
  );
}
