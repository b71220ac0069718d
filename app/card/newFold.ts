import type { Fold, FoldPath, PatternDoc } from '#core/card/pattern';

/** A fold along a path: square, toward you, and the card made there as at the fold laid last. */
export const newFold = (pattern: PatternDoc, id: string, path: FoldPath): Fold => ({
  id,
  path,
  angleDeg: 90,
  toward: 'face',
  radiusMm: null,
  made: pattern.folds[pattern.folds.length - 1]?.made ?? 'outside-sharp',
});
