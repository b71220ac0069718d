import type { Bound, Face } from '../../card/faces';
import { crossingPairs } from '../../measure/crossings';
import { area } from '../../measure/path';
import type { Result } from '../../measure/result';
import { failure, stop } from '../../measure/result';
import type { Segment } from '../../measure/segment';
import {
  crossingsWithLine,
  directionAt,
  flattened,
  line,
  part,
  pointAt,
} from '../../measure/segment';
import { ROUNDING, ROUNDING_MM } from '../../measure/tolerance';
import type { Vec } from '../../measure/vector';
import { along, cross, dot, left, sub, unit } from '../../measure/vector';

/**
 * A piece of a trimmed face: part of a side, the tangent line that stands in for a fold, or a slit
 * beside one.
 */
export type Piece =
  | { kind: 'side'; side: number; segment: Segment }
  | { kind: 'tangent'; fold: number; segment: Segment }
  /**
   * Cut from the card's line to the tangent, where the face runs straight on past the end of a
   * fold: met before the fold it goes down (`descends`), after it comes up. `inward` is the way
   * down.
   */
  | { kind: 'slit'; fold: number; segment: Segment; inward: Vec; descends: boolean };

/**
 * A side that leaves the fold at less than this (sine of the angle) runs on beside it: a slit is
 * cut there.
 */
const RUNS_ON = 0.02;

/**
 * How far past the end of a fold, in setbacks, its tangent may run on to meet the rim: metal that
 * leaves the fold at a flatter angle than that of this slope (30°) is not beside the fold, and is
 * parted from it by a slit.
 */
const RUNS_PAST = Math.sqrt(3);

type FoldBound = Extract<Bound, { kind: 'fold' }>;

/**
 * Where the tangent of a fold ends on one side: at a place of the untouched rim, or at a slit from
 * the fold's own end.
 */
type End =
  | { kind: 'rim'; bound: number; at: number; point: Vec }
  | { kind: 'slit'; bound: number; at: number; point: Vec }
  | { kind: 'gone' }
  | { kind: 'fold'; other: number };

type Tangent = {
  bound: number;
  fold: number;
  chord: Segment;
  p: Vec;
  u: Vec;
  inward: Vec;
  setback: number;
};

/**
 * A face with each of its folds moved inward by the fold's setback: what stays flat. Only the metal
 * beside the fold is taken, so that a face that reaches past the end of a fold keeps that part.
 * What each fold takes is found on the untouched face; where two take the same corner their
 * tangents meet there. So no order of the folds can matter.
 *
 * `setbacks` in mm and `ids` by fold index. Problems (stop): `flange-shorter-than-setback` when the
 * face has no flat left beyond the tangent, `folds-too-close` when another fold lies inside the
 * bend, or the bends between them leave no flat.
 */
export function trimFace(
  face: Face,
  setbacks: readonly number[],
  ids: readonly string[],
): Result<{ pieces: Piece[] }> {
  const { bounds } = face;
  const n = bounds.length;
  const tangents = bounds.flatMap((b, i) =>
    b.kind === 'fold' ? [tangentOf(b, i, setbacks[b.fold]!)] : [],
  );
  if (tangents.length === 0) return { ok: true, pieces: bounds.map((b) => sidePiece(b as Side)) };
  const tooClose = (...folds: number[]) =>
    failure(
      stop(
        'folds-too-close',
        [...new Set(folds)].sort((a, b) => a - b).map((f) => ids[f]!),
      ),
    );

  const starts: Placed[] = [];
  const ends: Placed[] = [];
  for (const t of tangents) {
    const start = reach(bounds, t, -1);
    const end = reach(bounds, t, 1);
    if (start.kind === 'fold') return tooClose(t.fold, start.other);
    if (end.kind === 'fold') return tooClose(t.fold, end.other);
    if (start.kind === 'gone' || end.kind === 'gone' || !ahead(start, end, t.u))
      return failure(
        stop('flange-shorter-than-setback', [ids[t.fold]!], {
          setbackMm: t.setback,
          depthMm: depthBeyond(face, bounds[t.bound] as FoldBound),
        }),
      );
    starts.push(start);
    ends.push(end);
  }

  // Between one fold and the next, still on the untouched face: what is left of the rim, or where
  // the two tangents meet.
  const rims: Piece[][] = [];
  const corners: (Vec | null)[] = [];
  for (let k = 0; k < tangents.length; k++) {
    const next = (k + 1) % tangents.length;
    const [from, to] = [tangents[k]!, tangents[next]!];
    const [end, start] = [ends[k]!, starts[next]!];
    /** Places as steps on from the fold just left. */
    const steps = (e: Placed) =>
      ((e.bound - from.bound + n) % n || (from === to && e === start ? n : 0)) + e.at;
    const left = steps(start) - steps(end);
    if (left > -ROUNDING_MM) {
      rims.push(left > ROUNDING_MM ? rimBetween(bounds, end, start) : []);
      corners.push(null);
      continue;
    }
    const met = k === next ? null : tangentsMeet(from, starts[k]!, end, to, start, ends[next]!);
    if (!met) return tooClose(from.fold, to.fold);
    rims.push([]);
    corners.push(met);
  }

  const pieces: Piece[] = [];
  for (const [k, t] of tangents.entries()) {
    const before = corners[(k - 1 + tangents.length) % tangents.length];
    const after = corners[k];
    const start: Placed = before ? { ...starts[k]!, kind: 'rim', point: before } : starts[k]!;
    const end: Placed = after ? { ...ends[k]!, kind: 'rim', point: after } : ends[k]!;
    if (!ahead(start, end, t.u)) return tooClose(t.fold);
    const slit = (segment: Segment, descends: boolean): Piece => ({
      kind: 'slit',
      fold: t.fold,
      segment,
      inward: t.inward,
      descends,
    });
    if (start.kind === 'slit') pieces.push(slit(line(t.chord.a, start.point), true));
    pieces.push({ kind: 'tangent', fold: t.fold, segment: line(start.point, end.point) });
    if (end.kind === 'slit') pieces.push(slit(line(end.point, t.chord.b), false));
    pieces.push(...rims[k]!);
  }
  const flat = pieces.map((p) => p.segment);
  // Each fold alone left some flat; together they may have taken more than there is.
  if (area(flat) <= 0 || (tangents.length > 1 && crossingPairs(flat).length > 0))
    return tooClose(...tangents.map((t) => t.fold));
  return { ok: true, pieces };
}

type Placed = Extract<End, { kind: 'rim' | 'slit' }>;
type Side = Extract<Bound, { kind: 'side' }>;
const sidePiece = (b: Side): Piece => ({ kind: 'side', side: b.side, segment: b.segment });

function tangentOf(b: FoldBound, bound: number, setback: number): Tangent {
  const u = unit(sub(b.segment.b, b.segment.a));
  const inward = left(u);
  return {
    bound,
    fold: b.fold,
    chord: b.segment,
    p: along(b.segment.a, inward, setback),
    u,
    inward,
    setback,
  };
}

const ahead = (start: Placed, end: Placed, u: Vec): boolean =>
  dot(sub(end.point, start.point), u) >= ROUNDING_MM;

/** How far a face reaches from one of its folds, mm, square to the fold. */
export function depthBeyond(face: Face, fold: { segment: Segment }): number {
  const inward = left(unit(sub(fold.segment.b, fold.segment.a)));
  const reached = face.bounds.flatMap((b) =>
    flattened(b.segment, 0.05).map((p) => dot(sub(p, fold.segment.a), inward)),
  );
  return Math.max(0, ...reached);
}

/**
 * Follows the untouched rim from one end of a fold (`way` 1 on from it, −1 back) to where it
 * crosses the fold's tangent. `slit` where the rim runs on past the end of the fold, `gone` where
 * nothing reaches the tangent, `fold` where another fold lies wholly within the bend.
 */
function reach(bounds: readonly Bound[], t: Tangent, way: 1 | -1): End {
  const n = bounds.length;
  const next = (t.bound + way + n) % n;
  const foldEnd = way > 0 ? t.chord.b : t.chord.a;
  const slit = (): End => ({
    kind: 'slit',
    bound: way > 0 ? next : t.bound,
    at: 0,
    point: along(foldEnd, t.inward, t.setback),
  });
  const first = bounds[next]!;
  if (n === 1) return { kind: 'gone' };
  const leaves = dot(directionAt(first.segment, way > 0 ? 0 : 1), t.inward) * way;
  if (leaves < RUNS_ON) return slit();
  const past = (p: Vec) => way * dot(sub(p, foldEnd), t.u) > RUNS_PAST * t.setback + ROUNDING_MM;
  for (let taken = 1; taken < n; taken++) {
    const bound = (((t.bound + way * taken) % n) + n) % n;
    const { segment } = bounds[bound]!;
    const hits = crossingsWithLine(segment, t.p, t.u);
    if (hits.length > 0) {
      const at = way > 0 ? hits[0]! : hits[hits.length - 1]!;
      const point = pointAt(segment, at);
      return past(point) ? slit() : { kind: 'rim', bound, at, point };
    }
    if (past(way > 0 ? segment.b : segment.a)) return slit();
    const b = bounds[bound]!;
    if (b.kind === 'fold') return { kind: 'fold', other: b.fold };
  }
  return { kind: 'gone' };
}

/** The pieces of the untouched rim from where one tangent ends to where the next begins. */
function rimBetween(bounds: readonly Bound[], end: Placed, start: Placed): Piece[] {
  const n = bounds.length;
  const pieces: Piece[] = [];
  const put = (bound: number, from: number, to: number) => {
    const b = bounds[bound]!;
    if (b.kind === 'side' && to > from)
      pieces.push({
        kind: 'side',
        side: b.side,
        segment: from === 0 && to === 1 ? b.segment : part(b.segment, from, to),
      });
  };
  if (end.bound === start.bound && end.at <= start.at) {
    put(end.bound, end.at, start.at);
    return pieces;
  }
  put(end.bound, end.at, 1);
  for (let i = (end.bound + 1) % n; i !== start.bound; i = (i + 1) % n) put(i, 0, 1);
  put(start.bound, 0, start.at);
  return pieces;
}

/**
 * Where two tangents meet, each within its own reach on the untouched face; null when they do not.
 */
function tangentsMeet(
  s: Tangent,
  s0: Placed,
  s1: Placed,
  r: Tangent,
  r0: Placed,
  r1: Placed,
): Vec | null {
  const turn = cross(s.u, r.u);
  if (Math.abs(turn) < ROUNDING) return null;
  const met = along(s.p, s.u, cross(sub(r.p, s.p), r.u) / turn);
  const within = (t: Tangent, from: Placed, to: Placed) => {
    const at = dot(sub(met, t.p), t.u);
    return (
      at >= dot(sub(from.point, t.p), t.u) - ROUNDING_MM &&
      at <= dot(sub(to.point, t.p), t.u) + ROUNDING_MM
    );
  };
  return within(s, s0, s1) && within(r, r0, r1) ? met : null;
}
