import type { Result } from './result';
import { failure } from './result';
import type { Segment } from './segment';
import { arcOf, bulgeThrough, directionAt, isStraight, line, nearest, reversed } from './segment';
import type { Vec } from './vector';
import { along, cross, distance, dot, mix, scale, sub, unit } from './vector';

/** Lines and arcs through points, and how far the farthest point lies off them, mm. */
export type Fitted = { arcs: Segment[]; worstMm: number };

/**
 * Which turns are corners: only what is sharper than `SMOOTH_DEG` (traced outlines, whose points
 * scatter), or all that the readings themselves show (few points, each read on its own).
 */
export type Kinks = 'corners' | 'read';

/** As many points as are fitted at once. */
const MAX_FITTED = 4000;
/** Maximum number of points for which all runs are weighed against each other. */
const MAX_WEIGHED = 120;
/** Number of longer runs in a row that fail before a run is given up as too long. */
const GIVE_UP = 12;
/**
 * Runs that meet at less than this are meant to go on smoothly, degrees; at more there is a corner.
 */
const SMOOTH_DEG = 20;
/**
 * The direction at the end of an arc of length L that lies within ±e of its points is out by up to
 * this many e/L, radians: a parabola through −e, +e, −e has that slope at its end.
 */
const DIRECTION_PER_TOLERANCE = 8;
/** Arcs up to a half circle: of more the ends say little. */
const MAX_BULGE = 1;
/** Finest share of the tolerance that a run is fitted to. */
const FINE = 1 / 64;
/**
 * Two arcs are of one circle where centre and radius differ by no more than this share of the
 * radius.
 */
const ONE_CIRCLE = 1e-6;

/**
 * The fewest lines and arcs that pass within `toleranceMm` of every point, in order, from the first
 * to the last. They meet at points. Where the points turn a corner (by more than 20° from one run
 * to the next) so do they; else they go on without a kink, as biarcs between directions that the
 * points themselves have. With `kinks` 'read' every turn between two runs is a corner that the
 * tolerance does not explain, however flat. Open: the last point is not tied to the first.
 *
 * Problems: `fit-too-few` (under two points that differ), `fit-too-many`, `fit-tolerance` (not
 * above 0).
 */
export function arcsThrough(
  given: readonly Vec[],
  toleranceMm: number,
  kinks: Kinks = 'corners',
): Result<Fitted> {
  if (!(toleranceMm > 0) || !Number.isFinite(toleranceMm))
    return failure({ code: 'fit-tolerance', about: [], numbers: { toleranceMm } });
  const points = given.filter((p, i) => i === 0 || distance(p, given[i - 1]!) > 0);
  if (points.length < 2) return failure({ code: 'fit-too-few', about: [] });
  if (points.length > MAX_FITTED)
    return failure({ code: 'fit-too-many', about: [], numbers: { points: points.length } });
  const any = [line(points[0]!, points[1]!)];
  const runs = fewest(points, (from, to) => bulges(points, from, to, toleranceMm) && any);
  const corners = cornersOf(points, runs, toleranceMm, kinks);
  const arcs = corners.slice(1).flatMap((to, i) => {
    const from = corners[i]!;
    return stretch(points.slice(from, to + 1), toleranceMm);
  });
  return { ok: true, arcs, worstMm: worst(points, arcs) };
}

/** How far the farthest of some points lies off the nearest of some arcs. */
export function worst(points: readonly Vec[], arcs: readonly Segment[], enough = Infinity): number {
  const off = arcs.map(distanceTo);
  let most = 0;
  for (const p of points) {
    let least = Infinity;
    for (const to of off) least = Math.min(least, to(p));
    most = Math.max(most, least);
    // More than that and it does not matter by how much.
    if (most > enough) return most;
  }
  return most;
}

/**
 * How far points are from one line or arc: what of it does not depend on the point is reckoned
 * once.
 */
function distanceTo(s: Segment): (p: Vec) => number {
  const toEnds = (p: Vec) => Math.min(distance(p, s.a), distance(p, s.b));
  if (isStraight(s)) {
    const ahead = unit(sub(s.b, s.a));
    const long = distance(s.a, s.b);
    return (p) => {
      const off = sub(p, s.a);
      const x = dot(off, ahead);
      return x >= 0 && x <= long ? Math.abs(cross(ahead, off)) : toEnds(p);
    };
  }
  const { centre, radius, start, sweep } = arcOf(s);
  const middle: Vec = [Math.cos(start + sweep / 2), Math.sin(start + sweep / 2)];
  const reach = Math.cos(sweep / 2);
  return (p) => {
    const off = sub(p, centre);
    const far = Math.hypot(off[0], off[1]);
    return dot(off, middle) >= far * reach ? Math.abs(far - radius) : toEnds(p);
  };
}

/** What takes the points from one to another within the tolerance; null where nothing does. */
type Taking = (from: number, to: number) => Segment[] | null;

/**
 * Where what takes the points begins and ends, so that there is as little of it as can be: the
 * numbers of the points.
 */
function fewest(points: readonly Vec[], taking: Taking): number[] {
  const last = points.length - 1;
  if (points.length > MAX_WEIGHED) return longest(last, taking);
  const count = new Int32Array(last + 1).fill(4 * points.length);
  const before = new Int32Array(last + 1);
  count[0] = 0;
  for (let from = 0; from < last; from++) {
    let failed = 0;
    for (let to = from + 1; to <= last && failed < GIVE_UP; to++) {
      const found = taking(from, to);
      if (!found) {
        failed++;
        continue;
      }
      failed = 0;
      if (count[from]! + found.length < count[to]!) {
        count[to] = count[from]! + found.length;
        before[to] = from;
      }
    }
  }
  const ends = [last];
  while (ends[0]! > 0) ends.unshift(before[ends[0]!]!);
  return ends;
}

/**
 * The same for very many points, where weighing all runs would take too long: each as long as it
 * can be, in turn.
 */
function longest(last: number, taking: Taking): number[] {
  const ends = [0];
  while (ends[ends.length - 1]! < last) {
    const from = ends[ends.length - 1]!;
    let [good, bad, step] = [from + 1, last + 1, 2];
    while (good < last && bad > last) {
      const to = Math.min(last, from + step);
      if (taking(from, to)) good = to;
      else bad = to;
      step *= 2;
    }
    while (bad - good > 1 && good < last) {
      const to = (good + bad) >> 1;
      if (taking(from, to)) good = to;
      else bad = to;
    }
    ends.push(good);
  }
  return ends;
}

/** Where runs that meet turn a corner, with the first and the last point. */
function cornersOf(
  points: readonly Vec[],
  ends: readonly number[],
  tolerance: number,
  kinks: Kinks,
): number[] {
  const arcs = ends.slice(1).map((to, i) => {
    const from = ends[i]!;
    return bestArc(points, from, to, tolerance) ?? line(points[from]!, points[to]!);
  });
  const turns = ends.slice(1, -1).filter((_, i) => {
    const [u, v] = [directionAt(arcs[i]!, 1), directionAt(arcs[i + 1]!, 0)];
    const turn = Math.abs(Math.atan2(cross(u, v), dot(u, v)));
    const [before, after] = [arcs[i]!, arcs[i + 1]!].map(({ a, b }) => distance(a, b));
    const explained = DIRECTION_PER_TOLERANCE * tolerance * (1 / before! + 1 / after!);
    const corner = (SMOOTH_DEG * Math.PI) / 180;
    return turn > (kinks === 'read' ? Math.min(corner, explained) : corner);
  });
  return [0, ...turns, points.length - 1];
}

/** Points without a corner: one arc where that does, else biarcs that go on without a kink. */
function stretch(points: readonly Vec[], tolerance: number): Segment[] {
  const one = bestArc(points, 0, points.length - 1, tolerance);
  if (one) return [one];
  const ways = directionsAt(points);
  const taking: Taking = (from, to) => {
    const two = biarc(points[from]!, ways[from]!, points[to]!, ways[to]!);
    if (!two) return to === from + 1 ? [line(points[from]!, points[to]!)] : null;
    if (worst(points.slice(from + 1, to), two, tolerance) > tolerance) return null;
    const whole = oneOf(two[0]!, two[1]!);
    return whole ? [whole] : two;
  };
  const ends = fewest(points, taking);
  return joined(ends.slice(1).flatMap((to, i) => taking(ends[i]!, to)!));
}

/**
 * The direction in which the points run at each: that of the circles through it and its neighbours
 * at several distances either way, the wider counting more. Exact on a circle; of many points more
 * are heard, so that what each is out by evens out.
 */
function directionsAt(points: readonly Vec[]): Vec[] {
  const last = points.length - 1;
  const reach = last > 60 ? 3 : last > 24 ? 2 : 1;
  return points.map((p, i) => {
    let sum: Vec = [0, 0];
    for (let k = 1; k <= reach; k++) {
      // At the ends the circle through the next two.
      const [a, b, at] =
        i - k < 0
          ? [0, Math.min(last, 2 * k), i]
          : i + k > last
            ? [Math.max(0, last - 2 * k), last, i]
            : [i - k, i + k, i];
      const middle = at > a && at < b ? at : (a + b) >> 1;
      if (middle === a || middle === b) {
        sum = along(sum, unit(sub(points[b]!, points[a]!)), k * k);
        continue;
      }
      const bulge = bulgeThrough(points[a]!, points[middle]!, points[b]!);
      const circle = { a: points[a]!, b: points[b]!, bulge };
      const way = directionAt(circle, nearest(circle, p).at);
      sum = along(sum, way, k * k);
    }
    return Math.hypot(sum[0], sum[1]) > 0
      ? unit(sum)
      : unit(sub(points[Math.min(last, i + 1)]!, points[Math.max(0, i - 1)]!));
  });
}

/**
 * Between which bulges an arc from one point to another passes within the tolerance of all between;
 * null for none.
 */
function bulges(
  points: readonly Vec[],
  from: number,
  to: number,
  tolerance: number,
): [number, number] | null {
  const [a, b] = [points[from]!, points[to]!];
  const chord = sub(b, a);
  const half = Math.hypot(chord[0], chord[1]) / 2;
  if (half === 0) return null;
  const ahead = unit(chord);
  const middle = mix(a, b, 0.5);
  let [least, most] = [-MAX_BULGE, MAX_BULGE];
  for (let k = from + 1; k < to; k++) {
    const off = sub(points[k]!, middle);
    const [x, y] = [dot(off, ahead), cross(ahead, off)];
    // Beyond the ends no arc comes nearer than its end.
    if (Math.abs(x) > half && Math.hypot(Math.abs(x) - half, y) > tolerance) return null;
    const [low, high] = [bulgeAt(x, y, half, -tolerance), bulgeAt(x, y, half, tolerance)];
    least = Math.max(least, Math.min(low, high));
    most = Math.min(most, Math.max(low, high));
    if (least > most) return null;
  }
  return [least, most];
}

/**
 * The bulge of the arc on a chord from (−h, 0) to (h, 0) above which a point lies by `e`, square to
 * it. With the centre on the y axis, |P − C| = ρ − e gives h(y + e)·b² + (x² + y² − h² − e²)·b −
 * h(y − e) = 0; the smaller root is the arc on the point's side. Where no arc comes that near, the
 * last one tried.
 */
function bulgeAt(x: number, y: number, h: number, e: number): number {
  const [p, q, r] = [h * (y + e), x * x + y * y - h * h - e * e, -h * (y - e)];
  const inside = q * q - 4 * p * r;
  const limit = e > 0 ? MAX_BULGE : -MAX_BULGE;
  if (inside < 0) return limit;
  const step = -(q + (q < 0 ? -1 : 1) * Math.sqrt(inside)) / 2;
  if (step === 0) return limit;
  const root = r / step;
  return Math.abs(root) <= MAX_BULGE ? root : limit;
}

/**
 * The line or arc that lies nearest along a run, a line where that is hardly worse; null where none
 * is within the tolerance.
 */
function bestArc(
  points: readonly Vec[],
  from: number,
  to: number,
  tolerance: number,
): Segment | null {
  const widest = bulges(points, from, to, tolerance);
  if (!widest) return null;
  const [a, b] = [points[from]!, points[to]!];
  const run = points.slice(from + 1, to);
  const within = (bulge: number) => ({ bulge, off: worst(run, [{ a, b, bulge }]) });
  const found = [within((widest[0] + widest[1]) / 2)];
  let [none, some] = [0, 1];
  while (some - none > FINE) {
    const share = (none + some) / 2;
    const closer = bulges(points, from, to, tolerance * share);
    if (closer) {
      some = share;
      found.push(within((closer[0] + closer[1]) / 2));
    } else none = share;
  }
  // Measured to the arc and not to its circle: beside its ends that is farther.
  const best = found.reduce((least, one) => (one.off < least.off ? one : least));
  const straight = within(0);
  if (
    straight.off <= tolerance &&
    (best.off > tolerance || straight.off <= 1.2 * best.off + tolerance * 0.02)
  )
    return line(a, b);
  return best.off <= tolerance ? { a, b, bulge: best.bulge } : null;
}

/**
 * The arc that leaves `a` in a direction and ends at `b`: it turns by twice the angle between
 * direction and chord.
 */
function leaving(a: Vec, way: Vec, b: Vec): Segment {
  const chord = sub(b, a);
  return { a, b, bulge: Math.tan(Math.atan2(cross(way, chord), dot(way, chord)) / 2) };
}

/**
 * Two arcs from `a` in direction `u` to `b` in direction `v` that meet without a kink, the joint as
 * far along either end's tangent (d²·2(1 − u·v) + 2d·w·(u + v) − w·w = 0 with w = b − a); null
 * where there are none of half a circle at most.
 */
function biarc(a: Vec, u: Vec, b: Vec, v: Vec): [Segment, Segment] | null {
  const w = sub(b, a);
  const both = dot(w, [u[0] + v[0], u[1] + v[1]]);
  const open = 2 * (1 - dot(u, v));
  const ww = dot(w, w);
  // Written so that it holds where the two directions are one.
  const d = ww / (both + Math.sqrt(Math.max(0, both * both + open * ww)));
  if (!(d > 0) || !Number.isFinite(d)) return null;
  const joint = mix(along(a, u, d), along(b, v, -d), 0.5);
  const two: [Segment, Segment] = [leaving(a, u, joint), reversed(leaving(b, scale(v, -1), joint))];
  return two.every((s) => distance(s.a, s.b) > 0 && Math.abs(s.bulge) <= MAX_BULGE) ? two : null;
}

/** Arcs of one circle, and lines of one line, that follow each other, made one. */
function joined(arcs: readonly Segment[]): Segment[] {
  const found: Segment[] = [];
  for (const arc of arcs) {
    const last = found[found.length - 1];
    const one = last && oneOf(last, arc);
    if (one) found[found.length - 1] = one;
    else found.push(arc);
  }
  return found;
}

/** Two that follow each other as one, where they are of one circle or one line; null else. */
function oneOf(first: Segment, next: Segment): Segment | null {
  if (isStraight(first) !== isStraight(next)) return null;
  if (isStraight(first)) {
    const [u, v] = [unit(sub(first.b, first.a)), unit(sub(next.b, next.a))];
    return Math.abs(cross(u, v)) < ONE_CIRCLE && dot(u, v) > 0 ? line(first.a, next.b) : null;
  }
  const [c, d] = [arcOf(first), arcOf(next)];
  const apart = distance(c.centre, d.centre) + Math.abs(c.radius - d.radius);
  if (apart > ONE_CIRCLE * c.radius || c.sweep * d.sweep < 0) return null;
  const sweep = c.sweep + d.sweep;
  return Math.abs(sweep) <= Math.PI ? { a: first.a, b: next.b, bulge: Math.tan(sweep / 4) } : null;
}
