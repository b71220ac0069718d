import { crossingPairs } from '../../card/check';
import type { Bound, Face } from '../../card/faces';
import { area } from '../../measure/path';
import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import type { Segment } from '../../measure/segment';
import { crossingsWithLine, directionAt, flattened, line, part, pointAt } from '../../measure/segment';
import type { Vec } from '../../measure/vector';
import { along, distance, dot, left, sub, unit } from '../../measure/vector';

/** A piece of a trimmed face: part of a side, the tangent line that stands in for a fold, or a slit beside one. */
export type Piece =
  | { kind: 'side'; side: number; segment: Segment }
  | { kind: 'tangent'; fold: number; segment: Segment }
  /** Cut from the card's line down to the tangent, where the face runs straight on past the end of a fold. */
  | { kind: 'slit'; fold: number; segment: Segment; inward: Vec };

/** A side that leaves the fold at less than this (sine of the angle) runs on beside it: a slit is cut there. */
const RUNS_ON = 0.02;

/**
 * A face with each of its folds moved inward by the fold's setback: what stays flat. Only the metal beside the fold is
 * taken, so that a face that reaches past the end of a fold keeps that part.
 *
 * `setbacks` in mm by fold index. Problems (stop): `flange-shorter-than-setback` (about nothing yet; numbers: fold,
 * setbackMm, depthMm) when the face has no flat left beyond the tangent, `folds-too-close` (numbers: fold) when another
 * fold lies inside the bend, or the bends between them leave no flat.
 */
export function trimFace(face: Face, setbacks: readonly number[]): Result<{ pieces: Piece[] }> {
  let pieces: (Piece | Extract<Bound, { kind: 'fold' }>)[] = face.bounds.map((b) =>
    b.kind === 'side' ? { kind: 'side', side: b.side, segment: b.segment } : b,
  );
  for (;;) {
    const at = pieces.findIndex((p) => p.kind === 'fold');
    if (at < 0) break;
    const fold = pieces[at] as Extract<Bound, { kind: 'fold' }>;
    const rest = [...pieces.slice(at + 1), ...pieces.slice(0, at)];
    const s = setbacks[fold.fold]!;
    const u = unit(sub(fold.segment.b, fold.segment.a));
    const inward = left(u);
    const tangent = { p: along(fold.segment.a, inward, s), u, inward, s };
    const lead = cutBack(rest, tangent, fold.segment.b, 'start');
    const tail = cutBack(rest, tangent, fold.segment.a, 'end');
    if (lead === 'fold' || tail === 'fold') {
      return failure({ code: 'folds-too-close', severity: 'stop', numbers: { fold: fold.fold } });
    }
    const a = tail === 'slit' ? tangent.p : (rest[rest.length - 1]?.segment.b ?? tangent.p);
    const b = lead === 'slit' ? along(fold.segment.b, inward, s) : (rest[0]?.segment.a ?? tangent.p);
    if (lead === 'gone' || tail === 'gone' || dot(sub(b, a), u) < 1e-9) {
      const depthMm = depthBeyond(face, fold);
      return failure({
        code: 'flange-shorter-than-setback',
        severity: 'stop',
        numbers: { fold: fold.fold, setbackMm: s, depthMm },
      });
    }
    const slit = (from: Vec, to: Vec): Piece => ({ kind: 'slit', fold: fold.fold, segment: line(from, to), inward });
    pieces = [
      ...(tail === 'slit' ? [slit(fold.segment.a, a)] : []),
      { kind: 'tangent', fold: fold.fold, segment: line(a, b) },
      ...(lead === 'slit' ? [slit(b, fold.segment.b)] : []),
      ...rest,
    ];
  }
  const done = pieces as Piece[];
  const tangents = done.filter((p) => p.kind === 'tangent');
  const flat = done.map((p) => p.segment);
  // Each fold alone left some flat; together they may have taken more than there is.
  if (area(flat) <= 0 || (tangents.length > 1 && crossingPairs(flat).length > 0)) {
    const fold = tangents[tangents.length - 1]!.fold;
    return failure({ code: 'folds-too-close', severity: 'stop', numbers: { fold } });
  }
  return { ok: true, pieces: done };
}

/** How far a face reaches from one of its folds, mm, square to the fold. */
export function depthBeyond(face: Face, fold: { segment: Segment }): number {
  const inward = left(unit(sub(fold.segment.b, fold.segment.a)));
  const reach = face.bounds.flatMap((b) =>
    flattened(b.segment, 0.05).map((p) => dot(sub(p, fold.segment.a), inward)),
  );
  return Math.max(0, ...reach);
}

type Tangent = { p: Vec; u: Vec; inward: Vec; s: number };

/**
 * How far past the end of a fold, in setbacks, its tangent may run on to meet the rim: metal that leaves the fold at a
 * flatter angle than that of this slope (30°) is not beside the fold, and is parted from it by a slit.
 */
const RUNS_PAST = Math.sqrt(3);

/**
 * Shortens `rest` (the boundary after the fold, in order) at its start or end to where it crosses the tangent line.
 * Says `slit` and leaves it alone when the boundary runs on past the end of the fold, `gone` when nothing reaches the
 * line, `fold` when another fold lies wholly within the bend.
 */
function cutBack(
  rest: (Piece | Bound)[],
  tangent: Tangent,
  foldEnd: Vec,
  end: 'start' | 'end',
): 'cut' | 'slit' | 'gone' | 'fold' {
  const atStart = end === 'start';
  const first = atStart ? rest[0] : rest[rest.length - 1];
  if (!first) return 'gone';
  const away = atStart
    ? dot(directionAt(first.segment, 0), tangent.inward)
    : -dot(directionAt(first.segment, 1), tangent.inward);
  if (away < RUNS_ON) return 'slit';
  const outward = atStart ? 1 : -1;
  const past = (p: Vec) => outward * dot(sub(p, foldEnd), tangent.u) > RUNS_PAST * tangent.s + 1e-9;
  for (let taken = 0; taken < rest.length; taken++) {
    const at = atStart ? taken : rest.length - 1 - taken;
    const piece = rest[at]!;
    const hits = crossingsWithLine(piece.segment, tangent.p, tangent.u);
    if (hits.length > 0) {
      const t = atStart ? hits[0]! : hits[hits.length - 1]!;
      if (past(pointAt(piece.segment, t))) return 'slit';
      const segment = atStart ? part(piece.segment, t, 1) : part(piece.segment, 0, t);
      rest.splice(atStart ? 0 : at, taken + 1, { ...piece, segment });
      return 'cut';
    }
    if (past(atStart ? piece.segment.b : piece.segment.a)) return 'slit';
    if (piece.kind === 'fold' || (piece.kind === 'tangent' && distance(piece.segment.a, piece.segment.b) > 1e-9))
      return 'fold';
  }
  return 'gone';
}
