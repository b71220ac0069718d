import type { PatternDoc } from './pattern';

/** A card with nothing on it yet. */
export const emptyPattern = (): PatternDoc => ({
  version: 11,
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
  beads: [],
  measured: null,
  profiles: [],
  underlay: null,
  crown: null,
  taken: null,
});
