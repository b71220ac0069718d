import { radians } from '../../measure/angle';
import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import type { Temper } from '../../metal/metals';

/**
 * How the neutral axis is found, best first: `measured` from the shop's own test bends, `din6935`,
 * `machinery` (Machinery's Handbook), `faa` (AC 43.13-1B, FAA-H-8083), or a plain `k` typed in.
 */
export type Rule =
  | { kind: 'measured'; k: number; uK: number }
  | { kind: 'din6935' }
  | { kind: 'machinery'; temper: Temper }
  | { kind: 'faa' }
  | { kind: 'k'; k: number };

/**
 * Thickness T and inside radius R in mm, bend angle A in degrees (0 flat, 90 square, 180 closed).
 */
export type Bend = { thicknessMm: number; radiusMm: number; angleDeg: number };

export type Allowance = {
  /** Neutral-axis factor K: neutral radius = R + K·T. */
  k: number;
  /** Length of metal in the bend, mm. */
  allowanceMm: number;
  /** From the tangent to the outside sharp corner, mm: (R+T)·tan(A/2), or R+T past square. */
  outsideSetbackMm: number;
  /** From the tangent to the inside sharp corner, mm: R·tan(A/2), or R past square. */
  insideSetbackMm: number;
  /** What the blank is shorter than the two outside legs, mm (negative: longer). */
  deductionMm: number;
  /**
   * Standard uncertainty of allowance and deduction, mm, where that of K is known from test bends:
   * A·T·u(K).
   */
  uncertaintyMm: number | null;
  /** Id of the formula in docs/formulas.md. */
  formula: string;
};

/** c of Machinery's Handbook: length of a 90° bend = c·T + 1.57·R. */
export const MACHINERY_C: Record<Temper, number> = { soft: 0.55, half: 0.64, hard: 0.71 };

/** FAA AC 43.13-1B empirical bend allowance: (0.01743·R + 0.0078·T) per degree. */
const FAA_R = 0.01743;
const FAA_T = 0.0078;

/** K = k/2 of DIN 6935: k = 0.65 + 0.5·log10(R/T), held between 0 and 1. */
function dinK(radiusMm: number, thicknessMm: number): number {
  if (radiusMm <= 0) return 0;
  return Math.min(1, Math.max(0, 0.65 + 0.5 * Math.log10(radiusMm / thicknessMm))) / 2;
}

function neutralFactor(rule: Rule, bend: Bend): number {
  switch (rule.kind) {
    case 'din6935':
      return dinK(bend.radiusMm, bend.thicknessMm);
    case 'machinery':
      return MACHINERY_C[rule.temper] / (Math.PI / 2);
    case 'faa':
      return FAA_T / FAA_R;
    case 'k':
    case 'measured':
      return rule.k;
  }
}

/**
 * tan(A/2), the factor by which a radius sets the sharp corner back from the tangent; A in degrees,
 * below 180.
 */
export const setbackFactor = (angleDeg: number): number => Math.tan(radians(angleDeg) / 2);

/**
 * Past square the legs are measured to the tangent on the outside of the bend (DIN 6935's
 * convention).
 */
const setback = (radius: number, angleDeg: number): number =>
  angleDeg <= 90 ? radius * setbackFactor(angleDeg) : radius;

/**
 * Bend allowance, setbacks and deduction of one straight fold.
 *
 * BA = A·π/180·(R + K·T); OSSB = (R+T)·tan(A/2); BD = 2·OSSB − BA. Under DIN 6935 a bend opened to
 * more than 165° (A < 15) has no deduction, so its allowance is 2·OSSB and K follows from it. FAA
 * bends use the printed coefficients.
 *
 * Problems: `thickness-not-positive`, `radius-negative`, `angle-out-of-range` (0 < A ≤ 180),
 * `k-out-of-range` (0 ≤ K ≤ 1).
 */
export function bendAllowance(bend: Bend, rule: Rule): Result<Allowance> {
  const { thicknessMm: t, radiusMm: r, angleDeg } = bend;
  if (!(t > 0)) return failure({ code: 'thickness-not-positive', numbers: { thicknessMm: t } });
  if (!(r >= 0)) return failure({ code: 'radius-negative', numbers: { radiusMm: r } });
  if (!(angleDeg > 0 && angleDeg <= 180))
    return failure({ code: 'angle-out-of-range', numbers: { angleDeg } });
  let k = neutralFactor(rule, bend);
  if (!(k >= 0 && k <= 1)) return failure({ code: 'k-out-of-range', numbers: { k } });

  const outsideSetbackMm = setback(r + t, angleDeg);
  const insideSetbackMm = setback(r, angleDeg);
  const a = radians(angleDeg);
  let allowanceMm = a * (r + k * t);
  if (rule.kind === 'faa') allowanceMm = (FAA_R * r + FAA_T * t) * angleDeg;
  if (rule.kind === 'din6935' && angleDeg < 15) {
    allowanceMm = 2 * outsideSetbackMm;
    k = (allowanceMm / a - r) / t;
  }
  return {
    ok: true,
    k,
    allowanceMm,
    outsideSetbackMm,
    insideSetbackMm,
    deductionMm: 2 * outsideSetbackMm - allowanceMm,
    uncertaintyMm: rule.kind === 'measured' ? a * t * rule.uK : null,
    formula: `bend-${rule.kind}`,
  };
}
