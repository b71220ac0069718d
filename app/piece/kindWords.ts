import type { PieceKind } from '#core/format/lists';

/** Where a piece comes from, as it is called. */
export const KIND_WORDS: Record<PieceKind, string> = {
  made: 'Made here',
  bought: 'Bought',
  donor: 'From a donor',
  old: 'Old one put back',
};

export const KIND_ABOUT: Record<PieceKind, string> = {
  made: 'From a card: blank, folds, flanges, shape.',
  bought: 'Received, looked at, cut down to size, put right.',
  donor: 'Cut from another vehicle: spots drilled out, cut along a line.',
  old: 'The panel that was there goes back in.',
};
