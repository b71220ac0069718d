import type { Part } from '#core/surface/part';
import type { Described } from '#core/surface/laidPanel';

/** What is asked: a panel, and how it is worked. */
export type PartsAsked = { made: Described; school: number };

/** A panel laid flat as one, or as two parted at a share: the most that is to be stretched and gathered in either, the weld, mm. */
export type Parted = { runs: Part['runs']; share: number; seamMm: number; stretch: number; shrink: number };

export type PartsAnswer =
  { what: 'whole'; stretch: number; shrink: number } | { what: 'parted'; parted: Parted } | { what: 'done' };

/** Cuts that are tried, clear of both ends. */
export const SHARES = [0.3, 0.4, 0.5, 0.6, 0.7];
/** Triangles that are enough to tell one cut from another. */
export const PARTING = 1200;
