import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { ReactNode } from 'react';
import { joinEdges } from '#core/card/edit';
import { segmentsOfEdge } from '#core/card/outline';
import type { Edge, PatternDoc } from '#core/card/pattern';
import { isStraight } from '#core/measure/segment';
import { usePreferences } from '../../frame/preferences';
import { problemSentence } from '../../frame/sentences';
import { usePiece } from '../../piece/pieceContext';
import { FlangeFields } from './FlangeFields';
import { BeadAlong, FoldAlong } from './LayAlong';

/** What is laid or changed along an edge, one at a time. */
type Along = 'fold' | 'flange' | 'bead' | 'place';

/**
 * What can be laid along an edge: one of them is open. An edge that has a flange shows it; else the
 * commonest is first, a fold where there is a straight side for it. `place`: the fields for a place
 * along the edge, null where they stand elsewhere.
 */
export function AlongEdge({ edge, place }: { edge: Edge; place: ReactNode }) {
  const { pattern } = usePiece();
  const folds = segmentsOfEdge(pattern, edge).some(isStraight);
  const [chosen, setChosen] = useState<Along | null>(null);
  const open = chosen ?? (edge.flange || !folds ? 'flange' : 'fold');
  const next = nextEdge(pattern, edge);
  return (
    <Box component="section" aria-label="Along it" sx={{ display: 'grid', gap: 1.5 }}>
      <ToggleButtonGroup
        exclusive
        fullWidth
        value={open}
        aria-label="What runs along it"
        onChange={(_, along: Along | null) => along && setChosen(along)}
      >
        {folds && <ToggleButton value="fold">Fold</ToggleButton>}
        <ToggleButton value="flange">Flange</ToggleButton>
        <ToggleButton value="bead">Bead</ToggleButton>
        {(place !== null || next) && (
          <ToggleButton value="place">{place === null ? 'Join' : 'Place'}</ToggleButton>
        )}
      </ToggleButtonGroup>
      {open === 'fold' && <FoldAlong edge={edge} />}
      {open === 'flange' && <FlangeFields edge={edge} />}
      {open === 'bead' && <BeadAlong edge={edge} />}
      {open === 'place' && place}
      {open === 'place' && next && <OneWith edge={edge} next={next} />}
    </Box>
  );
}

/** The edge that follows in outline order, unless the card has only one. */
const nextEdge = (pattern: PatternDoc, edge: Edge): Edge | undefined =>
  pattern.edges.length > 1
    ? pattern.edges[(pattern.edges.indexOf(edge) + 1) % pattern.edges.length]
    : undefined;

/** Two neighbours made one edge; why they can't be is told. */
function OneWith({ edge, next }: { edge: Edge; next: Edge }) {
  const { patternEditor, pattern } = usePiece();
  const { show } = usePreferences();
  const [refused, setRefused] = useState<string | null>(null);
  const join = () => {
    const joined = joinEdges(pattern, edge.id);
    setRefused(joined.ok ? null : problemSentence(joined.problems[0]!, pattern, show));
    if (joined.ok) patternEditor.edit(joined.doc);
  };
  return (
    <Box>
      {refused && (
        <Typography role="alert" sx={{ color: 'var(--torch)' }}>
          {refused}
        </Typography>
      )}
      <Button variant="outlined" onClick={join}>
        Make one with edge {next.letter}
      </Button>
      <Typography variant="body2" sx={{ color: 'var(--pencil)', mt: 0.5 }}>
        The joint of {edge.letter} stays. What was read and welded on {next.letter} stays in the
        record, told under {edge.letter}.
      </Typography>
    </Box>
  );
}
