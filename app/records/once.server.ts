import { eq } from 'drizzle-orm';
import { dbOf } from './database.server';
import type { Tx } from './database.server';
import { requests } from './schema.server';
import type { Viewer } from './viewer.server';

/**
 * Does what was asked, once: a request that comes again under the same key, because its answer was
 * lost on the way, does nothing, and is answered like the first (`write` gives what is answered,
 * plain data). The key and what was written are one transaction; two that come at the same time
 * wait for each other. Requests without a key (scripts) are done each time.
 */
export const once = <Answer>(
  viewer: Viewer,
  key: string | undefined,
  write: (tx: Tx) => Promise<Answer>,
): Promise<Answer> =>
  dbOf(viewer).transaction(async (tx) => {
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
  });
