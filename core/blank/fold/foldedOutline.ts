import type { Ramp } from '../../measure/ramp';
import { even, rampPart } from '../../measure/ramp';
import type { Segment } from '../../measure/segment';
import { line, segmentLength } from '../../measure/segment';
import { ROUNDING, SAME_PLACE_MM } from '../../measure/tolerance';
import type { Vec } from '../../measure/vector';
import { left, scale, sub } from '../../measure/vector';
import type { BlankEdge, BlankPiece, JointAllowance } from '../blank';
import type { Relief, ReliefKind } from '../relief';
import { reliefAtMeeting, slotAtSlit, withReliefs } from '../relief';
import type { EdgeStrip, StripPart } from '../edgeStrip';
import { outlineWithStrips, stripParts } from '../edgeStrip';
import type { Piece } from './trim';

/**
 * A piece of the outline of a folded blank, with the index of the face it bounds; -1 for the ends
 * of bends.
 */
export type FoldPiece = BlankPiece & { face: number; slit?: Extract<Piece, { kind: 'slit' }> };

type Given = {
  /** What stays flat of each face, on the blank. */
  faces: readonly { pieces: readonly Piece[] }[];
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
 * The outline of the blank, net and as cut, by walking round the base and out along every fold;
 * then what joints add; then all reliefs taken out of that at once. `missed` names the folds beside
 * which a relief found no room.
 */
export function blankOutline(given: Given): {
  net: FoldPiece[];
  outline: FoldPiece[];
  parts: StripPart<FoldPiece>[];
  reliefs: readonly Relief[];
  missed: string[];
} {
  const net = withEdgesOfBends(round(given, given.base, null));
  const { gross, addOf, parts } = withStrips(net, given.allowances);
  if (given.relief === 'none') return { net, outline: gross, parts, reliefs: [], missed: [] };
  const reliefs = [
    ...slots(net, given, given.relief, addOf),
    ...meetings(net, given, given.relief),
  ];
  const cut = withReliefs(gross, reliefs, (segment, fold): FoldPiece => ({
    kind: 'relief',
    segment,
    edge: null,
    fold,
    face: -1,
  }));
  return { net, outline: [...cut.pieces], parts, reliefs: cut.made, missed: cut.missed };
}

/**
 * An outline with what the joints of its edges add, how much that is at each piece, and what is there
 * of strips that end or are turned over.
 */
export function withStrips(
  net: readonly FoldPiece[],
  allowances: ReadonlyMap<string, JointAllowance>,
): {
  gross: FoldPiece[];
  addOf: (piece: FoldPiece) => EdgeStrip;
  parts: StripPart<FoldPiece>[];
} {
  let spans: ReturnType<typeof alongEdges> | null = null;
  const addOf = (piece: FoldPiece): EdgeStrip => {
    const strip = piece.edge === null ? undefined : allowances.get(piece.edge);
    const flat = { edge: piece.edge, turn: null, atBend: piece.kind === 'bend-end', ends: {} };
    // What is folded over at an edge stops at a bend: it could not be turned round the corner.
    if (!strip || (strip.turn && piece.kind === 'bend-end')) return { ...flat, adds: even(0) };
    const { addMm, adds, turn, ends } = strip;
    const own = { ...flat, turn, ends };
    if (!adds) return { ...own, adds: even(addMm) };
    const [from, to] = (spans ??= alongEdges(net)).get(piece)!;
    return { ...own, adds: rampPart(adds, from, to) };
  };
  const gross = outlineWithStrips(net, addOf, (segment, beside): FoldPiece => ({
    kind: 'link',
    segment,
    edge: beside.edge,
    fold: null,
    face: beside.face,
  }));
  return { gross, addOf, parts: stripParts(net, addOf) };
}

/** What is there of the strip of an edge: how far out at shares of the edge, and its ends. */
export type StripAlong = { outs: Ramp; ends: BlankEdge['ends'] };

/** The strips that are turned over or end beside one, by edge id. */
export function stripsAlong(
  net: readonly FoldPiece[],
  parts: readonly StripPart<FoldPiece>[],
): Map<string, StripAlong> {
  const of = new Map(parts.map((part) => [part.piece, part]));
  const spans = alongEdges(net);
  const found = new Map<string, { outs: [number, number][]; ends: BlankEdge['ends'] }>();
  for (const piece of inEdgeOrder(net)) {
    const [from, to] = spans.get(piece)!;
    const long = segmentLength(piece.segment);
    const part = of.get(piece);
    const wide = (part?.profile ?? []).map(([s, out]): [number, number] => [
      long > 0 ? from + ((to - from) * s) / long : from,
      out,
    ]);
    const [first, last] = [wide[0]?.[0] ?? to, wide[wide.length - 1]?.[0] ?? from];
    const bare = (a: number, b: number): [number, number][] =>
      b - a > ROUNDING
        ? [
            [a, 0],
            [b, 0],
          ]
        : [];
    const outs =
      wide.length > 0 ? [...bare(from, first), ...wide, ...bare(last, to)] : bare(from, to);
    const known = found.get(piece.edge!);
    if (!known)
      found.set(piece.edge!, {
        outs,
        ends: { start: part?.start ?? null, end: part?.end ?? null },
      });
    else {
      known.outs.push(...outs);
      known.ends = { ...known.ends, end: part?.end ?? null };
    }
  }
  return new Map(
    [...found].flatMap(([edge, { outs, ends }]) =>
      outs.length > 1 && parts.some(({ piece }) => piece.edge === edge)
        ? [[edge, { outs: [[0, outs[0]![1]], ...outs.slice(1, -1), [1, outs.at(-1)![1]]], ends }]]
        : [],
    ),
  );
}

/** From which share of the length of its edge to which each piece runs. */
function alongEdges(net: readonly FoldPiece[]): Map<FoldPiece, [number, number]> {
  const own = inEdgeOrder(net);
  const long = new Map<string, number>();
  for (const { edge, segment } of own)
    long.set(edge!, (long.get(edge!) ?? 0) + segmentLength(segment));
  const gone = new Map<string, number>();
  return new Map(
    own.map((piece): [FoldPiece, [number, number]] => {
      const [total, from] = [long.get(piece.edge!)!, gone.get(piece.edge!) ?? 0];
      const to = from + segmentLength(piece.segment);
      gone.set(piece.edge!, to);
      return [piece, [from / total, to / total]];
    }),
  );
}

/**
 * The boundary of a face and of all that hangs on it, from just after the fold it was entered by.
 */
function round(given: Given, face: number, entry: number | null): FoldPiece[] {
  const { pieces } = given.faces[face]!;
  const at =
    entry === null ? 0 : pieces.findIndex((p) => p.kind === 'tangent' && p.fold === entry) + 1;
  const rotated = [...pieces.slice(at), ...pieces.slice(0, at)];
  const out: FoldPiece[] = [];
  for (const piece of rotated) {
    if (piece.kind === 'side') {
      out.push({
        kind: 'side',
        segment: piece.segment,
        edge: given.edgeOf(piece.side),
        fold: null,
        face,
      });
    } else if (piece.kind === 'slit') {
      const fold = given.foldIds[piece.fold]!;
      out.push({ kind: 'slit', segment: piece.segment, edge: null, fold, face, slit: piece });
    } else if (piece.fold !== entry) {
      const child = given.children[piece.fold]!;
      const far = given.faces[child]!.pieces.find(
        (p) => p.kind === 'tangent' && p.fold === piece.fold,
      )!.segment;
      const end = (a: Vec, b: Vec): FoldPiece => ({
        kind: 'bend-end',
        segment: line(a, b),
        edge: null,
        fold: given.foldIds[piece.fold]!,
        face: -1,
      });
      out.push(end(piece.segment.a, far.b));
      for (const p of round(given, child, piece.fold)) out.push(p);
      out.push(end(far.a, piece.segment.b));
    }
  }
  return out;
}

/**
 * The end of a bend belongs to an edge when that edge runs across the fold: the same on either side
 * of it.
 */
function withEdgesOfBends(pieces: FoldPiece[]): FoldPiece[] {
  const n = pieces.length;
  return pieces.map((piece, i): FoldPiece => {
    if (piece.kind !== 'bend-end') return piece;
    const before = pieces[(i - 1 + n) % n]!;
    const after = pieces[(i + 1) % n]!;
    return before.kind === 'side' && after.kind === 'side' && before.edge === after.edge
      ? { ...piece, edge: before.edge }
      : piece;
  });
}

/** A slot for each slit, sawn through whatever a joint adds to the rim beside it. */
function slots(
  net: readonly FoldPiece[],
  given: Given,
  kind: 'round' | 'square',
  addOf: (piece: FoldPiece) => EdgeStrip,
): Relief[] {
  const n = net.length;
  return net.flatMap((piece, i) => {
    if (!piece.slit) return [];
    const { inward, descends } = piece.slit;
    const { a, b } = piece.segment;
    const rim = net[(i + (descends ? -1 : 1) + n) % n]!;
    const place = {
      mouth: descends ? a : b,
      foot: descends ? b : a,
      inward,
      // Away from the fold: a slit met before it has the fold on its right.
      out: descends ? left(inward) : scale(left(inward), -1),
    };
    const { adds } = addOf(rim);
    return [
      slotAtSlit(
        piece.fold!,
        place,
        given.reliefMm,
        given.reliefMm,
        adds[descends ? adds.length - 1 : 0]![1],
        kind,
      ),
    ];
  });
}

/**
 * A relief where the ends of two different bends meet; a bend of no length (no radius, K 0) asks
 * for none.
 */
function meetings(net: readonly FoldPiece[], given: Given, kind: 'round' | 'square'): Relief[] {
  const n = net.length;
  const bendMm = new Map(given.foldIds.map((id, i) => [id, given.bendMm[i]!]));
  const hasLength = ({ fold, segment }: FoldPiece) =>
    bendMm.get(fold!)! > SAME_PLACE_MM && segmentLength(segment) > SAME_PLACE_MM;
  return net.flatMap((piece, i) => {
    const before = net[(i - 1 + n) % n]!;
    if (piece.kind !== 'bend-end' || before.kind !== 'bend-end' || before.fold === piece.fold)
      return [];
    if (!hasLength(piece) || !hasLength(before)) return [];
    const [first, second] = [before.segment, piece.segment];
    const ways: [Vec, Vec] = [sub(first.a, first.b), sub(second.b, second.a)];
    return [reliefAtMeeting(piece.fold!, second.a, given.reliefMm, kind, ...ways)];
  });
}

/** The pieces of each edge in outline order, without the links at the ends of its strip. */
export function byEdge(pieces: readonly BlankPiece[]): Map<string, Segment[]> {
  const by = new Map<string, Segment[]>();
  for (const { edge, segment } of inEdgeOrder(pieces)) {
    const known = by.get(edge!);
    if (known) known.push(segment);
    else by.set(edge!, [segment]);
  }
  return by;
}

/**
 * The pieces that belong to edges, begun where one edge follows another, so that none is told with
 * its far part first.
 */
function inEdgeOrder<P extends BlankPiece>(pieces: readonly P[]): P[] {
  const own = pieces.filter((p) => p.edge !== null && p.kind !== 'link');
  const start = Math.max(
    0,
    own.findIndex((p, i) => p.edge !== own[(i - 1 + own.length) % own.length]!.edge),
  );
  return [...own.slice(start), ...own.slice(0, start)];
}
