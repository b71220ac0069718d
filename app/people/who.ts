import { data } from 'react-router';
import { z } from 'zod';
import { addressOf, tokenOf } from '../records/cookie.server';
import { parsedJson } from '../records/parse.server';
import { personById } from '../records/people.server';
import { isIt } from '../records/secrets.server';
import { setPersonHere } from '../records/sessions.server';
import { viewerIn } from '../records/viewer.server';
import { forgetWrong, noteWrong, waitFor } from '../records/wrongTries.server';
import type { Route } from './+types/who';
import { waitSaid } from './fields';

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
    const wait = await waitFor(person.name, addressOf(request));
    if (wait > 0) return data({ message: waitSaid(wait) }, { status: 429 });
    if (!(await isIt(pin, person.pin))) {
      await noteWrong(person.name, addressOf(request));
      return data({ message: 'That is not the PIN. Try again.' }, { status: 401 });
    }
    await forgetWrong(person.name);
  }
  await setPersonHere(token, person.id);
  return { name: person.name };
}
