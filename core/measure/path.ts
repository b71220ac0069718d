import type { Segment } from './segment';
import { arcOf, flattened, isStraight, line, pointAt, segmentLength } from './segment';
import { ROUNDING_MM } from './tolerance';
import type { Vec } from './vector';
import { cross, distance, nearestOnSegment, sub } from './vector';

/**
 * A closed outline: each segment starts where the one before ends, the first where the last ends.
 */
export type Path = readonly Segment[];

export type Box = { minX: number; minY: number; maxX: number; maxY: number };

/** The outline through corners, straight from each to the next. */
export const closedPath = (corners: readonly Vec[]): Segment[] =>
  corners.map((p, i) => line(p, corners[(i + 1) % corners.length]!));

/** Signed area enclosed, mm², positive for a counter-clockwise outline; exact for arcs. */
export function area(path: Path): number {
  let doubled = 0;
  for (const s of path) {
    doubled += cross(s.a, s.b);
    if (!isStraight(s)) {
      const { radius, sweep } = arcOf(s);
      doubled += radius * radius * (sweep - Math.sin(sweep));
    }
  }
  return doubled / 2;
}

/** Length all round, mm. */
export const perimeter = (path: Path): number => path.reduce((sum, s) => sum + segmentLength(s), 0);

/** The outline as points, chords within `tolerance` mm of any arc; first point not repeated. */
export function points(path: Path, tolerance?: number): Vec[] {
  const found: Vec[] = [];
  for (const s of path) {
    if (isStraight(s)) found.push(s.a);
    else found.push(...flattened(s, tolerance));
  }
  return found;
}

/**
 * The smallest upright rectangle round a path (exact for arcs), or a zero box for an empty path.
 */
export function box(path: Path): Box {
  const found: Vec[] = [];
  for (const s of path) {
    found.push(s.a, s.b);
    if (isStraight(s)) continue;
    const { start, sweep } = arcOf(s);
    // From a start within half a turn either way, an arc reaches up to a turn and a half.
    for (let quarter = -6; quarter <= 6; quarter++) {
      const t = ((quarter * Math.PI) / 2 - start) / sweep;
      if (t > 0 && t < 1) found.push(pointAt(s, t));
    }
  }
  return boxOf(found);
}

export function boxOf(found: readonly Vec[]): Box {
  if (found.length === 0) return { minX: 0, minY: 0, maxX: 0, maxY: 0 };
  const b = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
  for (const [x, y] of found) {
    b.minX = Math.min(b.minX, x);
    b.minY = Math.min(b.minY, y);
    b.maxX = Math.max(b.maxX, x);
    b.maxY = Math.max(b.maxY, y);
  }
  return b;
}

/** Whether a point lies inside a closed polygon (even–odd rule). */
export function inside(p: Vec, polygon: readonly Vec[]): boolean {
  // Asked at every frame of every fold and hole: plain figures, and the division only where a side
  // crosses the height.
  const n = polygon.length;
  if (n === 0) return false;
  const x = p[0];
  const y = p[1];
  let within = false;
  let before = polygon[n - 1]!;
  let wasAbove = before[1] > y;
  for (let i = 0; i < n; i++) {
    const here = polygon[i]!;
    const above = here[1] > y;
    if (above !== wasAbove) {
      const crossing = ((before[0] - here[0]) * (y - here[1])) / (before[1] - here[1]) + here[0];
      if (x < crossing) within = !within;
    }
    before = here;
    wasAbove = above;
  }
  return within;
}

/** Shortest distance from a point to the sides of a closed polygon, mm. */
export function distanceToPolygon(p: Vec, polygon: readonly Vec[]): number {
  let best = Infinity;
  for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++) {
    best = Math.min(best, nearestOnSegment(p, polygon[j]!, polygon[i]!).distance);
  }
  return best;
}

/** Signed area of a polygon given by its points, mm². */
export function polygonArea(polygon: readonly Vec[]): number {
  let doubled = 0;
  for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++)
    doubled += cross(polygon[j]!, polygon[i]!);
  return doubled / 2;
}

/** The middle of a polygon by area; of one without area the mean of its points. */
export function polygonCentre(polygon: readonly Vec[]): Vec {
  const mean = polygon.reduce(
    (sum, [x, y]): Vec => [sum[0] + x / polygon.length, sum[1] + y / polygon.length],
    [0, 0],
  );
  let [doubled, x, y] = [0, 0, 0];
  // Seen from the mean, so that a small piece far off keeps its figures.
  for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++) {
    const [a, b] = [sub(polygon[j]!, mean), sub(polygon[i]!, mean)];
    const part = cross(a, b);
    doubled += part;
    x += part * (a[0] + b[0]);
    y += part * (a[1] + b[1]);
  }
  return Math.abs(doubled) < 1e-12
    ? mean
    : [mean[0] + x / (3 * doubled), mean[1] + y / (3 * doubled)];
}

/**
 * The same outline with straight segments that carry on in line joined into one and empty ones left
 * out.
 */
export function simplified(path: Path): Segment[] {
  const out: Segment[] = [];
  const inLine = (s: Segment, r: Segment) =>
    isStraight(s) && isStraight(r) && nearestOnSegment(s.b, s.a, r.b).distance < ROUNDING_MM;
  for (const s of path) {
    if (distance(s.a, s.b) < ROUNDING_MM && isStraight(s)) continue;
    const last = out[out.length - 1];
    if (last && inLine(last, s)) out[out.length - 1] = { a: last.a, b: s.b, bulge: 0 };
    else out.push(s);
  }
  const first = out[0];
  const last = out[out.length - 1];
  if (out.length > 3 && first && last && inLine(last, first)) {
    out[0] = { a: last.a, b: first.b, bulge: 0 };
    out.pop();
  }
  return out;
}
