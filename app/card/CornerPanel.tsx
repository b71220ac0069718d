import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { moveCorner, partEdge, removeCorner } from '#core/card/edit';
import type { Corner } from '#core/card/pattern';
import { LengthField } from '../forms/LengthField';
import { usePick, usePiece } from '../piece/pieceContext';
import { newId } from './newId';

/** A corner at the card stage: where it is; taken out; or made the end of an edge. */
export function CornerPanel({ corner }: { corner: Corner }) {
  const { patternEditor, pattern } = usePiece();
  const { setPick } = usePick();
  const within = pattern.edges.some((edge) =>
    edge.sides.slice(1).some((s) => pattern.sides.find((side) => side.id === s)?.from === corner.id),
  );
  // Both buttons stand only where the edit can be made; should it be refused all the same, the card stays as it is.
  const put = (next: ReturnType<typeof partEdge>) => next.ok && patternEditor.edit(next.doc);
  return (
    <>
      <Typography variant="h2">Corner {pattern.corners.indexOf(corner) + 1}</Typography>
      <Stack direction="row" spacing={1}>
        <LengthField
          label="Across, from the left"
          signed
          mm={corner.x}
          digits={2}
          onChange={(mm) =>
            mm !== null && patternEditor.edit(moveCorner(pattern, corner.id, [mm, corner.y]), corner.id)
          }
        />
        <LengthField
          label="Up, from the bench"
          signed
          mm={corner.y}
          digits={2}
          onChange={(mm) =>
            mm !== null && patternEditor.edit(moveCorner(pattern, corner.id, [corner.x, mm]), corner.id)
          }
        />
      </Stack>
      {within && (
        <Button variant="outlined" onClick={() => put(partEdge(pattern, corner.id, newId))}>
          Part the edge here
        </Button>
      )}
      <Button
        variant="outlined"
        disabled={pattern.corners.length <= 3}
        onClick={() => {
          setPick(null);
          put(removeCorner(pattern, corner.id));
        }}
      >
        Take this corner out
      </Button>
    </>
  );
}
