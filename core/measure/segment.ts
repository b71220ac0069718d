import { ROUNDING, ROUNDING_MM, SAME_PLACE_MM } from './tolerance';
import type { Vec } from './vector';
import {
  add,
  along,
  cross,
  distance,
  dot,
  left,
  length,
  meet,
  mix,
  nearestOnSegment,
  scale,
  sub,
  turned,
  unit,
} from './vector';

/**
 * One piece of an outline from `a` to `b`. `bulge` is tan(sweep/4), positive for an arc that runs
 * counter-clockwise, 0 for a straight line (the convention of DXF polylines).
 */
export type Segment = { a: Vec; b: Vec; bulge: number };

export type Arc = { centre: Vec; radius: number; start: number; sweep: number };

export const line = (a: Vec, b: Vec): Segment => ({ a, b, bulge: 0 });

/** Bulges smaller than this are straight: an arc of 1 m chord would rise less than 0.5 µm. */
const STRAIGHT = ROUNDING;
export const isStraight = (s: Segment): boolean => Math.abs(s.bulge) < STRAIGHT;

/** Centre, radius (mm), start angle and signed sweep (radians) of a segment that is an arc. */
export function arcOf(s: Segment): Arc {
  const chord = sub(s.b, s.a);
  const sweep = 4 * Math.atan(s.bulge);
  const half = length(chord) / 2;
  const radius = Math.abs(half / Math.sin(sweep / 2));
  const centre = add(
    mix(s.a, s.b, 0.5),
    scale(left(chord), (1 - s.bulge * s.bulge) / (4 * s.bulge)),
  );
  return { centre, radius, start: Math.atan2(s.a[1] - centre[1], s.a[0] - centre[0]), sweep };
}

/** Length along the segment, mm. */
export function segmentLength(s: Segment): number {
  if (isStraight(s)) return distance(s.a, s.b);
  const arc = arcOf(s);
  return arc.radius * Math.abs(arc.sweep);
}

/** The point a fraction `t` (0 to 1, by length) of the way along. */
export function pointAt(s: Segment, t: number): Vec {
  if (isStraight(s)) return mix(s.a, s.b, t);
  if (t === 0) return s.a;
  if (t === 1) return s.b;
  const arc = arcOf(s);
  const angle = arc.start + arc.sweep * t;
  return [
    arc.centre[0] + arc.radius * Math.cos(angle),
    arc.centre[1] + arc.radius * Math.sin(angle),
  ];
}

/** Unit direction of travel a fraction `t` of the way along. */
export function directionAt(s: Segment, t: number): Vec {
  const chord = unit(sub(s.b, s.a));
  if (isStraight(s)) return chord;
  return turned(chord, 4 * Math.atan(s.bulge) * (t - 0.5));
}

/** The part of a segment between two fractions of its length, 0 ≤ from ≤ to ≤ 1. */
export function part(s: Segment, from: number, to: number): Segment {
  const a = pointAt(s, from);
  const b = pointAt(s, to);
  return { a, b, bulge: isStraight(s) ? 0 : Math.tan(Math.atan(s.bulge) * (to - from)) };
}

export const reversed = (s: Segment): Segment => ({ a: s.b, b: s.a, bulge: -s.bulge });
export const moved = (s: Segment, by: Vec): Segment => ({
  a: add(s.a, by),
  b: add(s.b, by),
  bulge: s.bulge,
});

/**
 * The fraction along an arc at which a point of its circle lies, or null if the arc does not reach
 * it.
 */
function fractionOnArc(arc: Arc, p: Vec): number | null {
  let turn = Math.atan2(p[1] - arc.centre[1], p[0] - arc.centre[0]) - arc.start;
  const full = 2 * Math.PI;
  if (arc.sweep > 0) while (turn < -ROUNDING) turn += full;
  else while (turn > ROUNDING) turn -= full;
  turn %= full;
  const t = turn / arc.sweep;
  return t >= -ROUNDING && t <= 1 + ROUNDING ? Math.min(1, Math.max(0, t)) : null;
}

/**
 * Fractions along `s` (ascending) at which it crosses the infinite line through `p` along the unit
 * vector `u`.
 */
export function crossingsWithLine(s: Segment, p: Vec, u: Vec): number[] {
  if (isStraight(s)) {
    const da = cross(u, sub(s.a, p));
    const db = cross(u, sub(s.b, p));
    if (Math.abs(da - db) < 1e-12) return [];
    const t = da / (da - db);
    return t >= -ROUNDING && t <= 1 + ROUNDING ? [Math.min(1, Math.max(0, t))] : [];
  }
  const arc = arcOf(s);
  const offset = cross(u, sub(arc.centre, p));
  const h2 = arc.radius * arc.radius - offset * offset;
  if (h2 < 0) return [];
  const foot = along(p, u, dot(sub(arc.centre, p), u));
  const h = Math.sqrt(h2);
  return [-h, h]
    .map((k) => fractionOnArc(arc, along(foot, u, k)))
    .filter((t): t is number => t !== null)
    .sort((x, y) => x - y);
}

/** Distance from a point to a segment and the fraction along it of the nearest place. */
export function nearest(s: Segment, p: Vec): { distance: number; at: number } {
  if (isStraight(s)) return nearestOnSegment(p, s.a, s.b);
  const arc = arcOf(s);
  const u = unit(sub(p, arc.centre));
  const on = u[0] === 0 && u[1] === 0 ? null : fractionOnArc(arc, along(arc.centre, u, arc.radius));
  if (on !== null) return { distance: Math.abs(distance(p, arc.centre) - arc.radius), at: on };
  const toA = distance(p, s.a);
  const toB = distance(p, s.b);
  return toA <= toB ? { distance: toA, at: 0 } : { distance: toB, at: 1 };
}

/**
 * Points along a segment from its start, without its end, close enough together that no chord
 * strays more than `tolerance` mm from the arc.
 */
export function flattened(s: Segment, tolerance = 0.01): Vec[] {
  if (isStraight(s)) return [s.a];
  const arc = arcOf(s);
  const step = 2 * Math.acos(Math.max(0, 1 - tolerance / Math.max(arc.radius, tolerance)));
  const n = Math.max(2, Math.ceil(Math.abs(arc.sweep) / step));
  return Array.from({ length: n }, (_, i) => pointAt(s, i / n));
}

/**
 * The segment parallel to `s` at `by` mm to its right (outward from a counter-clockwise outline).
 * An arc that would shrink through its own centre comes back as the straight line between its moved
 * ends.
 */
export function offsetRight(s: Segment, by: number): Segment {
  const shift = (t: number): Vec => {
    const d = directionAt(s, t);
    return [d[1] * by, -d[0] * by];
  };
  const a = add(s.a, shift(0));
  const b = add(s.b, shift(1));
  if (isStraight(s)) return { a, b, bulge: 0 };
  const arc = arcOf(s);
  const grown = arc.radius + (s.bulge > 0 ? by : -by);
  return { a, b, bulge: grown > SAME_PLACE_MM ? s.bulge : 0 };
}

/** The arc from `a` to `b` that passes through `via`: its bulge, 0 when the three are in line. */
export function bulgeThrough(a: Vec, via: Vec, b: Vec): number {
  const ua = sub(a, via);
  const ub = sub(b, via);
  const sine = cross(ub, ua);
  if (Math.abs(sine) < 1e-12 * (1 + length(ua) * length(ub))) return 0;
  // The angle seen from a point of the arc is half the turn of the rest of the circle.
  const seen = Math.atan2(Math.abs(sine), dot(ua, ub));
  const sweep = 2 * (Math.PI - seen);
  return Math.sign(cross(sub(via, a), sub(b, via))) * Math.tan(sweep / 4);
}

/**
 * The bulge of an arc of given radius between `a` and `b`, the shorter way round; `side` +1 for
 * counter-clockwise. Null when the radius is less than half the distance between the ends.
 */
export function bulgeOfRadius(a: Vec, b: Vec, radius: number, side: 1 | -1): number | null {
  const half = distance(a, b) / 2;
  if (radius < half - ROUNDING_MM) return null;
  return side * Math.tan(Math.asin(Math.min(1, half / radius)) / 2);
}

/**
 * Where two straight or curved segments cross away from shared ends; only whether, by flattening
 * arcs to 0.05 mm.
 */
export function segmentsCross(s: Segment, r: Segment): boolean {
  if (isStraight(s) && isStraight(r)) return chordsCross(s.a, s.b, r.a, r.b);
  const ps = [...flattened(s, 0.05), s.b];
  const qs = [...flattened(r, 0.05), r.b];
  for (let i = 0; i + 1 < ps.length; i++) {
    for (let j = 0; j + 1 < qs.length; j++) {
      if (chordsCross(ps[i]!, ps[i + 1]!, qs[j]!, qs[j + 1]!)) return true;
    }
  }
  return false;
}

/**
 * Whether the insides of two straight chords cross, or lie along each other. Touching at an end is
 * not crossing.
 */
function chordsCross(a: Vec, b: Vec, c: Vec, d: Vec): boolean {
  const eps = 1e-7;
  if (
    Math.max(a[0], b[0]) < Math.min(c[0], d[0]) - eps ||
    Math.max(c[0], d[0]) < Math.min(a[0], b[0]) - eps ||
    Math.max(a[1], b[1]) < Math.min(c[1], d[1]) - eps ||
    Math.max(c[1], d[1]) < Math.min(a[1], b[1]) - eps
  ) {
    return false;
  }
  // In plain figures: of a comb whose teeth lie askew every tooth is held against every other.
  const abX = b[0] - a[0];
  const abY = b[1] - a[1];
  const lab = Math.sqrt(abX * abX + abY * abY);
  if (lab < eps) return false;
  const dc = (abX * (c[1] - a[1]) - abY * (c[0] - a[0])) / lab;
  const dd = (abX * (d[1] - a[1]) - abY * (d[0] - a[0])) / lab;
  const onLine = Math.abs(dc) < eps && Math.abs(dd) < eps;
  if (!onLine && dc * dd >= 0) return false;
  const cdX = d[0] - c[0];
  const cdY = d[1] - c[1];
  const lcd = Math.sqrt(cdX * cdX + cdY * cdY);
  if (lcd < eps) return false;
  if (onLine) {
    const tc = (abX * (c[0] - a[0]) + abY * (c[1] - a[1])) / lab;
    const td = (abX * (d[0] - a[0]) + abY * (d[1] - a[1])) / lab;
    return Math.min(Math.max(tc, td), lab) - Math.max(Math.min(tc, td), 0) > eps;
  }
  const da = (cdX * (a[1] - c[1]) - cdY * (a[0] - c[0])) / lcd;
  const db = (cdX * (b[1] - c[1]) - cdY * (b[0] - c[0])) / lcd;
  return (
    dc * dd < 0 &&
    da * db < 0 &&
    Math.min(Math.abs(dc), Math.abs(dd), Math.abs(da), Math.abs(db)) > eps
  );
}

/** Where the infinite carriers of two segments meet, nearest to `near`; null when they do not. */
export function carriersMeet(s: Segment, r: Segment, near: Vec): Vec | null {
  if (isStraight(s) && isStraight(r))
    return meet(s.a, unit(sub(s.b, s.a)), r.a, unit(sub(r.b, r.a)));
  if (isStraight(r)) return carriersMeet(r, s, near);
  const candidates: Vec[] = [];
  const second = arcOf(isStraight(s) ? r : s);
  if (isStraight(s)) {
    const u = unit(sub(s.b, s.a));
    const foot = along(s.a, u, dot(sub(second.centre, s.a), u));
    const h2 = second.radius ** 2 - distance(foot, second.centre) ** 2;
    if (h2 >= 0) for (const k of [-1, 1]) candidates.push(along(foot, u, k * Math.sqrt(h2)));
  } else {
    const other = arcOf(r);
    const between = sub(other.centre, second.centre);
    const d = length(between);
    if (d > ROUNDING_MM) {
      const x = (d * d + second.radius ** 2 - other.radius ** 2) / (2 * d);
      const h2 = second.radius ** 2 - x * x;
      const u = unit(between);
      if (h2 >= 0) {
        for (const k of [-1, 1])
          candidates.push(along(along(second.centre, u, x), left(u), k * Math.sqrt(h2)));
      }
    }
  }
  candidates.sort((p, q) => distance(p, near) - distance(q, near));
  return candidates[0] ?? null;
}

/**
 * The arc segment with its ends moved to points of (or very near) its circle; a line simply gets
 * the new ends.
 */
export function withEnds(s: Segment, a: Vec, b: Vec): Segment {
  if (isStraight(s)) return line(a, b);
  const arc = arcOf(s);
  const angle = (p: Vec) => Math.atan2(p[1] - arc.centre[1], p[0] - arc.centre[0]);
  let sweep = angle(b) - angle(a);
  // Keep the way round and stay nearest to the sweep it had.
  while (sweep - arc.sweep > Math.PI) sweep -= 2 * Math.PI;
  while (arc.sweep - sweep > Math.PI) sweep += 2 * Math.PI;
  return { a, b, bulge: Math.tan(sweep / 4) };
}
