import { accessSync, constants, existsSync } from 'node:fs';
import { audit } from './audit';
import { writeBackup } from './backup';
import { needPrograms } from './machine';
import { Postgres } from './postgres';
import { sum } from './reports';
import type { Count } from './reports';
import { restore } from './restore';
import { develop, prepare, serve, started, stopLeft } from './serving';
import { PORTS, dataFolder, fromCaller } from './settings';
import { chore } from './supervise';
import { Refusal, say, warn } from './tell';
import { bench, check, journeys, project, stopTests, tally, torture, withTestApp } from './testing';

/** What every test wants on the machine. */
const FOR_TESTS = ['initdb', 'psql', 'flock', 'chromium', 'pdfinfo', 'openssl'] as const;

/** Tells what failed and why, and how many passed, as the very last line; the code to end with. */
function finish(counts: readonly Count[]): number {
  const { passed, failed, failures } = sum(counts);
  if (failures.length > 0) say(`\nFailed:\n${failures.join('\n')}\n`);
  say(`${passed} passed, ${failed} failed`);
  return failed === 0 ? 0 : 1;
}

/** The database of the folder of data, for a command that only looks; `what` it is wanted for. */
async function existing(what: string): Promise<Postgres> {
  await needPrograms('initdb', 'psql');
  const data = dataFolder();
  if (!Postgres.isIn(data))
    throw new Refusal(
      `there is no database in ${data}: nothing to ${what}. Is PATRONE_DATA the right folder?`,
    );
  return Postgres.start(data, PORTS.database, (one) => started.push(one));
}

async function backup(file: string): Promise<number> {
  const database = await existing('back up');
  if (!(await database.hasTable('jobs')))
    throw new Refusal(`the database in ${database.data} holds no jobs yet: nothing to back up.`);
  if (!(await writeBackup(database, file, true)))
    throw new Refusal(
      `the backup could not be written to ${file}, or not read back whole: ${database.why()}`,
    );
  say(`Backed up to ${file}.`);
  return 0;
}

async function restored(argument: string): Promise<number> {
  const file = argument === '--undo' ? null : fromCaller(argument);
  await prepare('initdb', 'psql', 'flock');
  try {
    if (file !== null) accessSync(file, constants.R_OK);
  } catch {
    throw new Refusal(`there is no file ${file}.`);
  }
  await restore(dataFolder(), file, (one) => started.push(one));
  return 0;
}

async function test(args: readonly string[]): Promise<number> {
  await prepare(...FOR_TESTS);
  const checked = await check([]);
  const played = await journeys(args);
  const short = await tally('torture', async () => (await torture(['--short'])) === 0);
  return finish([...checked, played, short]);
}

/** Refuses what a command does not take, and tells what it takes. */
const takes = (fits: boolean, usage: string): void => {
  if (!fits) throw new Refusal(`usage: ${usage}`);
};

/** Unit tests that the fast loop leaves out. */
const SLOW = '\\.slow\\.test';

/** The commands of `./patrone`, by name; each gives the code to end with. */
const COMMANDS: Record<string, (args: string[]) => Promise<number>> = {
  async demo(args) {
    const [option = ''] = args;
    takes(args.length <= 1 && (option === '' || option === '--reset'), './patrone demo [--reset]');
    await serve(true, option as '' | '--reset');
    return 0;
  },
  async start(args) {
    const [option = ''] = args;
    takes(
      args.length <= 1 && (option === '' || option === '--network'),
      './patrone start [--network]',
    );
    await serve(false, option as '' | '--network');
    return 0;
  },
  async stop() {
    await stopLeft();
    return 0;
  },
  async dev() {
    await develop();
    return 0;
  },
  test,
  // What looks at whole pictures takes longer than one waits between two edits.
  async check(args) {
    await needPrograms('initdb', 'psql');
    return finish(await check(args.length > 0 ? args : ['--testPathIgnorePatterns', SLOW]));
  },
  async journeys(args) {
    await prepare(...FOR_TESTS);
    return finish([await journeys(args)]);
  },
  audit,
  async shots() {
    await prepare('initdb', 'psql', 'flock', 'chromium');
    return withTestApp((app) => project(app, 'shots', { PATRONE_SHOTS: '1' }));
  },
  async bench() {
    await prepare('initdb', 'psql', 'flock', 'chromium');
    return (await bench(Boolean(process.env.ONLY_SIZE))) ? 0 : 1;
  },
  async torture(args) {
    await prepare('initdb', 'psql', 'flock');
    return torture(args);
  },
  async 'check-data'() {
    await prepare('initdb', 'psql', 'flock');
    return (await chore(await existing('look through'), ['check'])).code;
  },
  backup(args) {
    takes(args.length === 1, './patrone backup FILE');
    return backup(fromCaller(args[0]!));
  },
  restore(args) {
    takes(args.length === 1, './patrone restore FILE, or ./patrone restore --undo');
    return restored(args[0]!);
  },
};

/** Stops whatever this command has started, once. */
let stopping: Promise<void> | null = null;
const stopAll = (): Promise<void> =>
  (stopping ??= (async () => {
    await stopTests();
    await Promise.all(started.map((one) => one.stop()));
  })());

for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => void stopAll().finally(() => process.exit(stopCode)));

const [name = '', ...args] = process.argv.slice(2);
/** Ctrl-C is how a server is meant to be ended; anything else was broken off. */
const stopCode = ['demo', 'start', 'dev'].includes(name) ? 0 : 1;

try {
  process.exitCode = existsSync('package.json') ? await COMMANDS[name]!(args) : 1;
} catch (error) {
  warn(
    error instanceof Refusal
      ? `patrone: ${error.message}`
      : `patrone: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`,
  );
  process.exitCode = 1;
} finally {
  await stopAll();
}
// A lock that is still held, or a line kept open, must not keep a command that is done from ending.
process.exit();
