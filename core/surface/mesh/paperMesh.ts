import type { Problem, Result } from '../../measure/result';
import { failure } from '../../measure/result';
import { area, distanceToPolygon, inside, points } from '../../measure/path';
import type { Path } from '../../measure/path';
import { pointAlong, runLength } from '../../measure/run';
import { directionAt, segmentLength } from '../../measure/segment';
import type { Vec } from '../../measure/vector';
import { cross, distance, dot, mix, sub } from '../../measure/vector';
import { delaunay } from './delaunay';

/**
 * A tuck or slit in paper: the middle of its mouth as a length along the outline from its start,
 * the width of the mouth, and the place where it runs out, mm.
 */
export type PaperWedge = {
  id: string;
  kind: 'tuck' | 'slit';
  atMm: number;
  widthMm: number;
  point: Vec;
};

/**
 * Paper with its tucks and slits taped shut, as triangles that hang together as it then does:
 * `flat` is where each vertex lay on the table (at a closed tuck half way between its two places),
 * u, v in turn; `long` is how long the three sides of each triangle are on the paper, mm, the one
 * from its first vertex to its second first.
 */
export type PaperMesh = { flat: Float64Array; triangles: Uint32Array; long: Float64Array };

/** Where the outline turns by less it runs on, degrees. */
const RUNS_ON_DEG = 8;
/** Minimum distance of inner vertices from lines, as a share of a side. */
const CLEAR = 0.6;
const TRIES = 4;
/** A slit that is open by less than this share of a side is shut there. */
const SHUT = 0.03;

/**
 * Paper as about `triangles` triangles. Problems: `taped-cross` (two of the wedges cross, or one
 * does not lie within the outline; about those), `taped-fine` (the outline is too fine to be
 * meshed).
 */
export function paperMesh(
  outline: Path,
  wedges: readonly PaperWedge[],
  triangles: number,
): Result<{ paper: PaperMesh }> {
  const polygon = points(outline, 0.2);
  const bad = crossing(outline, polygon, wedges);
  if (bad) return failure(bad);
  let side = Math.sqrt((area(outline) / triangles) * (4 / Math.sqrt(3)));
  for (let tries = 0; tries < TRIES; tries++, side *= 0.75) {
    const made = meshed(outline, wedges, side);
    if (made) return { ok: true, paper: made };
  }
  return failure({ code: 'taped-fine', about: [] });
}

/** The two ends of a wedge’s mouth on the outline. */
export function mouthOf(outline: Path, { atMm, widthMm }: PaperWedge): [Vec, Vec] {
  const whole = runLength(outline);
  const at = (mm: number): Vec =>
    pointAlong(outline, ((mm % whole) + whole) % whole) ?? outline[0]!.a;
  return [at(atMm - widthMm / 2), at(atMm + widthMm / 2)];
}

/** What stands in the way of taping, if anything does. */
function crossing(
  outline: Path,
  polygon: readonly Vec[],
  wedges: readonly PaperWedge[],
): Problem | null {
  const whole = runLength(outline);
  const lines = wedges.map((wedge) => ({
    id: wedge.id,
    sides: mouthOf(outline, wedge).map((end) => [end, wedge.point] as const),
  }));
  for (const { id, widthMm, point } of wedges)
    if (!inside(point, polygon) || distanceToPolygon(point, polygon) < 0.5 || widthMm > whole / 3)
      return { code: 'taped-cross', about: [id] };
  for (const { id, sides } of lines)
    for (const [end, point] of sides)
      for (let k = 1; k < 8; k++)
        if (!inside(mix(end, point, k / 8), polygon)) return { code: 'taped-cross', about: [id] };
  for (let i = 0; i < lines.length; i++)
    for (let j = i + 1; j < lines.length; j++) {
      const near = lines[i]!.sides.some((a) =>
        lines[j]!.sides.some((b) => crossed(a, b) || distance(a[1], b[1]) < 1),
      );
      const over = Math.abs(wedges[i]!.atMm - wedges[j]!.atMm);
      const apart = Math.min(over, whole - over);
      if (near || apart < (wedges[i]!.widthMm + wedges[j]!.widthMm) / 2)
        return { code: 'taped-cross', about: [lines[i]!.id, lines[j]!.id] };
    }
  return null;
}

function crossed([a, b]: readonly [Vec, Vec], [c, d]: readonly [Vec, Vec]): boolean {
  const side = (p: Vec, q: Vec, r: Vec): number => Math.sign(cross(sub(q, p), sub(r, p)));
  return side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;
}

/** Places where the outline turns, mm from its start. */
function cornersAlong(outline: Path): number[] {
  let at = 0;
  return outline.flatMap((s, i) => {
    const before = outline[(i + outline.length - 1) % outline.length]!;
    const [u, w] = [directionAt(before, 1), directionAt(s, 0)];
    const here = at;
    at += segmentLength(s);
    return Math.abs(Math.atan2(cross(u, w), dot(u, w))) > (RUNS_ON_DEG * Math.PI) / 180
      ? [here]
      : [];
  });
}

/** A line of vertices from a mouth to where its wedge runs out, which is the last of them. */
type Chain = number[];

function meshed(outline: Path, wedges: readonly PaperWedge[], side: number): PaperMesh | null {
  const whole = runLength(outline);
  const wrapped = (mm: number): number => ((mm % whole) + whole) % whole;
  const places: Vec[] = [];
  const put = (p: Vec): number => places.push(p) - 1;
  // Where the outline is stopped at: its corners, the ends of tucks, the mouths of slits.
  const tucks = wedges.filter(({ kind }) => kind === 'tuck');
  const slits = wedges.filter(({ kind }) => kind === 'slit');
  const within = (mm: number, { atMm, widthMm }: PaperWedge): boolean => {
    const off = wrapped(mm - atMm + whole / 2) - whole / 2;
    return Math.abs(off) < widthMm / 2 - 1e-6;
  };
  const ends = tucks.flatMap(({ atMm, widthMm }) => [
    wrapped(atMm - widthMm / 2),
    wrapped(atMm + widthMm / 2),
  ]);
  const wanted = [...cornersAlong(outline), ...ends, ...slits.map(({ atMm }) => wrapped(atMm))];
  const stops = [...new Set(wanted.length > 0 ? wanted : [0])]
    .filter((mm) => !tucks.some((tuck) => within(mm, tuck)))
    .sort((a, b) => a - b);
  const ring: number[] = [];
  const atStop = new Map<number, number>();
  stops.forEach((from, i) => {
    const to = stops[(i + 1) % stops.length]!;
    const long = i === stops.length - 1 ? to + whole - from : to - from;
    const v = put(pointAlong(outline, from)!);
    atStop.set(from, v);
    ring.push(v);
    const tuck = tucks.find((one) => within(from + long / 2, one));
    if (tuck) {
      // In to where it runs out and back again, in as many steps both ways.
      const [a, b] = [places[v]!, pointAlong(outline, wrapped(from + long))!];
      const steps = Math.max(
        2,
        Math.round(Math.max(distance(a, tuck.point), distance(b, tuck.point)) / side),
      );
      for (let k = 1; k <= steps; k++) ring.push(put(mix(a, tuck.point, k / steps)));
      for (let k = steps - 1; k > 0; k--) ring.push(put(mix(b, tuck.point, k / steps)));
      return;
    }
    const steps = Math.max(1, Math.round(long / side));
    for (let k = 1; k < steps; k++)
      ring.push(put(pointAlong(outline, wrapped(from + (long * k) / steps))!));
  });
  const slitChains = slits.map(({ atMm, point }): Chain => {
    const mouth = atStop.get(wrapped(atMm))!;
    const steps = Math.max(2, Math.round(distance(places[mouth]!, point) / side));
    return [
      mouth,
      ...Array.from({ length: steps }, (_, k) => put(mix(places[mouth]!, point, (k + 1) / steps))),
    ];
  });
  const notched = ring.map((v) => places[v]!);
  const lines = [
    ...ring.map((v, i) => [v, ring[(i + 1) % ring.length]!] as const),
    ...slitChains.flatMap((chain) => chain.slice(1).map((v, i) => [chain[i]!, v] as const)),
  ];
  fill(places, notched, slitChains, side);
  const all = delaunay(places);
  const kept: number[] = [];
  const edges = new Set<number>();
  for (let t = 0; t < all.length; t += 3) {
    const [a, b, c] = [all[t]!, all[t + 1]!, all[t + 2]!];
    const middle: Vec = [
      (places[a]![0] + places[b]![0] + places[c]![0]) / 3,
      (places[a]![1] + places[b]![1] + places[c]![1]) / 3,
    ];
    if (!inside(middle, notched)) continue;
    kept.push(a, b, c);
    for (const [p, q] of [
      [a, b],
      [b, c],
      [c, a],
    ] as const)
      edges.add(Math.min(p, q) * places.length + Math.max(p, q));
  }
  if (lines.some(([p, q]) => !edges.has(Math.min(p, q) * places.length + Math.max(p, q))))
    return null;
  return taped(
    places,
    kept,
    tuckChains(ring, places, tucks),
    slitChains.map((chain, i) => ({ chain, wedge: slits[i]! })),
  );
}

/** Puts vertices inside, in rows of even triangles, clear of the lines that are there. */
function fill(places: Vec[], ring: readonly Vec[], chains: readonly Chain[], side: number): void {
  const xs = ring.map(([x]) => x);
  const ys = ring.map(([, y]) => y);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const slitLines = chains.map((chain) => [places[chain[0]!]!, places[chain[chain.length - 1]!]!]);
  const high = (side * Math.sqrt(3)) / 2;
  for (let row = 0, y = y0 + high / 2; y < y1; row++, y += high)
    for (let x = x0 + (row % 2 === 0 ? side / 2 : side); x < x1; x += side) {
      // No four on one circle: a thousandth to the side, the same at every run.
      const p: Vec = [
        x + side * 1e-3 * Math.sin(12.9898 * x + 78.233 * y),
        y + side * 1e-3 * Math.cos(39.3467 * x + 11.135 * y),
      ];
      if (!inside(p, ring) || distanceToPolygon(p, ring) < CLEAR * side) continue;
      if (slitLines.some((line) => distanceToPolygon(p, line) < CLEAR * side)) continue;
      places.push(p);
    }
}

/** The two sides of each tuck, from its mouth in; both end in the same vertex. */
function tuckChains(
  ring: readonly number[],
  places: readonly Vec[],
  tucks: readonly PaperWedge[],
): [Chain, Chain][] {
  return tucks.map(({ point }) => {
    const tip = ring.findIndex((v) => distance(places[v]!, point) < 1e-9);
    const at = (i: number): number => ring[(i + 2 * ring.length) % ring.length]!;
    const depth = places[ring[tip]!]!;
    const one: Chain = [ring[tip]!];
    const other: Chain = [ring[tip]!];
    // Both sides run straight out from the tip to the mouth.
    for (let k = 1; ; k++) {
      const [a, b] = [places[at(tip - k)]!, places[at(tip + k)]!];
      const straight = (p: Vec, first: Vec): boolean =>
        Math.abs(cross(sub(first, depth), sub(p, depth))) <
        1e-6 * distance(p, depth) * distance(first, depth);
      if (!straight(a, places[at(tip - 1)]!) || !straight(b, places[at(tip + 1)]!)) break;
      one.unshift(at(tip - k));
      other.unshift(at(tip + k));
    }
    const length = Math.min(one.length, other.length);
    return [one.slice(-length), other.slice(-length)];
  });
}

/** Closes the tucks, opens the slits and tapes them over. */
function taped(
  places: readonly Vec[],
  kept: readonly number[],
  tucks: readonly [Chain, Chain][],
  slits: readonly { chain: Chain; wedge: PaperWedge }[],
): PaperMesh {
  const at: Vec[] = [...places];
  const triangles = [...kept];
  // Opened: the vertices of a slit but its last are there twice, the second for what lies right of
  // the way in.
  const tapes = slits.map(({ chain, wedge }) => {
    const [mouth, tip] = [places[chain[0]!]!, places[chain[chain.length - 1]!]!];
    const twin = new Map(chain.slice(0, -1).map((v) => [v, at.push(places[v]!) - 1]));
    for (let t = 0; t < triangles.length; t += 3) {
      const corners = triangles.slice(t, t + 3);
      if (!corners.some((v) => twin.has(v))) continue;
      const middle = mix(mix(at[corners[0]!]!, at[corners[1]!]!, 0.5), at[corners[2]!]!, 1 / 3);
      if (cross(sub(tip, mouth), sub(middle, mouth)) > 0) continue;
      corners.forEach((v, k) => (triangles[t + k] = twin.get(v) ?? v));
    }
    return { left: chain, right: chain.map((v) => twin.get(v) ?? v), wedge };
  });
  const long: number[] = [];
  for (let t = 0; t < triangles.length; t += 3)
    for (let k = 0; k < 3; k++)
      long.push(distance(at[triangles[t + k]!]!, at[triangles[t + ((k + 1) % 3)]!]!));
  const to = at.map((_, v) => v);
  for (const [one, other] of tucks) other.forEach((v, i) => (to[v] = one[i]!));
  for (const { left, right, wedge } of tapes) {
    const line = left.map((v) => places[v]!);
    const deep = distance(line[0]!, wedge.point);
    const open = (i: number): number => (wedge.widthMm * distance(line[i]!, wedge.point)) / deep;
    const step = distance(line[0]!, line[1]!);
    // Drawn open too, half to either side.
    const [ux, uy] = [
      (wedge.point[0] - at[left[0]!]![0]) / deep,
      (wedge.point[1] - at[left[0]!]![1]) / deep,
    ];
    const opened = left.map((_, i) => open(i) / 2);
    opened.forEach((half, i) => {
      if (right[i] === left[i]) return;
      const [x, y] = at[left[i]!]!;
      at[left[i]!] = [x - uy * half, y + ux * half];
      at[right[i]!] = [x + uy * half, y - ux * half];
    });
    const shut = opened.findIndex((half) => 2 * half < SHUT * step);
    for (let i = shut; i < left.length; i++) to[right[i]!] = left[i]!;
    for (let i = 0; i < shut; i++) {
      // The tape lies flat between the two sides: a strip of two triangles, the last of one.
      const [wide, next, rise] = [
        open(i),
        i + 1 < shut ? open(i + 1) : 0,
        distance(line[i]!, line[i + 1]!),
      ];
      const across = Math.hypot(
        (wide + next) / 2,
        Math.sqrt(Math.max(0, rise ** 2 - ((wide - next) / 2) ** 2)),
      );
      triangles.push(right[i]!, right[i + 1]!, left[i]!);
      long.push(rise, next > 0 ? across : rise, wide);
      if (next === 0) continue;
      triangles.push(right[i + 1]!, left[i + 1]!, left[i]!);
      long.push(next, rise, across);
    }
  }
  return named(at, triangles, long, to);
}

/** Vertices by new numbers, those that were made one at the mean of their places. */
function named(
  at: readonly Vec[],
  triangles: readonly number[],
  long: readonly number[],
  to: readonly number[],
): PaperMesh {
  const number = new Map<number, number>();
  const flat: number[] = [];
  const times: number[] = [];
  at.forEach((p, v) => {
    const own = to[v]!;
    const n = number.get(own) ?? flat.length / 2;
    number.set(own, n);
    times[n] = (times[n] ?? 0) + 1;
    flat[2 * n] = (flat[2 * n] ?? 0) + p[0];
    flat[2 * n + 1] = (flat[2 * n + 1] ?? 0) + p[1];
  });
  const places = Float64Array.from(flat, (x, i) => x / times[i >> 1]!);
  return {
    flat: places,
    triangles: Uint32Array.from(triangles, (v) => number.get(to[v]!)!),
    long: Float64Array.from(long),
  };
}
