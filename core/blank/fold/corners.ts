import type { FaceTree } from '../../card/faces';
import type { FoldMeeting, PatternDoc } from '../../card/pattern';
import type { Segment } from '../../measure/segment';
import { crossingsWithLine, isStraight, line, part, pointAt } from '../../measure/segment';
import { ROUNDING } from '../../measure/tolerance';
import type { Vec } from '../../measure/vector';
import { along, cross, distance, dot, right, scale, sub, unit } from '../../measure/vector';
import type { LeaningEnd, StripTurn } from '../stripEnds';
import { FLAT_DEG, endLine } from '../stripEnds';
import type { Bend } from './allowance';
import { setbackFactor } from './allowance';
import type { Piece } from './trim';

/**
 * Corners at which two walls are folded up to one side of the face between them, as a tray's are.
 * Both run the full length of their folds on the card; their thicknesses would share the corner all
 * the way up.
 */

/** Corners between these turns of the outline, radians, have walls that meet; P, from memory. */
const [MIN_TURN, MAX_TURN] = [Math.PI / 9, (8 * Math.PI) / 9];
/** A corner as it is: which folds (by index), how their walls are joined there, and what each loses. */
export type Corner = {
  folds: [number, number];
  /** The faces beyond them. */
  walls: [number, number];
  meeting: FoldMeeting;
  /** What each wall is cut back by at the fold, mm along it. */
  cutMm: [number, number];
  /** Left as they are drawn, one reaches into the sheet of the other when both are up. */
  crosses: boolean;
  /** The side of the card by which each wall ends there (its index); null where a fold does. */
  sides: [number | null, number | null];
};

type BendAt = { bend: Bend; setbackMm: number };

/** Walls turned farther lean over the face: what is in their way is for whoever draws them to say. */
const MAX_USUAL_DEG = 120;

/**
 * How two walls are joined where nobody chose: inner corners touching, the V outside closed by weld;
 * as they are drawn where one leans far in.
 */
const usualMeeting = (folds: [string, string], angles: readonly number[]): FoldMeeting => ({
  folds,
  kind: Math.max(...angles) > MAX_USUAL_DEG ? 'as-drawn' : 'touch',
  over: null,
  gapMm: 0,
});

/** The meeting somebody chose for two folds, or the usual one. */
function meetingOf(doc: PatternDoc, first: string, second: string): FoldMeeting {
  const chosen = doc.meetings?.find(({ folds }) => folds.includes(first) && folds.includes(second));
  const angles = doc.folds.filter(({ id }) => id === first || id === second);
  return (
    chosen ??
    usualMeeting(
      [first, second],
      angles.map(({ angleDeg }) => angleDeg),
    )
  );
}

/**
 * The trimmed faces with their walls cut where they meet, and the corners there are. `trimmed` by
 * face, as `trimFace` leaves them; `bends` by fold, with the setback of each on the card.
 */
export function withCorners(
  doc: PatternDoc,
  tree: FaceTree,
  trimmed: readonly Piece[][],
  bends: readonly BendAt[],
): { pieces: Piece[][]; corners: Corner[] } {
  const pieces = [...trimmed];
  const corners: Corner[] = [];
  for (const [face, { bounds }] of tree.faces.entries()) {
    for (const [i, bound] of bounds.entries()) {
      const next = bounds[(i + 1) % bounds.length]!;
      if (bound.kind !== 'fold' || next.kind !== 'fold' || bound.fold === next.fold) continue;
      const corner = cornerAt(doc, tree, face, [bound, next], bends);
      if (!corner) continue;
      const { limits, ...told } = corner;
      const lost = ([0, 1] as const).map((k) => {
        const wall = corner.walls[k];
        const cut = cutWall(pieces[wall]!, corner.folds[k], k === 0, limits[k]);
        if (corner.meeting.kind === 'as-drawn') return cut ? Infinity : 0;
        if (cut) pieces[wall] = cut.pieces;
        return cut?.lostMm ?? 0;
      });
      const crosses = lost.includes(Infinity);
      const sides = ([0, 1] as const).map((k) => {
        const beside = besideFold(trimmed[corner.walls[k]]!, corner.folds[k], k === 0);
        return beside?.kind === 'side' ? beside.side : null;
      });
      corners.push({
        ...told,
        crosses,
        cutMm: crosses ? [0, 0] : [lost[0]!, lost[1]!],
        sides: [sides[0]!, sides[1]!],
      });
    }
  }
  return { pieces, corners };
}

/** Where a wall has to end: in the frame of its own fold, from where the outsides of both cross. */
type Limit = { origin: Vec; toCorner: Vec; outward: Vec; line: LeaningEnd };

function cornerAt(
  doc: PatternDoc,
  tree: FaceTree,
  face: number,
  bounds: readonly [{ fold: number; segment: Segment }, { fold: number; segment: Segment }],
  bends: readonly BendAt[],
): (Omit<Corner, 'cutMm' | 'sides' | 'crosses'> & { limits: [Limit, Limit] }) | null {
  const folds = bounds.map(({ fold }) => fold) as [number, number];
  const [a, b] = folds.map((i) => doc.folds[i]!) as [(typeof doc.folds)[0], (typeof doc.folds)[0]];
  if (a.toward !== b.toward) return null;
  const ways = bounds.map(({ segment }) => unit(sub(segment.b, segment.a))) as [Vec, Vec];
  const turn = Math.atan2(cross(ways[0], ways[1]), dot(ways[0], ways[1]));
  if (turn < MIN_TURN || turn > MAX_TURN) return null;
  const outs = ways.map((way) => right(way)) as [Vec, Vec];
  // The outside sharp corner of each bend, from its line on the card outward.
  const sharp = folds.map((i) => {
    const { bend, setbackMm } = bends[i]!;
    return outsideSharp(bend) - setbackMm;
  }) as [number, number];
  const lines = bounds.map(({ segment }, k) => along(segment.a, outs[k]!, sharp[k]!));
  const origin = along(
    lines[0]!,
    ways[0],
    cross(sub(lines[1]!, lines[0]!), ways[1]) / cross(ways[0], ways[1]),
  );
  const meeting = meetingOf(doc, a.id, b.id);
  const turns = folds.map((i): StripTurn => ({
    thicknessMm: bends[i]!.bend.thicknessMm,
    angleDeg: bends[i]!.bend.angleDeg,
    deductionMm: 0,
    toward: doc.folds[i]!.toward,
  })) as [StripTurn, StripTurn];
  const limit = (k: 0 | 1): Limit => {
    const { atMm, slope } = meetingLine(
      meeting,
      doc.folds[folds[k]]!.id,
      turns[k],
      turns[1 - k]!,
      turn,
    );
    const { bend, setbackMm } = bends[folds[k]]!;
    // Height up the wall is told from the sharp corner; on the card from the fold's line.
    const offMm = outsideSharp(bend) - setbackMm;
    return {
      origin: along(origin, outs[k], -sharp[k]),
      toCorner: k === 0 ? ways[0] : scale(ways[1], -1),
      outward: outs[k],
      line: { atMm: atMm + slope * offMm, slope },
    };
  };
  const other = (i: number) => {
    const { parent, child } = tree.sidesOfFold[i]!;
    return parent === face ? child : parent;
  };
  return {
    folds,
    walls: [other(folds[0]), other(folds[1])],
    meeting,
    limits: [limit(0), limit(1)],
  };
}

/** From the tangent to the outside sharp corner, mm, however far it is turned. */
const outsideSharp = ({ thicknessMm, radiusMm, angleDeg }: Bend): number =>
  (thicknessMm + radiusMm) * setbackFactor(Math.min(angleDeg, FLAT_DEG));

/** Where a wall ends by how the two are joined; `atMm` at the height of the outside sharp corner. */
function meetingLine(
  { kind, over, gapMm }: FoldMeeting,
  own: string,
  turn: StripTurn,
  other: StripTurn,
  turnRad: number,
): LeaningEnd {
  const inner = endLine(turn, other, turnRad, 'inner', 'inner');
  const outer = endLine(turn, other, turnRad, 'outer', 'outer');
  // Two ends that part by s each along their folds stand 2·s·cos(turn/2) apart.
  const apart = gapMm / (2 * Math.cos(turnRad / 2));
  const less = (end: LeaningEnd, mm: number): LeaningEnd => ({ ...end, atMm: end.atMm - mm });
  switch (kind) {
    case 'touch':
    case 'as-drawn':
      return less(inner, apart);
    case 'mitred':
      return less(outer, apart);
    case 'overlap': {
      if (over === own) return outer;
      // All of its end, inside and outside, behind the inner face of the other.
      const behind = endLine(turn, other, turnRad, 'outer', 'inner');
      const nearer = inner.atMm < behind.atMm ? inner : behind;
      return less(nearer, gapMm / Math.sin(turnRad));
    }
  }
}

/**
 * A wall without what lies beyond a line; null where nothing does, or where what bounds it there is
 * no side (a tab that is folded on is its maker's own).
 */
function cutWall(
  pieces: readonly Piece[],
  fold: number,
  atEnd: boolean,
  { origin, toCorner, outward, line: end }: Limit,
): { pieces: Piece[]; lostMm: number } | null {
  const beside = besideFold(pieces, fold, atEnd);
  if (beside?.kind !== 'side') return null;
  const tangent = pieces.findIndex((p) => p.kind === 'tangent' && p.fold === fold);
  const p0 = along(origin, toCorner, end.atMm);
  const way = unit([outward[0] + end.slope * toCorner[0], outward[1] + end.slope * toCorner[1]]);
  const beyond = (p: Vec) => {
    const off = sub(p, p0);
    return dot(off, toCorner) - end.slope * dot(off, outward);
  };
  const cuts = pieces.flatMap(({ segment }, piece) => {
    const hits = isStraight(segment)
      ? straightCrossing(beyond(segment.a), beyond(segment.b))
      : crossingsWithLine(segment, p0, way).filter((at) => at < 1 - ROUNDING);
    return hits.map((at) => ({ piece, at }));
  });
  if (cuts.length !== 2) return null;
  // What is kept runs from where the wall comes back inside the line to where it leaves it.
  const comesBack = ({ piece, at }: (typeof cuts)[number]) =>
    beyond(pointAt(pieces[piece]!.segment, (at + 1) / 2)) < 0;
  const [back, leaves] = comesBack(cuts[0]!) ? [cuts[0]!, cuts[1]!] : [cuts[1]!, cuts[0]!];
  const [from, to] = [back, leaves].map(({ piece, at }) => pointAt(pieces[piece]!.segment, at)) as [
    Vec,
    Vec,
  ];
  const kept = [
    ...partOf(pieces[back.piece]!, back.at, back.piece === leaves.piece ? leaves.at : 1),
    ...(back.piece === leaves.piece
      ? []
      : [
          ...between(pieces, back.piece, leaves.piece),
          ...partOf(pieces[leaves.piece]!, 0, leaves.at),
        ]),
  ];
  // No fold is cut away for a corner.
  const folds = (all: readonly Piece[]) => all.filter(({ kind }) => kind === 'tangent').length;
  if (folds(kept) !== folds(pieces)) return null;
  const own = kept.find((p) => p.kind === 'tangent' && p.fold === fold)!;
  const { a, b } = pieces[tangent]!.segment;
  const lostMm = distance(a, b) - distance(own.segment.a, own.segment.b);
  return {
    pieces: [...kept, { kind: 'side', side: beside.side, segment: line(to, from) }],
    lostMm,
  };
}

/** What bounds a wall beside its fold at a corner: at the end of the fold's run on the face, or its start. */
function besideFold(pieces: readonly Piece[], fold: number, atEnd: boolean): Piece | undefined {
  const n = pieces.length;
  const tangent = pieces.findIndex((p) => p.kind === 'tangent' && p.fold === fold);
  // A wall runs the other way along the fold than the face it stands on.
  return tangent < 0 ? undefined : pieces[(tangent + (atEnd ? n - 1 : 1)) % n];
}

const partOf = (piece: Piece, from: number, to: number): Piece[] =>
  to - from > ROUNDING ? [{ ...piece, segment: part(piece.segment, from, to) }] : [];

/** The pieces after one and before another, going round. */
function between(pieces: readonly Piece[], from: number, to: number): Piece[] {
  const n = pieces.length;
  const count = (to - from - 1 + n) % n;
  return Array.from({ length: count }, (_, k) => pieces[(from + 1 + k) % n]!);
}

const straightCrossing = (a: number, b: number): number[] =>
  a > 0 === b > 0 || a === b ? [] : [a / (a - b)];
