import { inside } from '../measure/path';
import { partOfRun, runLength } from '../measure/run';
import type { Segment } from '../measure/segment';
import {
  carriersMeet,
  crossingsWithLine,
  directionAt,
  isStraight,
  line,
  nearest,
  offsetRight,
  pointAt,
  segmentLength,
  withEnds,
} from '../measure/segment';
import { SAME_PLACE_MM } from '../measure/tolerance';
import type { Vec } from '../measure/vector';
import { along, distance, dot, scale, sub } from '../measure/vector';
import { endsOfFold } from './foldPlace';
import { outlineOf, segmentsOfEdge } from './outline';
import type { Bead, PatternDoc } from './pattern';

/**
 * The middle of a bead as it lies on the card, in the direction of its edge or from its first place
 * to its second.
 */
export type BeadLine = {
  run: Segment[];
  /** Whether it runs right out over the rim at its start and at its end. */
  out: [boolean, boolean];
};

/** Distance from the rim within which a bead's end runs out over it, mm. */
const AT_RIM_MM = 0.5;

/**
 * Where the middle of a bead runs on the card; null where its edge is gone, or nothing of it lies
 * on the card.
 */
export function beadLine(doc: PatternDoc, bead: Bead): BeadLine | null {
  const { path } = bead;
  if (path.kind === 'between') {
    if (distance(path.from, path.to) < SAME_PLACE_MM) return null;
    return withOut(doc, [{ a: path.from, b: path.to, bulge: path.bulge }]);
  }
  const edge = doc.edges.find(({ id }) => id === path.edge);
  const whole = edge ? acrossCard(doc, parallel(segmentsOfEdge(doc, edge), path.inMm)) : [];
  const run = partOfRun(whole, path.startMm, runLength(whole) - path.endMm);
  return run.length > 0 ? withOut(doc, run) : null;
}

function withOut(doc: PatternDoc, run: Segment[]): BeadLine {
  const { path } = outlineOf(doc);
  const atRim = (p: Vec) => path.some((s) => nearest(s, p).distance <= AT_RIM_MM);
  return { run, out: [atRim(run[0]!.a), atRim(run[run.length - 1]!.b)] };
}

/**
 * A run moved inward and joined again at its corners; arcs that would shrink to nothing are left
 * out.
 */
function parallel(run: readonly Segment[], inMm: number): Segment[] {
  const moved = run
    .map((s) => offsetRight(s, -inMm))
    .filter(
      (s, i) =>
        dot(directionAt(s, 0.5), directionAt(run[i]!, 0.5)) > 0 &&
        distance(s.a, s.b) > SAME_PLACE_MM,
    );
  const meets = moved.slice(1).map((next, i): Vec => {
    const s = moved[i]!;
    if (distance(s.b, next.a) < SAME_PLACE_MM) return s.b;
    return carriersMeet(s, next, s.b) ?? [(s.b[0] + next.a[0]) / 2, (s.b[1] + next.a[1]) / 2];
  });
  return moved.map((s, i) => withEnds(s, meets[i - 1] ?? s.a, meets[i] ?? s.b));
}

/** The part of a run on the card, drawn out straight at both ends to the rim. */
function acrossCard(doc: PatternDoc, run: readonly Segment[]): Segment[] {
  if (run.length === 0) return [];
  const { path, polygon } = outlineOf(doc);
  const first = run[0]!;
  const last = run[run.length - 1]!;
  const drawn = [
    ...reach(path, polygon(), first.a, scale(directionAt(first, 0), -1)).map((p) =>
      line(p, first.a),
    ),
    ...run,
    ...reach(path, polygon(), last.b, directionAt(last, 1)).map((p) => line(last.b, p)),
  ];
  // What leaves the card and comes back is cut: the longest stretch on it stays; of two as long the
  // one nearer the datum.
  const long = runLength(drawn);
  const cuts = [0, ...crossingsOf(drawn, path), long].sort((a, b) => a - b);
  const datum: Vec = [doc.corners[0]!.x, doc.corners[0]!.y];
  let best: { from: number; to: number; off: number } | null = null;
  for (const [i, to] of cuts.slice(1).entries()) {
    const from = cuts[i]!;
    const middle = partOfRun(drawn, from, (from + to) / 2).at(-1)?.b;
    if (to - from < SAME_PLACE_MM || !middle || !inside(middle, polygon())) continue;
    const off = distance(middle, datum);
    const longer: number = best ? to - from - (best.to - best.from) : Infinity;
    if (longer > SAME_PLACE_MM || (longer > -SAME_PLACE_MM && off < best!.off))
      best = { from, to, off };
  }
  return best ? partOfRun(drawn, best.from, best.to) : [];
}

/**
 * Where a ray from inside the card first meets the rim; nothing for one that begins on it or
 * outside.
 */
function reach(path: readonly Segment[], polygon: readonly Vec[], from: Vec, way: Vec): Vec[] {
  if (!inside(from, polygon)) return [];
  const far = path.flatMap((s) =>
    crossingsWithLine(s, from, way).map((t) => dot(sub(pointAt(s, t), from), way)),
  );
  const ahead = Math.min(...far.filter((mm) => mm > SAME_PLACE_MM));
  return Number.isFinite(ahead) ? [along(from, way, ahead)] : [];
}

/** How far along a run it crosses a path, mm. */
function crossingsOf(run: readonly Segment[], path: readonly Segment[]): number[] {
  let gone = 0;
  return run.flatMap((s) => {
    const l = segmentLength(s);
    const start = gone;
    gone += l;
    return path.flatMap((other) => meetings(s, other).map((t) => start + t * l));
  });
}

/** Fractions along `s` at which it meets another segment. */
export function meetings(s: Segment, other: Segment): number[] {
  const on = (t: number, of: Segment) => nearest(of, pointAt(s, t)).distance < SAME_PLACE_MM;
  if (isStraight(s))
    return crossingsWithLine(other, s.a, directionAt(s, 0))
      .map((t) => nearest(s, pointAt(other, t)))
      .filter((found) => found.distance < SAME_PLACE_MM)
      .map(({ at }) => at);
  if (isStraight(other))
    return crossingsWithLine(s, other.a, directionAt(other, 0)).filter((t) => on(t, other));
  const ends = [other.a, other.b, pointAt(other, 0.5)];
  const met = ends.map((p) => carriersMeet(s, other, p)).filter((p) => p !== null);
  const found = met.map((p) => nearest(s, p));
  const at = found
    .filter(({ distance: off, at: t }) => off < SAME_PLACE_MM && on(t, other))
    .map(({ at: t }) => t);
  return at.filter((t, i) => at.findIndex((u) => Math.abs(u - t) < 1e-9) === i);
}

/** The folds that a bead runs over, and how far along it, mm. */
export function foldsAcross(
  doc: PatternDoc,
  { run }: BeadLine,
): { fold: string; alongMm: number }[] {
  return doc.folds.flatMap((fold) => {
    const ends = endsOfFold(doc, fold);
    return ends
      ? crossingsOf(run, [line(...ends)]).map((alongMm) => ({ fold: fold.id, alongMm }))
      : [];
  });
}
