import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { networkAddresses } from '#app/frame/network.server';
import { makeBackupsFolder, momentOf, nightly, writeBackup } from './backup';
import { ownCertificate, sayNetwork } from './certificate';
import { hold, serverLeft } from './hold';
import { needBuild, needPrograms, needSpace } from './machine';
import { Postgres, answers } from './postgres';
import { tidyRestores } from './restore';
import { begin, endOf, rest, run } from './run';
import { PORTS, dataFolder } from './settings';
import { App, chore, needPort } from './supervise';
import { Refusal, agreed, say } from './tell';

/** What a command has started: whoever is told to end stops it first. */
export const started: { stop(): Promise<void> }[] = [];

/** Installs what is missing and builds. */
export async function prepare(...programs: Parameters<typeof needPrograms>): Promise<void> {
  needSpace();
  await needPrograms(...programs);
  await needBuild();
}

/**
 * Brings the database up to date; before that, where there is anything to lose, what was there is
 * backed up.
 */
async function migrate(database: Postgres): Promise<void> {
  const pending = (await chore(database, ['pending'], 'kept')).out.trim();
  if (pending !== '0' && (await database.hasTable('jobs'))) {
    const folder = makeBackupsFolder(database.data);
    const file = join(folder, `before-update-${momentOf(new Date())}.backup`);
    if (!(await writeBackup(database, file, false)))
      throw new Refusal(
        `what is there could not be backed up before the update, so nothing was changed: ${database.why()}`,
      );
    say(`Backed up before the update: ${file}`);
  }
  if ((await chore(database, ['migrate'])).code !== 0)
    throw new Refusal('the database could not be brought up to date; it is as it was.');
}

async function demoJob(database: Postgres, reset: boolean): Promise<void> {
  const asked =
    'This puts the demo job back as it was; changes to it are lost. Your own jobs stay.';
  if (reset && !(await agreed(asked))) throw new Refusal('nothing was changed.');
  if ((await chore(database, ['demo', ...(reset ? ['--reset'] : [])])).code !== 0)
    throw new Refusal('the demo job could not be loaded.');
}

/** Serves until it is stopped; `demo` with the demo job, `network` on the shop's network as well. */
export async function serve(demo: boolean, option: '--reset' | '--network' | ''): Promise<void> {
  const network = option === '--network';
  await needPort(PORTS.program);
  await prepare('initdb', 'psql', 'flock');
  if (network && (await answers(PORTS.network)))
    throw new Refusal(
      `port ${PORTS.network}, wanted for the shop's network, is taken by another program. Set PATRONE_NETWORK_PORT to a free one and run again.`,
    );
  const data = dataFolder();
  const held = await hold(
    data,
    `another ./patrone has ${data} in hand: it is starting or running. Stop it with ./patrone stop, or set PATRONE_DATA to another folder.`,
    (pid) =>
      `Patrone runs already on ${data} (process ${pid}), left by a start that was killed. Stop it with ./patrone stop.`,
  );
  const database = await Postgres.start(data, PORTS.database, (one) => started.push(one));
  // The data is in our hand: a database that ran already was left by one that was killed.
  database.ours = true;
  await tidyRestores(database);
  await migrate(database);
  if (demo) await demoJob(database, option === '--reset');
  const open = demo || process.env.PATRONE_HERE === 'open';
  const tls = join(data, 'tls');
  if (network) await ownCertificate(tls);
  const app = new App(database, PORTS.program, {
    ...(open ? { PATRONE_HERE: 'open' } : {}),
    ...(network ? { PATRONE_TLS: tls, PATRONE_NETWORK_PORT: String(PORTS.network) } : {}),
  });
  // In place of the database alone: the server goes first.
  started.splice(0, started.length, app);
  await app.serve();
  say(`Patrone is ready: ${app.url}`);
  if (open)
    say(
      `Whoever opens it on this machine is signed in${demo ? ' as the person of the demo who runs the shop' : ''}.`,
    );
  if (network) sayNetwork(tls, networkAddresses(), PORTS.network);
  say(`Ctrl-C stops it. The data is in ${data}.`);
  await app.watch({ beside: nightly(database) });
  await app.stop();
  held.letGo();
}

/**
 * Reloads as files change, with a database of its own: a developer's half-made migration touches
 * nobody's jobs.
 */
export async function develop(): Promise<void> {
  await needPort(PORTS.program);
  needSpace();
  await needPrograms('initdb', 'psql', 'flock');
  const data = process.env.PATRONE_DATA ? dataFolder() : `${dataFolder()}-dev`;
  const built = await run('npx', ['vite', 'build', '-c', 'vite.node.config.ts']);
  if (built.code !== 0) throw new Refusal(`the build failed.\n${built.out}${built.err}`);
  const database = await Postgres.start(data, PORTS.database, (one) => started.push(one));
  if ((await chore(database, ['migrate'])).code !== 0)
    throw new Refusal('the database could not be brought up to date.');
  if ((await chore(database, ['demo'])).code !== 0)
    throw new Refusal('the demo job could not be loaded.');
  say(`The data is in ${data}. Ctrl-C stops it.`);
  const env = {
    ...process.env,
    DATABASE_URL: database.url,
    PATRONE_PICTURES: join(data, 'pictures'),
    PATRONE_HERE: 'open',
  };
  const args = ['react-router', 'dev', '--host', '127.0.0.1', '--port', String(PORTS.program)];
  await endOf(begin('npx', args, { env }));
  await database.stop();
}

/** What was stopped, as a sentence. */
export const stoppedWords = (stopped: readonly string[]): string =>
  stopped.length === 0 ? 'Nothing was running.' : `Stopped ${stopped.join(' and ')}.`;

/**
 * Stops what was left running when what started it was killed: the server by the number it left, then
 * the database.
 */
export async function stopLeft(): Promise<void> {
  const data = dataFolder();
  if (!Postgres.isIn(data))
    throw new Refusal(`there is no database in ${data}: nothing of this folder runs.`);
  const database = Postgres.left(data);
  const stopped: string[] = [];
  // Asked first: whoever started both may stop the database as soon as the server has gone.
  const databaseRan = await database.isUp();
  // Whoever started it sees this and ends, instead of starting again what is stopped here.
  mkdirSync(data, { recursive: true });
  writeFileSync(join(data, 'stopped'), '');
  const pid = serverLeft(data);
  if (pid !== null) {
    process.kill(pid, 'SIGTERM');
    stopped.push('the server');
    for (let i = 0; i < 120 && serverLeft(data) === pid; i++) await rest(100);
  }
  if (databaseRan) {
    if (!(await database.stopNow()))
      throw new Refusal(`the database does not stop: ${database.why()}`);
    stopped.push('the database');
  }
  say(stoppedWords(stopped));
}
