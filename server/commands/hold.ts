import { spawn, spawnSync } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { Refusal } from './tell';

/** Whoever has ended lets go a moment later: for that long the lock is waited for, s. */
const WAIT_S = '1';

/** What lets go of a folder. */
export type Held = { letGo(): void };

/**
 * Holds `FOLDER/lock` until it is let go, or this process ends in whatever way: a lock of the system
 * is held by a small program that ends with its input. Null where somebody else holds it.
 */
async function locked(folder: string): Promise<Held | null> {
  const child = spawn('flock', ['--wait', WAIT_S, join(folder, 'lock'), 'cat'], {
    // A Ctrl-C that is meant for us must not let go before we are done.
    detached: true,
    stdio: ['pipe', 'pipe', 'ignore'],
  });
  const held = await new Promise<boolean>((done) => {
    child.stdout.once('data', () => done(true));
    child.once('exit', () => done(false)).once('error', () => done(false));
    child.stdin.on('error', () => undefined);
    child.stdin.write('held\n');
  });
  if (!held) return null;
  child.unref();
  return { letGo: () => void child.stdin.end() };
}

/**
 * The number of a server that an earlier start left running on this data, null where none is: a
 * number left long ago may be another program's by now.
 */
export function serverLeft(data: string): number | null {
  try {
    const pid = Number(readFileSync(join(data, 'server.pid'), 'utf8').trim());
    const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ');
    return /build\/(program|node)\/server\.js/.test(line) ? pid : null;
  } catch {
    return null;
  }
}

/**
 * Makes a folder and those above it; whether it is there. By the system’s own program: `mkdirSync` of
 * Node.js 20 goes round for ever where a file system lets nobody make anything (/proc).
 */
export const makeFolder = (folder: string): boolean =>
  spawnSync('mkdir', ['-p', '--', folder], { stdio: 'ignore' }).status === 0;

/** Makes the folder of the data. */
export function makeData(data: string): void {
  if (!makeFolder(data))
    throw new Refusal(`cannot make ${data}. Set PATRONE_DATA to a folder that can be written.`);
}

/**
 * Whoever starts or restores holds the folder until it ends, so that of two one is refused, in the
 * words of `busy` (another has it in hand) and `left` (a start that was killed left a server).
 */
export async function hold(
  data: string,
  busy: string,
  left: (pid: number) => string,
): Promise<Held> {
  makeData(data);
  const held = await locked(data);
  if (!held) throw new Refusal(busy);
  const pid = serverLeft(data);
  if (pid !== null) {
    held.letGo();
    throw new Refusal(left(pid));
  }
  rmSync(join(data, 'stopped'), { force: true });
  return held;
}
