import { alongEdge, placeAlong } from '#core/card/foldPlace';
import type { SnappedPlace } from '#core/card/foldPlace';
import { edgeLength, pointOfSpot, spotOf } from '#core/card/outline';
import type { Edge, PatternDoc } from '#core/card/pattern';
import type { Unit } from '#core/measure/length';
import { MM_PER_INCH } from '#core/measure/length';
import type { Vec } from '#core/measure/vector';

/**
 * What the hand is at on the card: a place on an edge that was touched, a place inside, or a fold
 * begun and waiting for its end. What can be done from there is offered; nothing has to be chosen
 * first.
 */
export type Hand =
  | { kind: 'place'; edge: string; at: SnappedPlace }
  | { kind: 'inside'; at: Vec }
  | { kind: 'fold'; from: SnappedPlace; to: { edge: string; at: SnappedPlace } | null }
  /** Sides, folds, corners and holes being gathered to be ruled, by their ids. */
  | { kind: 'rule'; parts: readonly string[] };

/** How far an arrow key moves what is picked, mm; with Shift the larger. */
export const keyStep = (unit: Unit, shift: boolean): number =>
  unit === 'mm' ? (shift ? 10 : 0.5) : (shift ? 1 / 2 : 1 / 32) * MM_PER_INCH;

/** The place `mm` along an edge from its first corner, clamped to the edge. */
export function placeOn(pattern: PatternDoc, edge: Edge, mm: number): SnappedPlace | null {
  const place = placeAlong(pattern, edge, mm);
  const spot = place && spotOf(pattern, place);
  const point = spot && pointOfSpot(pattern, spot);
  return place && spot && point ? { place, spot, point, reason: 'free' } : null;
}

/**
 * A place as it lies on the card now: what it was touched on may have been changed since. Null when
 * it is no more.
 */
export function asItLies(pattern: PatternDoc, at: SnappedPlace): SnappedPlace | null {
  const spot = spotOf(pattern, at.place);
  const point = spot && pointOfSpot(pattern, spot);
  return spot && point ? { ...at, spot, point } : null;
}

/** The place `byMm` farther along its edge; from the middle where none is in hand yet. */
export function movedAlong(
  pattern: PatternDoc,
  edge: Edge,
  at: SnappedPlace | null,
  byMm: number,
): SnappedPlace | null {
  const from = at ? (alongEdge(pattern, at.spot)?.atMm ?? 0) : edgeLength(pattern, edge) / 2;
  const long = edgeLength(pattern, edge);
  return placeOn(pattern, edge, Math.min(long, Math.max(0, at ? from + byMm : from)));
}
