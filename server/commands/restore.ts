import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { restorePictures, unpack } from './backup';
import type { Unpacked } from './backup';
import { hold, makeData } from './hold';
import { APP_ROLE, DATABASE, Postgres } from './postgres';
import { PORTS, databaseUser } from './settings';
import { chore } from './supervise';
import { Refusal, agreed, say } from './tell';

/**
 * A restore fills a database of its own (patrone_new_STAMP), and puts it in place of the one in use,
 * which is kept as patrone_was_STAMP, in one transaction: broken off anywhere, it was either not done
 * or done.
 */
const databasesLike = (database: Postgres, pattern: string): Promise<string[]> =>
  database.rows(
    'postgres',
    `select datname from pg_database where datname like '${DATABASE}\\_${pattern}' order by datname desc`,
  );

const swapIn = (database: Postgres, name: string, stamp: string): Promise<boolean> =>
  database.does(
    'postgres',
    `begin;
     alter database ${DATABASE} rename to ${DATABASE}_was_${stamp};
     alter database ${name} rename to ${DATABASE};
     commit;`,
  );

const drop = (database: Postgres, name: string): Promise<boolean> =>
  database.does('postgres', `drop database if exists ${name}`);

/** Throws away what restores that were broken off have left, and older ones have kept. */
export async function tidyRestores(database: Postgres): Promise<void> {
  // Programs before this one had names without a stamp; 0 is older than any.
  for (const name of ['before', 'aside']) {
    if ((await databasesLike(database, name)).length === 0) continue;
    if ((await databasesLike(database, `was\\_0${name}`)).length > 0) continue;
    const renamed = `alter database ${DATABASE}_${name} rename to ${DATABASE}_was_0${name}`;
    await database.does('postgres', renamed);
  }
  for (const name of await databasesLike(database, 'new%')) {
    say('A restore was broken off before it was done: what it left is thrown away.');
    await drop(database, name);
  }
  const [, ...older] = await databasesLike(database, 'was\\_%');
  for (const name of older) await drop(database, name);
}

/** A stamp later than any before it, ns since the epoch. */
const newStamp = (): string =>
  `${BigInt(Date.now()) * 1_000_000n + (process.hrtime.bigint() % 1_000_000n)}`;

/**
 * Fills a database beside what is there, whole and brought up to date. Who was signed in when the
 * backup was made is not so by that. Whether it could be done; else nothing is left of it.
 */
async function fill(database: Postgres, name: string, dump: string): Promise<boolean> {
  const steps = [
    () => database.does('postgres', `create database ${name} owner ${APP_ROLE}`),
    async () => {
      const args = ['--no-owner', `--role=${APP_ROLE}`, '--exit-on-error', dump];
      return (await database.tool('pg_restore', name, args)).code === 0;
    },
    async () => (await chore(database, ['migrate'], 'passed on', database.urlOf(name))).code === 0,
    () => database.does(name, 'delete from sessions; delete from joins'),
  ];
  for (const step of steps)
    if (!(await step())) {
      await drop(database, name);
      return false;
    }
  return true;
}

/** Puts a backup in place of what is there (asks first). */
async function restoreFrom(database: Postgres, unpacked: Unpacked, file: string): Promise<void> {
  const stamp = newStamp();
  const name = `${DATABASE}_new_${stamp}`;
  if (!(await fill(database, name, unpacked.dump)))
    throw new Refusal('the backup could not be restored; nothing was changed.');
  try {
    const missing = await restorePictures(unpacked, database.data, dirname(file));
    if (missing > 0)
      say(`${missing} pictures are neither in the backup nor here: they are shown as missing.`);
    const user = databaseUser();
    const pictures = join(database.data, 'pictures');
    if (user && existsSync(pictures))
      execFileSync('chown', ['-R', `${user.uid}:${user.gid}`, pictures]);
  } catch {
    throw new Refusal(
      `the pictures could not be put back: ${database.why()}. Nothing was changed.`,
    );
  }
  if (!(await swapIn(database, name, stamp)))
    throw new Refusal('the backup could not be put in place; nothing was changed.');
  await tidyRestores(database);
  say(`Restored from ${file}. ./patrone restore --undo puts back what was there before.`);
}

/** Puts back what was there before the last restore, and keeps what is there now in its place. */
async function undo(database: Postgres): Promise<void> {
  const [was] = await databasesLike(database, 'was\\_%');
  if (was === undefined)
    throw new Refusal('there is nothing to go back to: no backup was restored here.');
  const asked =
    'This puts back what was there before the last restore, and keeps what is there now in its place.';
  if (!(await agreed(asked))) throw new Refusal('nothing was changed.');
  if (!(await swapIn(database, was, newStamp())))
    throw new Refusal('it could not be put back; nothing was changed.');
  say('Put back what was there before. ./patrone restore --undo again changes the two about.');
}

/** Restores a file, or with null takes the last restore back, in a folder of data. */
export async function restore(
  data: string,
  file: string | null,
  begun: (database: Postgres) => void,
): Promise<void> {
  const held = await hold(
    data,
    'Patrone is running on this data. Stop it with Ctrl-C where it was started, then restore.',
    (pid) =>
      `Patrone runs already on ${data} (process ${pid}), left by a start that was killed. Stop it with ./patrone stop, then restore.`,
  );
  makeData(data);
  const folder = mkdtempSync(join(data, 'restore.'));
  try {
    const unpacked = file === null ? null : await unpack(file, folder);
    if (file !== null && !unpacked)
      throw new Refusal(
        `${file} is no backup of Patrone, or not all of it is there. Nothing was changed.`,
      );
    const database = await Postgres.start(data, PORTS.database, begun);
    // The data is in our hand: a database that ran already was left by one that was killed.
    database.ours = true;
    await tidyRestores(database);
    if (!unpacked) return await undo(database);
    const asked =
      'This puts the backup in place of everything in the database; what is there now can be had back with ./patrone restore --undo.';
    if (!(await agreed(asked))) throw new Refusal('nothing was changed.');
    await restoreFrom(database, unpacked, file!);
  } finally {
    rmSync(folder, { recursive: true, force: true });
    held.letGo();
  }
}
