import { readdir, stat } from 'node:fs/promises';
import { join } from 'node:path';

export type LastBackup = { folder: string; last: { at: string; bytes: number } | null };

/** The last nightly backup and where they lie; null where the server was started without them. */
export async function lastBackup(): Promise<LastBackup | null> {
  const folder = process.env.PATRONE_BACKUPS;
  if (!folder) return null;
  const nights = (await readdir(folder).catch(() => [])).filter((name) => /^patrone-.*\.backup$/.test(name)).sort();
  const newest = nights[nights.length - 1];
  const found = newest === undefined ? null : await stat(join(folder, newest)).catch(() => null);
  return { folder, last: found && { at: found.mtime.toISOString(), bytes: found.size } };
}
