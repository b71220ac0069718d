import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { alongEdge } from '#core/card/foldPlace';
import { byLetter, edgeLength } from '#core/card/outline';
import { Choice } from '../../forms/Choice';
import { LengthField } from '../../forms/LengthField';
import { usePreferences } from '../../frame/preferences';
import { usePiece } from '../../piece/pieceContext';
import { cornerBefore } from './FoldPlace';
import { HolePatternForm } from './HolePatternForm';
import type { Hand } from '../hand/hand';
import { placeOn } from '../hand/hand';
import type { Doing } from '../hand/useHand';

/**
 * A place inside the card, to be typed where the finger was not exact enough, and what can be done
 * there.
 */
export function InsidePanel({
  hand,
  doing,
}: {
  hand: Extract<Hand, { kind: 'inside' }>;
  doing: Doing;
}) {
  const [across, up] = hand.at;
  return (
    <>
      <Typography variant="h2">On the card, here</Typography>
      <Stack direction="row" spacing={1}>
        <LengthField
          label="Across, from the left"
          signed
          digits={2}
          mm={across}
          onChange={(mm) => mm !== null && doing.take({ kind: 'inside', at: [mm, up] })}
        />
        <LengthField
          label="Up, from the bench"
          signed
          digits={2}
          mm={up}
          onChange={(mm) => mm !== null && doing.take({ kind: 'inside', at: [across, mm] })}
        />
      </Stack>
      <Button variant="contained" onClick={doing.hole}>
        Hole here
      </Button>
      <Button variant="outlined" onClick={doing.bead}>
        Bead through here, along the nearest edge
      </Button>
      <Button variant="outlined" onClick={doing.staysPut}>
        This face stays put
      </Button>
      <HolePatternForm at={hand.at} onDone={() => doing.take(null)} />
    </>
  );
}

/**
 * A place on an edge, measured from its corner, and what can be done there. Without one in hand, at
 * its middle.
 */
export function PlaceRow({
  edgeId,
  hand,
  doing,
}: {
  edgeId: string;
  hand: Hand | null;
  doing: Doing;
}) {
  const { pattern } = usePiece();
  const edge = pattern.edges.find((e) => e.id === edgeId);
  if (!edge) return null;
  const at =
    hand?.kind === 'place' && hand.edge === edgeId
      ? hand.at
      : placeOn(pattern, edge, edgeLength(pattern, edge) / 2);
  const mm = at ? (alongEdge(pattern, at.spot)?.atMm ?? 0) : 0;
  const take = (along: number | null): boolean => {
    const place = along === null ? null : placeOn(pattern, edge, along);
    if (place) doing.take({ kind: 'place', edge: edge.id, at: place });
    return place !== null;
  };
  return (
    <>
      <LengthField
        label={`A place along it, from ${cornerBefore(pattern, edge)}`}
        mm={mm}
        min={0}
        max={edgeLength(pattern, edge)}
        digits={2}
        onChange={take}
      />
      <Stack direction="row" spacing={1}>
        <Button variant="outlined" fullWidth onClick={() => at && doing.corner(at)}>
          Corner here
        </Button>
        <Button variant="outlined" fullWidth onClick={() => at && doing.foldFrom(at)}>
          Fold from here
        </Button>
      </Stack>
    </>
  );
}

/** A place as near to its edge's first corner as this is on the corner, mm. */
const ON_CORNER_MM = 0.005;

/** A fold that was begun: where it ends is touched, or chosen and typed here. */
export function FoldPanelInHand({
  hand,
  doing,
}: {
  hand: Extract<Hand, { kind: 'fold' }>;
  doing: Doing;
}) {
  const { pattern } = usePiece();
  const { show } = usePreferences();
  const begins = alongEdge(pattern, hand.from.spot);
  const edge = pattern.edges.find((e) => e.id === hand.to?.edge);
  const at = hand.to ? alongEdge(pattern, hand.to.at.spot)?.atMm : undefined;
  const end = (id: string, mm: number | null) => {
    const on = pattern.edges.find((e) => e.id === id);
    const place = on && placeOn(pattern, on, mm ?? edgeLength(pattern, on) / 2);
    if (on && place) doing.take({ ...hand, to: { edge: on.id, at: place } });
  };
  return (
    <>
      <Typography variant="h2">A fold from here</Typography>
      <Typography>
        {begins &&
          (begins.atMm < ON_CORNER_MM
            ? `It begins at the corner ${cornerBefore(pattern, begins.edge)}. `
            : `It begins ${show(begins.atMm)} along ${begins.edge.letter}. `)}
        Touch the outline where it ends, or say it here.
      </Typography>
      <Choice
        label="Ends on edge"
        value={edge?.id ?? ''}
        options={byLetter(pattern.edges).map((e) => [e.id, e.letter] as const)}
        onChange={(id) => end(id, null)}
      />
      {edge && at !== undefined && (
        <LengthField
          label={`Ends on ${edge.letter}, from ${cornerBefore(pattern, edge)}`}
          mm={at}
          min={0}
          max={edgeLength(pattern, edge)}
          digits={2}
          onChange={(mm) => end(edge.id, mm)}
        />
      )}
      <Button
        variant="contained"
        disabled={!hand.to}
        onClick={() => hand.to && doing.foldTo(hand.to.at)}
      >
        Lay the fold
      </Button>
      <Button color="inherit" onClick={() => doing.take(null)}>
        Put it down
      </Button>
    </>
  );
}
