import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import type { HolePattern } from '#core/card/holePattern';
import { withHolePattern } from '#core/card/holePattern';
import type { Vec } from '#core/measure/vector';
import { AngleField } from '../../forms/AngleField';
import { Choice } from '../../forms/Choice';
import { LengthField } from '../../forms/LengthField';
import { FoldAway } from '../../frame/FoldAway';
import { usePiece } from '../../piece/pieceContext';
import { newId } from '../../frame/newId';

const KINDS = [
  ['row', 'A row from here'],
  ['circle', 'A circle about here'],
  ['rectangle', 'A rectangle about here'],
] as const;
const COUNTS = Array.from({ length: 23 }, (_, i) => String(i + 2));

/**
 * Holes that belong together, put in as one: ruled to stay so when one of them is dragged or
 * drilled larger.
 */
export function HolePatternForm({ at, onDone }: { at: Vec; onDone: () => void }) {
  const { pattern, patternEditor } = usePiece();
  const [kind, setKind] = useState<HolePattern['kind']>('row');
  const [count, setCount] = useState(4);
  const [first, setFirst] = useState(50);
  const [second, setSecond] = useState(40);
  const [diameterMm, setDiameter] = useState(8);
  const [turnDeg, setTurn] = useState(0);
  const made = (): HolePattern => {
    const rest = { at, turnDeg, diameterMm };
    if (kind === 'row') return { ...rest, kind, count, pitchMm: first };
    if (kind === 'circle') return { ...rest, kind, count, acrossMm: first };
    return { ...rest, kind, longMm: first, wideMm: second };
  };
  return (
    <FoldAway title="A pattern of holes here">
      <Box sx={{ display: 'grid', gap: 1.2 }}>
        <Choice label="Holes in" value={kind} onChange={setKind} options={KINDS} />
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.2, alignItems: 'end' }}>
          {kind !== 'rectangle' && (
            <Choice
              label="How many"
              value={String(count)}
              onChange={(next) => setCount(Number(next))}
              options={COUNTS.map((n) => [n, n] as const)}
            />
          )}
          <LengthField
            label={kind === 'row' ? 'Pitch' : kind === 'circle' ? 'Circle, across' : 'Long'}
            mm={first}
            min={1}
            max={20_000}
            onChange={(mm) => mm && setFirst(mm)}
          />
          {kind === 'rectangle' && (
            <LengthField
              label="Wide"
              mm={second}
              min={1}
              max={20_000}
              onChange={(mm) => mm && setSecond(mm)}
            />
          )}
          <LengthField
            label="Each hole, across"
            mm={diameterMm}
            min={0.5}
            max={2000}
            onChange={(mm) => mm && setDiameter(mm)}
          />
          <AngleField
            label="Turned by"
            angleDeg={turnDeg}
            min={-180}
            max={180}
            wrong="Degrees, from −180 to 180."
            onChange={setTurn}
          />
        </Box>
        <Button
          variant="outlined"
          onClick={() => {
            patternEditor.edit(withHolePattern(pattern, made(), newId));
            onDone();
          }}
        >
          Put them in
        </Button>
      </Box>
    </FoldAway>
  );
}
