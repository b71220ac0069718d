import type { Vec } from '../../measure/vector';

/**
 * The triangles of points in a plane no two of which are at one place, counter-clockwise, three
 * points to each: no point lies within the circle through the corners of another’s (Bowyer 1981,
 * Watson 1981). All of their hull. Made for some thousand points.
 */
export function delaunay(points: readonly Vec[]): Uint32Array {
  const count = points.length;
  if (count < 3) return new Uint32Array(0);
  const { middle, size } = extentOf(points);
  // A triangle about all of them, far off, so that the hull comes out whole.
  const FAR = 1e4 * size;
  const places: Vec[] = [
    ...points,
    [middle[0] - FAR, middle[1] - FAR],
    [middle[0] + FAR, middle[1] - FAR],
    [middle[0], middle[1] + FAR],
  ];
  type Face = { corners: [number, number, number]; next: (Face | null)[]; gone: boolean };
  const first: Face = {
    corners: [count, count + 1, count + 2],
    next: [null, null, null],
    gone: false,
  };
  let last = first;
  const holds = ({ corners: [a, b, c] }: Face, p: Vec): boolean =>
    inCircle(places[a]!, places[b]!, places[c]!, p) > 0;
  // Neighbours in the plane come one after another: each begins to look where the one before it
  // lies.
  for (const i of byRows(points, size)) {
    const p = points[i]!;
    const start = walked(last, p);
    const cavity = [start];
    start.gone = true;
    const border: { a: number; b: number; beyond: Face | null }[] = [];
    for (let at = 0; at < cavity.length; at++) {
      const face = cavity[at]!;
      face.next.forEach((beyond, k) => {
        if (beyond?.gone) return;
        if (beyond && holds(beyond, p)) {
          beyond.gone = true;
          cavity.push(beyond);
        } else border.push({ a: face.corners[k]!, b: face.corners[(k + 1) % 3]!, beyond });
      });
    }
    // What was looked at from two sides before it was known to go is not on the border.
    const rim = border.filter(({ beyond }) => !beyond?.gone);
    const startsAt = new Map<number, Face>();
    const made = rim.map(({ a, b, beyond }): Face => {
      const face: Face = { corners: [a, b, i], next: [beyond, null, null], gone: false };
      if (beyond) beyond.next[beyond.corners.indexOf(b)] = face;
      startsAt.set(a, face);
      return face;
    });
    for (const face of made) {
      const next = startsAt.get(face.corners[1])!;
      face.next[1] = next;
      next.next[2] = face;
    }
    last = made[0]!;
  }
  const found: number[] = [];
  const seen = new Set<Face>([last]);
  for (const face of seen) {
    if (face.corners.every((v) => v < count)) found.push(...face.corners);
    for (const beyond of face.next) if (beyond) seen.add(beyond);
  }
  return Uint32Array.from(found);

  /** The triangle a point lies in, from another on: always across a side that it lies beyond. */
  function walked(from: Face, p: Vec): Face {
    let face = from;
    for (;;) {
      const k = [0, 1, 2].find(
        (side) =>
          turn(places[face.corners[side]!]!, places[face.corners[(side + 1) % 3]!]!, p) < 0 &&
          face.next[side],
      );
      if (k === undefined) return face;
      face = face.next[k]!;
    }
  }
}

/** Above 0 where c lies left of a → b. */
const turn = (a: Vec, b: Vec, c: Vec): number =>
  (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);

/** Above 0 where p lies within the circle through a, b, c (counter-clockwise). */
function inCircle(a: Vec, b: Vec, c: Vec, p: Vec): number {
  const [ax, ay, bx, by, cx, cy] = [
    a[0] - p[0],
    a[1] - p[1],
    b[0] - p[0],
    b[1] - p[1],
    c[0] - p[0],
    c[1] - p[1],
  ];
  const [aa, bb, cc] = [ax * ax + ay * ay, bx * bx + by * by, cx * cx + cy * cy];
  return aa * (bx * cy - cx * by) - bb * (ax * cy - cx * ay) + cc * (ax * by - bx * ay);
}

function extentOf(points: readonly Vec[]): { middle: Vec; size: number } {
  let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const [x, y] of points) {
    x0 = Math.min(x0, x);
    x1 = Math.max(x1, x);
    y0 = Math.min(y0, y);
    y1 = Math.max(y1, y);
  }
  return { middle: [(x0 + x1) / 2, (y0 + y1) / 2], size: Math.max(x1 - x0, y1 - y0) || 1 };
}

/** The points row by row, every other row backward. */
function byRows(points: readonly Vec[], size: number): number[] {
  const row = size / Math.max(1, Math.sqrt(points.length));
  const rowOf = points.map(([, y]) => Math.floor(y / row));
  return points
    .map((_, i) => i)
    .sort(
      (i, j) =>
        rowOf[i]! - rowOf[j]! || (rowOf[i]! % 2 === 0 ? 1 : -1) * (points[i]![0] - points[j]![0]),
    );
}
