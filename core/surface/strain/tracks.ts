import type { Vec } from '../../measure/vector';
import { inFlat } from '../mesh/isoLines';
import type { Panel } from './strain';
import { contours } from './strainMap';

/**
 * How a middle is raised, as lines to follow on the blank, mm. `wheel`: tracks the long way, in
 * rounds: the first over all that is to be raised, each next one within the next line of the map,
 * its tracks between those of the one before. `smooth`: light tracks across those. `hammer`: rings
 * of blows, in rounds from the middle out.
 */
export const TRACK_TOOLS = ['wheel', 'smooth', 'hammer'] as const;
export type Track = { tool: (typeof TRACK_TOOLS)[number]; round: number; places: Vec[] };

/**
 * Distance between tracks, mm: half of what a wheel bears on, so that each overlaps half of the one
 * before (common practice).
 */
export const TRACK_MM = 10;
/** Shorter tracks are not worth turning the panel for, mm. */
const SHORTEST_MM = 15;
/** Stretch below this share is left to smoothing. */
const LEAST = 0.0005;

/**
 * The tracks over a flat whose vertices have to be stretched by `values`; `step` is that of the
 * map’s lines. Empty where nothing is raised.
 */
export function raisingTracks(
  panel: Panel,
  flat: Float64Array,
  values: Float64Array,
  step: number,
): Track[] {
  const most = values.reduce((a, b) => Math.max(a, b), 0);
  if (most < LEAST) return [];
  const way = longWay(flat);
  const levels: number[] = [];
  for (let level = step; level < most; level += step) levels.push(level);
  // Less than a line’s worth is raised all over.
  if (levels.length === 0) levels.push(most / 2);
  const across: Vec = [-way[1], way[0]];
  const wheel = levels.flatMap((level, i) =>
    hatched(panel, flat, values, level, way, (i % 2) * (TRACK_MM / 2)).map((places): Track => ({
      tool: 'wheel',
      round: i + 1,
      places,
    })),
  );
  const smooth = hatched(panel, flat, values, levels[0]!, across, 0).map((places): Track => ({
    tool: 'smooth',
    round: 1,
    places,
  }));
  const rings = contours(panel, values, step / 2);
  const heights = [...new Set(rings.map(({ value }) => value))].sort((a, b) => b - a);
  const hammer = rings.map(({ places, closed, value }): Track => {
    const line = inFlat(places, flat);
    return {
      tool: 'hammer',
      round: heights.indexOf(value) + 1,
      places: closed && line.length > 2 ? [...line, line[0]!] : line,
    };
  });
  return [...wheel, ...smooth, ...hammer.filter(({ places }) => lengthOf(places) >= SHORTEST_MM)];
}

const lengthOf = (line: readonly Vec[]): number =>
  line.slice(1).reduce((sum, p, i) => sum + Math.hypot(p[0] - line[i]![0], p[1] - line[i]![1]), 0);

/** The direction a flat is longest in, by its second moments. */
function longWay(flat: Float64Array): Vec {
  const count = flat.length / 2;
  let [mx, my] = [0, 0];
  for (let i = 0; i < count; i++) {
    mx += flat[2 * i]! / count;
    my += flat[2 * i + 1]! / count;
  }
  let [xx, xy, yy] = [0, 0, 0];
  for (let i = 0; i < count; i++) {
    const [x, y] = [flat[2 * i]! - mx, flat[2 * i + 1]! - my];
    xx += x * x;
    xy += x * y;
    yy += y * y;
  }
  const turn = Math.atan2(2 * xy, xx - yy) / 2;
  return [Math.cos(turn), Math.sin(turn)];
}

/**
 * Straight lines in direction `way`, `TRACK_MM` apart, over the places whose values are above
 * `level`.
 */
function hatched(
  { triangles }: Panel,
  flat: Float64Array,
  values: Float64Array,
  level: number,
  way: Vec,
  shift: number,
): Vec[][] {
  // By the line they lie on: the pieces of it within each triangle, from and to, mm along.
  const lines = new Map<number, [number, number][]>();
  for (let i = 0; i < triangles.length; i += 3) {
    const corners = [0, 1, 2].map((k) => {
      const v = triangles[i + k]!;
      const [x, y] = [flat[2 * v]!, flat[2 * v + 1]!];
      return { s: x * way[0] + y * way[1], c: -x * way[1] + y * way[0], h: values[v]! - level };
    });
    if (corners.every(({ h }) => h <= 0)) continue;
    const [low, high] = [
      Math.min(...corners.map(({ c }) => c)),
      Math.max(...corners.map(({ c }) => c)),
    ];
    for (let n = Math.ceil((low - shift) / TRACK_MM); n * TRACK_MM + shift <= high; n++) {
      const c = n * TRACK_MM + shift;
      const ends = corners.flatMap((a, k) => {
        const b = corners[(k + 1) % 3]!;
        if (a.c > c === b.c > c) return [];
        const t = (c - a.c) / (b.c - a.c);
        return [{ s: a.s + (b.s - a.s) * t, h: a.h + (b.h - a.h) * t }];
      });
      const [one, other] = ends.sort((a, b) => a.s - b.s);
      if (!one || !other || (one.h <= 0 && other.h <= 0)) continue;
      const zero = one.s + ((other.s - one.s) * one.h) / (one.h - other.h);
      const piece: [number, number] = [one.h > 0 ? one.s : zero, other.h > 0 ? other.s : zero];
      lines.set(n, [...(lines.get(n) ?? []), piece]);
    }
  }
  const back = (s: number, c: number): Vec => [s * way[0] - c * way[1], s * way[1] + c * way[0]];
  return [...lines]
    .sort(([a], [b]) => a - b)
    .flatMap(([n, pieces]) =>
      joined(pieces)
        .filter(([from, to]) => to - from >= SHORTEST_MM)
        // To and fro, as the panel is moved.
        .map(([from, to]) =>
          (n % 2 === 0 ? [from, to] : [to, from]).map((s) => back(s, n * TRACK_MM + shift)),
        ),
    );
}

/** Pieces that touch, as one. */
function joined(pieces: [number, number][]): [number, number][] {
  const found: [number, number][] = [];
  for (const [from, to] of pieces.sort((a, b) => a[0] - b[0])) {
    const last = found[found.length - 1];
    if (last && from <= last[1] + 1e-6) last[1] = Math.max(last[1], to);
    else found.push([from, to]);
  }
  return found;
}
