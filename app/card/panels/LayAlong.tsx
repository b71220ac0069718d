import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { beadLine } from '#core/card/beadPath';
import { chordAlong } from '#core/card/foldPlace';
import { segmentOfSide } from '#core/card/outline';
import type { Edge } from '#core/card/pattern';
import type { Problem } from '#core/measure/result';
import { isStraight } from '#core/measure/segment';
import { usualLength } from '#core/measure/length';
import { LengthField } from '../../forms/LengthField';
import { usePreferences } from '../../frame/preferences';
import { problemSentence } from '../../frame/sentences';
import { usePick, usePiece } from '../../piece/pieceContext';
import { newBead } from '../hand/newBead';
import { newFold } from '../hand/newFold';
import { newId } from '../../frame/newId';

/** Something laid so far in along an edge; why it could not be is told. */
function LayAlong({
  label,
  button,
  first,
  lay,
}: {
  label: string;
  button: string;
  first: number;
  lay: (mm: number) => Problem | null;
}) {
  const { pattern } = usePiece();
  const { show, unit } = usePreferences();
  const [mm, setMm] = useState(usualLength(first, unit));
  const [missed, setMissed] = useState<string | null>(null);
  const tried = () => {
    const problem = lay(mm);
    setMissed(problem && problemSentence(problem, pattern, show));
  };
  return (
    <Box>
      <Stack direction="row" spacing={1} sx={{ alignItems: 'flex-end' }}>
        <LengthField label={label} mm={mm} min={0.1} onChange={(next) => next && setMm(next)} />
        <Button variant="outlined" sx={{ flexShrink: 0 }} onClick={tried}>
          {button}
        </Button>
      </Stack>
      {missed && (
        <Typography role="alert" sx={{ color: 'var(--torch)' }}>
          {missed}
        </Typography>
      )}
    </Box>
  );
}

/** Laying a fold so far in along an edge: a flange, a lip, a step. */
export function FoldAlong({ edge }: { edge: Edge }) {
  const { patternEditor, pattern } = usePiece();
  const { setPick } = usePick();
  const straight = edge.sides.find((side) => {
    const segment = segmentOfSide(pattern, side);
    return segment && isStraight(segment);
  });
  if (!straight) return null;
  const lay = (inMm: number): Problem | null => {
    const found = chordAlong(pattern, straight, inMm);
    if (!found.ok) return found.problems[0] ?? null;
    const id = newId();
    const fold = newFold(pattern, id, { kind: 'along', side: straight, inMm });
    patternEditor.edit({ ...pattern, folds: [...pattern.folds, fold] });
    setPick({ kind: 'fold', id });
    return null;
  };
  return <LayAlong label="A fold along it, in by" button="Lay the fold" first={20} lay={lay} />;
}

/** Laying a bead so far in along an edge, straight or curved. */
export function BeadAlong({ edge }: { edge: Edge }) {
  const { unit } = usePreferences();
  const { patternEditor, pattern } = usePiece();
  const { setPick } = usePick();
  const lay = (inMm: number): Problem | null => {
    const bead = newBead(
      pattern,
      newId(),
      {
        kind: 'along',
        edge: edge.id,
        inMm,
        startMm: 0,
        endMm: 0,
      },
      unit,
    );
    if (!beadLine(pattern, bead)) return { code: 'bead-off-card', about: ['the bead'] };
    patternEditor.edit({ ...pattern, beads: [...pattern.beads, bead] });
    setPick({ kind: 'bead', id: bead.id });
    return null;
  };
  return <LayAlong label="A bead along it, in by" button="Lay the bead" first={30} lay={lay} />;
}
