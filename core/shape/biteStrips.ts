import { countsFor } from '../blank/fold/practice';
import type { Shop } from '../blank/shopSchema';
import { weightedMean } from '../measure/mean';
import type { Metal } from '../metal/metals';
import { strainPerBite } from './bites';

/**
 * What one bite of the shop's machines does: `perBiteMm` is ln(after/before) × length ÷ bites, mm
 * per bite (negative for a shrinker), so that an edge L long is strained by e in ln(1 + e)·L ÷
 * perBiteMm bites; ± one standard deviation.
 */
export type BiteLearnt = { perBiteMm: number; uMm: number; strips: number; tools: string[] };

/**
 * What the shop's own strips of about the sheet say of shrinking or stretching; null where none was
 * worked that way.
 */
export function biteLearnt(
  shop: Pick<Shop, 'bites'>,
  metal: Pick<Metal, 'id'>,
  thicknessMm: number,
  way: 'shrink' | 'stretch',
): BiteLearnt | null {
  const sign = way === 'stretch' ? 1 : -1;
  const found = shop.bites.flatMap((strip) => {
    const one = strainPerBite(strip);
    if (!countsFor(strip, metal, thicknessMm) || !one.ok || one.strainPerBite * sign <= 0)
      return [];
    const perBiteMm = (Math.log(strip.afterMm / strip.lengthMm) * strip.lengthMm) / strip.bites;
    return [{ value: perBiteMm, u: (Math.SQRT2 * strip.uMm) / strip.bites, tool: strip.tool }];
  });
  const mean = weightedMean(found);
  return (
    mean && {
      perBiteMm: mean.value,
      uMm: mean.u,
      strips: found.length,
      tools: [...new Set(found.flatMap(({ tool }) => tool ?? []))],
    }
  );
}

/**
 * How many bites strain an edge `freeMm` long, in the flat, by `strain`; and ±, one standard
 * deviation.
 */
export function bitesOver(
  strain: number,
  freeMm: number,
  { perBiteMm, uMm }: BiteLearnt,
): { bites: number; u: number } {
  const bites = (Math.log1p(strain) * freeMm) / perBiteMm;
  return { bites: Math.max(1, Math.round(bites)), u: Math.abs((bites * uMm) / perBiteMm) };
}
