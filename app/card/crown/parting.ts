import type { PartPlace } from '#core/surface/flatten/partPlaces';
import type { Described } from '#core/surface/panel/laidPanel';

/** What is asked: a panel, and how it is worked. */
export type PartsAsked = { made: Described; balance: number };

/**
 * A panel laid flat as one, or as two parted at a share: the most that is to be stretched and
 * gathered in either, the weld, mm, and how much crown lies by it against the mean.
 */
export type Parted = PartPlace & { seamMm: number; stretch: number; shrink: number };

export type PartsAnswer =
  | { what: 'whole'; stretch: number; shrink: number; tries: number }
  | { what: 'parted'; parted: Parted }
  | { what: 'done' };

/** Number of cuts tried in each direction. */
export const EACH_WAY = 6;
/** Triangles that are enough to tell one cut from another. */
export const PARTING = 1200;
