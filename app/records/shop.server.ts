import { eq } from 'drizzle-orm';
import { USUAL_SHOP } from '#core/blank/fold/practice';
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
import { shop } from './schema.server';
import type { Viewer } from './viewer.server';

const only = (tx: Tx) => tx.select().from(shop).where(eq(shop.id, 1));
const filledIn = ([row]: { settings: Shop }[]): Shop => ({ ...USUAL_SHOP, ...row?.settings });
const settings = async (tx: Tx): Promise<Shop> => filledIn(await only(tx));
const asked = standing((db) => only(db).prepare('shop'));

/**
 * The shop's settings, or the usual ones until it has its own; settings added since are filled in.
 */
export const shopSettings = (viewer: Viewer): Promise<Shop> =>
  viewer.once(shop, async () => filledIn(await asked(viewer).execute()));

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
    await tx.insert(shop).values({ id: 1, settings: USUAL_SHOP }).onConflictDoNothing();
    await tx.select().from(shop).where(eq(shop.id, 1)).for('update');
    const now = await settings(tx);
    const { next, answer } = change(now);
    if (!next) return answer;
    viewer.anew(shop);
    const { strips, springs, radii, bites, beadTests, limitsSeen, paces } = next;
    await tx
      .update(shop)
      .set({ settings: { ...now, strips, springs, radii, bites, beadTests, limitsSeen, paces } })
      .where(eq(shop.id, 1));
    return answer;
  });

/**
 * Changes the settings since `since`; of test bends what was put in and taken out, whoever else did
 * so meanwhile.
 */
export const changeShop = (viewer: Viewer, since: Shop, mine: Shop): Promise<Changed<Shop>> =>
  dbOf(viewer).transaction(async (tx) => {
    // One row, locked whether it is there or not, so that of two who change it one waits.
    await tx.insert(shop).values({ id: 1, settings: USUAL_SHOP }).onConflictDoNothing();
    await tx.select().from(shop).where(eq(shop.id, 1)).for('update');
    const now = await settings(tx);
    viewer.anew(shop);
    return putMerged(
      mergedRecord(since, mine, now, SHOP_MERGE),
      now,
      (merged) => tx.update(shop).set({ settings: merged }).where(eq(shop.id, 1)),
      ShopSchema,
    );
  });
