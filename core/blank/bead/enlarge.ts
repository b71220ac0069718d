import type { BeadLine } from '../../card/beadPath';
import { splitSide } from '../../card/edit';
import { chordOf } from '../../card/foldPlace';
import { outlineOf, pointOfSpot, segmentOfSide, spotNearest } from '../../card/outline';
import type { Fold, PatternDoc, Place } from '../../card/pattern';
import { nearestOnRun, runLength } from '../../measure/run';
import type { Segment } from '../../measure/segment';
import { bulgeThrough, crossingsWithLine, directionAt, isStraight, nearest, pointAt } from '../../measure/segment';
import { ROUNDING_MM, SAME_PLACE_MM } from '../../measure/tolerance';
import type { Vec } from '../../measure/vector';
import { add, along, dot, left, right, scale, sub } from '../../measure/vector';

/** Metal that a bead draws in, mm, over its width on the card. */
export type Draw = { bead: string; line: BeadLine; widthMm: number; addsMm: number };

/** Beyond the end of a bead that stops inside the card what it draws in runs out over so many widths (common practice). */
const RUN_OUT_WIDTHS = 3;

/**
 * A card with the metal in it that its beads draw in: whatever lies beyond a bead, seen from the place that stays put, moves
 * away from it by so much, across its width evenly less. Where a bead stops inside, what is beyond it only moves beside it,
 * running out behind its end. Each bead counts from the untouched card, so that no order can matter.
 *
 * `stays` is a place that does not move. `carry` says where a place of the card comes to.
 */
export function enlarged(
  doc: PatternDoc,
  draws: readonly Draw[],
  stays: Vec,
): { doc: PatternDoc; carry: (p: Vec) => Vec } {
  // In the order of their ids, so that the corners put in are the same however they are listed.
  const wanted = draws.filter(({ addsMm }) => addsMm > ROUNDING_MM).sort((a, b) => (a.bead < b.bead ? -1 : 1));
  if (wanted.length === 0) return { doc, carry: (p) => p };
  const moves = wanted.map((draw) => moveOf(draw, stays, doc));
  const carry = (p: Vec): Vec => moves.reduce((to, move) => add(to, move.of(p)), p);
  const parted = moves.reduce((of, move) => move.parted(of), doc);
  const corners = parted.corners.map((corner) => {
    const [x, y] = carry([corner.x, corner.y]);
    return { ...corner, x, y };
  });
  const grown = { ...parted, corners };
  return {
    carry,
    doc: {
      ...grown,
      folds: parted.folds.map((fold) => carriedFold(parted, grown, fold, carry)),
      holes: parted.holes.map((hole) => {
        const [x, y] = carry([hole.x, hole.y]);
        return { ...hole, x, y };
      }),
      marks: parted.marks.map((mark) => ({ ...mark, from: [...carry(mark.from)], to: [...carry(mark.to)] })),
      base: [...carry(parted.base ?? stays)],
    },
  };
}

function moveOf({ bead, line: { run, out }, widthMm, addsMm }: Draw, stays: Vec, doc: PatternDoc) {
  const long = runLength(run);
  const away = widthMm * RUN_OUT_WIDTHS;
  const [start, end] = [run[0]!, run[run.length - 1]!];
  const ends: [Vec, Vec][] = [
    [start.a, scale(directionAt(start, 0), -1)],
    [end.b, directionAt(end, 1)],
  ];
  const rightOf = (p: Vec) => beside(p).rightMm;
  /** How a place lies to the bead, drawn out straight beyond its ends: to its right, beyond an end, and the way across. */
  const beside = (p: Vec): { rightMm: number; beyondMm: number; end: 0 | 1 | null; across: Vec } => {
    const found = nearestOnRun(run, p)!;
    const at = found.alongMm <= ROUNDING_MM ? 0 : found.alongMm >= long - ROUNDING_MM ? 1 : null;
    if (at === null) return { rightMm: found.rightMm, beyondMm: 0, end: null, across: right(found.way) };
    const [from, way] = ends[at]!;
    const off = sub(p, from);
    const across = at === 0 ? left(way) : right(way);
    return { rightMm: dot(off, across), beyondMm: Math.max(0, dot(off, way)), end: at, across };
  };
  // On the bead itself: away from the datum corner, which turning the card over keeps.
  const first = doc.corners[0]!;
  const aside = rightOf(stays);
  const sided = Math.abs(aside) > SAME_PLACE_MM ? aside : rightOf([first.x, first.y]);
  const side = sided > 0 ? -1 : 1;
  const of = (p: Vec): Vec => {
    const { rightMm, beyondMm, end: at, across } = beside(p);
    const share = Math.min(1, Math.max(0, (rightMm * side + widthMm / 2) / widthMm));
    const left = at === null || out[at] ? 1 : Math.max(0, 1 - beyondMm / away);
    return scale(across, side * addsMm * share * left);
  };
  /** Corners where the outline beyond a bead that stops inside begins to move, and where it has moved all the way. */
  const parted = (card: PatternDoc): PatternDoc =>
    ends.reduce((now, [from, way], i) => {
      if (out[i as 0 | 1]) return now;
      const across = scale(i === 0 ? left(way) : right(way), side);
      return [0, away].reduce(
        (found, by, k) => cornerAt(found, along(from, way, by), across, `${bead}~${i}${k}`),
        now,
      );
    }, card);
  return { of, parted };
}

/** A card with a corner where a ray first meets its rim, unless there is one. */
function cornerAt(doc: PatternDoc, from: Vec, way: Vec, id: string): PatternDoc {
  const { path } = outlineOf(doc);
  const hits = path.flatMap((s) => crossingsWithLine(s, from, way).map((t) => dot(sub(pointAt(s, t), from), way)));
  const ahead = Math.min(...hits.filter((mm) => mm > SAME_PLACE_MM));
  const near = Number.isFinite(ahead) ? spotNearest(doc, along(from, way, ahead)) : null;
  let more = 0;
  const split = near ? splitSide(doc, near.spot.side, near.spot.at, () => `${id}${'cs'[more++]}`) : null;
  return split?.ok ? split.doc : doc;
}

/** A fold between the places that its two ends come to. */
function carriedFold(doc: PatternDoc, grown: PatternDoc, fold: Fold, carry: (p: Vec) => Vec): Fold {
  const chord = chordOf(doc, fold);
  if (!chord) return fold;
  const placed = ({ side, at }: { side: string; at: number }): Place => {
    const segment = segmentOfSide(grown, side)!;
    const share = at === 0 || at === 1 ? at : nearest(segment, carry(pointOfSpot(doc, { side, at })!)).at;
    return { side, share };
  };
  return { ...fold, path: { kind: 'between', from: placed(chord.from), to: placed(chord.to) } };
}

/** A run with each of its ends and middles carried: lines stay lines, arcs arcs. */
export const carriedRun = (run: readonly Segment[], carry: (p: Vec) => Vec): Segment[] =>
  run.map((s): Segment => {
    const [a, b] = [carry(s.a), carry(s.b)];
    return { a, b, bulge: isStraight(s) ? 0 : bulgeThrough(a, carry(pointAt(s, 0.5)), b) };
  });
