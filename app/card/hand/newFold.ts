import type { CardConvention } from '#core/card/kinds';
import type { Fold, FoldPath, PatternDoc } from '#core/card/pattern';

/** The same face of a card, seen from a fold that goes the other way. */
const OTHER_FACE: Record<CardConvention, CardConvention> = {
  'outside-sharp': 'inside-sharp',
  'inside-sharp': 'outside-sharp',
  'outside-rolled': 'inside-rolled',
  'inside-rolled': 'outside-rolled',
};

/**
 * How the card was made at a fold that goes `toward`, the card lying on the metal as at another: what
 * is outside a fold toward you is inside one away from you.
 */
export const facing = (
  { convention: made, toward: was }: Pick<Fold, 'convention' | 'toward'>,
  toward: Fold['toward'],
): CardConvention => (was === toward ? made : OTHER_FACE[made]);

/** A fold along a path: square, toward you, and the card lying there as at the fold laid last. */
export function newFold(pattern: PatternDoc, id: string, path: FoldPath): Fold {
  const last = pattern.folds[pattern.folds.length - 1];
  return {
    id,
    path,
    angleDeg: 90,
    toward: 'face',
    radiusMm: null,
    convention: last ? facing(last, 'face') : 'outside-sharp',
  };
}
