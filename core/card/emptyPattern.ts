import type { PatternDoc } from './pattern';

/** A card with nothing on it yet. */
export const emptyPattern = (): PatternDoc => ({
  version: 2,
  corners: [],
  sides: [],
  edges: [],
  folds: [],
  holes: [],
  base: null,
  turned: false,
});
