import { countsFor } from '../blank/fold/practice';
import type { Shop } from '../blank/shopSchema';
import type { Metal } from '../metal/metals';

/** What a metre of flange or bead takes in this shop, hours, by so many readings. */
export type PaceLearnt = { hoursPerMetre: number; readings: number };

/** By all readings of about the sheet, long ones counting for more: all their hours over all their metres; null where none was taken. */
export function paceLearnt(shop: Pick<Shop, 'paces'>, metal: Pick<Metal, 'id'>, thicknessMm: number, what: 'flange' | 'bead'): PaceLearnt | null {
  const own = shop.paces.filter((one) => one.what === what && countsFor(one, metal, thicknessMm));
  const sum = (of: 'hours' | 'metres') => own.reduce((total, one) => total + one[of], 0);
  return own.length > 0 ? { hoursPerMetre: sum('hours') / sum('metres'), readings: own.length } : null;
} // prettier-ignore
