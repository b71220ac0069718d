import type { Folding } from '#core/blank/fold/folding';

/** What the parts of a piece's folding are called, where two pages differ about one. */
export const FOLDING_WORDS: { [K in keyof Folding]: string } = {
  brake: 'Folded on',
  order: 'An order of your own',
  byHand: 'Folds made by hand',
  leftOpen: 'Folds left open',
  turnedAfter: 'Edges turned after the folds',
  uncoveredMm: 'Fold left uncovered by fingers',
  made: 'Folds that are made',
  closed: 'Folds closed by hand',
  lies: 'How it lies',
  drains: 'Drains',
  fallDeg: 'Least fall',
};
