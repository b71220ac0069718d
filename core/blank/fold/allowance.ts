import { radians } from '../../measure/angle';
import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import { ROUNDING_MM } from '../../measure/tolerance';
import type { Temper } from '../../metal/metals';

/**
 * How the neutral axis is found, best first: `measured` from the shop's own test bends, `din6935`,
 * `machinery` (Machinery's Handbook), `faa` (AC 43.13-1B, FAA-H-8083), or a plain `k` typed in.
 *
 * `temper` of a DIN 6935 rule serves below the radii the standard is made for (left out: `half`,
 * soft steel). A measured K holds at the roundness R/T `ratio`, and was tested between the
 * roundnesses `span`; left out, it is taken as it is at every radius.
 */
export type Rule =
  | {
      kind: 'measured';
      k: number;
      uK: number;
      tested?: { ratio: number; span: [number, number] } | undefined;
    }
  | { kind: 'din6935'; temper?: Temper | undefined }
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
  /** Whether K comes from test bends of another roundness. */
  beyondTested: boolean;
  /** Id of the formula in docs/formulas.md. */
  formula: string;
};

/** c of Machinery's Handbook: length of a 90° bend = c·T + 1.57·R. */
const MACHINERY_C: Record<Temper, number> = { soft: 0.55, half: 0.64, hard: 0.71 };

/** FAA AC 43.13-1B empirical bend allowance: (0.01743·R + 0.0078·T) per degree. */
const FAA_R = 0.01743;
const FAA_T = 0.0078;

/** K of Machinery's Handbook, whatever the radius: c·T + 1.57·R at a square bend. */
const machineryK = (temper: Temper): number => MACHINERY_C[temper] / (Math.PI / 2);

/**
 * Roundness R/T below which DIN 6935 is not used. Its tables begin at the least bending radii, about
 * the thickness; its formula goes on falling below them to K = 0 at R = T/20, where a bend would
 * hold no metal. Half the thickness is the radius of a hem over one thickness (common practice).
 */
const DIN_LEAST_RATIO = 0.5;

/** Opened to more than 165° (A below 15°), DIN 6935 takes nothing off legs measured outside. */
const DIN_FLAT_DEG = 15;

/**
 * K by the roundness R/T. DIN 6935: K = k/2, k = 0.65 + 0.5·log10(R/T) ≤ 1. Below `DIN_LEAST_RATIO`
 * it runs evenly to Machinery's Handbook's at R = 0, whose sharp bend was measured (0.64·T at a
 * square bend in soft steel), so that the allowance has no jump.
 */
export function dinK(ratio: number, temper: Temper): number {
  const standard = (r: number) => Math.min(1, 0.65 + 0.5 * Math.log10(r)) / 2;
  if (ratio >= DIN_LEAST_RATIO) return standard(ratio);
  const share = Math.max(0, ratio) / DIN_LEAST_RATIO;
  return machineryK(temper) + (standard(DIN_LEAST_RATIO) - machineryK(temper)) * share;
}

/**
 * K of a bend and its standard uncertainty. A measured K is carried to another roundness along the
 * shape that DIN 6935 gives K, and is surer by that much less: half of what the shape changes
 * outside the tested span counts as a standard uncertainty (common practice).
 */
function neutralFactor(rule: Rule, bend: Bend): { k: number; uK: number | null } {
  const ratio = bend.radiusMm / bend.thicknessMm;
  switch (rule.kind) {
    case 'din6935':
      return { k: dinK(ratio, rule.temper ?? 'half'), uK: null };
    case 'machinery':
      return { k: machineryK(rule.temper), uK: null };
    case 'faa':
      return { k: FAA_T / FAA_R, uK: null };
    case 'k':
      return { k: rule.k, uK: null };
    case 'measured': {
      if (!rule.tested) return { k: rule.k, uK: rule.uK };
      const shape = (r: number) => dinK(r, 'half');
      const [least, greatest] = rule.tested.span;
      const nearest = Math.min(greatest, Math.max(least, ratio));
      return {
        k: Math.min(1, Math.max(0, rule.k + shape(ratio) - shape(rule.tested.ratio))),
        uK: Math.hypot(rule.uK, (shape(ratio) - shape(nearest)) / 2),
      };
    }
  }
}

/** Whether a measured K is used beyond the roundnesses it was tested at (a tenth either way). */
function beyondTested(rule: Rule, { radiusMm, thicknessMm }: Bend): boolean {
  if (rule.kind !== 'measured' || !rule.tested) return false;
  const [least, greatest] = rule.tested.span;
  const ratio = radiusMm / thicknessMm;
  return ratio < 0.9 * least || ratio > 1.1 * greatest;
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
 * The allowance of a bend whose legs are measured over the outside: the same, but where DIN 6935
 * takes nothing off; there it is twice the outside setback, and K what follows from that.
 */
export function measuredOutside(
  found: Allowance,
  { thicknessMm, radiusMm, angleDeg }: Bend,
): Allowance {
  const allowanceMm = 2 * found.outsideSetbackMm - found.deductionMm;
  if (Math.abs(allowanceMm - found.allowanceMm) < ROUNDING_MM) return found;
  return { ...found, allowanceMm, k: (allowanceMm / radians(angleDeg) - radiusMm) / thicknessMm };
}

/**
 * Bend allowance, setbacks and deduction of one straight fold.
 *
 * BA = A·π/180·(R + K·T); OSSB = (R+T)·tan(A/2); BD = 2·OSSB − BA. FAA bends use the printed
 * coefficients. Under DIN 6935 a bend opened to more than 165° (A < 15) has no deduction: that is a
 * convention for legs measured over the outside, which nobody can measure to a sharp so flat. The
 * metal in the bend is what it is, so the allowance goes on by the formula, and what is measured
 * inside or round the corner is reckoned with that.
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
  const { k, uK } = neutralFactor(rule, bend);
  if (!(k >= 0 && k <= 1)) return failure({ code: 'k-out-of-range', numbers: { k } });

  const outsideSetbackMm = setback(r + t, angleDeg);
  const insideSetbackMm = setback(r, angleDeg);
  const a = radians(angleDeg);
  const allowanceMm = rule.kind === 'faa' ? (FAA_R * r + FAA_T * t) * angleDeg : a * (r + k * t);
  const flat = rule.kind === 'din6935' && angleDeg < DIN_FLAT_DEG;
  return {
    ok: true,
    k,
    allowanceMm,
    outsideSetbackMm,
    insideSetbackMm,
    deductionMm: flat ? 0 : 2 * outsideSetbackMm - allowanceMm,
    uncertaintyMm: uK === null ? null : a * t * uK,
    beyondTested: beyondTested(rule, bend),
    formula: `bend-${rule.kind}`,
  };
}
