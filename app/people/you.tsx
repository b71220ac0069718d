import type { RegistrationResponseJSON } from '@simplewebauthn/server';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Form, data, redirect } from 'react-router';
import { PROGRAM } from '#core/format/program';
import { orSay } from '../forms/orSay';
import { useAnswers } from '../forms/useAnswers';
import { Moment } from '../frame/Moment';
import { Told } from '../frame/Told';
import { useWho } from '../frame/recordedBy';
import { addressOf, tokenOf } from '../access/cookie.server';
import { formOf } from '../records/parse.server';
import {
  forgetPasskey,
  keepPasskey,
  madePasskey,
  passkeysOf,
  siteOf,
} from '../access/passkeys.server';
import { personById, setPhrase } from '../access/people.server';
import { digestOf } from '../access/secrets.server';
import { viewerIn } from '../records/viewer.server';
import type { Try } from '../access/secretTries.server';
import type { Route } from './+types/you';
import { PhraseSchema, ROLE_WORDS, parsedAnswer, said } from './fields';
import { tried } from './tried.server';
import { usePasskey } from './usePasskey';

export async function loader({ request, context }: Route.LoaderArgs) {
  const viewer = context.get(viewerIn);
  const { person, role } = viewer.known!;
  // On the shop’s own device it may be nobody yet.
  if (!person) throw redirect('/');
  const kept = await personById(person.id);
  const keys = await passkeysOf(viewer, person.id);
  return {
    name: person.name,
    role,
    hasPhrase: kept?.phrase != null,
    host: siteOf(request).host,
    keys: keys.map(({ id, host, made, used }) => ({
      id,
      host,
      made: made.toISOString(),
      used: used && used.toISOString(),
    })),
  };
}

/** One’s own pass phrase and passkeys. */
export async function action({ request, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const { person, device } = viewer.known!;
  if (!person || device?.shops)
    return data(
      { message: 'On the shop’s own device nobody changes how they sign in.' },
      { status: 403 },
    );
  const form = await formOf(request);
  const wrong = (message: string, status = 400) => data({ message }, { status });
  switch (said(form, 'intent')) {
    case 'phrase': {
      const fresh = PhraseSchema.safeParse(said(form, 'phrase'));
      if (!fresh.success) return wrong(fresh.error.issues[0]!.message);
      const kept = await personById(person.id);
      const token = tokenOf(request);
      if (kept?.phrase != null) {
        // Counted where one is signed in: nobody elsewhere keeps one out of it.
        const here = token === null ? addressOf(request) : `session ${digestOf(token)}`;
        const mine: Try = { kind: 'own-phrase', who: person.id, address: here };
        const refused = await tried(mine, said(form, 'old'), kept.phrase, {
          name: person.name,
          address: addressOf(request),
          wrong: 'That is not the pass phrase you had. Try again.',
        });
        if (refused) return refused;
      }
      await setPhrase(viewer, person.id, fresh.data, token && digestOf(token));
      return {
        done: 'Your pass phrase is the new one. Whoever was signed in with the old one must sign in again.',
      };
    }
    case 'passkey': {
      const answer = parsedAnswer(said(form, 'answer'));
      const made =
        answer &&
        (await madePasskey(
          siteOf(request),
          person.id,
          answer as unknown as RegistrationResponseJSON,
        ));
      if (!made) return wrong('The passkey could not be taken: make it once more.');
      return (await keepPasskey(person.id, made))
        ? { done: 'From now on you can sign in with it.' }
        : wrong('That passkey is known already.');
    }
    case 'passkey-gone':
      await forgetPasskey(viewer, person.id, said(form, 'id'));
      return {
        done: 'It signs in no more. Take it off the device too, where it keeps its passkeys.',
      };
    default:
      throw data(null, { status: 400 });
  }
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => orSay(serverAction);

export const meta: Route.MetaFunction = () => [{ title: 'You · Patrone' }];

/** Who one is here, and how one signs in. */
export default function You({
  loaderData: { name, role, hasPhrase, host, keys },
}: Route.ComponentProps) {
  const fetcher = useAnswers<Route.ComponentProps['actionData']>();
  const who = useWho();
  const passkey = usePasskey();
  const [problem, setProblem] = useState<string | null>(null);
  const busy = fetcher.state !== 'idle';
  const make = async () => {
    setProblem(null);
    const made = await passkey.make({ want: 'make' });
    if ('message' in made) return setProblem(made.message);
    await fetcher.submit({ intent: 'passkey', answer: made.answer }, { method: 'post' });
  };
  return (
    <Stack spacing={2.5} sx={{ maxWidth: 560 }}>
      <Box>
        <Typography variant="h1">{name}</Typography>
        <Typography sx={{ color: 'var(--pencil)' }}>
          {ROLE_WORDS[role].name}. {ROLE_WORDS[role].about}
        </Typography>
      </Box>
      {problem && <Told>{problem}</Told>}
      {!busy && fetcher.data?.message && <Told>{fetcher.data.message}</Told>}
      {!busy && fetcher.data?.done && <Typography role="status">{fetcher.data.done}</Typography>}
      <Box
        component="section"
        aria-label="Passkeys"
        sx={{ p: 2, bgcolor: 'var(--panel)', border: '1.5px solid var(--rule)' }}
      >
        <Typography variant="h2" gutterBottom>
          Passkeys
        </Typography>
        <Typography sx={{ mb: 1.5 }}>
          A passkey signs you in with a touch, a look or the PIN of your device: nothing to type,
          nothing to be guessed.
        </Typography>
        <Stack
          component="ul"
          spacing={1}
          sx={{ listStyle: 'none', m: 0, p: 0, mb: keys.length > 0 ? 1.5 : 0 }}
        >
          {keys.map((key) => (
            <Box
              key={key.id}
              component="li"
              sx={{
                display: 'flex',
                alignItems: 'center',
                gap: 1,
                borderBottom: '1px solid var(--rule)',
                pb: 0.6,
              }}
            >
              <Box sx={{ flex: 1 }}>
                Made <Moment at={key.made} /> for <span className="figure">{key.host}</span>
                <Box sx={{ color: 'var(--pencil)', fontSize: '0.92rem' }}>
                  {key.used ? (
                    <>
                      Last used <Moment at={key.used} />
                    </>
                  ) : (
                    'Not used yet'
                  )}
                </Box>
              </Box>
              <fetcher.Form method="post">
                <input type="hidden" name="id" value={key.id} />
                <Button
                  type="submit"
                  name="intent"
                  value="passkey-gone"
                  color="inherit"
                  disabled={busy}
                  aria-label={`Forget the passkey made for ${key.host}`}
                >
                  Forget it
                </Button>
              </fetcher.Form>
            </Box>
          ))}
        </Stack>
        {passkey.can ? (
          <Button variant="contained" size="large" disabled={busy} onClick={() => void make()}>
            Make a passkey here
          </Button>
        ) : (
          <Typography sx={{ color: 'var(--pencil)' }}>
            {/^[\d.]+$/.test(host)
              ? 'Browsers make passkeys for names, not for addresses by figures: open Patrone by the machine’s name, on the machine itself as “localhost”.'
              : 'This browser makes none here: the line must be sealed by a certificate it trusts.'}
          </Typography>
        )}
      </Box>
      <Box
        component="section"
        aria-label="Pass phrase"
        sx={{ p: 2, bgcolor: 'var(--panel)', border: '1.5px solid var(--rule)' }}
      >
        <Typography variant="h2" gutterBottom>
          {hasPhrase ? 'A new pass phrase' : 'A pass phrase'}
        </Typography>
        <fetcher.Form method="post" style={{ display: 'grid', gap: 14 }}>
          <input type="hidden" name="intent" value="phrase" />
          <input type="text" name="username" value={name} autoComplete="username" readOnly hidden />
          {hasPhrase && (
            <TextField
              name="old"
              label="The one you have"
              type="password"
              required
              autoComplete="current-password"
              slotProps={{ htmlInput: { maxLength: 200 } }}
            />
          )}
          <TextField
            name="phrase"
            label={hasPhrase ? 'The new one' : 'Your pass phrase'}
            type="password"
            required
            autoComplete="new-password"
            helperText="Ten letters or more: three or four words that nobody would guess."
            slotProps={{ htmlInput: { maxLength: 200 } }}
          />
          <Button type="submit" variant="outlined" disabled={busy} sx={{ justifySelf: 'start' }}>
            Set it
          </Button>
        </fetcher.Form>
      </Box>
      {/* A phone that was let in is thrown out from the list, not signed out by a slip. */}
      {who?.signedIn && who.device === null && (
        <Form method="post" action="/sign-out">
          <Button type="submit" color="inherit">
            Sign out here
          </Button>
        </Form>
      )}
      <Typography sx={{ color: 'var(--pencil)', fontSize: '0.92rem' }}>
        Patrone <span className="figure">{PROGRAM}</span>
      </Typography>
    </Stack>
  );
}
