import { data } from 'react-router';
import { TooManyAtOnce, isIt } from '../access/secrets.server';
import type { Try } from '../access/secretTries.server';
import { foundRight, notJudged, takeTry } from '../access/secretTries.server';
import { noteWrong } from '../access/wrongTries.server';
import { waitSaid } from './fields';

/**
 * One try of a secret against the one that is kept (null: none is), from its being taken to its
 * verdict: null where it is right, else what is answered. A wrong one is `wrong`, and is written
 * down under `name` for whoever runs the shop.
 */
export async function tried(
  one: Try,
  secret: string,
  kept: string | null,
  { name, address, wrong }: { name: string; address: string; wrong: string },
) {
  const wait = await takeTry(one);
  if (wait > 0) return data({ message: waitSaid(wait) }, { status: 429 });
  let right: boolean;
  try {
    right = await isIt(secret, kept);
  } catch (error) {
    if (!(error instanceof TooManyAtOnce)) throw error;
    await notJudged(one);
    return data({ message: error.message }, { status: 503 });
  }
  if (right) {
    await foundRight(one);
    return null;
  }
  await noteWrong(name, address);
  return data({ message: wrong }, { status: 401 });
}
