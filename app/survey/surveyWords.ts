import type { MeasureKind, RoundStage } from '#core/survey/kinds';

export const KIND_WORDS: Record<MeasureKind, string> = {
  distance: 'Between two points',
  height: 'Height over a datum',
  gap: 'Gap',
  level: 'Level, degrees',
  lean: 'Lean, degrees',
  thickness: 'Thickness',
};
export const STAGE_WORDS: Record<RoundStage, string> = {
  found: 'As found',
  braced: 'Braced',
  cut: 'Cut open',
  tacked: 'Tacked',
  welded: 'Welded',
  other: 'Another time',
};
