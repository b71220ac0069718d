import { and, eq, lt, sql } from 'drizzle-orm';
import pLimit from 'p-limit';
import { dbOf } from '../records/database.server';
import type { Tx } from '../records/database.server';
import { secretTries } from '../records/peopleTables.server';
import { Viewer } from '../records/viewer.server';

/** What is tried: each kind is counted apart, so that one does not shut another out. */
export type Secret = 'phrase' | 'own-phrase' | 'pin' | 'code' | 'passkey' | 'passkey-ask';

/** Tries older than this count no more. */
const COUNTS_MIN = 15;
/**
 * Tries that are free: fingers in gloves err. After them one waits, twice as long each time. Of one
 * address, whatever names are tried from it, more are.
 */
const FREE = 4;
const FREE_OF_ADDRESS = 30;
const MAX_WAIT_S = 15 * 60;

const db = () => dbOf(Viewer.shop);

export type Try = { kind: Secret; who: string; address: string };

/** All tries of one address together. */
const ofAddress = (one: Try): Try => ({ ...one, who: '' });
const cut = ({ kind, who, address }: Try): Try => ({
  kind,
  who: who.trim().toLocaleLowerCase('en').slice(0, 120),
  address: address.slice(0, 60),
});

/**
 * Takes one try, before anything is judged: counted and, where it has to wait, refused in one
 * statement, so that however many come at once no more are judged than may be. By the clock, not
 * by the start of the transaction: of those that waited for the row each sees what the one before
 * it wrote. Seconds still to wait; 0 where the try was taken.
 */
async function taken(tx: Tx, { kind, who, address }: Try, free: number): Promise<number> {
  const old = sql`${secretTries.at} < clock_timestamp() - make_interval(mins => ${COUNTS_MIN})`;
  const tries = sql`case when ${old} then 1 else ${secretTries.tries} + 1 end`;
  const doubled = sql`least(${MAX_WAIT_S}, power(2, least(30, (${tries}) - ${free} + 1)))`;
  const wait = sql`case when (${tries}) < ${free} then 0 else ${doubled} end`;
  const rows = await tx
    .insert(secretTries)
    .values({ kind, who, address, tries: 1 })
    .onConflictDoUpdate({
      target: [secretTries.kind, secretTries.who, secretTries.address],
      set: {
        tries,
        at: sql`clock_timestamp()`,
        until: sql`clock_timestamp() + make_interval(secs => (${wait})::double precision)`,
      },
      setWhere: sql`${secretTries.until} <= clock_timestamp()`,
    })
    .returning({ tries: secretTries.tries });
  if (rows.length > 0) return 0;
  const [row] = await tx
    .select({
      s: sql<number>`extract(epoch from ${secretTries.until} - clock_timestamp())::double precision`,
    })
    .from(secretTries)
    .where(same({ kind, who, address }));
  return Math.max(1, Math.ceil(row?.s ?? 1));
}

const same = ({ kind, who, address }: Try) =>
  and(eq(secretTries.kind, kind), eq(secretTries.who, who), eq(secretTries.address, address));

/** A refusal, so that what was counted of a try that is not heard is taken back. */
class Waits extends Error {
  constructor(readonly seconds: number) {
    super('waits');
  }
}

/**
 * Takes a try of a secret from an address: 0 where it may be judged now, else the seconds to wait.
 * It counts as wrong until `foundRight` takes it back.
 */
export async function takeTry(asked: Try): Promise<number> {
  if (inTurn.pendingCount >= MAX_WAITING) return 1;
  return inTurn(() => takeNow(cut(asked)));
}

/**
 * Tries of one address wait for one row: in turn here, so that they hold one connection of the
 * database and not all that pages are read by. Beyond this many nobody is kept waiting.
 */
const inTurn = pLimit(1);
const MAX_WAITING = 100;

async function takeNow(one: Try): Promise<number> {
  try {
    await db().transaction(async (tx) => {
      for (const of of one.who === '' ? [one] : [one, ofAddress(one)]) {
        const waits = await taken(tx, of, of.who === '' ? FREE_OF_ADDRESS : FREE);
        if (waits > 0) throw new Waits(waits);
      }
    });
    return 0;
  } catch (error) {
    if (error instanceof Waits) return error.seconds;
    throw error;
  }
}

/** Who got it right may err again; of the address this one try no longer counts. */
export async function foundRight(asked: Try): Promise<void> {
  const one = cut(asked);
  await db().delete(secretTries).where(same(one));
  await takenBack(ofAddress(one));
}

/** A try that was not judged after all counts no more. */
export async function notJudged(asked: Try): Promise<void> {
  const one = cut(asked);
  await takenBack(one);
  await takenBack(ofAddress(one));
}

const takenBack = (one: Try) =>
  db()
    .update(secretTries)
    .set({ tries: sql`greatest(0, ${secretTries.tries} - 1)` })
    .where(same(one));

/** Drops what counts no more. */
export const sweepTries = () =>
  db()
    .delete(secretTries)
    .where(lt(secretTries.at, sql`clock_timestamp() - make_interval(mins => ${2 * COUNTS_MIN})`));
