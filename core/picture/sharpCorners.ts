import type { Segment } from '../measure/segment';
import { carriersMeet, directionAt, nearest, pointAt, segmentLength, withEnds } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { distance, dot, right, sub } from '../measure/vector';

/** Where an edge is seen near a place, looking along a direction, within a reach, mm. */
type Edge = (place: { at: Vec; out: Vec }, reachMm?: number) => Vec | null;

/** An edge is seen where it should be when it is no farther off, mm. */
const THERE_MM = 0.5;
/** Places looked at on the way to where two sides would meet. */
const SHARES = [0.3, 0.6, 0.85];
/** Closer to a corner than this the other side is in sight, mm. */
const CLOSE_MM = 0.7;

/**
 * A corner that is rounded off because it was found in coarse pixels shows as a short piece between two longer ones. Where
 * the edges of those two are to be seen in the picture all the way to where they meet, the piece is taken out.
 *
 * @param path a closed outline, counter-clockwise
 * @param edge where an edge is seen
 * @param roundedMm how much of a corner may have been lost
 */
export function withSharpCorners(path: readonly Segment[], edge: Edge, roundedMm: number): Segment[] {
  let left = [...path];
  const short = () =>
    left
      .map((s, i) => ({ i, long: segmentLength(s) }))
      .filter(({ long }) => long < Math.max(4, 2 * roundedMm))
      .sort((a, b) => a.long - b.long);
  for (const { i } of short()) {
    const piece = path[i]!;
    const at = left.indexOf(piece);
    if (at < 0 || left.length <= 3) continue;
    const [before, next] = [left[(at + left.length - 1) % left.length]!, left[(at + 1) % left.length]!];
    const corner = cornerOf(before, next, piece, roundedMm);
    if (!corner) continue;
    if (!seenUpTo(before, corner, before.b, edge) || !seenUpTo(next, corner, next.a, edge)) continue;
    left = left
      .map((s) => (s === before ? withEnds(s, s.a, corner) : s === next ? withEnds(s, corner, s.b) : s))
      .filter((s) => s !== piece);
    return withSharpCorners(left, edge, roundedMm);
  }
  return left;
}

function cornerOf(before: Segment, next: Segment, piece: Segment, roundedMm: number): Vec | null {
  const corner = carriersMeet(before, next, pointAt(piece, 0.5));
  if (!corner || !corner.every(Number.isFinite)) return null;
  if (distance(corner, pointAt(piece, 0.5)) > segmentLength(piece) + 2 * roundedMm) return null;
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
    const seen = edge({ at: on, out: right(directionAt(longer, at)) }, Math.max(1, Math.min(2, far)));
    return seen !== null && distance(seen, on) < THERE_MM;
  });
}
