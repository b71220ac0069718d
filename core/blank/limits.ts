/**
 * As many test bends as a shop keeps: more are no shop's. Apart from the schema: pages need it and
 * not the validation.
 */
export const MAX_STRIPS = 500;

/** As many sheets as a shop says it can get. */
export const MAX_SHEETS = 60;

/** As many folders and brakes. */
export const MAX_BRAKES = 20;

/** As many bends measured for how they spring back. */
export const MAX_SPRINGS = 2000;

/** As many inside radii as they came out. */
export const MAX_RADII = 2000;

/** As many machines for edges (shrinkers, stretchers), as many dies for beads. */
export const MAX_TOOLS = 40;

/**
 * As many test strips and test pieces for flanges and beads, limits seen, and hours taken, of each.
 */
export const MAX_TRIED = 1000;
