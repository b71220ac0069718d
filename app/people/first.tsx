import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { RegistrationResponseJSON } from '@simplewebauthn/server';
import { useRef, useState } from 'react';
import { Form, data, redirect, useNavigation, useSubmit } from 'react-router';
import { orSay } from '../forms/orSay';
import { Told } from '../frame/Told';
import { cookieFor, isHere } from '../access/cookie.server';
import { formOf } from '../records/parse.server';
import { madePasskey, siteOf } from '../access/passkeys.server';
import { addFirst, anybody } from '../access/people.server';
import { signIn } from '../access/sessions.server';
import type { Route } from './+types/first';
import { Outside } from './Outside';
import { NameSchema, PhraseSchema, parsedAnswer, said } from './fields';
import { usePasskey } from './usePasskey';

export async function loader({ request }: Route.LoaderArgs) {
  if (await anybody()) throw redirect('/');
  return { here: isHere(request) };
}

/** Who runs the shop: taken once, from the machine itself. */
export async function action({ request }: Route.ActionArgs) {
  if (!isHere(request))
    return data(
      { message: 'The first person signs up on the machine that Patrone runs on.' },
      { status: 403 },
    );
  const form = await formOf(request);
  const name = NameSchema.safeParse(said(form, 'name'));
  if (!name.success) return data({ message: name.error.issues[0]!.message }, { status: 400 });
  const stays = said(form, 'stays') === 'yes';
  const answer = parsedAnswer(said(form, 'answer'));
  if (answer) {
    const passkey = await madePasskey(
      siteOf(request),
      null,
      answer as unknown as RegistrationResponseJSON,
    );
    if (!passkey)
      return data(
        { message: 'The passkey could not be taken: make it once more, or type a pass phrase.' },
        { status: 400 },
      );
    return begin(await addFirst(name.data, { passkey }));
  }
  const phrase = PhraseSchema.safeParse(said(form, 'phrase'));
  if (!phrase.success) return data({ message: phrase.error.issues[0]!.message }, { status: 400 });
  if (said(form, 'again') !== phrase.data)
    return data({ message: 'The two pass phrases are not alike: type it again.' }, { status: 400 });
  return begin(await addFirst(name.data, { phrase: phrase.data }));

  async function begin(id: string | null): Promise<never> {
    if (id === null) throw redirect('/sign-in');
    const { token, forS } = await signIn(id, stays);
    throw redirect('/', { headers: { 'Set-Cookie': cookieFor(request, token, forS) } });
  }
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => orSay(serverAction);

export const meta: Route.MetaFunction = () => [{ title: 'Who runs the shop? · Patrone' }];

export default function First({ loaderData, actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== 'idle';
  const passkey = usePasskey();
  const submit = useSubmit();
  const form = useRef<HTMLFormElement>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const byPasskey = async () => {
    const given = new FormData(form.current!);
    const name = NameSchema.safeParse(said(given, 'name'));
    if (!name.success) return setProblem(name.error.issues[0]!.message);
    const made = await passkey.make({ want: 'first', name: name.data });
    if ('message' in made) return setProblem(made.message);
    setProblem(null);
    given.set('answer', made.answer);
    await submit(given, { method: 'post' });
  };
  if (!loaderData.here)
    return (
      <Outside title="Not set up yet">
        <Typography>
          Open Patrone on the machine it runs on and say who runs the shop. After that this phone
          can join.
        </Typography>
      </Outside>
    );
  return (
    <Outside title="Who runs the shop?">
      <Typography>
        One person first. Others, and phones, are let in afterwards. What is already here stays as
        it is.
      </Typography>
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
          autoComplete="new-password"
          helperText="Ten letters or more: three or four words that nobody would guess."
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
        <TextField
          name="again"
          label="The same again"
          type="password"
          required
          autoComplete="new-password"
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
        <FormControlLabel
          control={<Checkbox name="stays" value="yes" />}
          label="Stay signed in on this machine"
        />
        {(problem ?? actionData?.message) && !busy && <Told>{problem ?? actionData?.message}</Told>}
        <Button type="submit" variant="contained" size="large" disabled={busy}>
          Begin
        </Button>
        {passkey.can && (
          <Button variant="outlined" size="large" disabled={busy} onClick={() => void byPasskey()}>
            Begin with a passkey instead
          </Button>
        )}
      </Form>
    </Outside>
  );
}
