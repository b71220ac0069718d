import { countsFor } from '../blank/fold/practice';
import type { Shop } from '../blank/shopSchema';
import type { Metal } from '../metal/metals';

/** What a metre of flange or bead takes in this shop, hours, and the number of readings. */
export type PaceLearnt = { hoursPerMetre: number; readings: number };

/**
 * All hours over all metres of readings of about the sheet, so that a long piece counts for more than
 * a short one; null where none was taken.
 */
export function paceLearnt(
  shop: Pick<Shop, 'paces'>,
  metal: Pick<Metal, 'id'>,
  thicknessMm: number,
  what: 'flange' | 'bead',
): PaceLearnt | null {
  const own = shop.paces.filter((one) => one.what === what && countsFor(one, metal, thicknessMm));
  const hours = own.reduce((total, one) => total + one.hours, 0);
  const metres = own.reduce((total, one) => total + one.metres, 0);
  return metres > 0 ? { hoursPerMetre: hours / metres, readings: own.length } : null;
}
