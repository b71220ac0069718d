import { execFileSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { isAbsolute, join, resolve } from 'node:path';
import type { User } from './run';

/** The folder of the program: `./patrone` hands over from there. */
export const HERE = process.cwd();

/** A file as whoever called names it, from where they stood. */
export const fromCaller = (file: string): string =>
  isAbsolute(file) ? file : resolve(process.env.PATRONE_CALLER ?? HERE, file);

const isRoot = process.getuid?.() === 0;

/** Number of the folder of the program, as POSIX `cksum` gives it: it names the data of root. */
const folderNumber = (): string =>
  execFileSync('cksum', { input: HERE, encoding: 'utf8' }).split(' ')[0]!;

/** The folder in which a database, its pictures, backups and logs lie. */
export function dataFolder(): string {
  if (process.env.PATRONE_DATA) return fromCaller(process.env.PATRONE_DATA);
  // The database does not run as root; its data must lie where the postgres user can reach it.
  return isRoot ? `/var/lib/patrone/${folderNumber()}` : join(HERE, '.patrone');
}

/** Where the backups of a folder of data go. */
export const backupsFolder = (data: string): string =>
  process.env.PATRONE_BACKUPS ? fromCaller(process.env.PATRONE_BACKUPS) : join(data, 'backups');

const portOf = (name: string, usual: number): number => Number(process.env[name] || usual);
/** The ports that can be set: of the program, its database, and of the shop's network. */
export const PORTS = {
  program: portOf('PATRONE_PORT', 4170),
  database: portOf('PATRONE_DB_PORT', 24170),
  network: portOf('PATRONE_NETWORK_PORT', 4180),
  test: portOf('PATRONE_TEST_PORT', 4171),
  testDatabase: portOf('PATRONE_TEST_DB_PORT', 24171),
};

let postgres: User | undefined;
/**
 * Whom the database runs as: as root, the user postgres, which the Debian package makes; else whoever
 * called, null.
 */
export function databaseUser(): User | null {
  if (!isRoot) return null;
  const number = (of: '-u' | '-g') =>
    Number(execFileSync('id', [of, 'postgres'], { encoding: 'utf8' }));
  return (postgres ??= { uid: number('-u'), gid: number('-g') });
}

/** The database's own programs of the newest version that is there; null where there is none. */
export function databasePrograms(): string | null {
  const root = '/usr/lib/postgresql';
  const versions = existsSync(root) ? readdirSync(root) : [];
  const [newest] = versions
    .filter((version) => existsSync(join(root, version, 'bin/initdb')))
    .sort((a, b) => Number(b) - Number(a));
  return newest === undefined ? null : join(root, newest, 'bin');
}
