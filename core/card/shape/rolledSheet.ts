import { failure } from '../../measure/result';
import type { Failure } from '../../measure/result';

/**
 * A shape that is rolled from sheet: thickness T, mm, and on which face its diameters and widths are
 * measured. Without one (null) it is developed on what was typed, as a paper wrap is.
 */
export type RolledSheet = { thicknessMm: number; measured: 'outside' | 'inside' };

/**
 * How far the neutral surface lies outward of the measured one, mm: −T/2 from the outside, +T/2 from
 * the inside. A bend as gentle as rolling keeps its length in the middle of the sheet (K = ½).
 */
export const toNeutral = (sheet: RolledSheet | null): number =>
  sheet ? (sheet.measured === 'outside' ? -1 : 1) * (sheet.thicknessMm / 2) : 0;

/**
 * Refusal of a sheet that is no sheet, or too thick for a width of `acrossMm`; null where it is
 * right.
 */
export function wrongSheet(sheet: RolledSheet | null, acrossMm: number): Failure | null {
  if (!sheet) return null;
  const { thicknessMm, measured } = sheet;
  const right =
    Number.isFinite(thicknessMm) &&
    thicknessMm > 0 &&
    (measured === 'inside' || 2 * thicknessMm < acrossMm);
  return right ? null : failure({ code: 'shape-figures', about: ['thicknessMm'] });
}
