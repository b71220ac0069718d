import { execFileSync, spawn, spawnSync } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, statSync, symlinkSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { expect, test } from '@playwright/test';
import { cornerAt, saved } from './hands';

/**
 * The one command, as someone at a prompt meets it: its own ports and data, so that nothing else is
 * disturbed.
 */

const PATRONE = resolve('patrone');
const PORT = '4174';
const DB_PORT = '24174';
let data = '';
test.beforeAll(() => {
  data = join(mkdtempSync(join(tmpdir(), 'patrone-command-')), 'data');
  // As root the database's own user must be able to reach its folder.
  execFileSync('chmod', ['755', join(data, '..')]);
});
test.afterAll(() => rmSync(join(data, '..'), { recursive: true, force: true }));

// Open, as the demo is: what signing in asks for is told in people.spec.
const env = () => ({
  ...process.env,
  PATRONE_HERE: 'open',
  PATRONE_PORT: PORT,
  PATRONE_DB_PORT: DB_PORT,
  PATRONE_DATA: data,
});
const run = (
  args: string[],
  more: { input?: string; env?: Record<string, string | undefined>; cwd?: string } = {},
) => {
  const done = spawnSync(PATRONE, args, {
    env: { ...env(), ...more.env },
    input: more.input ?? '',
    encoding: 'utf8',
    cwd: more.cwd ?? '/',
  });
  return { code: done.status, out: done.stdout, err: done.stderr };
};

/**
 * Starts the application and waits for its address; `stop` is Ctrl-C, and waits until all of it is
 * gone.
 */
async function start(
  verb: 'demo' | 'start',
  args: string[] = [],
  answer = '',
): Promise<{ said: () => string; stop: () => Promise<number | null>; kill: () => void }> {
  const child: ChildProcess = spawn(PATRONE, [verb, ...args], {
    env: env(),
    cwd: '/',
    detached: true,
  });
  let said = '';
  child.stdout!.on('data', (chunk) => (said += String(chunk)));
  child.stderr!.on('data', (chunk) => (said += String(chunk)));
  child.stdin!.end(answer);
  await expect(() => expect(said).toContain(`Patrone is ready: http://127.0.0.1:${PORT}`)).toPass({
    timeout: 60_000,
  });
  return {
    said: () => said,
    // The script alone, with no chance to tidy up.
    kill: () => process.kill(child.pid!, 'SIGKILL'),
    stop: () =>
      new Promise((gone) => {
        child.once('exit', gone);
        // Ctrl-C goes to the whole group, as from a terminal.
        process.kill(-child.pid!, 'SIGINT');
      }),
  };
}
const answers = async (): Promise<boolean> => {
  try {
    return (await fetch(`http://127.0.0.1:${PORT}/health`)).ok;
  } catch {
    return false;
  }
};
const jobs = async (): Promise<string> => (await fetch(`http://127.0.0.1:${PORT}/`)).text();
const newJob = (name: string) =>
  fetch(`http://127.0.0.1:${PORT}/?index`, {
    method: 'POST',
    body: new URLSearchParams({ intent: 'create', name, vehicle: '', owner: '', notes: '' }),
    redirect: 'manual',
  });

test('demo starts, Ctrl-C stops server and database, the next start keeps the data; backup and restore; reset asks', async () => {
  test.setTimeout(400_000);
  const file = join(data, '..', 'kept.backup');

  let app = await start('demo');
  expect(await jobs()).toContain('Mobile library van');
  // A second one beside it says so at once, and leaves the first alone.
  const second = run(['demo']);
  expect(second.code).toBe(1);
  expect(second.err).toContain(`Patrone runs already: http://127.0.0.1:${PORT}`);
  expect(second.err.trim().split('\n')).toHaveLength(1);
  expect((await newJob('My own job')).status).toBe(302);
  expect(run(['backup', file]).out).toContain('Backed up to');
  expect((statSync(file).mode & 0o777).toString(8)).toBe('600');
  const empty = run(['backup', file], { env: { PATRONE_DATA: join(data, 'none') } });
  expect(empty.err).toContain('nothing to back up');
  await app.stop();
  await expect(async () => expect(await answers()).toBe(false)).toPass();
  expect(spawnSync('bash', ['-c', `exec 3<>/dev/tcp/127.0.0.1/${DB_PORT}`]).status).not.toBe(0);

  app = await start('start');
  expect(await jobs()).toContain('My own job');
  await newJob('After the backup');
  await app.stop();

  expect(run(['restore', file], { input: 'n\n' }).err).toContain('nothing was changed');
  expect(run(['restore', join(data, 'none')], { input: 'y\n' }).err).toContain('there is no file');
  // Half a file is no backup, and is known for it before anything is touched.
  const half = join(data, '..', 'half.backup');
  writeFileSync(half, readFileSync(file).subarray(0, 4000));
  expect(run(['restore', half], { input: 'y\n' }).err).toContain('Nothing was changed');
  // Into an empty folder: everything comes with it, the pictures and what they add up to as well.
  const blank = { PATRONE_DATA: join(data, '..', 'blank') };
  expect(run(['restore', file], { input: 'y\n', env: blank }).out).toContain('Restored from');
  expect(run(['check-data'], { env: blank }).out).toContain('All hangs together');
  rmSync(join(data, 'pictures'), { recursive: true });
  expect(run(['check-data']).out).toContain('its file is gone');
  expect(run(['restore', file], { input: 'y\n' }).out).toContain('Restored from');
  expect(run(['check-data']).out).toContain('All hangs together');
  // Back to what was there before, and forth again.
  expect(run(['restore', '--undo'], { input: 'y\n' }).out).toContain(
    'Put back what was there before',
  );
  app = await start('start');
  expect(await jobs()).toContain('After the backup');
  // A database in use is not pulled from under whoever uses it.
  expect(run(['restore', file], { input: 'y\n' }).err).toContain('Patrone is running on this data');
  await app.stop();
  expect(run(['restore', '--undo'], { input: 'y\n' }).out).toContain(
    'Put back what was there before',
  );
  app = await start('demo', ['--reset'], 'y\n');
  expect(app.said()).toContain('Your own jobs stay');
  const listed = await jobs();
  expect(listed).toContain('My own job');
  expect(listed).not.toContain('After the backup');
  expect(listed).toContain('Mobile library van');
  await app.stop();
});

test('stopped from elsewhere, killed in the middle, its password or its number lost: the next start goes on; a backup each day, and the data looked through', async () => {
  test.setTimeout(300_000);
  // Named from where the caller stands.
  const relative = run(['check-data'], { cwd: join(data, '..'), env: { PATRONE_DATA: 'data' } });
  expect(relative.out).toMatch(/^All hangs together: \d+ jobs/);
  let app = await start('start');
  // Another one on the same data, though on other ports, is refused and does no harm.
  const other = run(['start'], { env: { PATRONE_PORT: '4175', PATRONE_DB_PORT: '24175' } });
  expect(other.err).toContain('in hand: it is starting or running');
  const today = join(data, 'backups', `patrone-${new Date().toLocaleDateString('sv')}.backup`);
  await expect(() => expect(statSync(today).mode & 0o777).toBe(0o600)).toPass({ timeout: 20_000 });
  expect(await (await fetch(`http://127.0.0.1:${PORT}/shop`)).text()).toContain('Last backed up');
  expect(run(['stop']).out).toContain('Stopped the server and the database');
  expect(app.said()).not.toContain('before the update');
  // The script that started it sees that it was meant, and starts nothing again.
  await new Promise((done) => setTimeout(done, 2500));
  expect(await answers()).toBe(false);
  expect(app.said()).not.toContain('Starting it again');

  app = await start('start');
  app.kill();
  await new Promise((done) => setTimeout(done, 1500));
  const left = run(['start'], { env: { PATRONE_PORT: '4175' } });
  expect(left.err).toContain('left by a start that was killed. Stop it with ./patrone stop');
  expect(run(['stop']).out).toContain('Stopped the server and the database');

  rmSync(join(data, 'password'));
  // The number of a process that is there and is no database.
  writeFileSync(join(data, 'db', 'postmaster.pid'), `${process.pid}\n`);
  app = await start('start');
  expect(app.said()).toContain('a new one is made');
  expect(await jobs()).toContain('My own job');
  await app.stop();

  // Something that does not hang together is found, and said in words.
  app = await start('start');
  const password = readFileSync(join(data, 'password'), 'utf8');
  const psql = (query: string) =>
    execFileSync(
      'psql',
      ['-h', '127.0.0.1', '-p', DB_PORT, '-U', 'patrone', '-qAtc', query, 'patrone'],
      { env: { ...process.env, PGPASSWORD: password }, encoding: 'utf8' },
    );
  psql(
    `update heads set number = 99 where kind = 'card' and piece = (select id from pieces where name = 'Battery shelf' limit 1)`,
  );
  const wrong = run(['check-data']);
  expect(wrong.code).toBe(1);
  expect(wrong.out).toContain('Battery shelf, card 99: its version in use is not there');
  psql(`update heads set number = 1 where number = 99`);
  expect(run(['check-data']).code).toBe(0);
  await app.stop();
});

test('a server that is killed, and a database that is, are told and started again; the data is there, and a corner that was being dragged', async ({
  page,
}) => {
  test.setTimeout(150_000);
  const app = await start('demo');
  await newJob('Before the crash');
  const pidOf = (pattern: string) =>
    execFileSync('pgrep', ['-f', pattern], { encoding: 'utf8' }).trim().split('\n')[0]!;
  const listening = () =>
    execFileSync(
      'bash',
      ['-c', `ss -ltnpH 'sport = :${PORT}' | sed -n 's/.*pid=\\([0-9]*\\).*/\\1/p'`],
      { encoding: 'utf8' },
    ).trim();
  execFileSync('kill', ['-9', listening()]);
  await expect(() => expect(app.said()).toContain('The server stopped by itself')).toPass({
    timeout: 15_000,
  });
  await expect(async () => expect(await answers()).toBe(true)).toPass({ timeout: 15_000 });
  await page.goto(`http://127.0.0.1:${PORT}/`);
  await page
    .getByRole('link', { name: /Mobile library van/ })
    .first()
    .click();
  await page
    .getByRole('link', { name: /Battery shelf/ })
    .first()
    .click();
  await page.waitForURL(/\/pieces\//);
  await page.goto(page.url().replace(/[a-z]+$/, 'card'));
  await page.waitForLoadState('networkidle');
  const corner = await cornerAt(page, 1);
  await page.mouse.move(corner.x, corner.y);
  await page.mouse.down();
  await page.mouse.move(corner.x - 12, corner.y + 9, { steps: 4 });
  execFileSync('kill', ['-9', pidOf(`postgres -D ${data}/db`)]);
  await page.mouse.move(corner.x - 24, corner.y + 18, { steps: 6 });
  await page.mouse.up();
  await expect(() => expect(app.said()).toContain('The database stopped')).toPass({
    timeout: 15_000,
  });
  await saved(page);
  const left = await page
    .getByRole('button', { name: /^Card / })
    .first()
    .textContent();
  await page.reload();
  await expect(page.getByRole('button', { name: /^Card / }).first()).toHaveText(left!);
  await expect(async () => expect(await jobs()).toContain('Before the crash')).toPass({
    timeout: 30_000,
  });
  expect(await app.stop()).toBe(0);

  // The script killed, and what it started left running: the next one says how to stop that.
  const second = await start('start');
  second.kill();
  expect(run(['start']).err).toContain('./patrone stop');
  expect(run(['stop']).out).toContain('Stopped the server and the database.');
  expect(run(['stop']).out).toContain('Nothing was running.');
  expect(spawnSync('pgrep', ['-f', `postgres -D ${data}/db`]).status).toBe(1);
});

test('a port that is taken is named before anything is begun', async () => {
  const squatter = createServer().listen(Number(PORT), '127.0.0.1');
  await new Promise((ready) => squatter.once('listening', ready));
  // Not spawnSync: the squatter lives in this process and must be free to answer.
  const child = spawn(PATRONE, ['start'], { env: env(), cwd: '/' });
  let err = '';
  child.stderr.on('data', (chunk) => (err += String(chunk)));
  squatter.on('connection', (socket) => socket.destroy());
  const code = await new Promise((done) => child.once('exit', done));
  await new Promise((closed) => squatter.close(closed));
  expect(code).toBe(1);
  expect(err.trim()).toBe(
    `patrone: port ${PORT} is taken by another program. Set PATRONE_PORT to a free one and run again.`,
  );
});

test('what is missing is named in one line: no Node.js, a folder that cannot be written', () => {
  // A machine with the tools of any system and no Node.js.
  const tools = mkdtempSync(join(tmpdir(), 'patrone-tools-'));
  for (const tool of ['bash', 'dirname', 'readlink', 'cat'])
    symlinkSync(
      execFileSync('bash', ['-c', `command -v ${tool}`], { encoding: 'utf8' }).trim(),
      join(tools, tool),
    );
  const bare = run(['check'], { env: { PATH: tools } });
  rmSync(tools, { recursive: true });
  expect(bare.code).toBe(1);
  expect(bare.err.trim()).toBe(
    'patrone: Node.js 20 or newer is missing. Install it and run again.',
  );
  const nowhere = run(['start'], { env: { PATRONE_DATA: '/proc/patrone' } });
  expect(nowhere.code).toBe(1);
  expect(nowhere.err).toContain(
    'cannot make /proc/patrone. Set PATRONE_DATA to a folder that can be written.',
  );
  expect(run(['sell']).code).toBe(1);
  expect(run(['help']).out).toContain('./patrone demo [--reset]');
  expect(run(['demo', '--everything']).err).toContain('usage: ./patrone demo [--reset]');
});

test('reckon: from standard input or a file, from any folder, errors as JSON and exit code 1', () => {
  const allowance = '{"thicknessMm":1,"radiusMm":1.6,"angleDeg":90,"rule":{"kind":"din6935"}}';
  const piped = run(['reckon', 'allowance'], { input: allowance });
  expect(piped.code).toBe(0);
  // DIN 6935 formula evaluated: 2.0961.
  expect(JSON.parse(piped.out)).toMatchObject({ ok: true, deductionMm: expect.closeTo(2.0961, 4) });
  const folder = mkdtempSync(join(tmpdir(), 'patrone-reckon-'));
  writeFileSync(join(folder, 'bend.json'), allowance);
  expect(run(['reckon', 'allowance', '--in', 'bend.json'], { cwd: folder }).out).toBe(piped.out);
  const verbs = [...run(['reckon', '--help']).out.matchAll(/^ {2}([a-z-]+) {2,}/gm)].map(
    (m) => m[1]!,
  );
  expect(verbs).toEqual(
    expect.arrayContaining(['gauge', 'allowance', 'develop', 'plugs', 'tacks']),
  );
  // That every verb answers its own example is for the unit tests; here it goes in and out.
  const example = run(['reckon', 'develop', '--example']).out;
  expect(JSON.parse(run(['reckon', 'develop'], { input: example }).out)).toMatchObject({
    ok: true,
  });
  for (const [args, input] of [
    [['reckon', 'allowance'], 'not json'],
    [['reckon', 'allowance'], '{"thicknessMm":0,"radiusMm":1,"angleDeg":90,"rule":{"kind":"faa"}}'],
    [['reckon', 'gauge'], '{"system":"msg","gauge":99}'],
    [['reckon', 'weigh'], '{}'],
    [['reckon', 'gauge', '--in', 'nowhere.json'], ''],
  ] as const) {
    const refused = run([...args], { input });
    expect(refused.code).toBe(1);
    expect(JSON.parse(refused.out)).toMatchObject({
      ok: false,
      problems: [{ code: expect.any(String) }],
    });
  }
  rmSync(folder, { recursive: true });
});
