import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { giveUp, onAnswer, sendAgain, waitingRecords } from '../forms/outbox';
import { formatTime } from '../frame/dates';
import { usePreferences } from '../frame/preferences';
import { onItsWay } from '../pictures/waiting';
import { edgesWaiting } from './keptReadings';
import { usePiece } from './pieceContext';

const counted = (count: number, one: string, many: string) =>
  `${count} ${count === 1 ? one : many}`;

/**
 * What was written here and waits for the server, said plainly, one under another; nothing while
 * nothing waits.
 */
export function Waits() {
  const { id, took, fits } = usePiece();
  const edges = useEdgesWaiting(fits);
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
  if (records.length + pictures.length + edges === 0) return null;
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
        bgcolor: refused > 0 ? 'var(--torch-soft, var(--panel))' : 'var(--panel)',
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
          {!isKeptOffline() && 'Keep this page open till then.'}
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

/** So often what waits along edges is looked at, ms: what goes in at once is not told. */
const LOOK_MS = 2500;

function useEdgesWaiting(fits: readonly { id: string }[]): number {
  const [seen, setSeen] = useState([0, 0]);
  const ids = fits.map((fit) => fit.id).join(' ');
  useEffect(() => {
    const looking = setInterval(
      () => setSeen(([, last]) => [last!, edgesWaiting(ids.split(' ').filter(Boolean))]),
      LOOK_MS,
    );
    return () => clearInterval(looking);
  }, [ids]);
  return Math.min(...seen);
}

/** Whether this page opens again without the server. */
const isKeptOffline = () =>
  typeof navigator !== 'undefined' && !!navigator.serviceWorker?.controller;
