import type { Segment } from '../measure/segment';
import {
  carriersMeet,
  directionAt,
  nearest,
  pointAt,
  segmentLength,
  withEnds,
} from '../measure/segment';
import type { Vec } from '../measure/vector';
import { distance, dot, mix, right, sub } from '../measure/vector';

/** Where an edge is seen near a place, looking along a direction, within a reach, mm. */
type Edge = (place: { at: Vec; out: Vec }, reachMm?: number) => Vec | null;

/** An edge is seen where it should be when it is no farther off, mm. */
const THERE_MM = 0.5;
/** Places looked at on the way to where two sides would meet. */
const SHARES = [0.3, 0.6, 0.85];
/** Maximum number of segments that replace a lost corner. */
const MAX_PIECES = 3;
/** Closer to a corner than this the other side is in sight, mm. */
const CLOSE_MM = 0.7;

/**
 * A corner that is rounded off because it was found in coarse pixels shows as a short piece between
 * two longer ones. Where the edges of those two are to be seen in the picture all the way to where
 * they meet, the piece is taken out.
 *
 * @param path a closed outline, counter-clockwise
 * @param edge where an edge is seen
 * @param roundedMm how much of a corner may have been lost
 */
export function withSharpCorners(
  path: readonly Segment[],
  edge: Edge,
  roundedMm: number,
): Segment[] {
  const n = path.length;
  const limit = Math.max(4, 2 * roundedMm);
  const isShort = (s: Segment) => segmentLength(s) < limit;
  for (let count = 1; count <= MAX_PIECES; count++)
    for (let i = 0; i < n && n - count >= 3; i++) {
      const pieces = Array.from({ length: count }, (_, k) => path[(i + k) % n]!);
      const [before, next] = [path[(i + n - 1) % n]!, path[(i + count) % n]!];
      if (!pieces.every(isShort) || isShort(before) || isShort(next)) continue;
      const corner = cornerOf(before, next, pieces, roundedMm);
      if (!corner) continue;
      if (!seenUpTo(before, corner, before.b, edge) || !seenUpTo(next, corner, next.a, edge))
        continue;
      const left = path
        .filter((s) => !pieces.includes(s))
        .map((s) =>
          s === before ? withEnds(s, s.a, corner) : s === next ? withEnds(s, corner, s.b) : s,
        );
      return withSharpCorners(left, edge, roundedMm);
    }
  return [...path];
}

function cornerOf(
  before: Segment,
  next: Segment,
  pieces: readonly Segment[],
  roundedMm: number,
): Vec | null {
  const middle = mix(before.b, next.a, 0.5);
  const corner = carriersMeet(before, next, middle);
  if (!corner || !corner.every(Number.isFinite)) return null;
  const long = pieces.reduce((sum, s) => sum + segmentLength(s), 0);
  if (distance(corner, middle) > long + 2 * roundedMm) return null;
  // The sides run on: neither turns back.
  const ahead = dot(sub(corner, before.b), directionAt(before, 1));
  const back = dot(sub(next.a, corner), directionAt(next, 0));
  return ahead > -0.5 && back > -0.5 ? corner : null;
}

/** Whether an edge is seen on from where a side ends now to where it would end. */
function seenUpTo(side: Segment, corner: Vec, end: Vec, edge: Edge): boolean {
  const longer = withEnds(side, side.a === end ? corner : side.a, side.b === end ? corner : side.b);
  const far = distance(end, corner);
  return SHARES.every((share) => {
    const p: Vec = [end[0] + (corner[0] - end[0]) * share, end[1] + (corner[1] - end[1]) * share];
    if (distance(p, corner) < CLOSE_MM) return true;
    const { at } = nearest(longer, p);
    const on = pointAt(longer, at);
    const seen = edge(
      { at: on, out: right(directionAt(longer, at)) },
      Math.max(1, Math.min(2, far)),
    );
    return seen !== null && distance(seen, on) < THERE_MM;
  });
}
