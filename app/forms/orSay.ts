import { isRouteErrorResponse } from 'react-router';

/**
 * A server's answer, or a message to show in its place when the server could not be reached: the
 * page stays as it is.
 */
export async function orSay<T>(ask: () => Promise<T>): Promise<T | { message: string }> {
  try {
    return await ask();
  } catch (error) {
    // A request that got no answer is a TypeError; anything else is the server's own word and goes
    // on. Stopped at the door, with a sentence: not signed in, not allowed, or nothing there to be
    // asked.
    if (isRouteErrorResponse(error) && [401, 403, 503, 507].includes(error.status)) {
      const said = error.data as { message?: string } | null;
      return { message: said?.message ?? 'That is not for you to change. Nothing was changed.' };
    }
    if (!(error instanceof TypeError)) throw error;
    return { message: 'No answer from the server. What you typed is still here: try again.' };
  }
}
