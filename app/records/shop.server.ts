import { eq } from 'drizzle-orm';
import { MOST_SPRINGS } from '#core/blank/limits';
import { USUAL_SHOP } from '#core/blank/fold/practice';
import type { Shop } from '#core/blank/shopSchema';
import { mergedRecord } from '#core/format/merge';
import type { Changed } from './changed.server';
import { putMerged } from './changed.server';
import { dbOf } from './database.server';
import type { Tx } from './database.server';
import { shop } from './schema.server';
import type { Viewer } from './viewer.server';

const settings = async (tx: Tx): Promise<Shop> => {
  const [row] = await tx.select().from(shop).where(eq(shop.id, 1));
  return { ...USUAL_SHOP, ...row?.settings };
};

/** The shop's settings, or the usual ones until it has its own; settings added since are filled in. */
export const shopSettings = (viewer: Viewer): Promise<Shop> => viewer.once(shop, () => settings(dbOf(viewer)));

/** Puts a measured bend among the shop's readings, once however often it is sent; false where there is no room for it. */
export const addSpring = (viewer: Viewer, spring: Shop['springs'][number]): Promise<boolean> =>
  dbOf(viewer).transaction(async (tx) => {
    await tx.insert(shop).values({ id: 1, settings: USUAL_SHOP }).onConflictDoNothing();
    await tx.select().from(shop).where(eq(shop.id, 1)).for('update');
    const now = await settings(tx);
    const known = spring.on && now.springs.some(({ on }) => on?.piece === spring.on!.piece && on.fold === spring.on!.fold && on.at === spring.on!.at); // prettier-ignore
    if (known) return true;
    if (now.springs.length >= MOST_SPRINGS) return false;
    viewer.anew(shop);
    const springs = [...now.springs, spring];
    await tx.update(shop).set({ settings: { ...now, springs } }).where(eq(shop.id, 1)); // prettier-ignore
    return true;
  });

/** Changes the settings since `since`; of test bends what was put in and taken out, whoever else did so meanwhile. */
export const changeShop = (viewer: Viewer, since: Shop, mine: Shop): Promise<Changed<Shop>> =>
  dbOf(viewer).transaction(async (tx) => {
    // One row, locked whether it is there or not, so that of two who change it one waits.
    await tx.insert(shop).values({ id: 1, settings: USUAL_SHOP }).onConflictDoNothing();
    await tx.select().from(shop).where(eq(shop.id, 1)).for('update');
    const now = await settings(tx);
    viewer.anew(shop);
    return putMerged(mergedRecord(since, mine, now), now, (merged) =>
      tx.update(shop).set({ settings: merged }).where(eq(shop.id, 1)),
    );
  });
