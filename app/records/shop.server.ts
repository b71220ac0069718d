import { eq, sql } from 'drizzle-orm';
import { DEFAULT_SHOP } from '#core/blank/fold/practice';
import type { Shop } from '#core/blank/shopSchema';
import { ShopSchema } from '#core/blank/shopSchema';
import { mergedRecord } from '#core/format/merge';
import { SHOP_MERGE } from '#core/format/mergeRules';
import type { ReadingList } from '#core/blank/fold/learnt';
import type { TriedList } from '#core/shape/tried';
import type { Changed } from './changed.server';
import { putMerged } from './changed.server';
import { dbOf, standing } from './database.server';
import type { Tx } from './database.server';
import { readFields, writtenOver } from './readFields.server';
import { shop } from './schema.server';
import type { Viewer } from './viewer.server';

/** As text: settings that stand as they did are read through their schema once. */
const only = (tx: Tx) =>
  tx
    .select({ settings: sql<string>`${shop.settings}::text` })
    .from(shop)
    .where(eq(shop.id, 1));
const asked = standing((db) => only(db).prepare('shop'));

let last: { text: string; read: Shop } | null = null;

/** What was stored as settings, as they are used: what was added since is filled in. */
function readSettings([row]: { settings: string }[]): Shop {
  const text = row?.settings ?? '{}';
  if (last?.text !== text)
    last = { text, read: readFields(ShopSchema, JSON.parse(text) as object, DEFAULT_SHOP) };
  return last.read;
}

/** The settings with their row locked, whether it was there or not: of two who change it one waits. */
async function locked(tx: Tx): Promise<{ stored: object; now: Shop }> {
  await tx.insert(shop).values({ id: 1, settings: DEFAULT_SHOP }).onConflictDoNothing();
  const rows = await only(tx).for('update');
  return { stored: JSON.parse(rows[0]!.settings) as object, now: readSettings(rows) };
}

/** The shop's settings, or the usual ones until it has its own. */
export const shopSettings = (viewer: Viewer): Promise<Shop> =>
  viewer.once(shop, async () => readSettings(await asked(viewer).execute()));

/** The readings of a shop by the list they are kept in. */
export type Readings = Pick<Shop, ReadingList | TriedList>;

/**
 * Changes the lists of readings as they are now, nobody else meanwhile; with null nothing is
 * changed.
 */
export const changeReadings = <Answer>(
  viewer: Viewer,
  change: (now: Readings) => { next: Readings | null; answer: Answer },
): Promise<Answer> =>
  dbOf(viewer).transaction(async (tx) => {
    const { stored, now } = await locked(tx);
    const { next, answer } = change(now);
    if (!next) return answer;
    viewer.anew(shop);
    const { strips, springs, radii, bites, beadTests, limitsSeen, paces } = next;
    const settings = { ...now, strips, springs, radii, bites, beadTests, limitsSeen, paces };
    await tx
      .update(shop)
      .set({ settings: writtenOver(stored, now, settings) })
      .where(eq(shop.id, 1));
    return answer;
  });

/**
 * Changes the settings since `since`; of test bends what was put in and taken out, whoever else did
 * so meanwhile.
 */
export const changeShop = (viewer: Viewer, since: Shop, mine: Shop): Promise<Changed<Shop>> =>
  dbOf(viewer).transaction(async (tx) => {
    const { stored, now } = await locked(tx);
    viewer.anew(shop);
    return putMerged(
      mergedRecord(since, mine, now, SHOP_MERGE),
      now,
      (merged) =>
        tx
          .update(shop)
          .set({ settings: writtenOver(stored, now, merged) })
          .where(eq(shop.id, 1)),
      ShopSchema,
    );
  });
