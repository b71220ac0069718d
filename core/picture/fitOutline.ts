import type { Segment } from '../measure/segment';
import { bulgeThrough } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { along, cross, distance, dot, left, meet, mix, sub, unit } from '../measure/vector';
import { weightsOf } from './scatter';

/** A line by a point and a direction, or a circle. */
type Carrier = { at: Vec; way: Vec } | { centre: Vec; radius: number };

/**
 * What one more line, and one more arc, must save: squares of how far the points are off, in thirds
 * of the tolerance.
 */
const LINE_COSTS = 36;
const ARC_COSTS = 54;
/** Maximum number of places at which breaks are tried. */
const MAX_BREAKS = 560;
/** Distance between neighbours above which points are missing between them, in mean distances. */
const GAP = 4;
/** Distance from a run above which a point is an outlier, in medians. */
const OUTLIER = 4;
/** At less than this two carriers meet too flatly to say where. */
const FLAT = Math.sin((5 * Math.PI) / 180);
/**
 * Distance from the end of a run within which points are rounded off by the way they were found,
 * mm.
 */
const ROUNDED_MM = 1.2;
/** A circle much larger than what is seen of it is a line. */
const LARGEST_RADIUS = 20_000;

export type FittedOutline = { path: Segment[]; rmsMm: number };

/**
 * The few lines and arcs that a closed row of measured points follows: every way of breaking it
 * into runs is weighed, how far its points are off against how many runs it takes (Bellman's
 * dynamic programming on sums of moments), then each run is fitted by itself and neighbours are
 * made to meet where they cross. Points may be off by chance; strays are passed over.
 *
 * @param points in order, the last tied to the first, counter-clockwise
 * @param toleranceMm how far points may lie off what they follow
 */
export function fitOutline(points: readonly Vec[], toleranceMm: number): FittedOutline | null {
  if (points.length < 8) return null;
  const round = circleOf(points);
  if (round && rmsTo(points, round) < toleranceMm / 2 && 'radius' in round)
    return wholeCircle(points, round);
  let breaks = weighed(points, sharpest(points), toleranceMm);
  // Where it happened to begin need not be a corner: once more from one that was found.
  if (breaks.length > 1)
    breaks = weighed(points, breaks[Math.floor(breaks.length / 2)]!, toleranceMm);
  const n = points.length;
  const runs = breaks.map((from, i) => {
    const to = breaks[(i + 1) % breaks.length]! + (i + 1 < breaks.length ? 0 : n);
    // Of one or two points alone, the one after them as well: a line goes through two at least.
    const count = Math.max(Math.min(3, n), to - from);
    return { from, points: Array.from({ length: count }, (_, k) => points[(from + k) % n]!) };
  });
  if (runs.length < 2) return null;
  const carriers = runs.map((run) => carrierOf(run.points, toleranceMm));
  const joints = runs.map((run, i) =>
    jointOf(carriers[(i + runs.length - 1) % runs.length]!, carriers[i]!, [
      points[(run.from + n - 1) % n]!,
      points[run.from % n]!,
    ]),
  );
  const path = carriers.map((carrier, i): Segment => {
    const [a, b] = [joints[i]!, joints[(i + 1) % joints.length]!];
    if (!('radius' in carrier)) return { a, b, bulge: 0 };
    const middle = runs[i]!.points[runs[i]!.points.length >> 1]!;
    const via = along(carrier.centre, unit(sub(middle, carrier.centre)), carrier.radius);
    return { a, b, bulge: bulgeThrough(a, via, b) };
  });
  return { path: halved(path), rmsMm: rmsOf(runs, carriers) };
}

function wholeCircle(
  points: readonly Vec[],
  round: { centre: Vec; radius: number },
): FittedOutline {
  const a: Vec = [round.centre[0] + round.radius, round.centre[1]];
  const b: Vec = [round.centre[0] - round.radius, round.centre[1]];
  return {
    path: [
      { a, b, bulge: 1 },
      { a: b, b: a, bulge: 1 },
    ],
    rmsMm: rmsTo(points, round),
  };
}

/** No arc beyond a half circle: of more the ends say little. */
const halved = (path: readonly Segment[]): Segment[] =>
  path.flatMap((s) => {
    if (Math.abs(s.bulge) <= 1) return [s];
    const half = Math.atan(s.bulge);
    const middle = along(mix(s.a, s.b, 0.5), left(sub(s.b, s.a)), -s.bulge / 2);
    const bulge = Math.tan(half / 2);
    return [
      { a: s.a, b: middle, bulge },
      { a: middle, b: s.b, bulge },
    ];
  });

/** How far points lie off what their runs follow, root of the mean of the squares. */
function rmsOf(runs: readonly { points: Vec[] }[], carriers: readonly Carrier[]): number {
  let [sum, count] = [0, 0];
  runs.forEach((run, i) => {
    for (const p of trimmed(run.points)) {
      sum += offFrom(carriers[i]!, p) ** 2;
      count++;
    }
  });
  return Math.sqrt(sum / Math.max(1, count));
}

/** The point at which a row of points turns most within a few steps. */
function sharpest(points: readonly Vec[]): number {
  const n = points.length;
  const reach = Math.max(2, Math.min(6, Math.floor(n / 12)));
  let [most, at] = [-1, 0];
  for (let i = 0; i < n; i++) {
    const [u, v] = [
      sub(points[i]!, points[(i - reach + n) % n]!),
      sub(points[(i + reach) % n]!, points[i]!),
    ];
    const turn = Math.abs(Math.atan2(cross(u, v), dot(u, v)));
    if (turn > most) [most, at] = [turn, i];
  }
  return at;
}

/**
 * Sums of x, y, x², xy, y², x·r², y·r², r⁴ and of the weights over all points before the nth, for
 * what is known of any run at once.
 */
const MOMENTS = 9;
function momentsOf(points: readonly Vec[], weights: Float64Array): Float64Array {
  const sums = new Float64Array((points.length + 1) * MOMENTS);
  points.forEach(([x, y], i) => {
    const rr = x * x + y * y;
    const own = [x, y, x * x, x * y, y * y, x * rr, y * rr, rr * rr, 1];
    for (let k = 0; k < MOMENTS; k++)
      sums[(i + 1) * MOMENTS + k] = sums[i * MOMENTS + k]! + weights[i]! * own[k]!;
  });
  return sums;
}

/**
 * Where runs begin, the numbers of the points in ascending order from `start` on (those after the
 * last beyond n).
 */
function weighed(points: readonly Vec[], start: number, toleranceMm: number): number[] {
  const n = points.length;
  const middle: Vec = [
    points.reduce((s, p) => s + p[0], 0) / n,
    points.reduce((s, p) => s + p[1], 0) / n,
  ];
  const row = Array.from({ length: n + 1 }, (_, i) => sub(points[(start + i) % n]!, middle));
  const weights = weightsOf(points, toleranceMm / 3);
  const sums = momentsOf(
    row,
    Float64Array.from(row, (_, i) => weights[(start + i) % n]!),
  );
  const every = Math.max(1, Math.ceil(n / MAX_BREAKS));
  const spacing = perimeter(row) / n;
  // Where places are missing it matters exactly which of two runs a place belongs to: they lie far
  // apart.
  const breaks = (i: number) => i % every === 0 || distance(row[i - 1]!, row[i]!) > GAP * spacing;
  const places = [...Array.from({ length: n }, (_, i) => i).filter(breaks), n];
  const scale = (9 / toleranceMm ** 2) * Math.min(1, spacing);
  const cost = new Float64Array(places.length).fill(Infinity);
  const before = new Int32Array(places.length);
  cost[0] = 0;
  for (let j = 1; j < places.length; j++)
    for (let i = j - 1; i >= 0; i--) {
      const one = runCost(sums, places[i]!, places[j]! - 1, scale);
      if (cost[i]! + one < cost[j]!) [cost[j], before[j]] = [cost[i]! + one, i];
    }
  const found: number[] = [];
  for (let j = before[places.length - 1]!; ; j = before[j]!) {
    found.unshift(places[j]!);
    if (j === 0) break;
  }
  return found.map((i) => (start + i) % n).sort((a, b) => a - b);
}

const perimeter = (row: readonly Vec[]) =>
  row.reduce((sum, p, i) => (i > 0 ? sum + distance(row[i - 1]!, p) : 0), 0);

/** What a run costs as the better of a line and an arc. */
function runCost(sums: Float64Array, from: number, to: number, scale: number): number {
  const n = to - from + 1;
  if (n <= 2) return LINE_COSTS;
  const total = (k: number) => sums[(to + 1) * MOMENTS + k]! - sums[from * MOMENTS + k]!;
  const weight = total(8);
  const s = (k: number) => total(k) / weight;
  const [mx, my] = [s(0), s(1)];
  const [xx, xy, yy] = [s(2) - mx * mx, s(3) - mx * my, s(4) - my * my];
  const least = (xx + yy) / 2 - Math.hypot((xx - yy) / 2, xy);
  const asLine = LINE_COSTS + weight * scale * Math.max(0, least);
  if (asLine <= ARC_COSTS || n < 5) return asLine;
  // Kåsa's circle: x² + y² + d·x + e·y + f of least squares, about the middle of the run.
  const rr = s(2) + s(4);
  const [xr, yr] = [s(5) - mx * rr, s(6) - my * rr];
  const whole = xx * yy - xy * xy;
  if (!(whole > 1e-9 * (xx + yy) ** 2)) return asLine;
  const [d, e] = [-(xr * yy - yr * xy) / whole, -(yr * xx - xr * xy) / whole];
  const f = -rr - d * mx - e * my;
  const radius2 = (d * d + e * e) / 4 - f;
  // The mean of (r² + d·x + e·y + f)², and of that what is off from the circle: over (2·radius)².
  const off2 =
    s(7) +
    d * d * s(2) +
    e * e * s(4) +
    f * f +
    2 * (d * s(5) + e * s(6) + f * rr + d * e * s(3) + d * f * mx + e * f * my);
  return Math.min(asLine, ARC_COSTS + (weight * scale * Math.max(0, off2)) / (4 * radius2));
}

/** A run without its ends, where it is long enough to do without. */
function trimmed(points: readonly Vec[]): readonly Vec[] {
  const [a, b] = [points[0]!, points[points.length - 1]!];
  const inside = points.filter((p) => distance(p, a) > ROUNDED_MM && distance(p, b) > ROUNDED_MM);
  return inside.length >= Math.max(4, points.length / 2) ? inside : points;
}

/** The line or the circle that a run follows. */
function carrierOf(run: readonly Vec[], toleranceMm: number): Carrier {
  let points = trimmed(run);
  let found: Carrier = lineOf(points);
  for (let turn = 0; turn < 3; turn++) {
    const straight = lineOf(points);
    const circle = points.length >= 5 ? circleOf(points) : null;
    const scale = (9 / toleranceMm ** 2) * points.length;
    const better =
      circle &&
      rmsTo(points, circle) ** 2 * scale + ARC_COSTS - LINE_COSTS <
        rmsTo(points, straight) ** 2 * scale;
    found = better ? circle : straight;
    const off = points.map((p) => Math.abs(offFrom(found, p)));
    const middle = [...off].sort((a, b) => a - b)[off.length >> 1]!;
    const near = points.filter((_, i) => off[i]! <= OUTLIER * Math.max(middle, 0.02));
    if (near.length === points.length || near.length < 4) break;
    points = near;
  }
  return found;
}

const offFrom = (carrier: Carrier, p: Vec): number =>
  'radius' in carrier
    ? distance(p, carrier.centre) - carrier.radius
    : cross(carrier.way, sub(p, carrier.at));

const rmsTo = (points: readonly Vec[], carrier: Carrier): number =>
  Math.sqrt(points.reduce((sum, p) => sum + offFrom(carrier, p) ** 2, 0) / points.length);

/** The line of least squares, measured square to it. */
export function lineOf(points: readonly Vec[]): { at: Vec; way: Vec } {
  const n = points.length;
  const at: Vec = [
    points.reduce((s, p) => s + p[0], 0) / n,
    points.reduce((s, p) => s + p[1], 0) / n,
  ];
  let [xx, xy, yy] = [0, 0, 0];
  for (const p of points) {
    const [x, y] = sub(p, at);
    [xx, xy, yy] = [xx + x * x, xy + x * y, yy + y * y];
  }
  const angle = Math.atan2(2 * xy, xx - yy) / 2;
  return { at, way: [Math.cos(angle), Math.sin(angle)] };
}

/**
 * The circle of least squares, measured along its radii (Gauss and Newton from Kåsa's); null where
 * it is none.
 */
export function circleOf(points: readonly Vec[]): { centre: Vec; radius: number } | null {
  const n = points.length;
  const m: Vec = [
    points.reduce((s, p) => s + p[0], 0) / n,
    points.reduce((s, p) => s + p[1], 0) / n,
  ];
  let [xx, xy, yy, xr, yr] = [0, 0, 0, 0, 0];
  for (const p of points) {
    const [x, y] = sub(p, m);
    const rr = x * x + y * y;
    [xx, xy, yy, xr, yr] = [xx + x * x, xy + x * y, yy + y * y, xr + x * rr, yr + y * rr];
  }
  const whole = xx * yy - xy * xy;
  if (!(whole > 1e-12 * (xx + yy) ** 2)) return null;
  let [cx, cy] = [m[0] + (xr * yy - yr * xy) / whole / 2, m[1] + (yr * xx - xr * xy) / whole / 2];
  let radius = 0;
  for (let turn = 0; turn < 12; turn++) {
    // Off = |p − c| − r, by its derivatives; r is the mean distance at any centre.
    radius = points.reduce((s, p) => s + Math.hypot(p[0] - cx, p[1] - cy), 0) / n;
    if (!(radius < LARGEST_RADIUS)) return null;
    let [a, b, c, u, v, sx, sy] = [0, 0, 0, 0, 0, 0, 0];
    const ways = points.map((p): Vec => unit([p[0] - cx, p[1] - cy]));
    for (const [x, y] of ways) [sx, sy] = [sx + x / n, sy + y / n];
    points.forEach((p, i) => {
      const off = Math.hypot(p[0] - cx, p[1] - cy) - radius;
      const [x, y] = [ways[i]![0] - sx, ways[i]![1] - sy];
      [a, b, c, u, v] = [a + x * x, b + x * y, c + y * y, u + x * off, v + y * off];
    });
    const det = a * c - b * b;
    if (!(det > 1e-18)) return null;
    const [dx, dy] = [(u * c - v * b) / det, (v * a - u * b) / det];
    [cx, cy] = [cx + dx, cy + dy];
    if (Math.hypot(dx, dy) < 1e-7) break;
  }
  return Number.isFinite(cx + cy) ? { centre: [cx, cy], radius } : null;
}

/**
 * Where two that follow each other meet, near to between which points the one changes to the other.
 */
function jointOf(before: Carrier, next: Carrier, [last, first]: readonly [Vec, Vec]): Vec {
  const near = mix(last, first, 0.5);
  const smooth = mix(projected(before, near), projected(next, near), 0.5);
  const crossings = crossingsOf(before, next);
  const best = crossings.reduce<Vec | null>(
    (b, p) => (!b || distance(p, near) < distance(b, near) ? p : b),
    null,
  );
  if (!best || Math.abs(cross(wayAt(before, best), wayAt(next, best))) < FLAT) return smooth;
  // A corner that was cut off by little is where the two cross; farther off they do not meet there.
  return distance(best, near) < Math.max(6, distance(last, first)) ? best : smooth;
}

const projected = (carrier: Carrier, p: Vec): Vec =>
  'radius' in carrier
    ? along(carrier.centre, unit(sub(p, carrier.centre)), carrier.radius)
    : along(carrier.at, carrier.way, dot(sub(p, carrier.at), carrier.way));

const wayAt = (carrier: Carrier, p: Vec): Vec =>
  'radius' in carrier ? left(unit(sub(p, carrier.centre))) : carrier.way;

function crossingsOf(a: Carrier, b: Carrier): Vec[] {
  if (!('radius' in a) && !('radius' in b)) {
    const at = meet(a.at, a.way, b.at, b.way);
    return at ? [at] : [];
  }
  if (!('radius' in b)) return crossingsOf(b, a);
  if (!('radius' in a)) {
    const foot = projected(a, b.centre);
    const h2 = b.radius ** 2 - distance(foot, b.centre) ** 2;
    return h2 < 0 ? [] : [-1, 1].map((k) => along(foot, a.way, k * Math.sqrt(h2)));
  }
  const between = sub(b.centre, a.centre);
  const d = Math.hypot(...between);
  const x = (d * d + a.radius ** 2 - b.radius ** 2) / (2 * d);
  const h2 = a.radius ** 2 - x * x;
  if (!(d > 0) || h2 < 0) return [];
  const foot = along(a.centre, between, x / d);
  return [-1, 1].map((k) => along(foot, left(unit(between)), k * Math.sqrt(h2)));
}
