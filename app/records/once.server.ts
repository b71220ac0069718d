import { eq } from 'drizzle-orm';
import { data } from 'react-router';
import { dbOf } from './database.server';
import type { Tx } from './database.server';
import { requests } from './schema.server';
import type { Viewer } from './viewer.server';

/** PostgreSQL's code for a disk without room. */
const DISK_FULL = '53100';

/** Whether a query failed because there is no room left; the query builder wraps what the database said. */
const forLackOfRoom = (error: unknown): boolean =>
  error instanceof Error && ((error as { code?: unknown }).code === DISK_FULL || forLackOfRoom(error.cause));

/**
 * Does what was asked, once: a request that comes again under the same key, because its answer was lost on the way, does
 * nothing, and is answered like the first (`write` gives what is answered, plain data). The key and what was written are
 * one transaction; two that come at the same time wait for each other. Requests without a key (scripts) are done each time.
 * Throws 507 with a sentence when there is no room left.
 */
export const once = <Answer>(
  viewer: Viewer,
  key: string | undefined,
  write: (tx: Tx) => Promise<Answer>,
): Promise<Answer> =>
  dbOf(viewer)
    .transaction(async (tx) => {
      if (key === undefined) return write(tx);
      const mine = eq(requests.key, key);
      const [fresh] = await tx
        .insert(requests)
        .values({ key })
        .onConflictDoNothing()
        .returning({ key: requests.key });
      if (!fresh) return (await tx.select().from(requests).where(mine))[0]?.answer as Answer;
      const answer = await write(tx);
      if (answer !== undefined) await tx.update(requests).set({ answer }).where(mine);
      return answer;
    })
    .catch((error: unknown) => {
      if (!forLackOfRoom(error)) throw error;
      const message = 'The disk is full: nothing was saved. What you typed is still here; make room and try again.';
      throw data({ message }, { status: 507 });
    });
