import type { Vec } from './vector';
import { distance, nearestOnSegment } from './vector';

/**
 * A closed polygon with as few of its own points as keep every point left out within `tolerance` mm of a side (Ramer 1972,
 * Douglas & Peucker 1973). Begins where the polygon begins; three points at least where it has them.
 */
export function thinned(polygon: readonly Vec[], tolerance: number): Vec[] {
  const n = polygon.length;
  if (n <= 3) return [...polygon];
  const keep = new Set<number>([0]);
  // Closed: parted at the point farthest from the first, so that each half is a line with two ends.
  let far = 1;
  for (let i = 2; i < n; i++) if (distance(polygon[0]!, polygon[i]!) > distance(polygon[0]!, polygon[far]!)) far = i;
  keep.add(far);
  const halves: [number, number][] = [
    [0, far],
    [far, n],
  ];
  while (halves.length > 0) {
    const [from, to] = halves.pop()!;
    let worst = from;
    let off = tolerance;
    for (let i = from + 1; i < to; i++) {
      const d = nearestOnSegment(polygon[i]!, polygon[from]!, polygon[to % n]!).distance;
      if (d > off) [worst, off] = [i, d];
    }
    if (worst === from) continue;
    keep.add(worst);
    halves.push([from, worst], [worst, to]);
  }
  // A sliver thinner than the tolerance is still a shape: with the point that stands off farthest.
  if (keep.size === 2) {
    const off = polygon.map((p) => nearestOnSegment(p, polygon[0]!, polygon[far]!).distance);
    const most = off.indexOf(Math.max(...off));
    keep.add(keep.has(most) ? (far === 1 ? 2 : 1) : most);
  }
  return [...keep].sort((a, b) => a - b).map((i) => polygon[i]!);
}
