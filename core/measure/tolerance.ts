/**
 * When two figures are the same. Coordinates here reach 10^5 mm and carry 16 digits, so that what
 * is reckoned from them is right to about 10^-11 mm; each tolerance stands well above that and well
 * below what it must not swallow. A tolerance of the trade (a slip of the hand, the width of a saw)
 * has its own name where it is used.
 */

/** Lengths that differ by less differ by rounding alone, mm. */
export const ROUNDING_MM = 1e-9;

/** Shares, bulges, sines and radians that differ by less differ by rounding alone. */
export const ROUNDING = 1e-9;

/** Places nearer than this are one, mm: well under what a saw can tell and well over rounding. */
export const SAME_PLACE_MM = 1e-6;

/**
 * Directions whose sine is less are one direction: over a metre it is a thousandth of a millimetre.
 */
export const SAME_WAY = 1e-6;
