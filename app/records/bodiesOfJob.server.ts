import type { Placeholder } from 'drizzle-orm';
import { and, asc, eq, sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { MergeRules } from '#core/format/merge';
import { mergedRecord } from '#core/format/merge';
import type { Changed } from './changed.server';
import { putMerged } from './changed.server';
import { inLots, standing } from './database.server';
import type { Tx } from './database.server';
import type { BodiesOfJob } from './schema.server';
import type { Viewer } from './viewer.server';

export type Fields = Record<string, unknown>;

/**
 * How small bodies of a job are read, written down and changed by field. `called` names the standing
 * statement; `rulesOf` says how the lists of a body merge. A body keeps its kind for good.
 */
export function bodiesOf<Body extends { kind: string }>(
  table: BodiesOfJob<Body>,
  called: string,
  schema: z.ZodType,
  rulesOf: (body: Body) => MergeRules<Fields>,
) {
  const rows = (tx: Tx, job: string | Placeholder) =>
    tx
      .select({ id: table.id, at: table.at, body: table.body })
      .from(table)
      .where(eq(table.job, job))
      .orderBy(asc(table.seq));
  const asked = standing((db) => rows(db, sql.placeholder('job')).prepare(called));
  const one = (job: string, id: string) => and(eq(table.job, job), eq(table.id, id));

  const held = async (tx: Tx, job: string, id: string): Promise<Body | null> => {
    const [row] = await tx
      .select({ body: table.body })
      .from(table)
      .where(one(job, id))
      .for('update');
    return row ? (row.body as Body) : null;
  };
  const put = (tx: Tx, job: string, id: string, body: Body) =>
    tx.update(table).set({ body }).where(one(job, id));

  return {
    rows: (tx: Tx, job: string) => rows(tx, job) as Promise<{ id: string; at: Date; body: Body }[]>,
    /** All of a job, in the order they were written down. */
    all: async (viewer: Viewer, job: string) =>
      (await asked(viewer).execute({ job })).map(({ id, body }) => ({ ...(body as Body), id })),
    putAll: (tx: Tx, job: string, all: readonly { id: string; at: string; body: Body }[]) =>
      inLots(all, (lot) =>
        tx.insert(table).values(lot.map((body) => ({ ...body, job, at: new Date(body.at) }))),
      ),
    /** Writes a body down; under an id that is there already nothing is written. */
    add: (job: string, id: string, body: Body, tx: Tx) =>
      tx.insert(table).values({ job, id, body }).onConflictDoNothing(),
    held,
    put,
    /** Changes fields since they stood as `since` says; null when there is no such body. */
    async change(
      job: string,
      id: string,
      since: Fields,
      mine: Fields,
      tx: Tx,
    ): Promise<Changed<Fields> | null> {
      const body = await held(tx, job, id);
      if (!body) return null;
      const { kind, ...now } = body as Body & Fields;
      const { merged, clashes } = mergedRecord<Fields>(since, mine, now, rulesOf(body));
      return putMerged(
        { merged: { ...merged, kind } as Fields, clashes },
        now as Fields,
        (merged) => put(tx, job, id, merged as unknown as Body),
        schema,
      );
    },
  };
}
