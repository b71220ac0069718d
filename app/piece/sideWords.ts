import type { PieceFacts } from '#core/format/job';

/** The sides of a vehicle, as they are told. */
export const SIDE_WORDS: Record<PieceFacts['side'], string> = {
  left: 'Left',
  right: 'Right',
  front: 'Front',
  rear: 'Rear',
  centre: 'Middle',
};
