import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { giveUp, onAnswer, sendAgain, waitingRecords } from '../forms/outbox';
import { formatTime } from '../frame/dates';
import { usePreferences } from '../frame/preferences';
import { onItsWay } from '../pictures/waiting';
import { outgoing } from './readings/keptReading';
import type { Waiting } from './readings/keptReadings';
import { forget, quarrelsChange, waitingReadings } from './readings/keptReadings';
import { usePiece, useReadingsHere } from './pieceContext';
import { EdgeQuarrel, useQuarrels } from './Quarrels';

const counted = (count: number, one: string, many: string) =>
  `${count} ${count === 1 ? one : many}`;

/**
 * What was written here and waits for the server, said plainly, one under another; nothing while
 * nothing waits.
 */
export function Waits() {
  const { id, took, fits } = usePiece();
  const reading = useReadingsWaiting(fits);
  const edges = reading.filter((one) => outgoing(one) !== null).length;
  const untaken = reading.filter(({ told }) => told !== undefined);
  const quarrels = useQuarrels(fits);
  const { flush } = useReadingsHere();
  const { dates } = usePreferences();
  const records = useSyncExternalStore(
    waitingRecords.subscribe,
    waitingRecords.snapshot,
    waitingRecords.none,
  );
  const pictures = useSyncExternalStore(
    onItsWay.subscribe,
    onItsWay.snapshot,
    onItsWay.none,
  ).filter(({ progress }) => progress.state === 'waiting');
  const [open, setOpen] = useState(false);
  useEffect(() => onAnswer((about, answer) => about === id && took(answer)), [id, took]);
  if (records.length + pictures.length + reading.length + quarrels.length === 0) return null;
  const refused = records.filter((one) => one.refused !== null).length;
  const said = [
    edges > 0 && counted(edges, 'edge read', 'edges read'),
    records.length > 0 && counted(records.length, 'entry', 'entries'),
    pictures.length > 0 && counted(pictures.length, 'picture', 'pictures'),
  ]
    .filter(Boolean)
    .join(' and ');
  const one = records.length + pictures.length + edges === 1;
  return (
    <Box
      role="status"
      aria-label="What waits for the server"
      sx={{
        bgcolor: refused + quarrels.length > 0 ? 'var(--torch-soft, var(--panel))' : 'var(--panel)',
        borderBottom: '1.5px solid var(--rule)',
        borderLeft: '5px solid var(--torch)',
        px: 2,
        py: 0.8,
      }}
    >
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center' }}>
        <Typography sx={{ flex: 1 }}>
          {said !== '' && (
            <>
              <b>{said}</b> {one ? 'waits' : 'wait'} for the server
              {refused > 0
                ? `; ${refused} it would not take`
                : `, and ${one ? 'goes' : 'go'} in when it answers`}
              .{' '}
            </>
          )}
          {said !== '' && !isKeptOffline() && 'Keep this page open till then.'}
        </Typography>
        {records.length > 0 && (
          <Button
            size="small"
            variant="outlined"
            aria-expanded={open}
            onClick={() => setOpen(!open)}
          >
            {open ? 'Close' : 'Which'}
          </Button>
        )}
      </Stack>
      {quarrels.length > 0 && (
        <Box role="alert" aria-label="Read differently">
          <Typography>
            Read differently on another page. All else went in; decide what stands:
          </Typography>
          <Stack
            component="ul"
            spacing={0.6}
            sx={{ m: 0, pl: 0, py: 0.6, listStyle: 'none', maxHeight: '34dvh', overflowY: 'auto' }}
          >
            {quarrels.map((one) => (
              <EdgeQuarrel key={`${one.fit} ${one.edge}`} waits={one} onSettled={flush} />
            ))}
          </Stack>
        </Box>
      )}
      {untaken.map((one) => (
        <Stack
          key={`${one.fit} ${one.edge}`}
          direction="row"
          spacing={1}
          useFlexGap
          sx={{ alignItems: 'center', flexWrap: 'wrap' }}
        >
          <Typography sx={{ flex: 1 }}>
            What was read on edge {one.of?.letter ?? ''} was not taken: {one.told}
          </Typography>
          <Button size="small" color="inherit" onClick={() => forget(one.fit, one.edge)}>
            Give it up
          </Button>
        </Stack>
      ))}
      {(open || refused > 0) && (
        <Stack component="ol" spacing={0.6} sx={{ m: 0, pl: 2.5, pt: 0.6 }}>
          {records.map((record) => (
            <Box component="li" key={record.key}>
              <Typography>
                {record.said}, written {formatTime(new Date(record.at).toISOString(), dates)}
              </Typography>
              {record.refused !== null && (
                <Stack
                  direction="row"
                  spacing={1}
                  useFlexGap
                  sx={{ alignItems: 'center', flexWrap: 'wrap' }}
                >
                  <Typography sx={{ color: 'var(--torch)' }}>{record.refused}</Typography>
                  <Button size="small" variant="outlined" onClick={() => sendAgain(record.key)}>
                    Try again
                  </Button>
                  <Button size="small" color="inherit" onClick={() => void giveUp(record.key)}>
                    Give it up
                  </Button>
                </Stack>
              )}
            </Box>
          ))}
        </Stack>
      )}
    </Box>
  );
}

/** Interval at which readings that wait are looked at, ms: what goes in at once is not told. */
const LOOK_MS = 2500;

function useReadingsWaiting(fits: readonly { id: string }[]): Waiting[] {
  const [seen, setSeen] = useState<Waiting[]>([]);
  const ids = fits.map((fit) => fit.id).join(' ');
  useEffect(() => {
    let before = new Set<string>();
    const look = (changed: boolean) => {
      const known = ids.split(' ').filter(Boolean);
      const all = waitingReadings(known.map((id) => ({ id })));
      const names = all.map(({ fit, edge }) => `${fit} ${edge}`);
      setSeen(all.filter((one, i) => changed || one.told || before.has(names[i]!)));
      before = new Set(names);
    };
    const looking = setInterval(() => look(false), LOOK_MS);
    const stop = quarrelsChange.subscribe(() => look(true));
    return () => {
      clearInterval(looking);
      stop();
    };
  }, [ids]);
  return seen;
}

/** Whether this page opens again without the server. */
const isKeptOffline = () =>
  typeof navigator !== 'undefined' && !!navigator.serviceWorker?.controller;
