import type { Segment } from '../../measure/segment';
import { line } from '../../measure/segment';
import type { Vec } from '../../measure/vector';
import { distance, sub } from '../../measure/vector';
import type { JointAllowance } from '../joint';
import type { ReliefKind } from '../relief';
import { cutRound, cutSlot } from '../relief';
import { outlineWithStrips } from '../strip';
import type { BlankFace } from './develop';

/**
 * A piece of the blank's outline: part of a side, the end of a bend, a slit or relief cut beside one, or a link where
 * a joint's strip begins or ends. `edge` is the card edge it belongs to, if any; `fold` the fold concerned, if any.
 */
export type BlankPiece = {
  kind: 'side' | 'bend-end' | 'slit' | 'relief' | 'link';
  segment: Segment;
  edge: string | null;
  fold: string | null;
  /** Index of the face it bounds; -1 for the ends of bends. */
  face: number;
  inward?: Vec;
};

type Given = {
  faces: readonly BlankFace[];
  base: number;
  /** Child face of each fold, by index. */
  children: readonly number[];
  foldIds: readonly string[];
  /** Length of metal in each bend, by index, mm. */
  bendMm: readonly number[];
  edgeOf: (side: number) => string | null;
  allowances: ReadonlyMap<string, JointAllowance>;
  relief: ReliefKind;
  /** A relief is at least this wide, and goes this far beyond the tangents, mm. */
  reliefMm: number;
};

/**
 * The outline of the blank, net and as cut, by walking round the base and out along every fold.
 * `missed` names the folds beside which a relief found no room.
 */
export function blankOutline(given: Given): { net: BlankPiece[]; outline: BlankPiece[]; missed: string[] } {
  const net = withEdgesOfBends(round(given, given.base, null));
  const { pieces, missed } =
    given.relief === 'none' ? { pieces: net, missed: [] } : withReliefs(net, given, given.relief);
  const outline = outlineWithStrips(
    pieces,
    (piece) => {
      const strip = piece.edge === null ? undefined : given.allowances.get(piece.edge);
      // What is folded over at an edge stops at a bend: it could not be turned round the corner.
      if (!strip || (strip.folded && piece.kind === 'bend-end')) return { addMm: 0, folded: false };
      return { addMm: strip.addMm, folded: strip.folded };
    },
    (segment, beside): BlankPiece => ({ kind: 'link', segment, edge: beside.edge, fold: null, face: beside.face }),
  );
  return { net, outline, missed };
}

/** The boundary of a face and of all that hangs on it, from just after the fold it was entered by. */
function round(given: Given, face: number, entry: number | null): BlankPiece[] {
  const { pieces } = given.faces[face]!;
  const at = entry === null ? 0 : pieces.findIndex((p) => p.kind === 'tangent' && p.fold === entry) + 1;
  const rotated = [...pieces.slice(at), ...pieces.slice(0, at)];
  const out: BlankPiece[] = [];
  for (const piece of rotated) {
    if (piece.kind === 'side') {
      out.push({ kind: 'side', segment: piece.segment, edge: given.edgeOf(piece.side), fold: null, face });
    } else if (piece.kind === 'slit') {
      const fold = given.foldIds[piece.fold]!;
      out.push({ kind: 'slit', segment: piece.segment, edge: null, fold, face, inward: piece.inward });
    } else if (piece.fold !== entry) {
      const child = given.children[piece.fold]!;
      const far = given.faces[child]!.pieces.find((p) => p.kind === 'tangent' && p.fold === piece.fold)!.segment;
      const end = (a: Vec, b: Vec): BlankPiece => ({
        kind: 'bend-end',
        segment: line(a, b),
        edge: null,
        fold: given.foldIds[piece.fold]!,
        face: -1,
      });
      out.push(end(piece.segment.a, far.b), ...round(given, child, piece.fold), end(far.a, piece.segment.b));
    }
  }
  return out;
}

/** The end of a bend belongs to an edge when that edge runs across the fold: the same on either side of it. */
function withEdgesOfBends(pieces: BlankPiece[]): BlankPiece[] {
  const n = pieces.length;
  return pieces.map((piece, i): BlankPiece => {
    if (piece.kind !== 'bend-end') return piece;
    const before = pieces[(i - 1 + n) % n]!;
    const after = pieces[(i + 1) % n]!;
    return before.kind === 'side' && after.kind === 'side' && before.edge === after.edge
      ? { ...piece, edge: before.edge }
      : piece;
  });
}

function withReliefs(
  net: BlankPiece[],
  given: Given,
  kind: 'round' | 'square',
): { pieces: BlankPiece[]; missed: string[] } {
  const missed: string[] = [];
  const size = given.reliefMm;
  let pieces = net;
  const cutAt = (fold: string, cut: BlankPiece[] | null) => {
    if (cut) pieces = cut;
    else missed.push(fold);
  };
  const relief =
    (fold: string | null) =>
    (segment: Segment): BlankPiece => ({ kind: 'relief', segment, edge: null, fold, face: -1 });
  for (const slit of net.filter((p) => p.kind === 'slit')) {
    const at = pieces.indexOf(slit);
    cutAt(slit.fold!, cutSlot(pieces, at, size, size, kind, relief(slit.fold)));
  }
  for (const meeting of meetings(net, (fold) => given.bendMm[given.foldIds.indexOf(fold)]! > 1e-6)) {
    const at = pieces.findIndex((p) => p.kind === 'bend-end' && distance(p.segment.a, meeting.at) < 1e-9);
    if (at < 0) continue;
    cutAt(meeting.fold, cutRound(pieces, at, size, kind, meeting.axis, relief(meeting.fold)));
  }
  return { pieces, missed };
}

/** The points at which the ends of two different bends meet; a bend of no length (no radius, K 0) asks for no relief. */
function meetings(
  net: readonly BlankPiece[],
  hasLength: (fold: string) => boolean,
): { at: Vec; fold: string; axis: Vec }[] {
  const n = net.length;
  return net.flatMap((piece, i) => {
    const before = net[(i - 1 + n) % n]!;
    if (piece.kind !== 'bend-end' || before.kind !== 'bend-end' || before.fold === piece.fold) return [];
    if (!hasLength(piece.fold!) || !hasLength(before.fold!)) return [];
    return [{ at: piece.segment.a, fold: piece.fold!, axis: sub(piece.segment.b, piece.segment.a) }];
  });
}

/** The pieces of each edge in outline order, without the links at the ends of its strip. */
export function byEdge(pieces: readonly BlankPiece[]): Map<string, Segment[]> {
  const by = new Map<string, Segment[]>();
  for (const { edge, kind, segment } of pieces) {
    if (edge === null || kind === 'link') continue;
    const own = by.get(edge);
    if (own) own.push(segment);
    else by.set(edge, [segment]);
  }
  return by;
}
