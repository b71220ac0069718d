import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { encode } from 'uqr';
import { Choice } from '../forms/Choice';
import { useAnswers } from '../forms/useAnswers';
import { Told } from '../frame/Told';
import type { Route } from './+types/people';

type Props = {
  people: readonly { id: string; name: string }[];
  network: { addresses: string[]; fingerprint: string } | null;
};

/**
 * Lets a phone or tablet in: what it is called, whose it is, then a code on the screen to be looked
 * at with it.
 */
export function LetIn({ people, network }: Props) {
  const fetcher = useAnswers<Route.ComponentProps['actionData']>();
  const [whose, setWhose] = useState('shop');
  const [address, setAddress] = useState(network?.addresses[0] ?? '');
  const offered = fetcher.state === 'idle' ? fetcher.data?.offered : undefined;
  return (
    <Stack
      component="section"
      aria-label="Let a phone in"
      spacing={1.5}
      sx={{
        border: '1.5px solid var(--rule)',
        borderTop: '5px solid var(--layout)',
        bgcolor: 'var(--panel)',
        p: 2,
      }}
    >
      <Typography variant="h2">Let a phone or tablet in</Typography>
      {!network && (
        <Typography>
          Patrone answers on this machine only. Started with{' '}
          <b className="figure">./patrone start --network</b> it answers on the shop’s network too,
          sealed by a certificate of its own, and phones can join.
        </Typography>
      )}
      <fetcher.Form method="post" style={{ display: 'grid', gap: 14 }}>
        <TextField
          name="name"
          label="What it is called"
          placeholder="tablet by the brake"
          required
          autoComplete="off"
          slotProps={{ htmlInput: { maxLength: 40 } }}
        />
        <Choice
          label="Whose it is"
          name="person"
          value={whose}
          onChange={setWhose}
          options={[
            ['shop', 'The shop’s: asks who is at it'],
            ...people.map(({ id, name }) => [id, name] as [string, string]),
          ]}
        />
        {network && network.addresses.length > 1 && (
          <Choice
            label="Where it finds this machine"
            value={address}
            onChange={setAddress}
            options={network.addresses.map((one) => [one, one] as const)}
          />
        )}
        {fetcher.data?.message && fetcher.state === 'idle' && <Told>{fetcher.data.message}</Told>}
        <Button
          type="submit"
          name="intent"
          value="offer"
          variant="contained"
          disabled={fetcher.state !== 'idle'}
          sx={{ justifySelf: 'start' }}
        >
          {offered ? 'Show a new code' : 'Show its code'}
        </Button>
      </fetcher.Form>
      {offered && (
        <Code
          key={offered.code}
          offered={offered}
          base={address || location.origin}
          local={!network}
        />
      )}
      {network && (
        <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
          The phone warns once, because the certificate is this machine’s own.{' '}
          <Link to="/trust">How to know that it is the right one</Link>
        </Typography>
      )}
    </Stack>
  );
}

/** A code as a picture to be looked at with a phone, for as long as it is good. */
function Code({
  offered: { code, until, name },
  base,
  local,
}: {
  offered: { code: string; until: string; name: string };
  base: string;
  local: boolean;
}) {
  const url = `${base}/join/${code}`;
  const { data, size } = useMemo(() => encode(url, { ecc: 'M', border: 2 }), [url]);
  const left = useSecondsLeft(until);
  if (left <= 0)
    return (
      <Typography role="status">The code was good for five minutes. Show a new one.</Typography>
    );
  const path = data
    .flatMap((row, y) => row.flatMap((dark, x) => (dark ? [`M${x} ${y}h1v1h-1z`] : [])))
    .join('');
  return (
    <Box sx={{ display: 'grid', gap: 1, justifyItems: 'start' }}>
      <Box
        component="svg"
        viewBox={`0 0 ${size} ${size}`}
        role="img"
        aria-label={`Code to join as ${name}`}
        shapeRendering="crispEdges"
        sx={{ width: 'min(100%, 280px)', bgcolor: '#fff', border: '1.5px solid var(--rule)' }}
      >
        <path d={path} fill="#111" />
      </Box>
      <Typography role="status">
        Look at it with the camera of <b>{name}</b>. Good once, for{' '}
        <span className="figure">
          {Math.floor(left / 60)}:{String(left % 60).padStart(2, '0')}
        </span>
        .
      </Typography>
      <Typography
        variant="body2"
        className="figure"
        sx={{ overflowWrap: 'anywhere', color: 'var(--pencil)' }}
        data-testid="join-address"
      >
        {url}
      </Typography>
      {local && (
        <Typography variant="body2">
          A phone cannot reach this address yet: Patrone answers on this machine only.
        </Typography>
      )}
    </Box>
  );
}

function useSecondsLeft(until: string): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const ticking = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(ticking);
  }, []);
  return Math.max(0, Math.ceil((Date.parse(until) - now) / 1000));
}
