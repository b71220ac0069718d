import type { PatternDoc } from './pattern';

/** A card with nothing on it yet. */
export const emptyPattern = (): PatternDoc => ({
  version: 5,
  corners: [],
  sides: [],
  edges: [],
  folds: [],
  holes: [],
  base: null,
  turned: false,
  rules: [],
  left: [],
  tucks: [],
  marks: [],
  measured: null,
  profiles: [],
  underlay: null,
  taken: null,
});
