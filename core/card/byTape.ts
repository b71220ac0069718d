import type { AdjustedTape } from '../measure/network/network';
import { adjustNetwork } from '../measure/network/network';
import { polygonArea } from '../measure/path';
import type { Result } from '../measure/result';
import { failure } from '../measure/result';
import type { Vec } from '../measure/vector';

/** A distance taped between two corners of a card, by their numbers from 0, mm. */
export type CornerSpan = { from: number; to: number; mm: number };

export type ByTape = {
  /** Corners in their order, counter-clockwise. */
  corners: Vec[];
  /** How sure each is, one standard deviation, mm, as the wider of across and up. */
  uMm: number[];
  tapes: AdjustedTape[];
  /**
   * The tape most likely misread, by its place among those given; null when all agree or it cannot
   * be told.
   */
  suspect: number | null;
  /**
   * How well the tapes agree with each other: about 1 when they are as good as is said; null where
   * nothing is taped twice over.
   */
  sigma0: number | null;
  redundancy: number;
};

/**
 * The outline of a card that was measured corner to corner and across, its corners 0 to n − 1 in
 * order round it.
 *
 * Problems: `too-few-corners`, those of `adjustNetwork` (about: corners by their numbers from 1).
 *
 * @param uMm how good a tape is, one standard deviation
 */
export function outlineByTape(
  count: number,
  spans: readonly CornerSpan[],
  uMm: number,
): Result<ByTape> {
  if (!(Number.isInteger(count) && count >= 3))
    return failure({ code: 'too-few-corners', numbers: { corners: count } });
  const name = (i: number) => String(i + 1);
  const found = adjustNetwork({
    dimension: 2,
    points: Array.from({ length: count }, (_, i) => ({ name: name(i) })),
    tapes: spans.map(({ from, to, mm }) => ({ from: name(from), to: name(to), mm, uMm })),
  });
  if (!found.ok) return found;
  const { points, tapes, suspect, sigma0, redundancy } = found;
  const placed = points.map(({ at }): Vec => [at[0]!, at[1]!]);
  // Tapes do not tell a figure from its mirror: it is laid so that its corners go round
  // counter-clockwise.
  const corners = polygonArea(placed) < 0 ? placed.map(([x, y]): Vec => [x, -y]) : placed;
  const wrong = suspect
    ? tapes.findIndex(({ from, to }) => from === suspect.from && to === suspect.to)
    : -1;
  return {
    ok: true,
    corners,
    uMm: points.map((point) => Math.max(...point.uMm)),
    tapes,
    suspect: wrong < 0 ? null : wrong,
    sigma0,
    redundancy,
  };
}
