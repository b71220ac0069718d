import { spawn } from 'node:child_process';
import type { ChildProcess, SpawnOptions } from 'node:child_process';
import { once } from 'node:events';

/** Whom a program runs as, where that is not whoever called. */
export type User = { uid: number; gid: number };

export type RunOptions = {
  cwd?: string;
  env?: NodeJS.ProcessEnv;
  /** What the program reads. */
  input?: string;
  as?: User | null;
  /** Where what it says goes: kept (default), straight on to whoever called, or nowhere. */
  said?: 'kept' | 'passed on' | 'nowhere';
};

/** How a program ended: its code (128 + the signal's number is 128 here), and what it said. */
export type Ran = { code: number; out: string; err: string };

const optionsOf = ({ cwd, env, as }: RunOptions): SpawnOptions => ({
  cwd,
  env: env ?? process.env,
  ...(as ? { uid: as.uid, gid: as.gid } : {}),
});

/** Begins a program that goes on beside this one; what it says is passed on. */
export const begin = (
  program: string,
  args: readonly string[],
  options: Omit<RunOptions, 'input' | 'said'> & { stdio?: SpawnOptions['stdio'] } = {},
): ChildProcess =>
  spawn(program, args, {
    stdio: ['ignore', 'inherit', 'inherit'],
    ...options,
    ...optionsOf(options),
  });

/** Whether a program that was begun is still there. */
export const runs = (child: ChildProcess | null): boolean =>
  child !== null && child.exitCode === null && child.signalCode === null && child.pid !== undefined;

/** Waits for a program to end; its code, 128 where a signal ended it. */
export async function endOf(child: ChildProcess): Promise<number> {
  if (runs(child)) await Promise.race([once(child, 'exit'), once(child, 'error')]);
  return child.exitCode ?? (child.pid === undefined ? 127 : 128);
}

/** Runs a program to its end. Never throws: a program that is not there ends with 127. */
export async function run(
  program: string,
  args: readonly string[],
  options: RunOptions = {},
): Promise<Ran> {
  const said = ({ kept: 'pipe', 'passed on': 'inherit', nowhere: 'ignore' } as const)[
    options.said ?? 'kept'
  ];
  const child = spawn(program, args, { ...optionsOf(options), stdio: ['pipe', said, said] });
  const heard = { out: [] as Buffer[], err: [] as Buffer[] };
  child.stdout?.on('data', (chunk: Buffer) => heard.out.push(chunk));
  child.stderr?.on('data', (chunk: Buffer) => heard.err.push(chunk));
  // A program that ends without reading what it is given is no fault of ours.
  child.stdin?.on('error', () => undefined);
  child.stdin?.end(options.input ?? '');
  return new Promise((done) => {
    const text = (chunks: Buffer[]) => Buffer.concat(chunks).toString('utf8');
    child.once('error', ({ message }) => done({ code: 127, out: '', err: message }));
    child.once('close', (code) =>
      done({ code: code ?? 128, out: text(heard.out), err: text(heard.err) }),
    );
  });
}

export const rest = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
