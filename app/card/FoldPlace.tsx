import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { setFold } from '#core/card/edit';
import { alongEdge, besideFold, chordAlong, placeAlong } from '#core/card/foldPlace';
import type { Edge, Fold, PatternDoc, Place } from '#core/card/pattern';
import { Choice } from '../shell/Choice';
import { LengthField } from '../shell/LengthField';
import { usePiece } from '../shell/pieceContext';
import { usePreferences } from '../shell/preferences';
import { problemSentence } from '../shell/sentences';

/** Where a fold lies, to be typed: so far in from an edge that it runs along, or so far along the edges it ends on. */
export function FoldPlace({ fold }: { fold: Fold }) {
  const { card, pattern } = usePiece();
  const beside = besideFold(pattern, fold);
  return (
    <>
      {beside.length > 0 && <FromEdge fold={fold} beside={beside} />}
      <Stack direction="row" spacing={1}>
        {(['from', 'to'] as const).map((end) => (
          <End
            key={end}
            pattern={pattern}
            place={fold[end]}
            begins={end === 'from'}
            onChange={(place) => card.edit(setFold(pattern, fold.id, { [end]: place }))}
          />
        ))}
      </Stack>
    </>
  );
}

function FromEdge({ fold, beside }: { fold: Fold; beside: ReturnType<typeof besideFold> }) {
  const { card, pattern } = usePiece();
  const { show } = usePreferences();
  const [chosen, setChosen] = useState<string | null>(null);
  const [missed, setMissed] = useState<string | null>(null);
  const from = beside.find((b) => b.side === chosen) ?? beside[0]!;
  const move = (mm: number | null) => {
    if (mm === null) return;
    const found = chordAlong(pattern, from.side, mm);
    setMissed(found.ok ? null : problemSentence(found.problems[0]!, pattern, show));
    if (!found.ok) return;
    setChosen(from.side);
    card.edit(setFold(pattern, fold.id, turnedAs(pattern, fold, found.chord)));
  };
  return (
    <>
      <Stack direction="row" spacing={1}>
        <LengthField label={`In from edge ${from.letter}`} mm={from.offMm} min={0.1} digits={2} onChange={move} />
        {beside.length > 1 && (
          <Choice
            label="Measured from"
            value={from.side}
            onChange={setChosen}
            options={beside.map((b) => [b.side, `Edge ${b.letter}`] as const)}
          />
        )}
      </Stack>
      {missed && (
        <Typography role="alert" sx={{ color: 'var(--torch)' }}>
          {missed}
        </Typography>
      )}
    </>
  );
}

/** The new chord run the same way as the fold it replaces, so that `from` stays on the side it was on. */
function turnedAs(pattern: PatternDoc, fold: Fold, chord: { from: Place; to: Place }): { from: Place; to: Place } {
  const edgeOf = (place: Place) => alongEdge(pattern, place)?.edge.id;
  const crossed = edgeOf(fold.from) === edgeOf(chord.to) || edgeOf(fold.to) === edgeOf(chord.from);
  return crossed ? { from: chord.to, to: chord.from } : chord;
}

function End({
  pattern,
  place,
  begins,
  onChange,
}: {
  pattern: PatternDoc;
  place: Place;
  begins: boolean;
  onChange: (place: Place) => void;
}) {
  const found = alongEdge(pattern, place);
  if (!found) return null;
  const { edge, atMm } = found;
  return (
    <LengthField
      label={`${begins ? 'Begins' : 'Ends'} on ${edge.letter}, from ${cornerBefore(pattern, edge)}`}
      mm={atMm}
      min={0}
      digits={2}
      onChange={(mm) => {
        const next = mm === null ? null : placeAlong(pattern, edge, mm);
        if (next) onChange(next);
      }}
    />
  );
}

/** The corner an edge is measured from, called by the two edges that meet there. */
export function cornerBefore(pattern: PatternDoc, edge: Edge): string {
  const i = pattern.edges.indexOf(edge);
  const before = pattern.edges[(i - 1 + pattern.edges.length) % pattern.edges.length]!;
  return `${before.letter}/${edge.letter}`;
}
