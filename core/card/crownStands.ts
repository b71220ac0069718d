import { area } from '../measure/path';
import type { DrawnMap } from '../surface/panel/drawnMap';
import { outlineOf } from './outline';
import type { PatternDoc } from './pattern';

/**
 * The outline is still the one that was laid flat when its area differs by no more than this share.
 */
const SAME_AREA = 0.002;

/**
 * Whether what is said of a panel that was laid flat is of the card as it is now: its outline has
 * not been changed since.
 */
export const crownStands = (doc: PatternDoc): boolean =>
  doc.crown !== null && Math.abs(area(outlineOf(doc).path) / doc.crown.blankMm2 - 1) <= SAME_AREA;

/** What is to be done where on a card, while that stands. */
export const mapOf = (doc: PatternDoc): DrawnMap | null =>
  crownStands(doc) ? doc.crown!.map : null;
