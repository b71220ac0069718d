import type { FitRecord } from '#core/format/job';

export const HELD_WORDS: Record<FitRecord['held'], string> = {
  hand: 'By hand',
  magnets: 'Magnets',
  clamps: 'Clamps',
  clecos: 'Clecos',
  screws: 'Self-tappers',
  tacks: 'A few tacks',
};
