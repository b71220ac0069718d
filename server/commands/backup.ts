import { createHash } from 'node:crypto';
import {
  chmodSync,
  copyFileSync,
  createReadStream,
  existsSync,
  linkSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { backupsToDrop } from '../backups';
import { makeFolder } from './hold';
import { DATABASE } from './postgres';
import type { Postgres } from './postgres';
import { run } from './run';
import { backupsFolder } from './settings';
import { Refusal, say, warn } from './tell';

/**
 * A backup is a tar of the database (database.dump), the names of the pictures it speaks of
 * (pictures.sha256), what both must add up to (sums.sha256), and, where it is to stand alone, the
 * pictures themselves. Those of every night lie beside their backups once, in “pictures”: each is
 * named by what is in it and never changes.
 */
const PARTS = { sums: 'sums.sha256', dump: 'database.dump', pictures: 'pictures.sha256' };

/** A file and its SHA-256, hexadecimal, as a line of `sha256sum`. */
export type Sum = { digest: string; name: string };

export const sumsOf = (text: string): Sum[] =>
  text
    .split('\n')
    .map((line) => /^([0-9a-f]{64}) [ *](.+)$/.exec(line))
    .flatMap((found) => (found ? [{ digest: found[1]!, name: found[2]! }] : []));
export const asText = (sums: readonly Sum[]): string =>
  sums.map(({ digest, name }) => `${digest}  ${name}\n`).join('');

/** SHA-256 of a file, hexadecimal; null where it cannot be read. */
export async function digestOf(file: string): Promise<string | null> {
  const hash = createHash('sha256');
  try {
    await pipeline(createReadStream(file), hash);
    return hash.digest('hex');
  } catch {
    return null;
  }
}

/** Tables whose rows are in a dump; none where it cannot be read. */
async function tablesIn(dump: string): Promise<string[]> {
  const { code, out } = await run('pg_restore', ['--list', dump]);
  if (code !== 0) return [];
  return [...out.matchAll(/ TABLE DATA public ([a-z_]*) /g)].map((found) => found[1]!).sort();
}

const PICTURES_OF = `select distinct digest || '  pictures/' || left(digest, 2) || '/' || digest || '.' ||
  case type when 'jpeg' then 'jpg' else type end from pictures order by 1`;

/** Says what a step wanted and did not get; the words stay in the house. */
class NotWritten extends Error {}
const must = (held: boolean, what: string): void => {
  if (!held) throw new NotWritten(what);
};

/** The database with every table, and what pictures it speaks of, in a folder. */
async function collect(database: Postgres, folder: string): Promise<Sum[]> {
  const dump = join(folder, PARTS.dump);
  const dumped = await database.tool('pg_dump', DATABASE, ['-Fc', '--no-owner', '-f', dump]);
  must(dumped.code === 0, dumped.err);
  const tables = "select tablename from pg_tables where schemaname = 'public'";
  const wanted = (await database.rows(DATABASE, tables)).sort();
  must((await tablesIn(dump)).join() === wanted.join(), 'a table is not in it');
  must((await run('pg_restore', ['--file=/dev/null', dump])).code === 0, 'it cannot be read');
  const pictures = (await database.hasTable('pictures'))
    ? sumsOf((await database.rows(DATABASE, PICTURES_OF)).join('\n'))
    : [];
  writeFileSync(join(folder, PARTS.pictures), asText(pictures));
  const sums: Sum[] = [];
  for (const name of [PARTS.dump, PARTS.pictures]) {
    const digest = await digestOf(join(folder, name));
    must(digest !== null, `${name} cannot be read`);
    sums.push({ digest: digest!, name });
  }
  writeFileSync(join(folder, PARTS.sums), asText(sums));
  return pictures;
}

/**
 * Packs what was collected, and the pictures where it is to stand alone; and reads it back, every
 * file against the one it was made from.
 */
async function pack(file: string, folder: string, data: string, pictures: string[]): Promise<void> {
  const list = join(folder, 'names');
  writeFileSync(list, pictures.map((name) => `${name}\n`).join(''));
  const from = ['-C', folder, PARTS.sums, PARTS.dump, PARTS.pictures, '-C', data];
  const packed = await run('tar', ['-cf', file, ...from, '--files-from', list]);
  must(packed.code === 0, packed.err);
  // Only the pictures that go in as well stand under “data”; the others are compared in one go.
  const parts = await run('tar', [
    '-df',
    file,
    '-C',
    folder,
    PARTS.sums,
    PARTS.dump,
    PARTS.pictures,
  ]);
  must(parts.code === 0, parts.out + parts.err);
  if (pictures.length === 0) return;
  const again = await run('tar', ['-df', file, '-C', data, '--files-from', list]);
  must(again.code === 0, again.out + again.err);
}

/** Pictures that are not there yet are put beside the backups; on the same disk they take no room. */
function keepPictures(folder: string, data: string, names: readonly string[]): void {
  for (const name of names) {
    const [from, to] = [join(data, name), join(folder, name)];
    if (existsSync(to)) continue;
    mkdirSync(dirname(to), { recursive: true });
    try {
      linkSync(from, to);
    } catch {
      copyFileSync(from, to);
    }
  }
}

/** Writes a backup: whole and read back, or nothing. Whether it was written. */
export async function writeBackup(
  database: Postgres,
  file: string,
  alone: boolean,
): Promise<boolean> {
  const [part, folder] = [`${file}.part`, `${file}.part.d`];
  const clear = () =>
    [part, folder].forEach((one) => rmSync(one, { recursive: true, force: true }));
  const before = process.umask(0o077);
  try {
    clear();
    mkdirSync(folder);
    const pictures = await collect(database, folder);
    // A picture that is lost or damaged must not keep all the rest from being backed up: it is told,
    // each time.
    const sound: string[] = [];
    for (const { digest, name } of pictures)
      if ((await digestOf(join(database.data, name))) === digest) sound.push(name);
    if (sound.length < pictures.length)
      warn(
        `${pictures.length - sound.length} pictures are lost or damaged, and not in the backup; ./patrone check-data names them.`,
      );
    await pack(part, folder, database.data, alone ? sound : []);
    if (!alone) keepPictures(dirname(file), database.data, sound);
    renameSync(part, file);
    return true;
  } catch {
    return false;
  } finally {
    clear();
    process.umask(before);
  }
}

/**
 * The folder for backups, readable by the server, which tells of the last one; each file only by its
 * owner.
 */
export function makeBackupsFolder(data: string): string {
  const folder = backupsFolder(data);
  try {
    if (!makeFolder(folder)) throw new Error('it could not be made');
    chmodSync(folder, 0o755);
  } catch {
    throw new Refusal(
      `cannot make the folder for backups, ${folder}. Set PATRONE_BACKUPS to one that can be written.`,
    );
  }
  return folder;
}

const two = (n: number): string => String(n).padStart(2, '0');
/** A day as this machine's clock has it, `2026-11-25`. */
export const dayOf = (at: Date): string =>
  `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
export const momentOf = (at: Date): string =>
  `${dayOf(at)}-${two(at.getHours())}${two(at.getMinutes())}${two(at.getSeconds())}`;

/** After a backup that could not be written, the next try, ms. */
const TRY_AGAIN_MS = 3_600_000;

/**
 * One backup a day, and of the earlier ones those that the rule keeps. Told where it fails, and tried
 * again in an hour.
 */
export function nightly(database: Postgres): () => Promise<void> {
  let [backedUp, notBefore] = ['', 0];
  return async () => {
    const today = dayOf(new Date());
    if (backedUp === today || Date.now() < notBefore) return;
    const file = join(backupsFolder(database.data), `patrone-${today}.backup`);
    if (!existsSync(file)) {
      const written = await (async () => {
        makeBackupsFolder(database.data);
        return writeBackup(database, file, false);
      })().catch((error: unknown) => {
        if (error instanceof Refusal) warn(error.message);
        return false;
      });
      if (!written) {
        notBefore = Date.now() + TRY_AGAIN_MS;
        return say(`Tonight's backup could not be written: ${database.why()}`);
      }
      const folder = dirname(file);
      for (const old of backupsToDrop(readdirSync(folder), today))
        rmSync(join(folder, old), { force: true });
    }
    backedUp = today;
  };
}

/** What is in a backup, after a look whether all of it is there. */
export type Unpacked = {
  dump: string;
  /** Folder with what it held, to be thrown away; null where the backup is the dump itself. */
  folder: string | null;
  pictures: Sum[];
};

/**
 * Takes a backup apart in `folder`; null where it is none, or not all of it is there. Backups from
 * before there were pictures are the dump itself.
 */
export async function unpack(file: string, folder: string): Promise<Unpacked | null> {
  const isBackup = async (dump: string) => (await tablesIn(dump)).includes('jobs');
  const head = await run('head', ['-c', '5', file]);
  if (head.out === 'PGDMP')
    return (await isBackup(file)) ? { dump: file, folder: null, pictures: [] } : null;
  if ((await run('tar', ['-xf', file, '--no-same-owner', '-C', folder])).code !== 0) return null;
  const read = (name: string) => {
    try {
      return sumsOf(readFileSync(join(folder, name), 'utf8'));
    } catch {
      return [];
    }
  };
  const sums = read(PARTS.sums);
  const named = new Set(sums.map(({ name }) => name));
  if (!named.has(PARTS.dump) || !named.has(PARTS.pictures)) return null;
  for (const { digest, name } of sums)
    if ((await digestOf(join(folder, name))) !== digest) return null;
  const dump = join(folder, PARTS.dump);
  return (await isBackup(dump)) ? { dump, folder, pictures: read(PARTS.pictures) } : null;
}

/**
 * The pictures of a backup: from itself, from beside it, or here already. Number of those that are in
 * none of them. Throws where a name is not a picture's, whatever the file says.
 */
export async function restorePictures(
  { folder, pictures }: Unpacked,
  data: string,
  beside: string,
): Promise<number> {
  let missing = 0;
  for (const { digest, name } of pictures) {
    const place = new RegExp(`^pictures/${digest.slice(0, 2)}/${digest}\\.(jpg|png|webp)$`);
    if (!place.test(name)) throw new Error(`${name} is no picture’s name`);
    const to = join(data, name);
    if ((await digestOf(to)) === digest) continue;
    let found = false;
    for (const from of [folder === null ? null : join(folder, name), join(beside, name)]) {
      if (from === null || (await digestOf(from)) !== digest) continue;
      mkdirSync(dirname(to), { recursive: true });
      copyFileSync(from, `${to}.part`);
      renameSync(`${to}.part`, to);
      found = true;
      break;
    }
    if (!found) missing++;
  }
  return missing;
}
