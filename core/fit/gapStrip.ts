import type { Result } from '../measure/result';
import { failure, stop } from '../measure/result';
import type { Vec } from '../measure/vector';

/** A gap as it was read: where along the edge and how wide, mm. */
export type GapReading = { atMm: number; gapMm: number };

/** A strip that is let in between a piece and what it meets. */
export type GapStrip = {
  /**
   * Its outline, mm, counter-clockwise: x along the edge, y across from the piece's new edge, once it
   * has been cut back.
   */
  outline: Vec[];
  /** How wide it is at each reading, mm. */
  widthsMm: number[];
  /** What the piece, and what it meets, are cut back by in the end, mm. */
  cutBackMm: [number, number];
};

/** A strip that is narrower than this is hard to hold and to weld, mm; common practice. */
export const LEAST_STRIP_MM = 12;

/**
 * The strip for a gap too wide to weld: as wide as the gap, and what is cut back on either side, less
 * the gap that is left for each weld. Where it would be narrower than `leastMm` both sides are cut
 * back further, by as much each and all along, so that they stay as straight as they were.
 *
 * @param readings in the order along the edge, at least two
 * @param cutBackMm what the piece and what it meets are cut back by to begin with, mm
 *
 * Problems (stop): `strip-readings` (fewer than two, not in order, or a figure that is none),
 * `strip-cut-back` (below 0).
 */
export function gapStrip(
  readings: readonly GapReading[],
  cutBackMm: readonly [number, number],
  leastMm = LEAST_STRIP_MM,
  weldGapMm = 0,
): Result<GapStrip> {
  const inOrder = readings.every(
    ({ atMm, gapMm }, i) =>
      Number.isFinite(gapMm) && Number.isFinite(atMm) && (i === 0 || atMm > readings[i - 1]!.atMm),
  );
  if (readings.length < 2 || !inOrder) return failure(stop('strip-readings', []));
  if (![...cutBackMm, leastMm, weldGapMm].every((mm) => mm >= 0 && Number.isFinite(mm)))
    return failure(stop('strip-cut-back', []));
  const [own, other] = cutBackMm;
  const widths = readings.map(({ gapMm }) => gapMm + own + other - 2 * weldGapMm);
  const more = Math.max(0, leastMm - Math.min(...widths)) / 2;
  const widthsMm = widths.map((mm) => mm + 2 * more);
  const near = readings.map(({ atMm }): Vec => [atMm, weldGapMm]);
  const far = readings.map(({ atMm }, i): Vec => [atMm, weldGapMm + widthsMm[i]!]);
  return {
    ok: true,
    outline: [...near, ...far.reverse()],
    widthsMm,
    cutBackMm: [own + more, other + more],
  };
}
