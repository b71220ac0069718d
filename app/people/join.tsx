import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Form, data, redirect, useNavigation } from 'react-router';
import { orSay } from '../forms/orSay';
import { Told } from '../frame/Told';
import { addressOf, cookieFor } from '../records/cookie.server';
import { join, joinOffered } from '../records/sessions.server';
import { noteWrong, waitFor } from '../records/wrongTries.server';
import type { Route } from './+types/join';
import { Outside } from './Outside';
import { waitSaid } from './fields';

/** What wrong codes are written down as: no name is typed. */
const A_CODE = '(a code)';

export async function loader({ params, request }: Route.LoaderArgs) {
  if ((await waitFor(A_CODE, addressOf(request))) > 0) return { offer: null };
  const offer = await joinOffered(params.code);
  if (!offer) await noteWrong(A_CODE, addressOf(request));
  return { offer };
}

/** Only a touch uses the code up: what looks at an address before its user does not. */
export async function action({ params, request }: Route.ActionArgs) {
  const wait = await waitFor(A_CODE, addressOf(request));
  if (wait > 0) return data({ message: waitSaid(wait) }, { status: 429 });
  const begun = await join(params.code);
  if (!begun)
    return data(
      { message: 'This code was used, or is older than five minutes. Ask for a new one.' },
      { status: 410 },
    );
  throw redirect('/', { headers: { 'Set-Cookie': cookieFor(request, begun.token, begun.forS) } });
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => orSay(serverAction);

export const meta: Route.MetaFunction = () => [{ title: 'Join · Patrone' }];

export default function Join({ loaderData: { offer }, actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== 'idle';
  if (!offer)
    return (
      <Outside title="This code is no good any more">
        <Typography>
          A code lets one phone in, once, within five minutes. Have a new one shown under People.
        </Typography>
      </Outside>
    );
  return (
    <Outside title="Let this one in?">
      <Typography>
        It is called <b>{offer.device}</b> and{' '}
        {offer.person ? (
          <>
            belongs to <b>{offer.person}</b>
          </>
        ) : (
          <>
            is <b>the shop’s</b>: it asks who you are when you write
          </>
        )}
        .
      </Typography>
      {actionData?.message && <Told>{actionData.message}</Told>}
      <Form method="post">
        <Button
          type="submit"
          variant="contained"
          size="large"
          fullWidth
          disabled={busy}
          sx={{ minHeight: 60, fontSize: '1.2rem' }}
        >
          Join
        </Button>
      </Form>
    </Outside>
  );
}
