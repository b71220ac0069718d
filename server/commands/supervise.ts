import type { ChildProcess } from 'node:child_process';
import { existsSync, rmSync, writeFileSync } from 'node:fs';
import { once } from 'node:events';
import { get } from 'node:http';
import { join } from 'node:path';
import type { Postgres } from './postgres';
import { answers, ownedByServer } from './postgres';
import { begin, endOf, rest, run, runs } from './run';
import type { Ran, User } from './run';
import { HERE, backupsFolder, databaseUser } from './settings';
import { Refusal, say } from './tell';

/** Deaths in a row after which it is started again at once; then the pauses grow, s. */
const FREE_RESTARTS = 5;
const [FIRST_PAUSE_S, LONGEST_PAUSE_S] = [5, 300];
/** Time without a death after which all is well again, ms. */
const WELL_AGAIN_MS = 600_000;
/** How often it is looked whether the database is there, ms. */
const WATCH_EVERY_MS = 500;
/** How long a server may take for its first answer, ms. */
const FIRST_ANSWER_MS = 30_000;

/** Pause before the start that follows a death, the `deaths`-th in a row, s. */
export const pauseAfter = (deaths: number, free = FREE_RESTARTS): number =>
  deaths <= free ? 0 : Math.min(LONGEST_PAUSE_S, FIRST_PAUSE_S * 2 ** (deaths - free - 1));

/** How long an answer about a server's health is waited for, ms. */
const HEALTH_MS = 3000;

/**
 * What a server on a port says of its health; status 0 where it is none of ours. By `http`: of a line
 * that is cut as soon as it is made, `fetch` in Node.js 20 never says so, and ends the whole program.
 */
const health = (port: number): Promise<{ status: number; text: string }> =>
  new Promise((done) => {
    const none = () => done({ status: 0, text: '' });
    const asked = get(
      { host: '127.0.0.1', port, path: '/health', timeout: HEALTH_MS },
      (answer) => {
        let text = '';
        answer.setEncoding('utf8').on('data', (chunk: string) => (text += chunk));
        answer.on('end', () => done({ status: answer.statusCode ?? 0, text })).on('error', none);
      },
    );
    asked
      .on('error', none)
      .on('close', none)
      .on('timeout', () => asked.destroy());
  });

/** Refuses a port that is taken, before anything is built: a server that runs keeps its files. */
export async function needPort(port: number): Promise<void> {
  if (!(await answers(port))) return;
  const { text: said } = await health(port);
  throw new Refusal(
    said === 'ok'
      ? `Patrone runs already: http://127.0.0.1:${port}. Stop it with Ctrl-C where it was started or with ./patrone stop, or set PATRONE_PORT to a free port.`
      : `port ${port} is taken by another program. Set PATRONE_PORT to a free one and run again.`,
  );
}

let toldRoot = false;
/**
 * As root, what serves and what works on the database runs as the user that runs the database,
 * wherever that one can read the program: neither needs power over the machine.
 */
async function unprivileged(): Promise<User | null> {
  const user = databaseUser();
  if (!user) return null;
  const reads = await run(
    process.execPath,
    ['-e', `require('fs').accessSync('build/node/database.js')`],
    {
      as: user,
    },
  );
  if (reads.code === 0) return user;
  if (!toldRoot)
    say(
      `The server runs as root: the user postgres cannot read ${HERE} or node. Put Patrone in a folder that everyone can read.`,
    );
  toldRoot = true;
  return null;
}

/** What the server and the chores are told of where they stand. */
const told = (database: Postgres, more: NodeJS.ProcessEnv): NodeJS.ProcessEnv => ({
  ...process.env,
  DATABASE_URL: database.url,
  PATRONE_PICTURES: join(database.data, 'pictures'),
  ...more,
});

/** One of what server/database.ts can do; `url` is of the database where that is not the usual one. */
export async function chore(
  database: Postgres,
  args: readonly string[],
  said: 'kept' | 'passed on' = 'passed on',
  url = database.url,
): Promise<Ran> {
  const user = await unprivileged();
  ownedByServer(join(database.data, 'pictures'));
  const env = told(database, { DATABASE_URL: url });
  return run(process.execPath, ['build/node/database.js', ...args], { env, as: user, said });
}

/** The server, and the database it stands on. */
export class App {
  private server: ChildProcess | null = null;
  private leaving = false;
  private ending: Promise<void> | null = null;
  private wake: () => void = () => undefined;

  /**
   * `env`: what the server is told beside the usual; `quiet`: what it says, and its deaths, are told
   * to nobody.
   */
  constructor(
    readonly database: Postgres,
    readonly port: number,
    private readonly env: NodeJS.ProcessEnv = {},
    private readonly quiet = false,
  ) {}

  get pid(): number | undefined {
    return this.server?.pid;
  }
  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** Starts the server and waits for its first answer. */
  async serve(): Promise<void> {
    await needPort(this.port);
    await this.launch();
    for (const end = Date.now() + FIRST_ANSWER_MS; Date.now() < end; await rest(50)) {
      if (!runs(this.server)) throw new Refusal('the server stopped at once.');
      if ((await health(this.port)).status === 200) return;
    }
    throw new Refusal('the server does not answer.');
  }

  /**
   * Stays with what runs until it is stopped or `until` has come about: a server or a database that
   * dies is told and started again, at once while that is rare, after a pause that grows to five
   * minutes while it is not; as long as the machine runs. `beside` is done now and then.
   */
  async watch({
    until,
    beside = () => Promise.resolve(),
    freeRestarts = FREE_RESTARTS,
  }: {
    until?: Promise<unknown>;
    beside?: () => Promise<void>;
    freeRestarts?: number;
  } = {}): Promise<void> {
    let over = false;
    void until?.finally(() => {
      over = true;
      this.wake();
    });
    let [deaths, last] = [0, Date.now()];
    while (!over && !this.leaving) {
      await this.nextLook();
      if (over || this.leaving) return;
      await beside();
      const died = this.died();
      // Stopped by ./patrone stop, from elsewhere: that is meant.
      if (existsSync(join(this.database.data, 'stopped'))) return;
      if (died === null) continue;
      deaths = Date.now() - last > WELL_AGAIN_MS ? 1 : deaths + 1;
      last = Date.now();
      const pause = pauseAfter(deaths, freeRestarts);
      const line =
        pause === 0
          ? `${died} Starting it again …`
          : `${died} That was the ${deaths}th time within ten minutes of each other: it is started again in ${pause} seconds, and so on. What was asked of it last is in ${join(this.database.data, 'log/requests.log')}. What was typed is kept in the browser.`;
      if (!this.quiet) say(line);
      await rest(pause * 1000);
      if (this.leaving || existsSync(join(this.database.data, 'stopped'))) return;
      if (this.database.ours && !this.database.isThere && !(await this.database.launch())) continue;
      if (!runs(this.server)) await this.launch();
    }
  }

  /** Stops the server, then the database where that is ours; whoever asks waits until both have. */
  stop(): Promise<void> {
    return (this.ending ??= this.end());
  }

  private async end(): Promise<void> {
    this.leaving = true;
    if (this.server) {
      this.server.kill('SIGTERM');
      await endOf(this.server);
      rmSync(join(this.database.data, 'server.pid'), { force: true });
    }
    await this.database.stop();
  }

  /** Comes at the next time to look, or at once where the server ends meanwhile. */
  private nextLook(): Promise<void> {
    return new Promise((done) => {
      const timer = setTimeout(done, WATCH_EVERY_MS);
      this.wake = () => {
        clearTimeout(timer);
        done();
      };
    });
  }

  private died(): string | null {
    if (!runs(this.server)) {
      const code = this.server?.exitCode ?? this.server?.signalCode ?? 'none';
      return `The server stopped by itself (code ${code}).`;
    }
    if (this.database.ours && !this.database.isThere)
      return `The database stopped: ${this.database.why()}.`;
    return null;
  }

  private async launch(): Promise<void> {
    const { data } = this.database;
    const user = await unprivileged();
    ownedByServer(join(data, 'pictures'));
    ownedByServer(join(data, 'log'));
    if (this.leaving) return;
    const env = told(this.database, {
      NODE_ENV: 'production',
      PORT: String(this.port),
      PATRONE_DISK: data,
      PATRONE_LOG: join(data, 'log/requests.log'),
      PATRONE_BACKUPS: backupsFolder(data),
      ...this.env,
    });
    // What is heavy is done by workers; left to itself the rest would let its heap grow to whatever
    // the machine has.
    const limits = ['--max-old-space-size=192', '--max-semi-space-size=8'];
    this.server = begin(process.execPath, [...limits, 'build/program/server.js'], {
      env,
      as: user,
      ...(this.quiet && { stdio: 'ignore' }),
    });
    this.server.once('exit', () => this.wake());
    await Promise.race([once(this.server, 'spawn'), once(this.server, 'error')]);
    if (this.server.pid !== undefined)
      writeFileSync(join(data, 'server.pid'), `${this.server.pid}\n`);
  }
}
