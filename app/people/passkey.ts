import type { AuthenticationResponseJSON } from '@simplewebauthn/server';
import { data } from 'react-router';
import { z } from 'zod';
import { addressOf, cookieFor, isHere } from '../access/cookie.server';
import { parsedJson } from '../records/parse.server';
import { askToEnter, askToMake, entered, siteOf, takesPasskeys } from '../access/passkeys.server';
import { anybody } from '../access/people.server';
import { signIn } from '../access/sessions.server';
import { viewerIn } from '../records/viewer.server';
import type { Try } from '../access/secretTries.server';
import { foundRight, takeTry } from '../access/secretTries.server';
import { noteWrong } from '../access/wrongTries.server';
import type { Route } from './+types/passkey';
import { Answer, NameSchema, waitSaid } from './fields';

const Body = z.discriminatedUnion('want', [
  /** To make one: for the first person, or for whoever is signed in. */
  z.object({ want: z.literal('first'), name: NameSchema }),
  z.object({ want: z.literal('make') }),
  /** To sign in with one: what to sign, then what was signed. */
  z.object({ want: z.literal('enter') }),
  z.object({ want: z.literal('entered'), answer: Answer, stays: z.boolean() }),
]);

/** What wrong ones are written down as: no name is typed. */
const A_PASSKEY = '(a passkey)';

/** Passkeys as a browser asks about them: what to sign, and signing in by it. */
export async function action({ request, context }: Route.ActionArgs) {
  const body = await parsedJson(request, Body);
  const site = siteOf(request);
  if (!takesPasskeys(site))
    return data(
      { message: 'Browsers take passkeys for names only: open Patrone by its name.' },
      { status: 400 },
    );
  switch (body.want) {
    case 'first':
      if (!isHere(request) || (await anybody()))
        return data({ message: 'Somebody runs this shop already.' }, { status: 403 });
      return data(await askToMake(site, body.name, null));
    case 'make': {
      const person = context.get(viewerIn).known?.person;
      if (!person) return data({ message: 'Sign in first.' }, { status: 403 });
      return data(await askToMake(site, person.name, person.id));
    }
    case 'enter': {
      const wait = await takeTry({ kind: 'passkey-ask', who: '', address: addressOf(request) });
      if (wait > 0) return data({ message: waitSaid(wait) }, { status: 429 });
      return data(await askToEnter(site));
    }
    case 'entered': {
      const mine: Try = { kind: 'passkey', who: body.answer.id, address: addressOf(request) };
      const wait = await takeTry(mine);
      if (wait > 0) return data({ message: waitSaid(wait) }, { status: 429 });
      const person = await entered(site, body.answer as unknown as AuthenticationResponseJSON);
      if (person === null) {
        await noteWrong(A_PASSKEY, addressOf(request));
        return data(
          { message: 'This passkey is not known here any more. Sign in with the pass phrase.' },
          { status: 401 },
        );
      }
      await foundRight(mine);
      await foundRight({ ...mine, kind: 'passkey-ask', who: '' });
      const { token, forS } = await signIn(person, body.stays);
      return data({ in: true }, { headers: { 'Set-Cookie': cookieFor(request, token, forS) } });
    }
  }
}
