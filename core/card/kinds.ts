/**
 * The lists that a card is described with, apart from its schema: pages need these and not the
 * validation.
 */

export const JOINTS = [
  'free',
  'butt',
  'backed-butt',
  'lap',
  'joggle',
  'hem',
  'plug-flange',
] as const;
export type JointKind = (typeof JOINTS)[number];

export const PROCESSES = ['mig', 'tig', 'gas', 'spot', 'braze'] as const;
export type Process = (typeof PROCESSES)[number];

export const CONVENTIONS = [
  'outside-sharp',
  'inside-sharp',
  'outside-rolled',
  'inside-rolled',
] as const;
/**
 * Which face of the metal the card lay on at a fold, and whether it was creased sharp or rolled
 * round the corner.
 */
export type CardConvention = (typeof CONVENTIONS)[number];

export const FLANGE_WAYS = ['tipped', 'pulled', 'notched', 'lip'] as const;
/**
 * How a flange that goes round a curve is made: cut to the curve and tipped over; as a straight
 * angle that is pulled round; tipped and notched; or as a lip of its own that is welded on.
 */
export type FlangeMade = (typeof FLANGE_WAYS)[number];

/** Gives a new id each time it is called. The caller makes it; the core knows no chance. */
export type NewId = () => string;

/** Ids that count up after the largest already there: for tests, scripts and imports. */
export function countingIds(prefix = 'p', start = 1): NewId {
  let next = start;
  return () => `${prefix}${next++}`;
}
