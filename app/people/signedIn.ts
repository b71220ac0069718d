import { data } from 'react-router';
import { z } from 'zod';
import { addressOf, tokenOf } from '../access/cookie.server';
import { parsedJson } from '../records/parse.server';
import { personById } from '../access/people.server';
import { setPersonHere } from '../access/sessions.server';
import { viewerIn } from '../records/viewer.server';
import type { Try } from '../access/secretTries.server';
import type { Route } from './+types/signedIn';
import { tried } from './tried.server';

const Asked = z.object({ person: z.uuid().nullable(), pin: z.string().max(20).default('') });

/** On the shop’s own device: says who is at it now, with a PIN where they want one asked for. */
export async function action({ request, context }: Route.ActionArgs) {
  const { known } = context.get(viewerIn);
  const token = tokenOf(request);
  if (!known?.device?.shops || !token)
    return data({ message: 'This is not the shop’s own device.' }, { status: 403 });
  const { person: id, pin } = await parsedJson(request, Asked);
  if (id === null) {
    await setPersonHere(token, null);
    return { name: null };
  }
  const person = await personById(id);
  if (!person || person.role === 'looks')
    return data({ message: 'There is nobody of that name here.' }, { status: 404 });
  if (person.pin !== null) {
    // Counted for this device: nobody elsewhere keeps anybody out of it.
    const mine: Try = { kind: 'pin', who: person.id, address: `device ${known.device.id}` };
    const refused = await tried(mine, pin, person.pin, {
      name: person.name,
      address: addressOf(request),
      wrong: 'That is not the PIN. Try again.',
    });
    if (refused) return refused;
  }
  await setPersonHere(token, person.id);
  return { name: person.name };
}
