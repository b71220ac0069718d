import { data } from 'react-router';
import { z } from 'zod';
import { addressOf, tokenOf } from '../records/cookie.server';
import { parsedJson } from '../records/parse.server';
import { personById } from '../records/people.server';
import { setPersonHere } from '../records/sessions.server';
import { viewerIn } from '../records/viewer.server';
import { TOO_MANY, judged } from '../records/judged.server';
import type { Try } from '../records/secretTries.server';
import { foundRight, takeTry } from '../records/secretTries.server';
import { noteWrong } from '../records/wrongTries.server';
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
    // Counted for this device: nobody elsewhere keeps anybody out of it.
    const mine: Try = { kind: 'pin', who: person.id, address: `device ${known.device.id}` };
    const wait = await takeTry(mine);
    if (wait > 0) return data({ message: waitSaid(wait) }, { status: 429 });
    const right = await judged(mine, pin, person.pin);
    if (right === 'too-many') return data({ message: TOO_MANY }, { status: 503 });
    if (!right) {
      await noteWrong(person.name, addressOf(request));
      return data({ message: 'That is not the PIN. Try again.' }, { status: 401 });
    }
    await foundRight(mine);
  }
  await setPersonHere(token, person.id);
  return { name: person.name };
}
