import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { Form, data, redirect, useNavigation } from 'react-router';
import { orSay } from '../forms/orSay';
import { Told } from '../frame/Told';
import { cookieFor, isHere } from '../records/cookie.server';
import { formOf } from '../records/parse.server';
import { addFirst, anybody } from '../records/people.server';
import { signIn } from '../records/sessions.server';
import type { Route } from './+types/first';
import { Outside } from './Outside';
import { NameSchema, PhraseSchema, said } from './fields';

export async function loader({ request }: Route.LoaderArgs) {
  if (await anybody()) throw redirect('/');
  return { here: isHere(request) };
}

/** Who runs the shop: taken once, from the machine itself. */
export async function action({ request }: Route.ActionArgs) {
  if (!isHere(request)) return data({ message: 'The first person signs up on the machine that Patrone runs on.' }, { status: 403 }); // prettier-ignore
  const form = await formOf(request);
  const name = NameSchema.safeParse(said(form, 'name'));
  const phrase = PhraseSchema.safeParse(said(form, 'phrase'));
  const wrong = name.error ?? phrase.error;
  if (!name.success || !phrase.success) return data({ message: wrong!.issues[0]!.message }, { status: 400 });
  if (said(form, 'again') !== phrase.data) return data({ message: 'The two pass phrases are not alike: type it again.' }, { status: 400 }); // prettier-ignore
  const id = await addFirst(name.data, phrase.data);
  if (id === null) throw redirect('/sign-in');
  const { token, forS } = await signIn(id, said(form, 'stays') === 'yes');
  throw redirect('/', { headers: { 'Set-Cookie': cookieFor(request, token, forS) } });
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => orSay(serverAction);

export const meta: Route.MetaFunction = () => [{ title: 'Who runs the shop? · Patrone' }];

export default function First({ loaderData, actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== 'idle';
  if (!loaderData.here)
    return (
      <Outside title="Not set up yet">
        <Typography>Open Patrone on the machine it runs on and say who runs the shop. After that this phone can join.</Typography>
      </Outside>
    );
  return (
    <Outside title="Who runs the shop?">
      <Typography>One person first. Others, and phones, are let in afterwards. What is already here stays as it is.</Typography>
      <Form method="post" style={{ display: 'grid', gap: 16 }}>
        <TextField name="name" label="First name" required autoComplete="username" autoFocus slotProps={{ htmlInput: { maxLength: 40, autoCapitalize: 'words' } }} />
        <TextField name="phrase" label="Pass phrase" type="password" required autoComplete="new-password" helperText="Ten letters or more: three or four words that nobody would guess." slotProps={{ htmlInput: { maxLength: 200 } }} />
        <TextField name="again" label="The same again" type="password" required autoComplete="new-password" slotProps={{ htmlInput: { maxLength: 200 } }} />
        <FormControlLabel control={<Checkbox name="stays" value="yes" />} label="Stay signed in on this machine" />
        {actionData?.message && !busy && <Told>{actionData.message}</Told>}
        <Button type="submit" variant="contained" size="large" disabled={busy}>
          Begin
        </Button>
      </Form>
    </Outside>
  );
} // prettier-ignore
