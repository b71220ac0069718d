import type { Sure } from '../../measure/mean';
import type { WrittenSection } from './section';
import { beadSize, sectionIn } from './section';

/**
 * A piece with one bead right across: its width square to that, before and after, mm, each sure to
 * `uMm`.
 */
export type BeadTest = {
  thicknessMm: number;
  section: WrittenSection;
  wideMm: number;
  wideAfterMm: number;
  uMm: number;
};

/**
 * The share of a bead's take-up that drew the edges in: (before − after)/take-up, held between 0
 * and 1. Null where the section makes no bead, or the reading lies farther outside than twice its
 * ±: it belongs to another piece.
 */
export function shareDrawn({
  thicknessMm,
  section,
  wideMm,
  wideAfterMm,
  uMm,
}: BeadTest): Sure | null {
  const size = beadSize(sectionIn(section, thicknessMm, thicknessMm));
  if (!size.ok || size.takeUpMm <= 0) return null;
  const [share, u] = [(wideMm - wideAfterMm) / size.takeUpMm, (Math.SQRT2 * uMm) / size.takeUpMm];
  if (share < -2 * u || share > 1 + 2 * u) return null;
  return { value: Math.min(1, Math.max(0, share)), u };
}
