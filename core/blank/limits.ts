/**
 * As many test bends as a shop keeps: more are no shop's. Apart from the schema: pages need it and
 * not the validation.
 */
export const MOST_STRIPS = 500;

/** As many sheets as a shop says it can get. */
export const MOST_SHEETS = 60;

/** As many folders and brakes. */
export const MOST_BRAKES = 20;

/** As many bends measured for how they spring back. */
export const MOST_SPRINGS = 2000;

/** As many inside radii as they came out. */
export const MOST_RADII = 2000;

/** As many machines for edges (shrinkers, stretchers), as many dies for beads. */
export const MOST_TOOLS = 40;

/**
 * As many test strips and test pieces for flanges and beads, limits seen, and hours taken, of each.
 */
export const MOST_TRIED = 1000;
