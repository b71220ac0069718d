import Box from '@mui/material/Box';
import type { EndCut } from '#core/blank/stripEnds';
import type { Flange, FlangeEnd } from '#core/card/pattern';
import { degrees } from '#core/measure/angle';
import { AngleField } from '../../forms/AngleField';
import { Choice } from '../../forms/Choice';
import { LengthField } from '../../forms/LengthField';
import { FoldAway } from '../../frame/FoldAway';
import { usePreferences } from '../../frame/preferences';
import { usePiece } from '../../piece/pieceContext';

type Which = 'start' | 'end';
type Ends = NonNullable<Flange['ends']>;

/** How an end lies in the flat, in words: square, mitred, set in for a neighbour. */
function endSaid(cut: EndCut | null, show: (mm: number) => string): string {
  if (!cut) return 'goes on';
  const lean = cut.lean === 0 ? 'square' : `mitred ${Math.round(degrees(Math.atan(cut.lean)))}°`;
  return cut.insetMm > 0.005 ? `${lean}, ${show(cut.insetMm)} in` : lean;
}

/** How a flange ends at either end of its edge: shown as it is found, and a choice. */
export function FlangeEnds({
  edge,
  flange,
  onChange,
}: {
  edge: string;
  flange: Flange;
  onChange: (ends: Ends | undefined) => void;
}) {
  const { development } = usePiece();
  const { show } = usePreferences();
  const found = development.ok
    ? development.development.edges.find(({ id }) => id === edge)?.ends
    : undefined;
  const said = found
    ? `Its ends: ${endSaid(found.start, show)}; ${endSaid(found.end, show)}`
    : 'Its ends';
  const put = (which: Which, next: FlangeEnd | undefined) => {
    const { [which]: _, ...other } = flange.ends ?? {};
    const ends = next ? { ...other, [which]: next } : other;
    onChange(Object.keys(ends).length > 0 ? ends : undefined);
  };
  return (
    <FoldAway title={said}>
      <Box sx={{ display: 'grid', gap: 1.2 }}>
        {(['start', 'end'] as const).map((which) => (
          <OneEnd
            key={which}
            which={which}
            end={flange.ends?.[which]}
            wideMm={flange.widthMm}
            onChange={(next) => put(which, next)}
          />
        ))}
      </Box>
    </FoldAway>
  );
}

function OneEnd({
  which,
  end,
  wideMm,
  onChange,
}: {
  which: Which;
  end: FlangeEnd | undefined;
  wideMm: number;
  onChange: (next: FlangeEnd | undefined) => void;
}) {
  const begin: Record<FlangeEnd['kind'], FlangeEnd> = {
    square: { kind: 'square' },
    mitred: { kind: 'mitred', deg: 45 },
    'run-out': { kind: 'run-out', overMm: 2 * wideMm },
  };
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: end && end.kind !== 'square' ? '1fr 1fr' : '1fr',
        gap: 1,
        alignItems: 'end',
      }}
    >
      <Choice
        label={which === 'start' ? 'At its start' : 'At its end'}
        value={end?.kind ?? 'asked'}
        onChange={(kind) => onChange(kind === 'asked' ? undefined : begin[kind])}
        options={[
          ['asked', 'As its neighbour asks'],
          ['square', 'Square to the edge'],
          ['mitred', 'Mitred'],
          ['run-out', 'Runs out to nothing'],
        ]}
      />
      {end?.kind === 'mitred' && (
        <AngleField
          label="Back from square by"
          angleDeg={end.deg}
          min={0.1}
          max={85}
          wrong="Degrees, over 0 and up to 85."
          onChange={(deg) => onChange({ kind: 'mitred', deg })}
        />
      )}
      {end?.kind === 'run-out' && (
        <LengthField
          label="Over"
          mm={end.overMm}
          min={0}
          onChange={(mm) => mm !== null && onChange({ kind: 'run-out', overMm: mm })}
        />
      )}
    </Box>
  );
}
