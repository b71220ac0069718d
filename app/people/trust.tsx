import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { network } from '../frame/network.server';
import type { Route } from './+types/trust';
import { Outside } from './Outside';

export const loader = () => ({ fingerprint: network()?.fingerprint ?? null });

export const meta: Route.MetaFunction = () => [{ title: 'The browser’s warning · Patrone' }];

/** Why a phone warns once, and how one knows that it is the right machine. */
export default function Trust({ loaderData: { fingerprint } }: Route.ComponentProps) {
  return (
    <Outside title="Why the phone warns">
      {fingerprint ? (
        <>
          <Typography>
            Patrone made its own certificate for the shop’s network. What goes over the air is sealed with it, but no
            authority on the internet has signed it, so a browser asks once. Go on only when its details show this fingerprint
            (SHA-256):
          </Typography>
          <Box className="figure" data-testid="fingerprint" sx={{ fontSize: '1.05rem', lineHeight: 1.6, overflowWrap: 'anywhere', bgcolor: 'var(--paper)', border: '1.5px solid var(--rule)', p: 1.5 }}>
            {fingerprint}
          </Box>
          <Typography>
            Chrome: “Advanced”, then “Proceed”. Safari: “Show details”, then “visit this website”. Firefox: “Advanced”, then
            “Accept the risk”. If the fingerprint is another one, do not go on: that is not this machine.
          </Typography>
        </>
      ) : (
        <Typography>
          Patrone answers on this machine only. To let phones in, start it with <b className="figure">./patrone start --network</b>.
        </Typography>
      )}
      <Button href="/" variant="outlined">To the jobs</Button>
    </Outside>
  );
} // prettier-ignore
