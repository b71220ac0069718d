import type { Fold, PatternDoc, Place } from '#core/card/pattern';

/** A fold between two places: square, toward you, and the card made there as at the fold laid last. */
export const newFold = (pattern: PatternDoc, id: string, from: Place, to: Place): Fold => ({
  id,
  from,
  to,
  angleDeg: 90,
  toward: 'face',
  radiusMm: null,
  made: pattern.folds[pattern.folds.length - 1]?.made ?? 'outside-sharp',
});
