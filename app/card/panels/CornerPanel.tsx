import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { cornerAngle, moveCorner, partEdge, setCornerAngle, setSideLength } from '#core/card/edit';
import { segmentOfSide } from '#core/card/outline';
import type { Corner, PatternDoc, Side } from '#core/card/pattern';
import { segmentLength } from '#core/measure/segment';
import { AngleField } from '../../forms/AngleField';
import { LengthField } from '../../forms/LengthField';
import { usePreferences } from '../../frame/preferences';
import { problemSentence } from '../../frame/sentences';
import { usePiece } from '../../piece/pieceContext';
import { newId } from '../../frame/newId';
import type { Doing } from '../hand/useHand';
import { placeOfCorner } from '../hand/useHand';

/**
 * A corner at the card stage: its two lengths and its angle, where it is; a fold from it; taken
 * out; or made the end of an edge.
 */
export function CornerPanel({ corner, doing }: { corner: Corner; doing: Doing }) {
  const { patternEditor, pattern } = usePiece();
  const { show } = usePreferences();
  const [refused, setRefused] = useState<string | null>(null);
  const put = (next: ReturnType<typeof partEdge>, about = '') => {
    setRefused(next.ok ? null : problemSentence(next.problems[0]!, pattern, show));
    if (next.ok) patternEditor.edit(next.doc, about);
  };
  const within = pattern.edges.some((edge) =>
    edge.sides
      .slice(1)
      .some((s) => pattern.sides.find((side) => side.id === s)?.from === corner.id),
  );
  const before = pattern.sides.find((s) => s.to === corner.id);
  const after = pattern.sides.find((s) => s.from === corner.id);
  const angleDeg = cornerAngle(pattern, corner.id);
  const place = placeOfCorner(pattern, corner.id);
  const move = (x: number, y: number) =>
    patternEditor.edit(moveCorner(pattern, corner.id, [x, y]), corner.id);
  return (
    <>
      <Typography variant="h2">Corner {pattern.corners.indexOf(corner) + 1}</Typography>
      <Stack direction="row" spacing={1}>
        {(
          [
            ['to here', before],
            ['from here', after],
          ] as const
        ).map(([way, side]) =>
          side?.shape.kind === 'line' ? (
            <LengthField
              key={way}
              label={`${nameOf(pattern, side)} ${way}`}
              mm={segmentLength(segmentOfSide(pattern, side.id)!)}
              min={0.1}
              digits={2}
              onChange={(mm) => mm !== null && put(setSideLength(pattern, side.id, mm), side.id)}
            />
          ) : null,
        )}
      </Stack>
      {angleDeg !== null && (
        <AngleField
          label="Angle of metal (90 square, over 180 hollow)"
          angleDeg={angleDeg}
          min={0.1}
          max={359.9}
          wrong="An angle over 0 and under 360: 90 is square, 180 straight on."
          onChange={(deg) => put(setCornerAngle(pattern, corner.id, deg), `angle ${corner.id}`)}
        />
      )}
      <Stack direction="row" spacing={1}>
        <LengthField
          label="Across, from the left"
          signed
          mm={corner.x}
          digits={2}
          onChange={(mm) => mm !== null && move(mm, corner.y)}
        />
        <LengthField
          label="Up, from the bench"
          signed
          mm={corner.y}
          digits={2}
          onChange={(mm) => mm !== null && move(corner.x, mm)}
        />
      </Stack>
      {refused && (
        <Typography role="alert" sx={{ color: 'var(--torch)' }}>
          {refused}
        </Typography>
      )}
      {place && (
        <Button variant="outlined" onClick={() => doing.foldFrom(place)}>
          Fold from here
        </Button>
      )}
      {within && (
        <Button variant="outlined" onClick={() => put(partEdge(pattern, corner.id, newId))}>
          Part the edge here
        </Button>
      )}
      <Button
        variant="outlined"
        disabled={pattern.corners.length <= 3}
        onClick={() => doing.takeOut(corner.id)}
      >
        Take this corner out
      </Button>
    </>
  );
}

/** A side by its edge: `B`, or `B, side 2` where the edge has several. */
function nameOf(pattern: PatternDoc, side: Side): string {
  const edge = pattern.edges.find((e) => e.sides.includes(side.id));
  if (!edge) return '';
  return edge.sides.length > 1
    ? `${edge.letter}, side ${edge.sides.indexOf(side.id) + 1},`
    : edge.letter;
}
