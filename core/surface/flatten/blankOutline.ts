import { arcsThrough } from '../../measure/arcFit';
import type { Segment } from '../../measure/segment';
import { line, nearest } from '../../measure/segment';
import type { Vec } from '../../measure/vector';
import { cross, distance, dot } from '../../measure/vector';
import type { Disc } from '../mesh/disc';

/**
 * The outline of a flat, counter-clockwise: lines and arcs; which of them belong to one edge (from
 * one corner to the next, by their numbers); how long each edge is in the flat and on the panel,
 * mm; how far the rim lies off the lines and arcs at most.
 */
export type BlankOutline = { path: Segment[]; edges: OutlineEdge[]; worstMm: number };
/** `first`, `count`: which lines and arcs; `rimFrom`, `rimCount`: which sides of the rim. */
export type OutlineEdge = {
  first: number;
  count: number;
  rimFrom: number;
  rimCount: number;
  flatMm: number;
  panelMm: number;
};

/** Lines and arcs of a blank pass within this of the rim, mm. */
const OUTLINE_MM = 0.1;
/** Where the outline turns by more, there is a corner, degrees. */
const CORNER_DEG = 22;
/** A rim of more places is thinned before it is fitted: those go that change it least. */
const MAX_PLACES = 1500;

/**
 * The rim of a flat as lines and arcs, parted at its corners. A rim without corners is parted at
 * each line or arc.
 */
export function blankOutline({ mesh, rim }: Disc, flat: Float64Array): BlankOutline {
  const places = [...rim].map((v): Vec => [flat[2 * v]!, flat[2 * v + 1]!]);
  const corners = cornersOf(places);
  const starts = corners.length > 0 ? corners : [0];
  const path: Segment[] = [];
  const edges: OutlineEdge[] = [];
  let worstMm = 0;
  starts.forEach((from, i) => {
    const to = starts[(i + 1) % starts.length]!;
    const count = ((to - from + places.length - 1) % places.length) + 1;
    const run = Array.from({ length: count + 1 }, (_, k) => (from + k) % places.length);
    const fitted = fittedRun(run.map((k) => places[k]!));
    worstMm = Math.max(worstMm, fitted.worstMm);
    const onPanel = run.map((k) => [...mesh.vertices.subarray(3 * rim[k]!, 3 * rim[k]! + 3)]);
    const panelMm = onPanel
      .slice(1)
      .reduce((sum, p, k) => sum + Math.hypot(...p.map((x, axis) => x - onPanel[k]![axis]!)), 0);
    const flatMm = run
      .slice(1)
      .reduce((sum, k, j) => sum + distance(places[k]!, places[run[j]!]!), 0);
    if (corners.length > 0)
      edges.push({
        first: path.length,
        count: fitted.arcs.length,
        rimFrom: from,
        rimCount: count,
        flatMm,
        panelMm,
      });
    else {
      // Round all the way: an edge for each arc, the change of length spread evenly.
      const long = fitted.arcs.map((s) => Math.max(1e-9, distance(s.a, s.b)));
      const whole = long.reduce((sum, x) => sum + x, 0);
      long.forEach((x, k) =>
        edges.push({
          first: k,
          count: 1,
          rimFrom: Math.round((count * k) / long.length),
          rimCount:
            Math.round((count * (k + 1)) / long.length) - Math.round((count * k) / long.length),
          flatMm: (flatMm * x) / whole,
          panelMm: (panelMm * x) / whole,
        }),
      );
    }
    path.push(...fitted.arcs);
  });
  return { path, edges, worstMm };
}

function fittedRun(places: Vec[]): { arcs: Segment[]; worstMm: number } {
  const thinned = places.length > MAX_PLACES ? thinnedTo(places, MAX_PLACES) : places;
  // Half of what is allowed is left for what thinning and closing cost.
  const found = arcsThrough(thinned, OUTLINE_MM * 0.8);
  // Nothing to be fitted to: straight from place to place.
  if (!found.ok) return { arcs: places.slice(1).map((p, i) => line(places[i]!, p)), worstMm: 0 };
  const worst = Math.max(
    ...places.map((p) => Math.min(...found.arcs.map((s) => nearest(s, p).distance))),
  );
  return { arcs: found.arcs, worstMm: worst };
}

/** At most `most` of the places, at even steps, the first and the last among them. */
function thinnedTo(places: Vec[], most: number): Vec[] {
  const step = (places.length - 1) / (most - 1);
  return Array.from({ length: most }, (_, i) => places[Math.round(i * step)]!);
}

/**
 * Where a closed line of places turns a corner: by what it turns within a hundredth of its length,
 * so that a fine rim is not all corners and a coarse one still has its own.
 */
function cornersOf(places: readonly Vec[]): number[] {
  const n = places.length;
  const long = places.map((p, i) => distance(p, places[(i + 1) % n]!));
  const reach = long.reduce((sum, x) => sum + x, 0) / 100;
  const turn = places.map((_, i) => {
    const before = far(places, long, i, -1, reach);
    const after = far(places, long, i, 1, reach);
    const [a, b]: [Vec, Vec] = [
      [places[i]![0] - before[0], places[i]![1] - before[1]],
      [after[0] - places[i]![0], after[1] - places[i]![1]],
    ];
    return (Math.abs(Math.atan2(cross(a, b), dot(a, b))) * 180) / Math.PI;
  });
  // Of neighbours that all turn the one that turns most.
  return turn.flatMap((deg, i) => {
    if (deg < CORNER_DEG) return [];
    let walked = 0;
    for (let k = 1; walked <= reach && k < n; k++) {
      walked += long[(i + k - 1) % n]!;
      if (walked <= reach && turn[(i + k) % n]! > deg) return [];
    }
    walked = 0;
    for (let k = 1; walked <= reach && k < n; k++) {
      walked += long[(i - k + n) % n]!;
      if (walked <= reach && turn[(i - k + n) % n]! >= deg) return [];
    }
    return [i];
  });
}

/** The place at a length along a closed line from one of its own, forwards or back. */
function far(
  places: readonly Vec[],
  long: readonly number[],
  from: number,
  way: 1 | -1,
  reach: number,
): Vec {
  const n = places.length;
  let left = reach;
  let at = from;
  for (let k = 0; k < n; k++) {
    const next = (at + way + n) % n;
    const step = long[way === 1 ? at : next]!;
    if (step >= left && step > 0) {
      const share = left / step;
      const [p, q] = [places[at]!, places[next]!];
      return [p[0] + (q[0] - p[0]) * share, p[1] + (q[1] - p[1]) * share];
    }
    left -= step;
    at = next;
  }
  return places[at]!;
}
