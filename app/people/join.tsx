import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useEffect } from 'react';
import { Form, data, redirect, useNavigation } from 'react-router';
import { orSay } from '../forms/orSay';
import { useAnswers } from '../forms/useAnswers';
import { Told } from '../frame/Told';
import { addressOf, cookieFor } from '../access/cookie.server';
import { join, joinOffered } from '../access/sessions.server';
import { formOf } from '../records/parse.server';
import { digestOf } from '../access/secrets.server';
import type { Try } from '../access/secretTries.server';
import { foundRight, takeTry } from '../access/secretTries.server';
import { noteWrong } from '../access/wrongTries.server';
import type { Route } from './+types/join';
import { Outside } from './Outside';
import { said, waitSaid } from './fields';

/** What wrong codes are written down as: no name is typed. */
const A_CODE = '(a code)';

/**
 * What a code is for (`look`), and its use. Both are posted: what only looks at an address, as
 * programs do before their users, neither uses a code up nor counts as a wrong one.
 */
export async function action({ params, request }: Route.ActionArgs) {
  const mine: Try = { kind: 'code', who: digestOf(params.code), address: addressOf(request) };
  const wait = await takeTry(mine);
  if (wait > 0) return data({ message: waitSaid(wait) }, { status: 429 });
  if (said(await formOf(request), 'intent') === 'look') {
    const offer = await joinOffered(params.code);
    if (offer) await foundRight(mine);
    else await noteWrong(A_CODE, mine.address);
    return data({ offer });
  }
  const begun = await join(params.code);
  if (!begun) {
    await noteWrong(A_CODE, mine.address);
    return data(
      {
        message: 'This code was used, or is older than five minutes. Ask for a new one.',
      },
      { status: 410 },
    );
  }
  await foundRight(mine);
  throw redirect('/', { headers: { 'Set-Cookie': cookieFor(request, begun.token, begun.forS) } });
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => orSay(serverAction);

export const meta: Route.MetaFunction = () => [{ title: 'Join · Patrone' }];

export default function Join({ params, actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== 'idle';
  const { submit, data: looked } = useAnswers<Route.ComponentProps['actionData']>({
    key: `look ${params.code}`,
  });
  useEffect(() => {
    void submit({ intent: 'look' }, { method: 'post' });
  }, [submit]);
  if (!looked)
    return (
      <Outside title="Looking the code up …">
        <span />
      </Outside>
    );
  if (looked.message !== undefined)
    return (
      <Outside title="Not yet">
        <Told>{looked.message}</Told>
      </Outside>
    );
  const { offer } = looked;
  const problem = actionData && 'message' in actionData ? actionData.message : null;
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
      {problem && <Told>{problem}</Told>}
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
