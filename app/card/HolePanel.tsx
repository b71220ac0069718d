import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { setHole, without } from '#core/card/edit';
import type { Hole } from '#core/card/pattern';
import { LengthField } from '../forms/LengthField';
import { usePick, usePiece } from '../piece/pieceContext';

/** A hole at the card stage: how big and where, from the card's own zero. */
export function HolePanel({ hole }: { hole: Hole }) {
  const { patternEditor, pattern } = usePiece();
  const { setPick } = usePick();
  const change = (next: Partial<Hole>) => patternEditor.edit(setHole(pattern, hole.id, next));
  return (
    <>
      <Typography variant="h2">Hole {pattern.holes.indexOf(hole) + 1}</Typography>
      <LengthField
        label="Diameter"
        mm={hole.diameterMm}
        min={0.5}
        onChange={(mm) => mm && change({ diameterMm: mm })}
      />
      <LengthField
        label="Or what a tape reads round a thing of its size"
        mm={Math.PI * hole.diameterMm}
        min={1.5}
        onChange={(mm) => mm && change({ diameterMm: mm / Math.PI })}
      />
      <Stack direction="row" spacing={1}>
        <LengthField
          label="Across, from the left"
          signed
          mm={hole.x}
          onChange={(mm) => mm !== null && change({ x: mm })}
        />
        <LengthField
          label="Up, from the bench"
          signed
          mm={hole.y}
          onChange={(mm) => mm !== null && change({ y: mm })}
        />
      </Stack>
      <Button
        variant="outlined"
        onClick={() => {
          setPick(null);
          patternEditor.edit(without(pattern, hole.id));
        }}
      >
        Take this hole off
      </Button>
    </>
  );
}
