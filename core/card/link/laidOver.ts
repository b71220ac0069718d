import type { Path } from '../../measure/path';
import { area, box, perimeter } from '../../measure/path';
import type { Segment } from '../../measure/segment';
import {
  crossingsWithLine,
  directionAt,
  nearest,
  pointAt,
  segmentLength,
} from '../../measure/segment';
import { cholesky, solved } from '../../solve/symmetric';
import type { Vec } from '../../measure/vector';
import { add, cross, dot, right, sub, turned, unit } from '../../measure/vector';
import { outlineOf, segmentsOfEdge } from '../outline';
import type { PatternDoc } from '../pattern';
import type { EdgeDistance } from './edgeDistances';

/** The outline of another card as it lies on this one. */
export type LaidOver = {
  /** The other outline, counter-clockwise, in this card's mm. */
  path: Segment[];
  /**
   * For each edge of this card where it lies farthest out of the other one, as long as anything
   * runs along it there.
   */
  apart: EdgeDistance[];
  /** How far places of the one lie off the other on the average, mm. */
  meanMm: number;
};

/**
 * The other one is first laid at each of these turns, degrees; the principal axes of both are no
 * help with what is nearly round.
 */
const FIRST_TURNS = Array.from({ length: 12 }, (_, i) => 30 * i);
/**
 * Number of places of each outline from which the alignment is found, first and in the end; of
 * outlines with many sides fewer, so that nobody waits.
 */
const [ROUGH_PLACES, PLACES] = [48, 240];
const [ROUGH_LOOKED_AT, LOOKED_AT] = [24_000, 60_000];
const MIN_PLACES = 16;
const [ROUGH_STEPS, STEPS] = [14, 60];
/**
 * What lies nearer than this share of the card lies as near as can be at first; in the end, than
 * this, mm.
 */
const [NEAR_SHARE, CLOSE_SHARE] = [0.08, 0.001];
const NEAR_MM = 0.02;
/** Done when nothing moves by more than this, mm. */
const STILL_MM = 1e-9;
/** Distance between the places at which an edge is measured, mm, and their maximum number. */
const MEASURED_MM = 2;
const MAX_MEASURED = 400;
/**
 * A place on the other outline is an edge's when no edge lies nearer to it than this share of the
 * way to it.
 */
const OWN_SHARE = 0.7;
/** What crosses an edge's normal belongs to the edge when it runs within this of its direction. */
const ALIKE = Math.cos((50 * Math.PI) / 180);

/**
 * Another card laid on this one as nearly as it will lie, turned and shoved but not stretched: the
 * sum of the square roots of how far places of each lie off the other is least, so that what is the
 * same lies on itself and what differs stands out (least squares would spread one long flange over
 * all the others, and of what faces up and what faces down, which are always equally wide, a plain
 * sum could not choose). From twelve turns, each by Gauss and Newton on distances square to the
 * outline (Chen & Medioni 1992) with weights that make roots of squares (Weiszfeld's way), the
 * nearest kept. Null where one of both has no outline.
 *
 * @param turnedOver whether the other one is turned over first, left to right: the other side of
 * the vehicle
 */
export function laidOverCard(
  here: PatternDoc,
  there: PatternDoc,
  turnedOver: boolean,
): LaidOver | null {
  const mine = outlineOf(here).path;
  const theirs = turnedOver ? flipped(outlineOf(there).path) : outlineOf(there).path;
  if (mine.length === 0 || theirs.length === 0) return null;
  const sides = mine.length + theirs.length;
  const count = (most: number, lookedAt: number) =>
    Math.max(MIN_PLACES, Math.min(most, Math.round(lookedAt / sides)));
  const [rough, places] = [count(ROUGH_PLACES, ROUGH_LOOKED_AT), count(PLACES, LOOKED_AT)];
  const [a, b] = [centreOf(mine), centreOf(theirs)];
  const firsts = FIRST_TURNS.map((deg) => {
    const first = theirs.map((s) => moved(s, b, (deg * Math.PI) / 180, sub(a, b)));
    return settled(mine, first, rough, ROUGH_STEPS, NEAR_SHARE);
  });
  const turn = nearestOf(mine, firsts, rough);
  // Half way between two that are as good is a saddle: from where sides lie on each other it is
  // left.
  const shoves = offsets(mine, turn).map((by) =>
    settled(
      mine,
      turn.map((s) => moved(s, [0, 0], 0, by)),
      rough,
      ROUGH_STEPS,
      CLOSE_SHARE,
    ),
  );
  const path = settled(mine, nearestOf(mine, [turn, ...shoves], rough), places, STEPS, CLOSE_SHARE);
  const off = offBetween(mine, path, places);
  return {
    path,
    apart: apartOf(here, path),
    meanMm: off.reduce((sum, one) => sum + one, 0) / off.length,
  };
}

/** An outline turned over left to right, counter-clockwise again. */
const flipped = (path: Path): Segment[] =>
  [...path].reverse().map(({ a, b, bulge }) => ({ a: [-b[0], b[1]], b: [-a[0], a[1]], bulge }));

/** A segment turned about a place and then shoved. */
const moved = ({ a, b, bulge }: Segment, about: Vec, turn: number, by: Vec): Segment => {
  const at = (p: Vec) => add(add(about, turned(sub(p, about), turn)), by);
  return { a: at(a), b: at(b), bulge };
};

/**
 * The one of some that lies nearest, by the roots of how far its places are off; of those as near
 * the first.
 */
function nearestOf(mine: Path, some: readonly Segment[][], places: number): Segment[] {
  const roots = some.map((path) =>
    offBetween(mine, path, places).reduce((sum, off) => sum + Math.sqrt(off), 0),
  );
  return some[roots.reduce((best, one, i) => (one < roots[best]! - 1e-6 ? i : best), 0)]!;
}

/**
 * How the other one would be shoved so that its left, or right, and its lower, or upper, bounds lie
 * on this one's.
 */
function offsets(mine: Path, theirs: Path): Vec[] {
  const [a, b] = [box(mine), box(theirs)];
  const [across, up] = [
    [0, a.minX - b.minX, a.maxX - b.maxX],
    [0, a.minY - b.minY, a.maxY - b.maxY],
  ];
  return across.flatMap((x) => up.map((y): Vec => [x, y])).slice(1);
}

function centreOf(path: Path): Vec {
  const { minX, minY, maxX, maxY } = box(path);
  return [(minX + maxX) / 2, (minY + maxY) / 2];
}

/** The other outline moved until it lies still. */
function settled(
  mine: Path,
  theirs: Path,
  places: number,
  steps: number,
  share: number,
): Segment[] {
  const size = Math.sqrt(Math.abs(area(mine)));
  let path = [...theirs];
  for (let step = 0; step < steps; step++) {
    const near = Math.max(NEAR_MM, share * size * 0.6 ** step);
    const centre = centreOf(path);
    const by = oneStep(mine, path, centre, places, near);
    if (!by) break;
    const [turn, x, y] = by;
    path = path.map((s) => moved(s, centre, turn, [x, y]));
    if (near === NEAR_MM && Math.abs(turn) * size + Math.hypot(x, y) < STILL_MM) break;
  }
  return path;
}

/**
 * By how much the other one wants to be turned about a place, in radians, and shoved, mm; null
 * where nothing can be told.
 */
function oneStep(
  mine: Path,
  theirs: Path,
  centre: Vec,
  places: number,
  near: number,
): [number, number, number] | null {
  const m = new Float64Array(9);
  const r = new Float64Array(3);
  const hear = (moves: Vec, normal: Vec, off: number) => {
    // Of a sum of roots each says as much as its square over its distance to the power of one and a
    // half.
    const weight = (near / Math.max(near, Math.abs(off))) ** 1.5;
    const row = [cross(sub(moves, centre), normal), normal[0], normal[1]];
    for (let i = 0; i < 3; i++) {
      r[i]! -= weight * row[i]! * off;
      for (let j = 0; j < 3; j++) m[3 * i + j]! += weight * row[i]! * row[j]!;
    }
  };
  for (const p of evenly(theirs, places)) {
    const { foot, normal } = footOn(mine, p);
    hear(p, normal, dot(sub(p, foot), normal));
  }
  for (const p of evenly(mine, places)) {
    const { foot, normal } = footOn(theirs, p);
    hear(foot, normal, dot(sub(foot, p), normal));
  }
  // Turned about its own middle a circle lies as before: something must hold it.
  for (let i = 0; i < 3; i++) m[4 * i]! += 1e-9 * (m[0]! + m[4]! + m[8]!) + 1e-12;
  const l = cholesky(m, 3);
  if (!l) return null;
  const found = solved(l, 3, r);
  return [found[0]!, found[1]!, found[2]!];
}

/**
 * The nearest place on an outline, and which way it is square to it there; at a corner, the way the
 * point lies.
 */
function footOn(path: Path, p: Vec): { foot: Vec; normal: Vec; off: number } {
  let best = { distance: Infinity, at: 0, on: path[0]! };
  for (const on of path) {
    const found = nearest(on, p);
    if (found.distance < best.distance) best = { ...found, on };
  }
  const foot = pointAt(best.on, best.at);
  const corner = (best.at === 0 || best.at === 1) && best.distance > 1e-9;
  return {
    foot,
    normal: corner ? unit(sub(p, foot)) : right(directionAt(best.on, best.at)),
    off: best.distance,
  };
}

/** `count` places evenly along an outline, whatever its number of sides. */
function evenly(path: Path, count: number): Vec[] {
  const apart = perimeter(path) / count;
  const found: Vec[] = [];
  let [gone, next] = [0, apart / 2];
  for (const s of path) {
    const long = segmentLength(s);
    for (; next < gone + long && found.length < count; next += apart)
      found.push(pointAt(s, (next - gone) / long));
    gone += long;
  }
  return found;
}

/** How far places of each of two outlines lie off the other, mm. */
const offBetween = (mine: Path, theirs: Path, places: number): number[] => [
  ...evenly(theirs, places).map((p) => footOn(mine, p).off),
  ...evenly(mine, places).map((p) => footOn(theirs, p).off),
];

/**
 * Where each edge lies farthest out of another outline, measured square to the edge: what runs
 * another way, as a neighbour that stands farther in does, says nothing of it.
 */
function apartOf(here: PatternDoc, path: Path): EdgeDistance[] {
  const own = outlineOf(here).path;
  const { minX, minY, maxX, maxY } = box(own);
  const reach = Math.hypot(maxX - minX, maxY - minY) / 3;
  return here.edges.flatMap((edge) => {
    const run = segmentsOfEdge(here, edge);
    const long = run.reduce((sum, s) => sum + segmentLength(s), 0);
    const every = Math.max(MEASURED_MM, long / MAX_MEASURED);
    let found: EdgeDistance | null = null;
    for (const s of run) {
      const n = Math.max(1, Math.ceil(segmentLength(s) / every));
      for (let i = 0; i <= n; i++) {
        const [at, way] = [pointAt(s, i / n), directionAt(s, i / n)];
        const mm = offAlong(path, own, at, way, reach);
        if (mm !== null && (!found || Math.abs(mm) > Math.abs(found.mm)))
          found = { edge: edge.id, mm, at };
      }
    }
    return found ? [found] : [];
  });
}

/**
 * How far an edge lies out of an outline that runs its way, along its normal, by the nearest
 * crossing; null for none.
 */
function offAlong(path: Path, own: Path, at: Vec, way: Vec, reach: number): number | null {
  const out = right(way);
  let best: number | null = null;
  for (const s of path)
    for (const t of crossingsWithLine(s, at, out)) {
      if (dot(directionAt(s, t), way) < ALIKE) continue;
      const there = pointAt(s, t);
      const mm = dot(sub(at, there), out);
      if (Math.abs(mm) > reach || (best !== null && Math.abs(mm) >= Math.abs(best))) continue;
      // What lies much nearer to another edge is that one's.
      if (footOn(own, there).off > OWN_SHARE * Math.abs(mm) - 1e-6) best = mm;
    }
  return best;
}
