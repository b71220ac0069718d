import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { keptEdges, likelyPairs } from '#core/card/keepEdges';
import { byLetter, edgeLength, outlineOf, segmentsOfEdge } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { box } from '#core/measure/path';
import { pointAlong, runLength } from '#core/measure/run';
import { Drawing } from '../../drawing/Drawing';
import { Figure, usePathData } from '../../drawing/marks';
import { Choice } from '../../forms/Choice';
import { usePreferences } from '../../frame/preferences';
import { usePiece } from '../../piece/pieceContext';

/** A card drawn for a piece whose edges have names already: which of its edges each of them is. */
export function KeepEdges({
  drawn,
  onDone,
  onBack,
}: {
  drawn: PatternDoc;
  onDone: (card: PatternDoc) => void;
  onBack: () => void;
}) {
  const { pattern, meets } = usePiece();
  const { show } = usePreferences();
  const [pairs, setPairs] = useState(() => likelyPairs(pattern, drawn));
  const card = keptEdges(drawn, pattern, pairs);
  const bounds = box(outlineOf(drawn).path);
  return (
    <Box
      sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: { xs: 'column', md: 'row' } }}
    >
      <Box sx={{ flex: 1, position: 'relative', minHeight: 260 }}>
        <Drawing bounds={bounds} ground="card" label="The card and its edges">
          <Lettered card={card} />
        </Drawing>
      </Box>
      <Box
        component="aside"
        aria-label="Drawer"
        sx={{
          flex: { md: '0 0 440px' },
          bgcolor: 'var(--panel)',
          borderLeft: { md: '1.5px solid var(--rule)' },
          p: 2.5,
          overflowY: 'auto',
        }}
      >
        <Typography variant="h2" gutterBottom>
          Which edge is which?
        </Typography>
        <Typography sx={{ mb: 2 }}>
          What was read and welded stays with its edge. Matched by their lengths: look at the
          letters on the drawing, and put right what is wrong.
        </Typography>
        <Stack spacing={1.6}>
          {byLetter(pattern.edges).map((edge) => (
            <Choice
              key={edge.id}
              label={[`Edge ${edge.letter}, ${show(edgeLength(pattern, edge))}`, meets(edge.id)]
                .filter(Boolean)
                .join(', ')}
              value={pairs.get(edge.id)!}
              onChange={(to) => setPairs(new Map(pairs).set(edge.id, to))}
              options={drawn.edges.map(
                (one, i) =>
                  [
                    one.id,
                    `${card.edges[i]!.letter} on the drawing, ${show(edgeLength(drawn, one))}`,
                  ] as const,
              )}
            />
          ))}
          <Button variant="contained" size="large" onClick={() => onDone(card)}>
            Make the card
          </Button>
          <Button color="inherit" sx={{ alignSelf: 'start' }} onClick={onBack}>
            Back to the drawing
          </Button>
        </Stack>
      </Box>
    </Box>
  );
}

/** A card with its letters, each on the middle of its edge. */
function Lettered({ card }: { card: PatternDoc }) {
  const data = usePathData();
  return (
    <g>
      <path
        d={data(outlineOf(card).path)}
        fill="var(--manila)"
        stroke="var(--manila-edge)"
        strokeWidth={2}
      />
      {card.edges.map((edge) => {
        const run = segmentsOfEdge(card, edge);
        const middle = pointAlong(run, runLength(run) / 2);
        return middle ? (
          <Figure
            key={edge.id}
            at={middle}
            text={edge.letter}
            size={20}
            colour="var(--card-pencil)"
            ground="var(--manila)"
          />
        ) : null;
      })}
    </g>
  );
}
