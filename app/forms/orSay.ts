/** A server's answer, or a message to show in its place when the server could not be reached: the page stays as it is. */
export async function orSay<T>(ask: () => Promise<T>): Promise<T | { message: string }> {
  try {
    return await ask();
  } catch (error) {
    // A request that got no answer is a TypeError; anything else is the server's own word and goes on.
    if (!(error instanceof TypeError)) throw error;
    return { message: 'No answer from the server. What you typed is still here: try again.' };
  }
}
