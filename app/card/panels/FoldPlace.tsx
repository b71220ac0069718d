import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { setFold } from '#core/card/edit';
import type { Chord } from '#core/card/foldPlace';
import { alongEdge, besideFold, chordAlong, chordOf, placeAlong } from '#core/card/foldPlace';
import type { Spot } from '#core/card/outline';
import type { Edge, Fold, PatternDoc, Place } from '#core/card/pattern';
import { Choice } from '../../forms/Choice';
import { LengthField } from '../../forms/LengthField';
import { usePreferences } from '../../frame/preferences';
import { problemSentence } from '../../frame/sentences';
import { usePiece } from '../../piece/pieceContext';

/**
 * Where a fold lies, to be typed: so far in from an edge that it runs along, or so far along the
 * edges it ends on.
 */
export function FoldPlace({ fold }: { fold: Fold }) {
  const { patternEditor, pattern } = usePiece();
  const beside = besideFold(pattern, fold);
  const chord = chordOf(pattern, fold);
  return (
    <>
      {beside.length > 0 && <FromEdge fold={fold} beside={beside} />}
      <Stack direction="row" spacing={1}>
        {chord &&
          (['from', 'to'] as const).map((end) => (
            <End
              key={end}
              pattern={pattern}
              spot={chord[end]}
              begins={end === 'from'}
              onChange={(place) =>
                patternEditor.edit(
                  setFold(pattern, fold.id, { path: withEnd(fold, chord, end, place) }),
                  fold.id,
                )
              }
            />
          ))}
      </Stack>
    </>
  );
}

function FromEdge({ fold, beside }: { fold: Fold; beside: ReturnType<typeof besideFold> }) {
  const { patternEditor, pattern } = usePiece();
  const { show } = usePreferences();
  const [chosen, setChosen] = useState<string | null>(null);
  const [missed, setMissed] = useState<string | null>(null);
  const meant = fold.path.kind === 'along' ? fold.path.side : null;
  const from = beside.find((b) => b.side === (chosen ?? meant)) ?? beside[0]!;
  const move = (mm: number | null) => {
    if (mm === null) return;
    const found = chordAlong(pattern, from.side, mm);
    setMissed(found.ok ? null : problemSentence(found.problems[0]!, pattern, show));
    if (!found.ok) return;
    setChosen(from.side);
    patternEditor.edit(
      setFold(pattern, fold.id, { path: { kind: 'along', side: from.side, inMm: mm } }),
      fold.id,
    );
  };
  return (
    <>
      <Stack direction="row" spacing={1}>
        <LengthField
          label={`In from edge ${from.letter}`}
          mm={from.offMm}
          min={0.1}
          digits={2}
          onChange={move}
        />
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

/** The fold's path with one end meant anew; the other stays as it was meant, or where it lies. */
function withEnd(fold: Fold, chord: Chord, end: 'from' | 'to', place: Place): Fold['path'] {
  const { path } = fold;
  const asItLies = ({ side, at }: Spot): Place => ({ side, share: at });
  const ends =
    path.kind === 'between'
      ? path
      : { kind: 'between' as const, from: asItLies(chord.from), to: asItLies(chord.to) };
  return { ...ends, [end]: place };
}

function End({
  pattern,
  spot,
  begins,
  onChange,
}: {
  pattern: PatternDoc;
  spot: Spot;
  begins: boolean;
  onChange: (place: Place) => void;
}) {
  const found = alongEdge(pattern, spot);
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
