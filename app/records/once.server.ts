import { dbOf } from './database.server';
import type { Tx } from './database.server';
import { requests } from './schema.server';
import type { Viewer } from './viewer.server';

/**
 * Does what was asked, once: a request that comes again under the same key, because its answer was lost on the way, does
 * nothing, and is answered like the first. The key and what was written are one transaction; two that come at the same
 * time wait for each other. Requests without a key (scripts) are done each time.
 */
export const once = (viewer: Viewer, key: string | undefined, write: (tx: Tx) => Promise<unknown>): Promise<void> =>
  dbOf(viewer).transaction(async (tx) => {
    if (key !== undefined) {
      const [fresh] = await tx
        .insert(requests)
        .values({ key })
        .onConflictDoNothing()
        .returning({ key: requests.key });
      if (!fresh) return;
    }
    await write(tx);
  });
