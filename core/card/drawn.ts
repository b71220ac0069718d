import { arcsThrough } from '../measure/arcFit';
import type { Segment } from '../measure/segment';
import { directionAt, isStraight, pointAt, reversed } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { cross, distance, dot } from '../measure/vector';
import { area, box } from '../measure/path';
import type { CutOut } from './cutOut';
import { cutOutOf } from './cutOut';

/**
 * One thing of a drawing that was read from a file, in mm: on which layer or in which colour, and
 * its lines and arcs; which of those stand for a curve that was drawn as one (a spline, an ellipse,
 * a Bézier curve).
 */
export type Drawn = { layer: string; run: Segment[]; curve?: readonly boolean[] };

/** A closed loop, counter-clockwise; `hole` where it is round, a slot or a square. */
export type Loop = { path: Segment[]; hole: CutOut | null };

/** What a layer of a drawing holds: closed loops, the largest first, and runs that do not close. */
export type DrawnLayer = { name: string; loops: Loop[]; open: Segment[][] };

/** Ends nearer than this are one, mm: drawings are made to a hundredth. */
const ENDS_MEET_MM = 0.05;
/**
 * A loop is round, a slot or a square within this share of how large it is, and no more than that
 * many mm.
 */
const [FORM_SHARE, FORM_MM] = [1 / 60, 0.15];

/** Points along a curve as lines and arcs within a tolerance; none for too few. */
export function curveThrough(points: readonly Vec[], toleranceMm: number): Segment[] {
  const found = arcsThrough(points, toleranceMm);
  return found.ok ? found.arcs : [];
}

/** What was put right in a drawing: lines of no length, and lines drawn twice. */
export type Mended = { drawn: Drawn[]; empty: number; doubled: number };

/**
 * A drawing without lines of no length and without the second of two that lie on each other, either
 * way round, on one layer: where lines are drawn twice no loop closes.
 */
export function mended(drawn: readonly Drawn[]): Mended {
  const seen = new Map<string, Segment[]>();
  let [empty, doubled] = [0, 0];
  const isKept = (layer: string, s: Segment): boolean => {
    if (isStraight(s) && distance(s.a, s.b) <= ENDS_MEET_MM) {
      empty++;
      return false;
    }
    const [x, y] = pointAt(s, 0.5);
    const cell = (dx: number, dy: number) =>
      `${layer} ${Math.floor(x / CELL_MM) + dx} ${Math.floor(y / CELL_MM) + dy}`;
    const near = [-1, 0, 1].flatMap((dx) =>
      [-1, 0, 1].flatMap((dy) => seen.get(cell(dx, dy)) ?? []),
    );
    if (near.some((other) => isSame(s, other))) {
      doubled++;
      return false;
    }
    seen.set(cell(0, 0), [...(seen.get(cell(0, 0)) ?? []), s]);
    return true;
  };
  const kept = drawn.flatMap(({ layer, run, curve }): Drawn[] => {
    // What is taken out of the middle of a run parts it.
    const parts: Drawn[] = [];
    let open = false;
    run.forEach((s, i) => {
      if (!isKept(layer, s)) {
        if (distance(s.a, s.b) > ENDS_MEET_MM) open = false;
        return;
      }
      if (!open) parts.push({ layer, run: [], ...(curve && { curve: [] }) });
      open = true;
      const part = parts[parts.length - 1]!;
      parts[parts.length - 1] = {
        ...part,
        run: [...part.run, s],
        ...(curve && { curve: [...part.curve!, curve[i]!] }),
      };
    });
    return parts;
  });
  return { drawn: kept, empty, doubled };
}

/** Middles farther apart than a cell and its neighbours are not the same, mm. */
const CELL_MM = 1;

function isSame(s: Segment, t: Segment): boolean {
  const meet = (p: Vec, q: Vec) => distance(p, q) <= ENDS_MEET_MM;
  return (
    meet(pointAt(s, 0.5), pointAt(t, 0.5)) &&
    ((meet(s.a, t.a) && meet(s.b, t.b)) || (meet(s.a, t.b) && meet(s.b, t.a)))
  );
}

/**
 * Parts of curves that turn less than this where they meet are one edge, radians: as lines and arcs
 * a tight curve turns a little where they meet, a corner turns more.
 */
const SMOOTH = Math.PI / 6;

/**
 * The sides of a loop that make up its edges: those of a curve that was drawn as one are one edge,
 * from corner to corner; every other side is one of its own. By their places in the loop, each edge
 * in its order.
 */
export function edgesOf(path: readonly Segment[], drawn: readonly Drawn[]): number[][] {
  const curved = drawn.flatMap(({ run, curve }) => run.filter((_, i) => curve?.[i]));
  const isCurve = path.map((s) => curved.some((c) => isSame(s, c)));
  const n = path.length;
  const goesOn = (i: number) => {
    const before = (i - 1 + n) % n;
    const [d, e] = [directionAt(path[before]!, 1), directionAt(path[i]!, 0)];
    return isCurve[i]! && isCurve[before]! && Math.abs(Math.atan2(cross(d, e), dot(d, e))) < SMOOTH;
  };
  const first = Math.max(
    0,
    path.findIndex((_, i) => !goesOn(i)),
  );
  const edges: number[][] = [];
  for (let k = 0; k < n; k++) {
    const i = (first + k) % n;
    if (k > 0 && goesOn(i)) edges[edges.length - 1]!.push(i);
    else edges.push([i]);
  }
  return edges;
}

/** What was drawn, layer by layer: runs joined where their ends meet, closed ones as loops. */
export function layersOf(drawn: readonly Drawn[]): DrawnLayer[] {
  const names = [...new Set(drawn.map(({ layer }) => layer))];
  return names.map((name) => {
    const { closed, open } = joinedUp(
      drawn.filter(({ layer, run }) => layer === name && run.length > 0).map(({ run }) => run),
    );
    const loops = closed
      .map(loopOf)
      .sort((a, b) => Math.abs(area(b.path)) - Math.abs(area(a.path)));
    return { name, loops, open };
  });
}

function loopOf(path: Segment[]): Loop {
  const ccw = area(path) >= 0 ? path : [...path].reverse().map(reversed);
  const { minX, minY, maxX, maxY } = box(ccw);
  return {
    path: ccw,
    hole: cutOutOf(ccw, Math.min(FORM_MM, FORM_SHARE * Math.max(maxX - minX, maxY - minY))),
  };
}

/**
 * Runs made into longer ones where an end lies on an end, whichever way each runs; each run is used
 * once.
 */
function joinedUp(runs: readonly Segment[][]): { closed: Segment[][]; open: Segment[][] } {
  const left = [...runs];
  const [closed, open]: [Segment[][], Segment[][]] = [[], []];
  while (left.length > 0) {
    let run = left.shift()!;
    for (;;) {
      const [start, end] = [run[0]!.a, run[run.length - 1]!.b];
      if (distance(start, end) <= ENDS_MEET_MM && (run.length > 1 || !isStraight(run[0]!))) {
        closed.push(sealed(run));
        break;
      }
      // The nearest end within reach, so that it does not matter in which order they were drawn.
      let best: { i: number; back: boolean; off: number } | null = null;
      left.forEach((other, i) => {
        for (const back of [false, true]) {
          const off = distance(end, back ? other[other.length - 1]!.b : other[0]!.a);
          if (off <= ENDS_MEET_MM && (!best || off < best.off)) best = { i, back, off };
        }
      });
      const next = best as { i: number; back: boolean } | null;
      if (next) {
        const [other] = left.splice(next.i, 1);
        run = [...run, ...(next.back ? [...other!].reverse().map(reversed) : other!)];
        continue;
      }
      // Nothing goes on from the end: from the beginning, the run turned about, or it stays open.
      const turned = [...run].reverse().map(reversed);
      const first = turned[turned.length - 1]!.b;
      const more = left.some(
        (other) =>
          Math.min(distance(first, other[0]!.a), distance(first, other[other.length - 1]!.b)) <=
          ENDS_MEET_MM,
      );
      if (!more) {
        open.push(run);
        break;
      }
      run = turned;
    }
  }
  return { closed, open };
}

/**
 * A run whose ends meet within a slip, its corners made to meet exactly; what is no longer than a
 * slip is left out.
 */
function sealed(run: readonly Segment[]): Segment[] {
  const kept = run.filter(
    ({ a, b, bulge }) => distance(a, b) > ENDS_MEET_MM || Math.abs(bulge) > 1,
  );
  return kept.map((s, i) => ({ ...s, b: kept[(i + 1) % kept.length]!.a }));
}

/** A whole circle as two arcs, from its right. */
export const circleRun = ([x, y]: Vec, radius: number): Segment[] => [
  { a: [x + radius, y], b: [x - radius, y], bulge: 1 },
  { a: [x - radius, y], b: [x + radius, y], bulge: 1 },
];

/**
 * An arc from one angle to another, radians, counter-clockwise, as one or two segments of half a
 * circle at most.
 */
export function arcRun([x, y]: Vec, radius: number, start: number, end: number): Segment[] {
  let sweep = end - start;
  while (sweep <= 0) sweep += 2 * Math.PI;
  const parts = sweep > Math.PI ? 2 : 1;
  return Array.from({ length: parts }, (_, i): Segment => {
    const at = (k: number): Vec => {
      const angle = start + (sweep * k) / parts;
      return [x + radius * Math.cos(angle), y + radius * Math.sin(angle)];
    };
    return { a: at(i), b: at(i + 1), bulge: Math.tan(sweep / parts / 4) };
  });
}

/** More than half a circle as two. */
export function halves(s: Segment): Segment[] {
  if (Math.abs(s.bulge) <= 1) return [s];
  const [dx, dy] = [s.b[0] - s.a[0], s.b[1] - s.a[1]];
  const middle: Vec = [(s.a[0] + s.b[0] + dy * s.bulge) / 2, (s.a[1] + s.b[1] - dx * s.bulge) / 2];
  const bulge = Math.tan(Math.atan(s.bulge) / 2);
  return [
    { a: s.a, b: middle, bulge },
    { a: middle, b: s.b, bulge },
  ];
}
