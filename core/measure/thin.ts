import type { Vec } from './vector';
import { distance, nearestOnSegment } from './vector';

/**
 * A closed polygon with as few of its own points as keep every point left out within `tolerance` mm
 * of a side (Ramer 1972, Douglas & Peucker 1973). Begins where the polygon begins; three points at
 * least where it has them.
 */
export function thinned(polygon: readonly Vec[], tolerance: number): Vec[] {
  const n = polygon.length;
  if (n <= 3) return [...polygon];
  // Closed: parted at the point farthest from the first, so that each half is a line with two ends.
  let far = 1;
  for (let i = 2; i < n; i++)
    if (distance(polygon[0]!, polygon[i]!) > distance(polygon[0]!, polygon[far]!)) far = i;
  const keep = new Set([
    0,
    far,
    ...between(polygon, 0, far, tolerance),
    ...between(polygon, far, n, tolerance),
  ]);
  // A sliver thinner than the tolerance is still a shape: with the point that stands off farthest.
  if (keep.size === 2) {
    const off = polygon.map((p) => nearestOnSegment(p, polygon[0]!, polygon[far]!).distance);
    const most = off.indexOf(Math.max(...off));
    keep.add(keep.has(most) ? (far === 1 ? 2 : 1) : most);
  }
  return [...keep].sort((a, b) => a - b).map((i) => polygon[i]!);
}

/** The same of a line with two ends, which stay. */
export function thinnedLine(line: readonly Vec[], tolerance: number): Vec[] {
  const last = line.length - 1;
  if (last < 2) return [...line];
  return [0, ...between(line, 0, last, tolerance), last].sort((a, b) => a - b).map((i) => line[i]!);
}

/**
 * Of the places between two of a line (the second may be one past its end: its beginning) those
 * that must stay.
 */
function between(line: readonly Vec[], first: number, last: number, tolerance: number): number[] {
  const keep: number[] = [];
  const parts: [number, number][] = [[first, last]];
  while (parts.length > 0) {
    const [from, to] = parts.pop()!;
    let worst = from;
    let off = tolerance;
    for (let i = from + 1; i < to; i++) {
      const d = nearestOnSegment(line[i]!, line[from]!, line[to % line.length]!).distance;
      if (d > off) [worst, off] = [i, d];
    }
    if (worst === from) continue;
    keep.push(worst);
    parts.push([from, worst], [worst, to]);
  }
  return keep;
}
