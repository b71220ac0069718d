import { readFileSync } from 'node:fs';
import { statfs } from 'node:fs/promises';
import { resolve } from 'node:path';
import { asking } from '../records/database.server';

/** Less room than this and the database may stop at any moment, bytes. */
const MIN_ROOM = 50 * 1024 ** 2;

/** When the newest change of the database's form that this program knows was made. */
const newestKnown = (): number => {
  const journal = JSON.parse(
    readFileSync(resolve('app/records/migrations/meta/_journal.json'), 'utf8'),
  ) as {
    entries: { when: number }[];
  };
  return Math.max(...journal.entries.map((entry) => entry.when));
};

/** What is wrong with what the server stands on, in a sentence; null when nothing is. */
async function fault(): Promise<string | null> {
  let newest: number;
  try {
    const { rows } = await asking.query<{ at: string | null }>(
      'select max(created_at) as at from drizzle.__drizzle_migrations',
    );
    newest = Number(rows[0]?.at ?? 0);
  } catch {
    return 'The database does not answer.';
  }
  const known = newestKnown();
  if (newest < known)
    return 'The database is older than this program: start it anew with ./patrone start, which brings it up to date.';
  if (newest > known)
    return 'The database was written by a newer program than this one: bring this one up to date.';
  const room = await statfs(process.env.PATRONE_DISK ?? process.cwd()).catch(() => null);
  if (room && room.bavail * room.bsize < MIN_ROOM)
    return 'The disk is nearly full: make room, or nothing more can be saved.';
  return null;
}

/** Answers 200 and `ok` when the server has what it stands on; else 503 with what is wrong. */
export async function loader() {
  const wrong = await fault();
  return wrong === null ? new Response('ok') : new Response(wrong, { status: 503 });
}
