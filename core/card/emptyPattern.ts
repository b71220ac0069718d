import type { PatternDoc } from './pattern';

/** A card with nothing on it yet. */
export const emptyPattern = (): PatternDoc => ({
  version: 13,
  corners: [],
  sides: [],
  edges: [],
  folds: [],
  holes: [],
  base: null,
  turned: false,
  rules: [],
  dismissedRules: [],
  tucks: [],
  marks: [],
  beads: [],
  measured: null,
  profiles: [],
  underlay: null,
  crown: null,
  linkedFrom: null,
});
