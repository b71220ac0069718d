import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useEffect, useRef, useState } from 'react';
import { Form, redirect, useNavigation } from 'react-router';
import { orSay } from '../forms/orSay';
import { Told } from '../frame/Told';
import { forgetOffline } from '../frame/useKeptOffline';
import { addressOf, cookieFor, isHere } from '../access/cookie.server';
import { formOf } from '../records/parse.server';
import { anybody, personNamed } from '../access/people.server';
import { signIn } from '../access/sessions.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/signIn';
import { Outside } from './Outside';
import { said } from './fields';
import { tried } from './tried.server';
import { usePasskey } from './usePasskey';

export async function loader({ request, context }: Route.LoaderArgs) {
  if (!(await anybody())) throw redirect('/first');
  return {
    onTo: onToOf(request),
    here: isHere(request),
    as: context.get(viewerIn).known?.person?.name ?? null,
  };
}

/** Only into Patrone itself: an address from elsewhere is no way on. */
const onToOf = (request: Request): string => {
  const to = new URL(request.url).searchParams.get('to') ?? '/';
  return /^\/(?!\/|\\)[\w/.-]*$/.test(to) ? to : '/';
};

export async function action({ request }: Route.ActionArgs) {
  const form = await formOf(request);
  const [name, phrase] = [said(form, 'name').slice(0, 80), said(form, 'phrase').slice(0, 400)];
  const address = addressOf(request);
  const person = await personNamed(name);
  const refused = await tried(
    { kind: 'phrase', who: name, address },
    phrase,
    person?.phrase ?? null,
    {
      name,
      address,
      // The same whether there is somebody of that name or not.
      wrong: 'Name and pass phrase do not go together. Try again.',
    },
  );
  if (refused || !person) return refused;
  const { token, forS } = await signIn(person.id, said(form, 'stays') === 'yes');
  throw redirect(onToOf(request), { headers: { 'Set-Cookie': cookieFor(request, token, forS) } });
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => orSay(serverAction);

export const meta: Route.MetaFunction = () => [{ title: 'Sign in · Patrone' }];

export default function SignIn({
  loaderData: { here, as, onTo },
  actionData,
}: Route.ComponentProps) {
  const busy = useNavigation().state !== 'idle';
  useEffect(forgetOffline, []);
  const passkey = usePasskey();
  const form = useRef<HTMLFormElement>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const byPasskey = async () => {
    const why = await passkey.enter(new FormData(form.current!).get('stays') === 'yes');
    setProblem(why);
    // A page of its own: whoever it is now, nothing of whoever it was is left.
    if (why === null) window.location.assign(onTo);
  };
  return (
    <Outside title="Sign in">
      {as && <Typography>You are here as {as}.</Typography>}
      <Form
        ref={form}
        method="post"
        onSubmit={() => setProblem(null)}
        style={{ display: 'grid', gap: 16 }}
      >
        <TextField
          name="name"
          label="First name"
          required
          autoComplete="username"
          autoFocus
          slotProps={{ htmlInput: { maxLength: 40, autoCapitalize: 'words' } }}
        />
        <TextField
          name="phrase"
          label="Pass phrase"
          type="password"
          required
          autoComplete="current-password"
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
        <FormControlLabel
          control={<Checkbox name="stays" value="yes" />}
          label={here ? 'Stay signed in on this machine' : 'Stay signed in here'}
        />
        {(problem ?? actionData?.message) && !busy && <Told>{problem ?? actionData?.message}</Told>}
        <Button type="submit" variant="contained" size="large" disabled={busy}>
          Sign in
        </Button>
        {passkey.can && (
          <Button variant="outlined" size="large" disabled={busy} onClick={() => void byPasskey()}>
            Sign in with a passkey
          </Button>
        )}
      </Form>
      <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
        A phone or tablet joins by a code: who runs the shop shows it under People.
      </Typography>
    </Outside>
  );
}
