import { eq } from 'drizzle-orm';
import { USUAL_SHOP } from '#core/blank/fold/practice';
import type { Shop } from '#core/blank/shopSchema';
import { db } from './database.server';
import { shop } from './schema.server';

/** The shop's settings, or the usual ones until it has its own; settings added since are filled in. */
export async function shopSettings(): Promise<Shop> {
  const [row] = await db.select().from(shop).where(eq(shop.id, 1));
  return { ...USUAL_SHOP, ...row?.settings };
}

export const saveShop = (settings: Shop) =>
  db.insert(shop).values({ id: 1, settings }).onConflictDoUpdate({ target: shop.id, set: { settings } });
