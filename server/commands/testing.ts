import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { failure, ofJest, ofPlaywright } from './reports';
import type { Count } from './reports';
import { Postgres } from './postgres';
import { begin, endOf, run } from './run';
import { HERE, PORTS } from './settings';
import { App, chore } from './supervise';
import { say } from './tell';

/**
 * What a test is told of the server and the database that it runs against, and to what it starts
 * itself: an open machine.
 */
const seenBy = (app: App): NodeJS.ProcessEnv => ({
  PATRONE_TEST_PORT: String(app.port),
  PATRONE_HERE: 'open',
  PATRONE_URL: app.url,
  PATRONE_SERVER_PID: String(app.pid),
  DATABASE_URL: app.database.url,
  PATRONE_PICTURES: join(app.database.data, 'pictures'),
});

/** Does something in a folder of its own that the database's user can read, thrown away after it. */
async function inFolder<T>(does: (folder: string) => Promise<T>): Promise<T> {
  const folder = mkdtempSync(join(tmpdir(), 'patrone-test-'));
  chmodSync(folder, 0o755);
  try {
    return await does(folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Servers of tests that run: told to end, this process stops them first. */
const running = new Set<{ stop(): Promise<void> }>();
export const stopTests = async (): Promise<void> => {
  await Promise.all([...running].map((one) => one.stop()));
};

/**
 * Does something with a server and a database of its own with the demo job in it, on ports `shift`
 * beyond those of the tests, thrown away afterwards.
 */
export const withTestApp = <T>(
  does: (app: App) => Promise<T>,
  { shift = 0, quiet = false } = {},
): Promise<T> =>
  inFolder(async (folder) => {
    const port = PORTS.testDatabase + shift;
    const found: { app?: App; database?: Postgres } = {};
    const stopping = {
      async stop() {
        await (found.app ?? found.database)?.stop();
      },
    };
    running.add(stopping);
    try {
      found.database = await Postgres.start(join(folder, 'data'), port, (server) => {
        found.database = server;
      });
      for (const what of ['migrate', 'demo'])
        if ((await chore(found.database, [what])).code !== 0) throw new Error(`${what} failed`);
      found.app = new App(found.database, PORTS.test + shift, { PATRONE_HERE: 'open' }, quiet);
      await found.app.serve();
      return await does(found.app);
    } finally {
      await stopping.stop();
      running.delete(stopping);
    }
  });

/** A step that passes or fails as one, and what it said of why. */
export async function tally(
  name: string,
  does: () => Promise<boolean | { well: boolean; said: string }>,
): Promise<Count> {
  const done = await does();
  const { well, said } = typeof done === 'boolean' ? { well: done, said: '' } : done;
  process.stdout.write(said);
  say(`${well ? 'ok   ' : 'FAIL '} ${name}`);
  return {
    passed: well ? 1 : 0,
    failed: well ? 0 : 1,
    failures: well ? [] : [failure(name, said)],
  };
}

/** Steps one after the other; what those that went wrong have said, and whether all went well. */
async function told(...steps: string[][]): Promise<{ well: boolean; said: string }> {
  let [well, said] = [true, ''];
  for (const [program, ...args] of steps) {
    const { code, out, err } = await run(program!, args);
    if (code !== 0) [well, said] = [false, said + out + err];
  }
  return { well, said };
}

/** Port of the database for the unit tests, beyond that of the journeys. */
const OF_UNITS = 16;

/** Unit tests, beside an empty database for each of the runner's workers (see jest.setup.js). */
async function unitTests(args: readonly string[]): Promise<Count> {
  return inFolder(async (folder) => {
    const database = await Postgres.start(join(folder, 'data'), PORTS.testDatabase + OF_UNITS);
    running.add(database);
    try {
      // It is thrown away: the disk need not be waited for.
      await database.rows('postgres', 'alter system set fsync = off');
      await database.rows('postgres', 'select pg_reload_conf()');
      for (let worker = 1; worker <= availableParallelism(); worker++)
        await database.makeDatabase(`worker_${worker}`);
      return await unitTestsBeside(database.urlOf('worker_%'), folder, args);
    } finally {
      await database.stop();
      running.delete(database);
    }
  });
}

async function unitTestsBeside(
  databases: string,
  folder: string,
  args: readonly string[],
): Promise<Count> {
  const report = join(folder, 'jest.json');
  const all = ['jest', '--silent=false', '--json', `--outputFile=${report}`, ...args];
  // Its words go to the error stream; what passed need not be told.
  const env = { ...process.env, PATRONE_TEST_DATABASES: databases };
  const { err } = await run('npx', all, { env });
  const lines = err.split('\n').filter((line) => !/^\s+✓|^PASS /.test(line));
  process.stdout.write(lines.slice(-200).join('\n'));
  const { slowest, ...count } = ofJest(safely(report));
  const names = slowest.map(
    ({ file, ms }) => `  ${(ms / 1000).toFixed(1).padStart(6)} s  ${relative(HERE, file)}`,
  );
  say(`The ten slowest files of unit tests:\n${names.join('\n')}`);
  return count;
}

const safely = (file: string): string => {
  try {
    return readFileSync(file, 'utf8');
  } catch {
    return '';
  }
};

const TYPES_CACHE = 'node_modules/.cache/tsc.json';

/** Lint, format, types and unit tests; `args` go to the unit tests. */
export async function check(args: readonly string[]): Promise<Count[]> {
  // Lint and format on one core while types and unit tests take the other.
  const cache = ['--cache', '--cache-location', 'node_modules/.cache/eslint/'];
  const own = (name: string) => ['npm', 'run', '--silent', name];
  const lint = told(['npx', 'eslint', ...cache, '.'], own('arrows'), own('unused'));
  const format = lint.then(() =>
    told(['npx', 'prettier', '--check', '--cache', '--log-level', 'warn', '.']),
  );
  const counts = [
    await tally('types', () =>
      told(
        ['npx', 'react-router', 'typegen'],
        ['npx', 'tsc', '--noEmit', '--incremental', '--tsBuildInfoFile', TYPES_CACHE],
      ),
    ),
    await unitTests(args),
  ];
  for (const [name, step] of [
    ['lint', lint],
    ['format', format],
  ] as const)
    counts.push(await tally(name, () => step));
  return counts;
}

/** Journeys by Playwright against `app`, and `second` where two are run at once. */
const played = (app: App, args: readonly string[], second?: App): Promise<Count> =>
  inFolder(async (folder) => {
    const report = join(folder, 'playwright.json');
    await run('npx', ['playwright', 'test', '--reporter=list,json', ...args], {
      said: 'passed on',
      env: {
        ...process.env,
        ...seenBy(app),
        PLAYWRIGHT_JSON_OUTPUT_NAME: report,
        ...(second ? { PATRONE_SECOND: JSON.stringify(seenBy(second)) } : {}),
      },
    });
    return ofPlaywright(safely(report));
  });

/** Ports of the second server for the tests, beyond those of the first. */
const SECOND = 8;

/**
 * The journeys that are named; all of them two at a time, each of the two on a server and a database
 * of its own.
 */
export const journeys = (args: readonly string[]): Promise<Count> =>
  withTestApp((app) =>
    args.length > 0
      ? played(app, args)
      : withTestApp((second) => played(app, args, second), { shift: SECOND }),
  );

/** A run of a program of Playwright's other projects, `shots` and `bench`, against `app`. */
export async function project(app: App, name: string, env: NodeJS.ProcessEnv): Promise<number> {
  const args = ['playwright', 'test', `--project=${name}`, '--reporter=line'];
  const all = { ...process.env, ...seenBy(app), ...env };
  return (await run('npx', args, { said: 'passed on', env: all })).code;
}

/**
 * What runs is killed again and again, and started again; the long form writes docs/torture.md. Its
 * code.
 */
export const torture = (args: readonly string[]): Promise<number> =>
  withTestApp(
    async (app) => {
      const env = { ...process.env, ...seenBy(app), PATRONE_TORTURED: app.database.data };
      const torturer = begin(process.execPath, ['build/node/torture.js', ...args], { env });
      const ended = endOf(torturer);
      await app.watch({ until: ended, freeRestarts: Infinity });
      return ended;
    },
    { quiet: true },
  );

type Part = [name: string, does: () => Promise<number>];

/**
 * Speed, script size and memory: every part sets its own scene, so that one neither feeds nor starves
 * the next; those that failed are named at the end. Whether all went well.
 */
export async function bench(onlySize: boolean): Promise<boolean> {
  const program = (name: string) => `build/node/${name}.js`;
  const alone = (name: string) => async () =>
    (await run(process.execPath, [program(name)], { said: 'passed on' })).code;
  const apart = (name: string) => () =>
    withTestApp(async (app) => {
      const own = { PATRONE_DB_LOG: app.database.log, PATRONE_BENCH: '1' };
      const env = { ...process.env, ...seenBy(app), ...own };
      return (await run(process.execPath, [program(name)], { said: 'passed on', env })).code;
    });
  const pages = () => withTestApp((app) => project(app, 'bench', { PATRONE_BENCH: '1' }));
  const parts: Part[] = [
    ['Cards and blanks', alone('bench')],
    ['Flattening', alone('flatten')],
    ['Nets of references', alone('network')],
    ['Photographs', alone('photographs')],
    ['Pages', pages],
    ['Pictures taken in', apart('pictures')],
  ];
  const large: Part[] = [
    ['Large cards', apart('largeCards')],
    ['A shop at size', apart('size')],
  ];
  const failed: string[] = [];
  for (const [name, does] of onlySize ? large : [...parts, ...large]) {
    say(`\n== ${name}`);
    if ((await does()) !== 0) failed.push(name);
  }
  say('');
  for (const name of failed) process.stderr.write(`FAILED: ${name}\n`);
  return failed.length === 0;
}
