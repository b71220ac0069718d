import type { BeadLine } from '../../card/beadPath';
import { chordOf } from '../../card/foldPlace';
import type { Spot } from '../../card/outline';
import { outlineOf, pointOfSpot, segmentOfSide } from '../../card/outline';
import type { Fold, PatternDoc, Place, Side } from '../../card/pattern';
import { nearestOnRun, runLength } from '../../measure/run';
import type { Segment } from '../../measure/segment';
import {
  bulgeThrough,
  crossingsWithLine,
  directionAt,
  isStraight,
  nearest,
  part,
  pointAt,
  segmentLength,
} from '../../measure/segment';
import { ROUNDING_MM, SAME_PLACE_MM } from '../../measure/tolerance';
import type { Vec } from '../../measure/vector';
import { add, along, dot, left, right, scale, sub } from '../../measure/vector';

/** Metal that a bead draws in, mm, over its width on the card. */
export type Draw = { bead: string; line: BeadLine; widthMm: number; addsMm: number };

/**
 * Length over which the draw-in fades out beyond the end of a bead that stops inside the card, in
 * bead widths (common practice).
 */
const RUN_OUT_WIDTHS = 3;

/**
 * A card with the metal in it that its beads draw in: whatever lies beyond a bead, seen from the
 * place that stays put, moves away from it by the draw-in, across its width in proportion. Where a
 * bead stops inside, what is beyond it only moves beside it, running out behind its end. Each bead
 * counts from the untouched card, so that no order can matter.
 *
 * `stays` is a place that does not move. `carry` says where a place of the card comes to.
 */
export function enlarged(
  doc: PatternDoc,
  draws: readonly Draw[],
  stays: Vec,
): { doc: PatternDoc; carry: (p: Vec) => Vec } {
  // In the order of their ids, so that the corners put in are the same however they are listed.
  const wanted = draws
    .filter(({ addsMm }) => addsMm > ROUNDING_MM)
    .sort((a, b) => (a.bead < b.bead ? -1 : 1));
  if (wanted.length === 0) return { doc, carry: (p) => p };
  const moves = wanted.map((draw) => moveOf(draw, stays, doc));
  const carry = (p: Vec): Vec => moves.reduce((to, move) => add(to, move.of(p)), p);
  const { doc: parted, partsOf } = partedAt(
    doc,
    moves.flatMap(({ rays }) => rays),
  );
  const corners = parted.corners.map((corner) => {
    const [x, y] = carry([corner.x, corner.y]);
    return { ...corner, x, y };
  });
  const grown = { ...parted, corners };
  return {
    carry,
    doc: {
      ...grown,
      folds: doc.folds.map((fold) => carriedFold(doc, grown, fold, carry, partsOf)),
      holes: parted.holes.map((hole) => {
        const [x, y] = carry([hole.x, hole.y]);
        return { ...hole, x, y };
      }),
      marks: parted.marks.map((mark) => ({
        ...mark,
        from: [...carry(mark.from)],
        to: [...carry(mark.to)],
      })),
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
  /**
   * How a place lies to the bead, drawn out straight beyond its ends: to its right, beyond an end,
   * and the way across.
   */
  const beside = (
    p: Vec,
  ): { rightMm: number; beyondMm: number; end: 0 | 1 | null; across: Vec } => {
    const found = nearestOnRun(run, p)!;
    const at = found.alongMm <= ROUNDING_MM ? 0 : found.alongMm >= long - ROUNDING_MM ? 1 : null;
    if (at === null)
      return { rightMm: found.rightMm, beyondMm: 0, end: null, across: right(found.way) };
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
  // Where the outline beyond a bead that stops inside begins to move, and where it has moved all
  // the way.
  const rays = ends.flatMap(([from, way], i): Ray[] => {
    if (out[i as 0 | 1]) return [];
    const across = scale(i === 0 ? left(way) : right(way), side);
    return [0, away].map((by, k) => ({
      from: along(from, way, by),
      way: across,
      id: `${bead}~${i}${k}`,
    }));
  });
  return { of, rays };
}

type Ray = { from: Vec; way: Vec; id: string };

/** Two corners are no nearer to each other than this, mm. */
const CORNERS_APART_MM = 0.01;

/**
 * A card with a corner where each ray first meets its rim, unless there is one; `partsOf` names the
 * sides that a side was parted into, in outline order. All are found on the untouched card.
 */
function partedAt(
  doc: PatternDoc,
  rays: readonly Ray[],
): { doc: PatternDoc; partsOf: (side: string) => readonly string[] } {
  const { path, sideIds } = outlineOf(doc);
  const hits = new Map<string, { at: number; id: string }[]>();
  for (const { from, way, id } of rays) {
    let best: { mm: number; side: string; at: number; long: number } | null = null;
    path.forEach((s, i) => {
      for (const at of crossingsWithLine(s, from, way)) {
        const mm = dot(sub(pointAt(s, at), from), way);
        if (mm > SAME_PLACE_MM && (!best || mm < best.mm))
          best = { mm, side: sideIds[i]!, at, long: segmentLength(s) };
      }
    });
    if (!best) continue;
    const { side, at, long } = best as { side: string; at: number; long: number };
    const here = hits.get(side) ?? [];
    const near = (other: number) => Math.abs(other - at) * long < CORNERS_APART_MM;
    if (near(0) || near(1) || here.some((one) => near(one.at))) continue;
    hits.set(side, [...here, { at, id }]);
  }
  if (hits.size === 0) return { doc, partsOf: (side) => [side] };
  const parts = new Map<string, string[]>();
  // The datum corner stays first.
  const corners = [...doc.corners];
  const sides = doc.sides.flatMap((given, i): Side[] => {
    const cuts = [...(hits.get(given.id) ?? [])].sort((a, b) => a.at - b.at);
    if (cuts.length === 0) return [given];
    const made = cuts.map(({ at, id }) => {
      const [x, y] = pointAt(path[i]!, at);
      return { id: `${id}c`, x, y };
    });
    corners.push(...made);
    const ids = [given.id, ...cuts.map(({ id }) => `${id}s`)];
    parts.set(given.id, ids);
    const stops = [0, ...cuts.map(({ at }) => at), 1];
    const ends = [given.from, ...made.map(({ id }) => id), given.to];
    return ids.map((id, k): Side => {
      const { bulge } = part(path[i]!, stops[k]!, stops[k + 1]!);
      return {
        id,
        from: ends[k]!,
        to: ends[k + 1]!,
        shape: given.shape.kind === 'line' ? given.shape : { kind: 'arc', bulge },
      };
    });
  });
  const partsOf = (side: string) => parts.get(side) ?? [side];
  return {
    doc: {
      ...doc,
      corners,
      sides,
      edges: doc.edges.map((edge) => ({ ...edge, sides: edge.sides.flatMap(partsOf) })),
    },
    partsOf,
  };
}

/** A fold between the places that its two ends come to. */
function carriedFold(
  doc: PatternDoc,
  grown: PatternDoc,
  fold: Fold,
  carry: (p: Vec) => Vec,
  partsOf: (side: string) => readonly string[],
): Fold {
  const chord = chordOf(doc, fold);
  if (!chord) return fold;
  const placed = ({ side, at }: Spot): Place => {
    const ids = partsOf(side);
    if (at === 0 || at === 1) return { side: ids.at(at === 0 ? 0 : -1)!, share: at };
    const to = carry(pointOfSpot(doc, { side, at })!);
    const found = ids.map((id) => ({ id, ...nearest(segmentOfSide(grown, id)!, to) }));
    const best = found.reduce((a, b) => (b.distance < a.distance ? b : a));
    return { side: best.id, share: best.at };
  };
  return { ...fold, path: { kind: 'between', from: placed(chord.from), to: placed(chord.to) } };
}

/** A run with each of its ends and middles carried: lines stay lines, arcs arcs. */
export const carriedRun = (run: readonly Segment[], carry: (p: Vec) => Vec): Segment[] =>
  run.map((s): Segment => {
    const [a, b] = [carry(s.a), carry(s.b)];
    return { a, b, bulge: isStraight(s) ? 0 : bulgeThrough(a, carry(pointAt(s, 0.5)), b) };
  });
