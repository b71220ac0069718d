import { readdir, stat } from 'node:fs/promises';
import { join } from 'node:path';

/** Age of the last backup from which it is reported, ms. */
const TOO_LONG_MS = 2 * 86_400_000;

export type LastBackup = {
  folder: string;
  last: { at: string; bytes: number } | null;
  /** Whether it is too long ago, or none could be written since that long. */
  late: boolean;
};

/** The last nightly backup and where they lie; null where the server was started without them. */
export async function lastBackup(): Promise<LastBackup | null> {
  const folder = process.env.PATRONE_BACKUPS;
  if (!folder) return null;
  const nights = (await readdir(folder).catch(() => []))
    .filter((name) => /^patrone-.*\.backup$/.test(name))
    .sort();
  const newest = nights[nights.length - 1];
  const found = newest === undefined ? null : await stat(join(folder, newest)).catch(() => null);
  // The folder is made when the first is tried.
  const since = found ?? (await stat(folder).catch(() => null));
  const late =
    since !== null && Date.now() - (found ? found.mtimeMs : since.birthtimeMs) > TOO_LONG_MS;
  return { folder, late, last: found && { at: found.mtime.toISOString(), bytes: found.size } };
}
