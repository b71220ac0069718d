import { box } from './path';
import type { Path } from './path';
import type { Segment } from './segment';
import { arcOf, crossingsWithLine, isStraight, nearest, pointAt } from './segment';
import { SAME_PLACE_MM } from './tolerance';
import type { Vec } from './vector';
import { along, cross, distance, left, length, sub, unit } from './vector';

/** Where the circles of two arcs meet: none, one or two points. */
function circlesMeet(s: Segment, r: Segment): Vec[] {
  const [p, q] = [arcOf(s), arcOf(r)];
  const between = sub(q.centre, p.centre);
  const d = length(between);
  if (d < SAME_PLACE_MM) return [];
  const x = (d * d + p.radius ** 2 - q.radius ** 2) / (2 * d);
  const h2 = p.radius ** 2 - x * x;
  // Circles that touch come out a hair to either side of touching.
  if (h2 < -SAME_PLACE_MM * p.radius) return [];
  const u = unit(between);
  const foot = along(p.centre, u, x);
  const h = Math.sqrt(Math.max(0, h2));
  return [along(foot, left(u), h), along(foot, left(u), -h)];
}

/** Points that the carriers of two segments share, as far as there are only a few of them. */
function carriersShare(s: Segment, r: Segment): Vec[] {
  if (isStraight(s)) {
    const u = unit(sub(s.b, s.a));
    return crossingsWithLine(r, s.a, u).map((t) => pointAt(r, t));
  }
  return isStraight(r) ? carriersShare(r, s) : circlesMeet(s, r);
}

/**
 * Where two segments meet, as fractions along each (0 to 1, by length): crossings, touchings,
 * shared ends, and the ends of stretches that lie on each other. Each place once, in no order.
 */
export function meetings(s: Segment, r: Segment): { at: number; other: number }[] {
  const found: { at: number; other: number; point: Vec }[] = [];
  for (const p of [s.a, s.b, r.a, r.b, ...carriersShare(s, r)]) {
    const on = nearest(s, p);
    const off = nearest(r, p);
    if (on.distance > SAME_PLACE_MM || off.distance > SAME_PLACE_MM) continue;
    if (found.some((f) => distance(f.point, p) <= 2 * SAME_PLACE_MM)) continue;
    found.push({ at: on.at, other: off.at, point: p });
  }
  return found.map(({ at, other }) => ({ at, other }));
}

/**
 * How often a closed path goes round a point, counter-clockwise positive; exact for arcs. Points on
 * the path count to either side.
 */
export function turnsRound(path: Path, p: Vec): number {
  let turns = 0;
  for (const s of path) {
    const side = cross(sub(s.b, s.a), sub(p, s.a));
    if (s.a[1] <= p[1]) {
      if (s.b[1] > p[1] && side > 0) turns++;
    } else if (s.b[1] <= p[1] && side < 0) turns--;
    if (isStraight(s)) continue;
    // Between an arc and its chord the path goes round once more, or once less.
    const { centre, radius } = arcOf(s);
    if (s.bulge > 0 ? side < 0 : side > 0)
      if (distance(p, centre) < radius) turns += s.bulge > 0 ? 1 : -1;
  }
  return turns;
}

/** minX, minY, maxX, maxY of each segment in a row: for sweeps that look at many. */
export function boxesOf(path: Path): Float64Array {
  const boxes = new Float64Array(4 * path.length);
  for (let i = 0; i < path.length; i++) {
    const s = path[i]!;
    if (isStraight(s)) {
      const [ax, ay] = s.a;
      const [bx, by] = s.b;
      boxes[4 * i] = ax < bx ? ax : bx;
      boxes[4 * i + 1] = ay < by ? ay : by;
      boxes[4 * i + 2] = ax < bx ? bx : ax;
      boxes[4 * i + 3] = ay < by ? by : ay;
    } else {
      const { minX, minY, maxX, maxY } = box([s]);
      boxes.set([minX, minY, maxX, maxY], 4 * i);
    }
  }
  return boxes;
}
