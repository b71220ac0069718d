import { countsFor } from '../blank/fold/practice';
import type { Shop } from '../blank/shopSchema';
import type { Metal } from '../metal/metals';

/** What a metre of flange or bead takes in this shop, hours, by so many readings. */
export type PaceLearnt = { hoursPerMetre: number; readings: number };

/**
 * The mean of all readings of about the sheet, as the shop's page tells it; null where none was
 * taken.
 */
export function paceLearnt(
  shop: Pick<Shop, 'paces'>,
  metal: Pick<Metal, 'id'>,
  thicknessMm: number,
  what: 'flange' | 'bead',
): PaceLearnt | null {
  const own = shop.paces.filter((one) => one.what === what && countsFor(one, metal, thicknessMm));
  const sum = own.reduce((total, { hours, metres }) => total + hours / metres, 0);
  return own.length > 0 ? { hoursPerMetre: sum / own.length, readings: own.length } : null;
}
