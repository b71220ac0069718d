import { desc, lt, sql } from 'drizzle-orm';
import { dbOf } from '../records/database.server';
import { wrongTries } from '../records/peopleTables.server';
import { sweepTries } from './secretTries.server';
import { Viewer } from '../records/viewer.server';

/** Wrong tries are kept this long to be looked at. */
const KEPT_DAYS = 30;

const db = () => dbOf(Viewer.shop);

/** Writes a wrong try down for whoever runs the shop; those of long ago go. */
export async function noteWrong(name: string, address: string): Promise<void> {
  await db()
    .insert(wrongTries)
    .values({
      name: name.trim().toLocaleLowerCase('en').slice(0, 80),
      address: address.slice(0, 60),
    });
  await db()
    .delete(wrongTries)
    .where(lt(wrongTries.at, sql`now() - make_interval(days => ${KEPT_DAYS})`));
  await sweepTries();
}

/** The last wrong tries, for whoever runs the shop. */
export const wrongOnes = (viewer: Viewer) =>
  dbOf(viewer).select().from(wrongTries).orderBy(desc(wrongTries.seq)).limit(20);
