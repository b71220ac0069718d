import { radians } from '../../measure/angle';
import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import type { Metal } from '../../metal/metals';
import type { Bend, Rule } from './allowance';
import { bendAllowance } from './allowance';
import type { Strip } from './testBend';

/**
 * An inside radius as it came out where another was wanted, sure to `uMm` (standard uncertainty).
 */
export type AchievedRadius = { wantedMm: number; gotMm: number; uMm: number };

/**
 * Readings count for a sheet of about their thickness, and for a fold of about the radius that was
 * wanted.
 */
const SAME_THICKNESS = 0.1;
const SAME_RADIUS = 0.1;

type Reading = AchievedRadius & {
  metal: string;
  thicknessMm: number;
  leftOut?: string | undefined;
};

/** The radii that came out in a metal of about a thickness. */
export const radiiOf = (
  all: readonly Reading[],
  metal: Pick<Metal, 'id'>,
  thicknessMm: number,
): AchievedRadius[] =>
  all
    .filter(
      (one) =>
        !one.leftOut &&
        one.metal === metal.id &&
        Math.abs(one.thicknessMm - thicknessMm) <= SAME_THICKNESS * thicknessMm,
    )
    .map(({ wantedMm, gotMm, uMm }) => ({ wantedMm, gotMm, uMm }));

/**
 * The inside radius that comes out, mm, where one is wanted: the mean, weighted by 1/u², of what
 * came out of about as much; else the one wanted.
 */
export function achievedRadius(wantedMm: number, radii: readonly AchievedRadius[]): number {
  const alike = radii.filter((one) => Math.abs(one.wantedMm - wantedMm) <= SAME_RADIUS * wantedMm);
  if (alike.length === 0) return wantedMm;
  const weight = alike.reduce((sum, { uMm }) => sum + 1 / uMm ** 2, 0);
  return alike.reduce((sum, { gotMm, uMm }) => sum + gotMm / uMm ** 2, 0) / weight;
}

/**
 * The inside radius of a bend, and its standard uncertainty, from its measured legs, K being known:
 * from A·(R + K·T) = L0 − a − b + 2·(R + T)·tan(A/2), R = (L0 − a − b + 2·T·tan(A/2) − A·K·T) / (A
 * − 2·tan(A/2)); u(R) = u·√3 / |A − 2·tan(A/2)|.
 *
 * Problems: `angle-out-of-range` (0 < A ≤ 90), `reading-not-positive`, `strip-not-credible`
 * (numbers: k; a radius below nothing, or beyond ten times the legs, does not come of these
 * lengths).
 */
export function radiusFromLegs(
  strip: Omit<Strip, 'radiusMm'>,
  k: number,
): Result<{ radiusMm: number; uMm: number }> {
  const { thicknessMm: t, angleDeg, flatMm, legAMm, legBMm, readingMm } = strip;
  if (!(angleDeg > 0 && angleDeg <= 90))
    return failure({ code: 'angle-out-of-range', numbers: { angleDeg } });
  if (!(readingMm > 0)) return failure({ code: 'reading-not-positive', numbers: { readingMm } });
  const a = radians(angleDeg);
  const tan = Math.tan(a / 2);
  const radiusMm = (flatMm - legAMm - legBMm + 2 * t * tan - a * k * t) / (a - 2 * tan);
  const uMm = (readingMm * Math.sqrt(3)) / Math.abs(a - 2 * tan);
  const most = Math.max(legAMm, legBMm);
  if (!(radiusMm >= -2 * uMm && radiusMm <= most))
    return failure({ code: 'strip-not-credible', numbers: { k, uK: uMm / t } });
  return { ok: true, radiusMm: Math.max(0, radiusMm), uMm };
}

/**
 * By how much both outside legs of a bend together come out longer (negative: shorter) than they
 * were reckoned, mm, on a blank already cut, where its inside radius is another: the deduction at
 * the radius it got less the one reckoned with. Null past what a rule can reckon.
 */
export function legsOutBy(bend: Bend, rule: Rule, gotMm: number): number | null {
  const [reckoned, got] = [
    bendAllowance(bend, rule),
    bendAllowance({ ...bend, radiusMm: gotMm }, rule),
  ];
  return reckoned.ok && got.ok ? got.deductionMm - reckoned.deductionMm : null;
}
