import type { Drawn } from '#core/card/drawn';

/**
 * What a drawing file holds, in its own units; how long one is, mm, where the file says so; what of
 * it cannot be read here.
 */
export type Drawing = { drawn: Drawn[]; unitMm: number | null; passedOver: string[] };
/** Or what is wrong with it and where. */
export type Unread = { wrong: string };

/** Curves become lines and arcs within this share of how large the whole drawing is. */
export const CURVE_SHARE = 1 / 4000;
export const MAX_THINGS = 20_000;
/** Lines and arcs in all. */
export const MAX_SEGMENTS = 50_000;
/** What is said where all that is drawn is out of sight. */
export const OUT_OF_SIGHT =
  'All that is drawn in this file is switched off. Switch its layers on in the drawing and save it again.';
