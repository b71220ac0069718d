/** What is told to whoever called; the same words as ever, one line each. */
export const say = (text: string): void => void process.stdout.write(`${text}\n`);

/** What must be told though nothing stops for it. */
export const warn = (text: string): void => void process.stderr.write(`${text}\n`);

/** Ends a command with code 1: its message says what is missing and what to do. */
export class Refusal extends Error {
  override readonly name = 'Refusal';
}

/** Asks on the terminal; anything but y or Y, and the end of what is typed, is no. */
export async function agreed(question: string): Promise<boolean> {
  process.stdout.write(`${question} Go on? [y/N] `);
  const { createInterface } = await import('node:readline');
  const lines = createInterface({ input: process.stdin });
  const answer = await new Promise<string>((done) => {
    lines.once('line', done).once('close', () => done(''));
  });
  lines.close();
  return answer === 'y' || answer === 'Y';
}
