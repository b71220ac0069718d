import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { reshapeSide, setSideLength } from '#core/card/edit';
import { edgeLength, segmentOfSide } from '#core/card/outline';
import type { Edge } from '#core/card/pattern';
import { arcOf, bulgeOfRadius, bulgeThrough, isStraight } from '#core/measure/segment';
import { add, distance, left, mix, scale, sub, unit } from '#core/measure/vector';
import { LengthField } from '../../forms/LengthField';
import { usePreferences } from '../../frame/preferences';
import { EdgeStory } from '../../piece/EdgeStory';
import { JointFields } from '../../joint/JointFields';
import { usePiece } from '../../piece/pieceContext';
import { AlongEdge } from './AlongEdge';

/** An edge at the card stage: its shape, what it meets, how it is joined. */
export function EdgePanel({
  edge,
  place,
  touched,
}: {
  edge: Edge;
  place: ReactNode;
  touched: boolean;
}) {
  const { pattern } = usePiece();
  const { show } = usePreferences();
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1 }}>
        <Typography variant="h2">Edge {edge.letter}</Typography>
        <Typography className="figure">{show(edgeLength(pattern, edge))}</Typography>
      </Box>
      {touched && place}
      {edge.sides.length <= MAX_SIDES ? (
        edge.sides.map((side, i) => (
          <SideShape
            key={side}
            sideId={side}
            said={edge.sides.length > 1 ? `Side ${i + 1} of ${edge.sides.length}` : ''}
          />
        ))
      ) : (
        <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
          A traced curve of {edge.sides.length} sides: drag its corners to shape it.
        </Typography>
      )}
      <JointFields edge={edge} />
      <AlongEdge key={edge.id} edge={edge} place={touched ? null : place} />
      <EdgeStory edgeId={edge.id} />
    </>
  );
}

/** More sides than this in one edge are a traced curve, not legs to type. */
const MAX_SIDES = 6;

/** Straight or curved, and how long or how round. */
function SideShape({ sideId, said }: { sideId: string; said: string }) {
  const { patternEditor, pattern } = usePiece();
  const segment = segmentOfSide(pattern, sideId);
  if (!segment) return null;
  const straight = isStraight(segment);
  const chord = distance(segment.a, segment.b);
  const arc = straight ? null : arcOf(segment);
  const rise = straight ? 0 : (segment.bulge * chord) / 2;
  const bow = (riseMm: number) => {
    const middle = mix(segment.a, segment.b, 0.5);
    const via = add(middle, scale(left(unit(sub(segment.b, segment.a))), -riseMm));
    patternEditor.edit(
      reshapeSide(pattern, sideId, bulgeThrough(segment.a, via, segment.b)),
      sideId,
    );
  };
  return (
    <>
      {said && <Typography variant="h3">{said}</Typography>}
      <ToggleButtonGroup
        exclusive
        fullWidth
        value={straight ? 'line' : 'arc'}
        aria-label={said ? `Shape of ${said.toLowerCase()}` : 'Shape of the side'}
        onChange={(_, shape: string | null) =>
          shape && patternEditor.edit(reshapeSide(pattern, sideId, shape === 'line' ? 0 : 0.2))
        }
      >
        <ToggleButton value="line">Straight</ToggleButton>
        <ToggleButton value="arc">Arc</ToggleButton>
      </ToggleButtonGroup>
      {straight ? (
        <LengthField
          label="Length"
          mm={chord}
          min={0.1}
          digits={2}
          onChange={(mm) => {
            const next = mm === null ? null : setSideLength(pattern, sideId, mm);
            if (next?.ok) patternEditor.edit(next.doc, sideId);
          }}
        />
      ) : (
        <Stack direction="row" spacing={1}>
          <LengthField
            label="Radius"
            mm={arc!.radius}
            min={chord / 2}
            onChange={(mm) => {
              const bulge =
                mm && bulgeOfRadius(segment.a, segment.b, mm, segment.bulge > 0 ? 1 : -1);
              if (bulge) patternEditor.edit(reshapeSide(pattern, sideId, bulge));
            }}
          />
          <LengthField
            label="Rise (− is hollow)"
            signed
            mm={rise}
            digits={2}
            onChange={(mm) => mm && bow(mm)}
          />
        </Stack>
      )}
    </>
  );
}
