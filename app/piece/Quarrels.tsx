import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useSyncExternalStore } from 'react';
import { Link } from 'react-router';
import type { ReadingClash } from '#core/fit/mergeReadings';
import { usePreferences } from '../frame/preferences';
import { disputesOf } from './readings/keptReading';
import type { Waiting } from './readings/keptReadings';
import { quarrelsChange, settle, waitingReadings } from './readings/keptReadings';

const NONE: Waiting[] = [];
let seen: { at: number; all: Waiting[] } = { at: -1, all: NONE };

/** All quarrels about readings that wait in this browser to be decided. */
const all = (): Waiting[] => {
  const at = quarrelsChange.snapshot();
  if (seen.at !== at) seen = { at, all: waitingReadings().filter((one) => one.quarrel) };
  return seen.all;
};

/** Quarrels about readings, of one piece's trials or (`fits` left out) of any. */
export function useQuarrels(fits?: readonly { id: string }[]): Waiting[] {
  const found = useSyncExternalStore(quarrelsChange.subscribe, all, () => NONE);
  return fits ? found.filter(({ fit }) => fits.some(({ id }) => id === fit)) : found;
}

/** Two values of one place, and a touch to decide between them. */
function Place({
  of,
  place,
  by,
  number,
  onDecide,
}: {
  of: string;
  place: ReadingClash;
  by: string;
  /** Of the station, from 1. */
  number: number;
  onDecide: (mine: boolean) => void;
}) {
  const { showThin } = usePreferences();
  const read = (mm: number | null) => (mm === null ? 'nothing' : showThin(mm));
  const [here, there] = [read(place.hereMm), read(place.thereMm)];
  const who = by === '' ? 'read elsewhere' : `by ${by}`;
  return (
    <Box
      component="li"
      sx={{ display: 'flex', alignItems: 'center', flexWrap: 'wrap', columnGap: 1, rowGap: 0.5 }}
    >
      <Typography sx={{ flex: '1 1 15rem' }}>
        {of}, station {number}
        {place.of === 'flush' ? ', flush' : ''}: <b className="figure">{here}</b> here,{' '}
        <b className="figure">{there}</b> {who}
      </Typography>
      <Button variant="contained" onClick={() => onDecide(true)}>
        Keep {here}
      </Button>
      <Button variant="outlined" onClick={() => onDecide(false)}>
        Take {there}
      </Button>
    </Box>
  );
}

/** What two read differently on one edge, place by place; all else has gone in. */
export function EdgeQuarrel({ waits, onSettled }: { waits: Waiting; onSettled: () => void }) {
  const { fit, edge, quarrel, record } = waits;
  const of = waits.of?.letter ?? 'The edge';
  const decide = (place: ReadingClash | null, mine: boolean) => {
    settle(fit, edge, place, mine);
    onSettled();
  };
  if (quarrel!.elsewhere)
    return (
      <Box component="li" sx={{ display: 'flex', alignItems: 'center', flexWrap: 'wrap', gap: 1 }}>
        <Typography sx={{ flex: '1 1 15rem' }}>
          {of} was read {quarrel!.by === '' ? 'on another page' : `by ${quarrel!.by}`} at other
          places than here: the card has changed in between, or its stations have. Only one of the
          two can stand.
        </Typography>
        <Button variant="contained" onClick={() => decide(null, true)}>
          Keep what I read
        </Button>
        <Button variant="outlined" onClick={() => decide(null, false)}>
          Take what is there
        </Button>
      </Box>
    );
  return disputesOf(waits).map((place) => (
    <Place
      key={`${place.of} ${place.atMm}`}
      of={of}
      place={place}
      by={quarrel!.by}
      number={1 + record.stations.findIndex(({ atMm }) => Math.abs(atMm - place.atMm) < 0.05)}
      onDecide={(mine) => decide(place, mine)}
    />
  ));
}

/** On pages that are no piece: which pieces have readings to decide about. */
export function QuarrelsElsewhere() {
  const quarrels = useQuarrels();
  const pieces = new Map(quarrels.flatMap(({ of }) => (of ? [[of.piece, of.name] as const] : [])));
  return [...pieces].map(([piece, name]) => (
    <Box
      key={piece}
      role="alert"
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 1,
        mb: 2,
        p: 1.2,
        bgcolor: 'var(--torch-ground)',
        borderLeft: '5px solid var(--torch)',
      }}
    >
      <Box sx={{ flex: 1 }}>
        Two pages read the edges of <b>{name}</b> differently.
      </Box>
      <Button component={Link} to={`/pieces/${piece}/fit`} variant="contained">
        Decide
      </Button>
    </Box>
  ));
}
