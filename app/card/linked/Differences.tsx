import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { useMemo } from 'react';
import { edgeDistances } from '#core/card/link/edgeDistances';
import type { Difference } from '#core/card/link/differences';
import type { At } from '#core/card/link/linked';
import { byLetter, edgeLength } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { usePreferences } from '../../frame/preferences';
import type { LinkChange } from '../../records/linked.server';
import { TOLD_APART_MM } from './SideBySide';
import { differenceSaid } from './differenceWords';

/** How a change of the two is sent, and whether one can be sent now. */
export type Doing = { busy: boolean; send: (change: LinkChange) => void };

type Pair = { here: PatternDoc; there: PatternDoc };
type DifferencesProps = Doing & {
  at: At;
  other: string;
  differences: readonly Difference[];
  pair: Pair;
};

/** What differs and why, in the order in which it wants deciding. */
export function Differences({ at, other, differences, pair, busy, send }: DifferencesProps) {
  const there = differences.filter((d) => d.both.length === 0 && d.there.length > 0);
  const both = differences.filter((d) => d.both.length > 0);
  const here = differences.filter((d) => d.both.length === 0 && d.there.length === 0);
  const take = (list: readonly Difference[], over = false) =>
    send({ what: 'take', parts: list.map(({ part }) => part), over });
  const leave = (list: readonly Difference[]) =>
    send({ what: 'leave', parts: list.map(({ part }) => part) });
  if (differences.length === 0)
    return (
      <Typography role="status">The two are as they were made: nothing to take over.</Typography>
    );
  return (
    <Stack spacing={2}>
      {there.length > 0 && (
        <Group
          title={at === 'made' ? `Changed on ${other} since` : `${other} has of its own`}
          list={there}
          pair={pair}
        >
          {(one) => (
            <>
              <Button size="small" variant="outlined" disabled={busy} onClick={() => take([one])}>
                Take over
              </Button>
              {at === 'made' && (
                <Button size="small" color="inherit" disabled={busy} onClick={() => leave([one])}>
                  Leave ours
                </Button>
              )}
            </>
          )}
        </Group>
      )}
      {there.length > 1 && (
        <Button variant="contained" disabled={busy} onClick={() => take(there)}>
          Take all {there.length} over
        </Button>
      )}
      {both.length > 0 && (
        <Group title="Changed on both, unlike each other" list={both} pair={pair}>
          {(one) => (
            <>
              <Button
                size="small"
                variant="outlined"
                disabled={busy}
                onClick={() => take([one], true)}
              >
                Take theirs
              </Button>
              {at === 'made' && (
                <Button
                  size="small"
                  variant="outlined"
                  disabled={busy}
                  onClick={() => leave([one])}
                >
                  Keep ours
                </Button>
              )}
            </>
          )}
        </Group>
      )}
      {here.length > 0 && (
        <Group
          title={at === 'made' ? 'Its own' : `Changed here, not taken over by ${other}`}
          list={here}
          pair={pair}
        />
      )}
    </Stack>
  );
}

type GroupProps = {
  title: string;
  list: readonly Difference[];
  pair: Pair;
  children?: (one: Difference) => React.ReactNode;
};

function Group({ title, list, pair, children }: GroupProps) {
  const { show } = usePreferences();
  return (
    <Box component="section" aria-label={title}>
      <Typography variant="h3">{title}</Typography>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {list.slice(0, MAX_LISTED).map((one) => {
          const { name, how } = differenceSaid(one, pair, show);
          return (
            <Box
              component="li"
              key={`${one.part.of} ${one.part.id}`}
              aria-label={name}
              sx={{
                display: 'flex',
                flexWrap: 'wrap',
                gap: 1,
                alignItems: 'center',
                py: 0.8,
                borderBottom: '1px solid var(--rule)',
              }}
            >
              <Box sx={{ flex: '1 1 180px' }}>
                <b>{name}</b>: {how}
              </Box>
              {children && <Stack direction="row">{children(one)}</Stack>}
            </Box>
          );
        })}
      </Box>
      {list.length > MAX_LISTED && (
        <Typography variant="caption">and {list.length - MAX_LISTED} more</Typography>
      )}
    </Box>
  );
}

/** As many parts as are listed one by one. */
const MAX_LISTED = 40;

/** Left and right, edge by edge: how long, and how far apart at most. */
export function Measured({ here, over }: { here: PatternDoc; over: PatternDoc }) {
  const { show } = usePreferences();
  const rows = useMemo(() => {
    const apart = new Map(edgeDistances(here, over).map(({ edge, mm }) => [edge, mm]));
    return byLetter(here.edges).flatMap((edge) => {
      const other = over.edges.find(({ id }) => id === edge.id);
      const mm = apart.get(edge.id) ?? 0;
      const [a, b] = [edgeLength(here, edge), other ? edgeLength(over, other) : null];
      const told = b === null || Math.abs(mm) > TOLD_APART_MM || Math.abs(a - b) > TOLD_APART_MM;
      return told ? [{ edge, a, b, mm }] : [];
    });
  }, [here, over]);
  if (rows.length === 0)
    return (
      <Typography>
        Turned over, every edge lies on the other’s within {show(TOLD_APART_MM)}.
      </Typography>
    );
  return (
    <Box>
      <Typography variant="h3">Measured against each other</Typography>
      <Table size="small" aria-label="Measured against each other">
        <TableHead>
          <TableRow>
            <TableCell>Edge</TableCell>
            <TableCell align="right">Here</TableCell>
            <TableCell align="right">There</TableCell>
            <TableCell align="right">Farther out</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {rows.slice(0, MAX_LISTED).map(({ edge, a, b, mm }) => (
            <TableRow key={edge.id}>
              <TableCell
                className="condensed"
                sx={{ fontSize: '1.1rem !important', fontWeight: 600 }}
              >
                {edge.letter}
              </TableCell>
              <TableCell align="right" className="figure">
                {show(a)}
              </TableCell>
              <TableCell align="right" className="figure">
                {b === null ? 'none' : show(b)}
              </TableCell>
              <TableCell align="right" className="figure">
                {b === null
                  ? ''
                  : Math.abs(mm) > TOLD_APART_MM
                    ? `${mm < 0 ? '−' : '+'}${show(Math.abs(mm))}`
                    : 'on it'}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Box>
  );
}
