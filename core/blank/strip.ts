import { ramp } from '../measure/ramp';
import { besideRun } from '../measure/run';
import type { Segment } from '../measure/segment';
import {
  carriersMeet,
  directionAt,
  isStraight,
  line,
  nearest,
  offsetRight,
  part,
  pointAt,
  segmentLength,
  withEnds,
} from '../measure/segment';
import { ROUNDING_MM } from '../measure/tolerance';
import type { Vec } from '../measure/vector';
import { add, along, cross, distance, dot, right, scale } from '../measure/vector';

/**
 * How far a piece of the outline is moved outward, mm, at its end too where that is another, and
 * whether that strip is folded over.
 */
export type Strip = { addMm: number; endMm?: number; folded: boolean };

const atEnd = (strip: Strip): Strip => ({
  addMm: strip.endMm ?? strip.addMm,
  folded: strip.folded,
});

/** Corners sharper than this reach are cut square across instead of being drawn out to a spike. */
const MITRE_LIMIT = 3;
/** Ends of a strip that is folded over are clipped at this angle to its edge, radians. */
const CLIP = Math.PI / 4;
/** In a hollow corner each of two strips takes this share of the angle between the edges. */
const SHARE = 0.45;
/** Shorter pieces are none, mm. */
const NOTHING_MM = 1e-9;
/** Neighbours within this sine of running straight on are stepped, not mitred. */
const STRAIGHT_ON = 0.17;

/**
 * Moves each piece of a closed counter-clockwise outline outward by its own amount and joins them
 * again: mitred where two strips meet at a corner, stepped where a strip ends on a straight run,
 * and clipped at 45° where one is folded. Pieces with nothing to add stay where they are but are
 * lengthened or cut back to meet their neighbours.
 */
export function outlineWithStrips<P extends { segment: Segment }>(
  all: readonly P[],
  stripOf: (piece: P) => Strip,
  make: (segment: Segment, beside: P) => P,
): P[] {
  // A piece of no length (the end of a bend of no radius) has no direction to be moved in.
  const pieces = all.filter(
    ({ segment: { a, b, bulge } }) => bulge !== 0 || distance(a, b) > NOTHING_MM,
  );
  const strips = pieces.map(stripOf);
  if (strips.every((s) => s.addMm === 0 && !s.endMm)) return [...pieces];
  const n = pieces.length;
  const corners = pieces.map((piece, i) => {
    const before = pieces[(i - 1 + n) % n]!.segment;
    return join(before, atEnd(strips[(i - 1 + n) % n]!), piece.segment, strips[i]!);
  });
  return pieces.flatMap((piece, i) => {
    const start = corners[i]!;
    const end = corners[(i + 1) % n]!;
    const moved = movedOut(piece.segment, strips[i]!, start[start.length - 1]!, end[0]!);
    const link = start.slice(1).map((p, k) => make(line(start[k]!, p), piece));
    return [...link, ...moved.map((segment) => ({ ...piece, segment }))].filter(
      (p) => distance(p.segment.a, p.segment.b) > ROUNDING_MM || p.segment.bulge !== 0,
    );
  });
}

/**
 * A piece moved out, from one corner to the next; in several where the distance changes along an
 * arc.
 */
function movedOut(s: Segment, { addMm, endMm = addMm }: Strip, from: Vec, to: Vec): Segment[] {
  if (addMm === endMm) return [withEnds(offsetRight(s, addMm), from, to)];
  if (isStraight(s)) return [line(from, to)];
  const [start, end] = [nearest(s, from).at, nearest(s, to).at];
  if (!(end > start)) return [line(from, to)];
  const off = (t: number) => addMm + (endMm - addMm) * t;
  const run = besideRun([part(s, start, end)], ramp(off(start), off(end)));
  return run.map((piece, i) =>
    withEnds(piece, i === 0 ? from : piece.a, i === run.length - 1 ? to : piece.b),
  );
}

/**
 * The corner points between one moved piece and the next: one for a mitre, more for a step or a
 * clip.
 */
function join(s: Segment, first: Strip, r: Segment, second: Strip): Vec[] {
  const v = r.a;
  if (first.addMm === 0 && second.addMm === 0) return [v];
  const d1 = directionAt(s, 1);
  const d2 = directionAt(r, 0);
  const out1 = along(v, right(d1), first.addMm);
  const out2 = along(v, right(d2), second.addMm);
  const straightOn = Math.abs(cross(d1, d2)) < STRAIGHT_ON && dot(d1, d2) > 0;
  if (first.folded || second.folded) {
    if (first.folded && second.folded && straightOn) return [mean(out1, out2)];
    const turn = Math.atan2(cross(d1, d2), dot(d1, d2));
    const hollow = turn < 0 && !straightOn;
    // In a hollow corner the strips share the room between the edges, with a wedge left free so
    // that neither fouls.
    const back = 1 / Math.tan(hollow ? Math.min(CLIP, SHARE * (Math.PI + turn)) : CLIP);
    const clipped = (strip: Strip) => strip.addMm > 0 && (strip.folded || hollow);
    // Half the edge at most: its other end may be clipped too. In a hollow corner the strip is then
    // cut lower instead, for the angle is what keeps it clear.
    const corner = (strip: Strip, of: Segment, atItsEnd: boolean): Vec => {
      const lengthMm = segmentLength(of);
      const wanted = strip.addMm * back;
      const taken = Math.min(wanted, lengthMm / 2);
      const height = hollow ? (strip.addMm * taken) / wanted : strip.addMm;
      const share = atItsEnd ? 1 - taken / lengthMm : taken / lengthMm;
      return along(pointAt(of, share), right(directionAt(of, share)), height);
    };
    // Where metal is taken away instead the corner itself is gone.
    const middle = first.addMm < 0 || second.addMm < 0 ? [] : [v];
    const from = clipped(first) ? [corner(first, s, true)] : first.addMm !== 0 ? [out1] : [];
    const to = clipped(second) ? [corner(second, r, false)] : second.addMm !== 0 ? [out2] : [];
    return [...from, ...middle, ...to];
  }
  if (straightOn) {
    return Math.abs(first.addMm - second.addMm) < ROUNDING_MM ? [mean(out1, out2)] : [out1, out2];
  }
  const most = Math.abs(first.addMm) > Math.abs(second.addMm) ? first.addMm : second.addMm;
  const near = add(v, scale(add(right(d1), right(d2)), most));
  const doubledBack = Math.abs(cross(d1, d2)) < STRAIGHT_ON;
  const mitre = doubledBack
    ? null
    : carriersMeet(offsetRight(s, first.addMm), offsetRight(r, second.addMm), near);
  const reach = MITRE_LIMIT * Math.abs(most);
  return mitre && distance(mitre, v) <= reach ? [mitre] : [out1, out2];
}

const mean = (a: Vec, b: Vec): Vec => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
