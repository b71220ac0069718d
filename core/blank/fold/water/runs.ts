import { holeReach } from '../../../card/holeForm';
import { inside } from '../../../measure/path';
import type { Vec } from '../../../measure/vector';
import {
  along,
  cross,
  distance,
  dot,
  length,
  mix,
  nearestOnSegment,
  scale,
  sub,
  unit,
} from '../../../measure/vector';
import type { BlankFold, Development } from '../developed';
import type { Lying, Slope } from './slopes';

/** Where water that falls on a face ends. */
export type WaterEnd =
  /** Through a hole. */
  | { kind: 'drain'; hole: string }
  /** Over an edge, or out at the open end of a fold (`edge` null). */
  | { kind: 'off'; edge: string | null }
  /**
   * It stands: on a level face (`folds` empty), along a level fold, or where folds meet; `depthMm`
   * deep until it reaches a drain.
   */
  | { kind: 'stands'; face: number; at: Vec; folds: number[]; depthMm: number | null };

/** An end, and the faces from which water comes to it. */
export type Run = { end: WaterEnd; from: number[] };

/** More turns than any water takes. */
const MAX_TURNS = 60;
const NUDGE_MM = 1e-4;
/** A line that falls by less than this, as a sine, is level. */
const LEVEL = Math.sin((0.05 * Math.PI) / 180);
/** Number of starts across a face, each way. */
const STARTS = 6;
/**
 * Where water stands between the same folds nearer than this it is one place, mm: a bend lies
 * between its two sides.
 */
const SAME_MM = 40;

/**
 * Where the rain runs on a piece as it lies, face by face: down each face, along folds that hold
 * it, over those that do not, until it runs off, out through a drain, or stands. Corners where two
 * walls meet are taken for closed; metal has no thickness here, and splashing, capillary gaps and
 * wind are left out.
 *
 * @param drains holes that are open for water, by their ids
 */
export function waterRuns(
  development: Development,
  lying: Lying,
  drains: readonly string[],
): Run[] {
  const runs: Run[] = [];
  const track = tracker(development, lying, drains);
  lying.slopes.forEach((slope, face) => {
    for (const start of startsOn(slope)) {
      const end = track(face, start);
      const known = runs.find((run) => sameEnd(run.end, end));
      if (!known) runs.push({ end, from: [face] });
      else {
        if (!known.from.includes(face)) known.from.push(face);
        // Seen from both sides of a bend it is one place: the lower of the two.
        if (
          known.end.kind === 'stands' &&
          end.kind === 'stands' &&
          lying.heightOf(end.face, end.at) < lying.heightOf(known.end.face, known.end.at)
        )
          known.end = end;
      }
    }
  });
  return runs;
}

function startsOn({ outline }: Slope): Vec[] {
  const [xs, ys] = [outline.map((p) => p[0]), outline.map((p) => p[1])];
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const all = Array.from({ length: STARTS * STARTS }, (_, i): Vec => [
    x0 + ((x1 - x0) * ((i % STARTS) + 0.5)) / STARTS,
    y0 + ((y1 - y0) * (Math.floor(i / STARTS) + 0.5)) / STARTS,
  ]);
  const found = all.filter((p) => inside(p, outline));
  // A sliver between the starts: the middle of its longest way across.
  return found.length > 0
    ? found
    : [mix(outline[0]!, outline[Math.floor(outline.length / 2)]!, 0.5)];
}

function sameEnd(a: WaterEnd, b: WaterEnd): boolean {
  if (a.kind === 'drain') return b.kind === 'drain' && a.hole === b.hole;
  if (a.kind === 'off') return b.kind === 'off' && a.edge === b.edge;
  return (
    b.kind === 'stands' &&
    a.folds.join() === b.folds.join() &&
    (a.folds.length === 0 ? a.face === b.face : distance(a.at, b.at) < SAME_MM)
  );
}

/** How far a bend and a relief keep two folds that meet apart, mm. */
const cornerReach = ({ bend }: BlankFold): number => 4 * (bend.radiusMm + bend.thicknessMm) + 2;

/** Follows water from a place on a face to its end. */
function tracker(development: Development, lying: Lying, drains: readonly string[]) {
  const { folds, holes, net } = development;
  const { slopes, heightOf } = lying;
  const open = holes
    .filter(({ id }) => drains.includes(id))
    .map((hole) => ({
      id: hole.id,
      centre: hole.centre,
      reach: holeReach(hole),
      face: slopes.findIndex(({ outline }) => inside(hole.centre, outline)),
    }));

  const drainOnWay = (face: number, from: Vec, to: Vec, more = 0): string | null => {
    const met = open
      .filter((hole) => hole.face === face)
      .map((hole) => ({
        id: hole.id,
        reach: hole.reach + more,
        ...nearestOnSegment(hole.centre, from, to),
      }))
      .filter(({ distance: off, reach }) => off < reach)
      .sort((a, b) => a.at - b.at);
    return met[0]?.id ?? null;
  };
  const edgeAt = (face: number, p: Vec): string | null => {
    const near = net
      .filter((piece) => piece.face === face && piece.edge)
      .map((piece) => ({
        edge: piece.edge,
        off:
          nearestOnSegment(p, piece.segment.a, piece.segment.b).distance -
          Math.abs(piece.segment.bulge) * distance(piece.segment.a, piece.segment.b),
      }));
    return near.sort((a, b) => a.off - b.off)[0]?.edge ?? null;
  };
  /** Standing water rises until it reaches the lowest rim of a drain. */
  const stands = (face: number, at: Vec, among: number[]): WaterEnd => {
    const low = heightOf(face, at);
    const lips = open
      .filter((hole) => hole.face >= 0)
      .map((hole) => {
        const { down } = slopes[hole.face]!;
        return heightOf(hole.face, down ? along(hole.centre, down, hole.reach) : hole.centre) - low;
      });
    const depthMm = lips.length > 0 ? Math.max(0, Math.min(...lips)) : null;
    return { kind: 'stands', face, at, folds: among, depthMm };
  };
  /** Whether two faces of a fold hold water between them, on the side of the one it comes from. */
  const holds = (fold: number, face: number) =>
    (folds[fold]!.toward === 'face') === (slopes[face]!.rain === 'face');
  const beyond = (fold: number, face: number) =>
    folds[fold]!.parent === face ? folds[fold]!.child : folds[fold]!.parent;
  const lineOn = (fold: number, face: number) =>
    folds[fold]!.tangents[folds[fold]!.parent === face ? 0 : 1];
  const across = (fold: number, face: number): Vec =>
    scale(folds[fold]!.across, folds[fold]!.parent === face ? 1 : -1);

  /** A place on one face of a fold as it lies over the bend on the other. */
  const over = (fold: number, face: number, p: Vec): Vec =>
    along(p, across(fold, face), folds[fold]!.allowance.allowanceMm);

  /**
   * Water in the hollow of a fold: to its lower end, through a drain beside it, on along another
   * fold that meets it there, or out.
   */
  function alongFold(fold: number, face: number, p: Vec, seen: number[]): WaterEnd {
    const [a, b] = lineOn(fold, face);
    const reach = cornerReach(folds[fold]!);
    const other = beyond(fold, face);
    const beside = (to: Vec): string | null =>
      drainOnWay(face, p, to, reach) ??
      drainOnWay(other, over(fold, face, p), over(fold, face, to), reach);
    const rise = (heightOf(face, b) - heightOf(face, a)) / (distance(a, b) || 1);
    if (Math.abs(rise) < LEVEL) {
      const met = beside(a) ?? beside(b);
      return met ? { kind: 'drain', hole: met } : stands(face, p, [fold]);
    }
    const low = rise > 0 ? a : b;
    const met = beside(low);
    if (met) return { kind: 'drain', hole: met };
    for (const [at, place] of [
      [face, low],
      [other, over(fold, face, low)],
    ] as const) {
      const next = folds.findIndex((one, index) => {
        if (index === fold || (one.parent !== at && one.child !== at) || !holds(index, at))
          return false;
        return (
          Math.min(...lineOn(index, at).map((end) => distance(end, place))) <=
          cornerReach(one) + reach
        );
      });
      if (next < 0) continue;
      const [c, d] = lineOn(next, at);
      const [near, far] = distance(c, place) < distance(d, place) ? [c, d] : [d, c];
      // Met here before, or rising away from here: a corner that holds water.
      if (seen.includes(next) || heightOf(at, far) >= heightOf(at, near) - LEVEL * distance(c, d))
        return stands(
          face,
          low,
          [fold, next].sort((x, y) => x - y),
        );
      return alongFold(next, at, near, [...seen, fold]);
    }
    return { kind: 'off', edge: null };
  }

  return (face: number, start: Vec): WaterEnd => {
    let [on, p] = [face, start];
    for (let turn = 0; turn < MAX_TURNS; turn++) {
      const slope = slopes[on]!;
      if (!slope.down) return stands(on, p, []);
      const exit = wayOut(slope, p);
      if (!exit) return { kind: 'off', edge: edgeAt(on, p) };
      const met = drainOnWay(on, p, exit.at);
      if (met) return { kind: 'drain', hole: met };
      const { fold } = exit.rim;
      if (fold === null) return { kind: 'off', edge: edgeAt(on, exit.at) };
      const next = beyond(fold, on);
      const out = across(fold, on);
      const leads = slopes[next]!.down !== null && dot(slopes[next]!.down!, out) > 0;
      const sameSide = slopes[next]!.rain === slope.rain;
      if (sameSide && leads) {
        p = along(over(fold, on, exit.at), slopes[next]!.down!, NUDGE_MM);
        on = next;
        continue;
      }
      if (holds(fold, on)) return alongFold(fold, on, exit.at, []);
      if (sameSide && slopes[next]!.down === null) return stands(next, over(fold, on, exit.at), []);
      return { kind: 'off', edge: null };
    }
    return stands(on, p, []);
  };
}

/** Where water that runs straight down from a place leaves a face. */
function wayOut({ down, rims }: Slope, p: Vec): { at: Vec; rim: Slope['rims'][number] } | null {
  let best: { t: number; rim: Slope['rims'][number] } | null = null;
  for (const rim of rims) {
    const side = sub(rim.to, rim.from);
    const turn = cross(down!, side);
    // Out through a side only from within: sides run counter-clockwise.
    if (Math.abs(turn) < 1e-12 * length(side) || turn <= 0) continue;
    const to = sub(rim.from, p);
    const t = cross(to, side) / turn;
    const u = cross(to, down!) / turn;
    if (t > -NUDGE_MM && u >= -1e-9 && u <= 1 + 1e-9 && (!best || t < best.t)) best = { t, rim };
  }
  return best && { at: along(p, unit(down!), Math.max(0, best.t)), rim: best.rim };
}
