import type { Metal } from '../../metal/metals';
import type { Shop } from '../shopSchema';
import type { AngleRatio } from './springback';
import { angleRatioOf, foldToBy, meanRatio, springback } from './springback';

/** A bend that was folded and measured in this shop; on which piece and fold, where it was one. */
export type Spring = Shop['springs'][number];

/** What angle to fold to so that the wanted one is left, degrees. */
export type Overbend = {
  /** From the shop's own readings, or from the metal's figures (Kalpakjian & Schmid). */
  by: 'readings' | 'figures';
  /** From the least that can be wanted to the most. */
  fromDeg: number;
  toDeg: number;
  /** Of readings: how many, and how sure the angle is, one standard deviation. */
  readings: number;
  uDeg: number | null;
  /** Of figures: the yield stresses reckoned with, N/mm². */
  yieldMpa: readonly [number, number];
};

/** Readings count for a bend of about its thickness and of about as many thicknesses round. */
const [SAME_THICKNESS, SAME_ROUND] = [0.1, 0.35];
/**
 * EN 10130 gives the most that Re may be; the least is assumed for design at 140 N/mm² (a footnote
 * of it, from memory).
 */
const EN_LEAST_MPA = 140;
/** Relative spread assumed for a usual figure from memory, either way. */
const USUAL_SPREAD = 0.2;

/** From the softest to the hardest that a metal can be expected to be, N/mm². */
export function yieldRange({ yield: { value, source } }: Metal): [number, number] {
  if (source.startsWith('EN 10130')) return [Math.min(EN_LEAST_MPA, value), value];
  return [value * (1 - USUAL_SPREAD), value * (1 + USUAL_SPREAD)];
}

/** Readings of the same metal, of about the thickness and radius of a bend. */
export const readingsFor = (
  springs: readonly Spring[],
  metal: Metal,
  thicknessMm: number,
  radiusMm: number,
): Spring[] =>
  springs.filter(
    (one) =>
      !one.leftOut &&
      one.metal === metal.id &&
      Math.abs(one.thicknessMm - thicknessMm) <= SAME_THICKNESS * thicknessMm &&
      Math.abs(one.radiusMm / one.thicknessMm - radiusMm / thicknessMm) <=
        SAME_ROUND * Math.max(1, radiusMm / thicknessMm),
  );

const ratiosOf = (readings: readonly Spring[]): AngleRatio[] =>
  readings.flatMap((reading) => {
    const found = angleRatioOf(reading);
    return found.ok ? [found] : [];
  });

/**
 * The angle to fold to: by the shop's readings of the same metal and about the same thickness and
 * radius where there are any, ± two standard deviations; else by the metal's figures, from the
 * softest it can be to the hardest. One begins at the low end and creeps up. Null where the sheet
 * would spring back altogether.
 */
export function overbendFor(
  bend: { thicknessMm: number; radiusMm: number; angleDeg: number },
  metal: Metal,
  springs: readonly Spring[],
): Overbend | null {
  const { thicknessMm, radiusMm, angleDeg } = bend;
  const yieldMpa = yieldRange(metal);
  const own = ratiosOf(readingsFor(springs, metal, thicknessMm, radiusMm));
  const mean = meanRatio(own);
  if (mean) {
    const { foldToDeg, uDeg } = foldToBy(mean, angleDeg);
    return {
      by: 'readings',
      fromDeg: Math.max(angleDeg, foldToDeg - 2 * uDeg),
      toDeg: foldToDeg + 2 * uDeg,
      readings: own.length,
      uDeg,
      yieldMpa,
    };
  }
  const [soft, hard] = yieldMpa.map((yieldOf) =>
    springback({ ...bend, yieldMpa: yieldOf, youngMpa: metal.young.value }),
  );
  if (!soft?.ok || !hard?.ok) return null;
  return {
    by: 'figures',
    fromDeg: soft.foldToDeg,
    toDeg: hard.foldToDeg,
    readings: 0,
    uDeg: null,
    yieldMpa,
  };
}

/**
 * After a try on one fold: what to fold it to next, degrees. Null where the two readings do not
 * belong together.
 */
export function nextTry(
  angleDeg: number,
  reading: Pick<Spring, 'foldedToDeg' | 'cameBackToDeg' | 'uDeg'>,
): number | null {
  const found = angleRatioOf(reading);
  return found.ok ? angleDeg / found.ratio : null;
}
