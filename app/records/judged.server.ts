import { TooManyAtOnce, isIt } from './secrets.server';
import type { Try } from './secretTries.server';
import { notJudged } from './secretTries.server';

/** What is answered to whom could not be heard. */
export const TOO_MANY = new TooManyAtOnce().message;

/**
 * Whether a secret that was tried is the one that is kept; `too-many` where so many are being
 * judged that this one was not, and does not count.
 */
export async function judged(
  one: Try,
  secret: string,
  kept: string | null,
): Promise<boolean | 'too-many'> {
  try {
    return await isIt(secret, kept);
  } catch (error) {
    if (!(error instanceof TooManyAtOnce)) throw error;
    await notJudged(one);
    return 'too-many';
  }
}
