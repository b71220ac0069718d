import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { byLetter } from '#core/card/outline';
import type { PatternDoc, EdgeOffset } from '#core/card/pattern';
import { Choice } from '../../forms/Choice';
import { LengthField } from '../../forms/LengthField';

type Props = {
  pattern: PatternDoc;
  takeOff: readonly EdgeOffset[];
  onChange: (next: EdgeOffset[]) => void;
};

/**
 * What is taken off along some edges of the other side, edge by edge: below nothing it is added.
 */
export function TakeOffFields({ pattern, takeOff, onChange }: Props) {
  const edges = byLetter(pattern.edges);
  const free = edges.filter(({ id }) => takeOff.every(({ edge }) => edge !== id));
  const [next, setNext] = useState('');
  const chosen = free.some(({ id }) => id === next) ? next : (free[0]?.id ?? '');
  const letterOf = (id: string) => edges.find((edge) => edge.id === id)?.letter ?? '?';
  return (
    <Box sx={{ display: 'grid', gap: 1.2 }}>
      {takeOff.map(({ edge, mm }) => (
        <Box
          key={edge}
          sx={{ display: 'grid', gridTemplateColumns: '1fr auto', gap: 1, alignItems: 'start' }}
        >
          <LengthField
            label={`Taken off along ${letterOf(edge)} (below 0: added)`}
            mm={mm}
            signed
            max={500}
            onChange={(to) =>
              to !== null &&
              onChange(takeOff.map((one) => (one.edge === edge ? { edge, mm: to } : one)))
            }
          />
          <Button
            color="inherit"
            onClick={() => onChange(takeOff.filter((one) => one.edge !== edge))}
          >
            Nothing off
          </Button>
        </Box>
      ))}
      {free.length > 0 && (
        <Box
          sx={{ display: 'grid', gridTemplateColumns: '1fr auto', gap: 1, alignItems: 'center' }}
        >
          <Choice
            label="Along edge"
            value={chosen}
            onChange={setNext}
            options={free.map(({ id, letter }) => [id, letter] as const)}
          />
          <Button
            variant="outlined"
            onClick={() => onChange([...takeOff, { edge: chosen, mm: 3 }])}
          >
            Take something off
          </Button>
        </Box>
      )}
    </Box>
  );
}
