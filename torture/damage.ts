import { execFileSync, spawn, spawnSync } from 'node:child_process';
import {
  closeSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readFileSync,
  rmSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { ask, form, key, pick, rest } from './client';

export const PATRONE = resolve('patrone');
// Neither of those that are given to whoever calls out: all that is written to the server calls
// out.
const PORT = '4176';
export const PORT_OF_DB = '24176';
const AT = `http://127.0.0.1:${PORT}`;
export const envFor = (data: string) => ({
  ...process.env,
  PATRONE_PORT: PORT,
  PATRONE_DB_PORT: PORT_OF_DB,
  PATRONE_DATA: data,
  PATRONE_BACKUPS: '',
});
const newJob = (name: string) =>
  ask(
    `${AT}/?index`,
    form({ intent: 'create', name, vehicle: '', owner: '', notes: '', key: key() }),
  );

/** A folder that the database's own user can reach. */
export function folder(): string {
  const made = mkdtempSync(join(tmpdir(), 'patrone-torture-'));
  execFileSync('chmod', ['755', made]);
  return made;
}

export async function started(data: string): Promise<() => Promise<void>> {
  if (await ask(`${AT}/health`)) throw new Error(`Something answers on port ${PORT} already.`);
  const child = spawn(PATRONE, ['start'], {
    env: envFor(data),
    detached: true,
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  let said = '';
  child.stderr.on('data', (chunk) => (said += String(chunk)));
  let over = false;
  const ended = new Promise<void>((done) => child.once('exit', () => done())).then(
    () => void (over = true),
  );
  for (let i = 0; i < 300 && !over && !(await ask(`${AT}/health`)); i++) await rest(200);
  if (over) throw new Error(`It did not start: ${said.trim()}`);
  return async () => {
    process.kill(-child.pid!, 'SIGINT');
    await ended;
  };
}

/**
 * Backups with bytes changed, cut out or cut off: each is refused, or what it restores hangs
 * together; nothing is lost.
 */
export async function damagedBackups(
  count: number,
): Promise<{ refused: number; harmless: number; wrong: string[] }> {
  const at = folder();
  const data = join(at, 'data');
  const wrong: string[] = [];
  let refused = 0;
  let harmless = 0;
  const run = (args: string[], input = '') =>
    spawnSync(PATRONE, args, { env: envFor(data), input, encoding: 'utf8' });
  try {
    const stop = await started(data);
    for (let i = 0; i < 30; i++) await newJob(`Kept ${i}`);
    const good = join(at, 'good.backup');
    run(['backup', good]);
    await newJob('After the backup');
    await stop();
    const bytes = readFileSync(good);
    const bad = join(at, 'bad.backup');
    for (let i = 0; i < count; i++) {
      const from = Math.floor(Math.random() * bytes.length);
      const length = 1 + Math.floor(Math.random() * 400);
      const noise = Buffer.from(Array.from({ length }, () => Math.floor(Math.random() * 256)));
      const damaged = pick([
        bytes.subarray(0, from),
        Buffer.concat([bytes.subarray(0, from), bytes.subarray(from + length)]),
        Buffer.concat([bytes.subarray(0, from), noise, bytes.subarray(from + length)]),
      ]);
      writeFileSync(bad, damaged);
      const done = run(['restore', bad], 'y\n');
      if (done.status !== 0) {
        refused++;
        if (!/othing was changed/.test(done.stderr))
          wrong.push(`refused without saying so: ${done.stderr.slice(0, 200)}`);
        continue;
      }
      harmless++;
      if (run(['check-data']).status !== 0) wrong.push('restored, and does not hang together');
      if (run(['restore', '--undo'], 'y\n').status !== 0) wrong.push('could not be undone');
    }
    const again = await started(data);
    const jobs = (await ask(`${AT}/?search=After`))?.text ?? '';
    if (!jobs.includes('After the backup'))
      wrong.push('what was there before is not there any more');
    await again();
  } finally {
    rmSync(at, { recursive: true, force: true });
  }
  return { refused, harmless, wrong };
}

/**
 * A restore is killed with all its processes, `count` times over the length of one; each time what is
 * there hangs together, is what was there before or what was restored, and the next restore and its
 * `--undo` work.
 */
export async function killedRestores(
  count: number,
): Promise<{ before: number; restored: number; wrong: string[] }> {
  const at = folder();
  const data = join(at, 'data');
  const wrong: string[] = [];
  let [before, restored] = [0, 0];
  const run = (args: string[], input = '') =>
    spawnSync(PATRONE, args, { env: envFor(data), input, encoding: 'utf8' });
  try {
    const stop = await started(data);
    for (let i = 0; i < 10; i++) await newJob(`Kept ${i}`);
    const file = join(at, 'good.backup');
    run(['backup', file]);
    await newJob('After the backup');
    await stop();
    const start = performance.now();
    if (run(['restore', file], 'y\n').status !== 0) wrong.push('it could not be restored');
    const lasts = performance.now() - start;
    if (run(['restore', '--undo'], 'y\n').status !== 0) wrong.push('it could not be undone');
    for (let i = 0; i < count; i++) {
      const child = spawn(PATRONE, ['restore', file], {
        env: envFor(data),
        detached: true,
        stdio: ['pipe', 'ignore', 'ignore'],
      });
      const ended = new Promise<void>((done) => child.once('exit', () => done()));
      child.stdin.end('y\n');
      await rest((lasts * (i + 1)) / (count + 1));
      try {
        process.kill(-child.pid!, 'SIGKILL');
      } catch {
        // It was done before.
      }
      await ended;
      if (run(['check-data']).status !== 0)
        wrong.push(`killed at ${i + 1}: it does not hang together`);
      const again = await started(data);
      const stands = ((await ask(`${AT}/?search=After`))?.text ?? '').includes('After the backup');
      if (stands) before++;
      else restored++;
      await again();
      // Whatever was left: the next one does its work, and can be taken back.
      const next = run(['restore', file], 'y\n');
      if (next.status !== 0) wrong.push(`killed at ${i + 1}: the next one failed: ${next.stderr}`);
      if (run(['restore', '--undo'], 'y\n').status !== 0)
        wrong.push(`killed at ${i + 1}: the next one could not be undone`);
      if (!stands) {
        // As it was before the one that was killed and done after all.
        const back = await started(data);
        await newJob('After the backup');
        await back();
      }
    }
  } finally {
    rmSync(at, { recursive: true, force: true });
  }
  return { before, restored, wrong };
}

export type FullDisk = {
  acknowledged: number;
  refused: number;
  told: boolean;
  wrong: string[];
} | null;

/**
 * The disk fills up while records are written: what was acknowledged is there when there is room
 * again. Null where no disk can be made.
 */
export async function fullDisk(): Promise<FullDisk> {
  const at = folder();
  if (spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=220m,mode=755', 'tmpfs', at]).status !== 0) {
    rmSync(at, { recursive: true, force: true });
    return null;
  }
  const data = join(at, 'data');
  mkdirSync(data);
  const acknowledged: string[] = [];
  const wrong: string[] = [];
  const refused: string[] = [];
  let told = false;
  try {
    const stop = await started(data);
    const filler = join(at, 'filler');
    const write = async (seconds: number) => {
      for (const end = Date.now() + seconds * 1000; Date.now() < end;) {
        const name = `Full ${key()}`;
        // Nothing that packs small: it has to want room.
        const notes = Array.from({ length: 180 }, key).join(' ');
        const answer = await ask(
          `${AT}/?index`,
          form({ intent: 'create', name, vehicle: '', owner: '', notes }),
        );
        if (answer && answer.status < 400) acknowledged.push(name);
        else if (answer?.status === 507 || answer?.status === 503) refused.push(name);
        else if (answer) wrong.push(`a full disk was answered with ${answer.status}`);
        if (answer?.status !== 302) await rest(100);
      }
    };
    await write(2);
    const file = openSync(filler, 'w');
    try {
      for (;;) writeSync(file, Buffer.alloc(64 * 1024));
    } catch {
      // No room for another: that is what was wanted.
    }
    closeSync(file);
    const health = await ask(`${AT}/health`);
    told = health?.status === 503 && health.text.includes('disk');
    await write(20);
    if (refused.length === 0) wrong.push('the disk was full, and nothing was refused');
    rmSync(filler);
    for (let i = 0; i < 100 && (await ask(`${AT}/health`))?.status !== 200; i++) await rest(300);
    const before = acknowledged.length;
    await write(1);
    if (acknowledged.length === before) wrong.push('there was room again, and nothing was taken');
    // Each by a search of its own would take longer than all the rest: a hundred of them, the last
    // ones among them.
    const looked = acknowledged.filter((_, i) => i % Math.ceil(acknowledged.length / 50) === 0);
    for (const name of [...looked, ...acknowledged.slice(-50)]) {
      const found = await ask(`${AT}/?search=${encodeURIComponent(name)}`);
      if (!found?.text.includes(`>${name}<`)) wrong.push(`${name} is not there`);
    }
    for (const name of refused.slice(-50)) {
      const found = await ask(`${AT}/?search=${encodeURIComponent(name)}`);
      if (found?.text.includes(`>${name}<`)) wrong.push(`${name} was refused and is there`);
    }
    await stop();
  } finally {
    spawnSync('umount', ['-l', at]);
    rmSync(at, { recursive: true, force: true });
  }
  return { acknowledged: acknowledged.length, refused: refused.length, told, wrong };
}
