import type { Development } from '../blank/fold/developed';
import type { Shop } from '../blank/shopSchema';
import type { PatternDoc } from '../card/pattern';
import type { Metal } from '../metal/metals';
import type { ShapeStep } from './shapeStep';

/** What the working order of a piece is made from. */
export type ShapeGiven = {
  pattern: PatternDoc;
  development: Development;
  metal: Metal;
  thicknessMm: number;
  shop: Shop;
  /**
   * Folds in the order they are made on the machine, by id; those left out come as the card lists
   * them.
   */
  foldOrder: readonly string[];
  /** Edges that are turned over when all folds are made, by id. */
  turnedAfter: readonly string[];
  /** The edges beyond which a gap is to be adjusted when the neighbours are up, by id. */
  gaps: readonly string[];
};

/** A strip to try a machine on: length and width, mm, and number of bites (common practice). */
export const STRIP = { longMm: 150, wideMm: 25, bites: 10 };
/** A step, named by its kind and what it is about. */
export const step = (
  what: ShapeStep['what'],
  about: string[],
  reason: string,
  figures: Record<string, number>,
  counts: ShapeStep['counts'] = null,
  part = '',
): ShapeStep => ({
  key: [what, ...about, part].filter(Boolean).join(' '),
  what,
  about,
  reason,
  figures,
  counts,
});
