import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { network } from '../frame/network.server';
import type { Route } from './+types/trust';
import { Outside } from './Outside';

export function loader() {
  const { fingerprint, shopFingerprint } = network() ?? {
    fingerprint: null,
    shopFingerprint: null,
  };
  return { fingerprint, shopFingerprint };
}

export const meta: Route.MetaFunction = () => [{ title: 'The browser’s warning · Patrone' }];

/** Why a phone warns once, and how one knows that it is the right machine. */
export default function Trust({
  loaderData: { fingerprint, shopFingerprint },
}: Route.ComponentProps) {
  return (
    <Outside title="Why the phone warns">
      {fingerprint ? (
        <>
          <Typography>
            Patrone made its own certificate for the shop’s network. What goes over the air is
            sealed with it, but no authority on the internet has signed it, so a browser asks once.
            Go on only when its details show this fingerprint (SHA-256):
          </Typography>
          <Box
            className="figure"
            data-testid="fingerprint"
            sx={{
              fontSize: '1.05rem',
              lineHeight: 1.6,
              overflowWrap: 'anywhere',
              bgcolor: 'var(--paper)',
              border: '1.5px solid var(--rule)',
              p: 1.5,
            }}
          >
            {fingerprint}
          </Box>
          <Typography>
            Chrome: “Advanced”, then “Proceed”. Safari: “Show details”, then “visit this website”.
            Firefox: “Advanced”, then “Accept the risk”. If the fingerprint is another one, do not
            go on: that is not this machine.
          </Typography>
          <Typography variant="h2">So that it warns no more</Typography>
          <Typography>
            A phone that is told to trust the shop’s certificate warns no more, and keeps what waits
            even while the page is closed. It is good for this machine’s own names and addresses and
            for those of closed networks alone: it could not be used to pose as a site of the
            internet. Trust it on the shop’s own phones only, and take it off one that leaves the
            shop.
          </Typography>
          <Button href="/trust/shop.crt" download variant="contained" size="large">
            Get the shop’s certificate
          </Button>
          <Typography>
            Android: Settings, Security, “Install a certificate”, “CA certificate”, then the file.
            iPhone and iPad: open the file, Settings, “Profile downloaded”, install it, then
            General, About, “Certificate Trust Settings”, and switch it on. Where the phone shows
            its fingerprint (SHA-256), it must be this one:
          </Typography>
          <Box
            className="figure"
            sx={{
              fontSize: '1.05rem',
              lineHeight: 1.6,
              overflowWrap: 'anywhere',
              bgcolor: 'var(--paper)',
              border: '1.5px solid var(--rule)',
              p: 1.5,
            }}
          >
            {shopFingerprint}
          </Box>
        </>
      ) : (
        <Typography>
          Patrone answers on this machine only. To let phones in, start it with{' '}
          <b className="figure" style={{ whiteSpace: 'nowrap' }}>
            ./patrone start --network
          </b>
          .
        </Typography>
      )}
      <Button href="/" variant="outlined">
        To the jobs
      </Button>
    </Outside>
  );
}
