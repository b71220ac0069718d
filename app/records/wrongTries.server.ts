import { and, desc, eq, gt, lt, or, sql } from 'drizzle-orm';
import { dbOf } from './database.server';
import { wrongTries } from './peopleTables.server';
import { Viewer } from './viewer.server';

/** Tries older than this count no more, and are kept so long to be looked at. */
const COUNTS_MS = 15 * 60_000;
const KEPT_DAYS = 30;
/** So many are free: fingers in gloves err. After them one waits, twice as long each time. */
const FREE = 4;
const MOST_WAIT_S = 15 * 60;

const db = () => dbOf(Viewer.shop);
const named = (name: string): string => name.trim().toLocaleLowerCase('en').slice(0, 80);

/** How long one waits after so many wrong tries in a row, seconds. */
export const waitAfter = (wrong: number): number =>
  wrong < FREE ? 0 : Math.min(MOST_WAIT_S, 2 ** (wrong - FREE + 1));

/**
 * How long this person, and this address, must still wait before they are heard, seconds; the
 * longer of the two. The same for a name that nobody has.
 */
export async function waitFor(name: string, address: string): Promise<number> {
  const since = new Date(Date.now() - COUNTS_MS);
  const recent = await db()
    .select({ at: wrongTries.at, name: wrongTries.name, address: wrongTries.address })
    .from(wrongTries)
    .where(
      and(
        gt(wrongTries.at, since),
        or(eq(wrongTries.name, named(name)), eq(wrongTries.address, address)),
      ),
    )
    .orderBy(desc(wrongTries.seq))
    .limit(200);
  const left = (mine: typeof recent): number =>
    mine[0] ? mine[0].at.getTime() / 1000 + waitAfter(mine.length) - Date.now() / 1000 : 0;
  return Math.max(
    0,
    Math.ceil(
      Math.max(
        left(recent.filter((one) => one.name === named(name))),
        left(recent.filter((one) => one.address === address)),
      ),
    ),
  );
}

/** Writes a wrong try down; those of long ago go. */
export async function noteWrong(name: string, address: string): Promise<void> {
  await db()
    .insert(wrongTries)
    .values({ name: named(name), address: address.slice(0, 60) });
  await db()
    .delete(wrongTries)
    .where(lt(wrongTries.at, sql`now() - make_interval(days => ${KEPT_DAYS})`));
}

/** Who got it right may err again. */
export const forgetWrong = (name: string) =>
  db()
    .delete(wrongTries)
    .where(eq(wrongTries.name, named(name)));

/** The last wrong tries, for whoever runs the shop. */
export const wrongOnes = (viewer: Viewer) =>
  dbOf(viewer).select().from(wrongTries).orderBy(desc(wrongTries.seq)).limit(20);
