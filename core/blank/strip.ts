import type { Segment } from '../measure/segment';
import { carriersMeet, directionAt, line, offsetRight, segmentLength, withEnds } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { add, along, cross, distance, dot, right, scale } from '../measure/vector';

/** How far a piece of the outline is moved outward, mm, and whether that strip is folded over. */
export type Strip = { addMm: number; folded: boolean };

/** Corners sharper than this reach are cut square across instead of being drawn out to a spike. */
const MITRE_LIMIT = 3;
/** Neighbours within this sine of running straight on are stepped, not mitred. */
const STRAIGHT_ON = 0.17;

/**
 * Moves each piece of a closed counter-clockwise outline outward by its own amount and joins them again: mitred where
 * two strips meet at a corner, stepped where a strip ends on a straight run, and clipped at 45° where one is folded.
 * Pieces with nothing to add stay where they are but are lengthened or cut back to meet their neighbours.
 */
export function outlineWithStrips<P extends { segment: Segment }>(
  pieces: readonly P[],
  stripOf: (piece: P) => Strip,
  make: (segment: Segment, beside: P) => P,
): P[] {
  const strips = pieces.map(stripOf);
  if (strips.every((s) => s.addMm === 0)) return [...pieces];
  const n = pieces.length;
  const corners = pieces.map((piece, i) => {
    const before = pieces[(i - 1 + n) % n]!.segment;
    return join(before, strips[(i - 1 + n) % n]!, piece.segment, strips[i]!);
  });
  return pieces.flatMap((piece, i) => {
    const start = corners[i]!;
    const end = corners[(i + 1) % n]!;
    const moved = withEnds(offsetRight(piece.segment, strips[i]!.addMm), start[start.length - 1]!, end[0]!);
    const link = start.slice(1).map((p, k) => make(line(start[k]!, p), piece));
    return [...link, { ...piece, segment: moved }].filter(
      (p) => distance(p.segment.a, p.segment.b) > 1e-9 || p.segment.bulge !== 0,
    );
  });
}

/** The corner points between one moved piece and the next: one for a mitre, more for a step or a clip. */
function join(s: Segment, first: Strip, r: Segment, second: Strip): Vec[] {
  const v = r.a;
  if (first.addMm === 0 && second.addMm === 0) return [v];
  const d1 = directionAt(s, 1);
  const d2 = directionAt(r, 0);
  const out1 = along(v, right(d1), first.addMm);
  const out2 = along(v, right(d2), second.addMm);
  if (first.folded || second.folded) {
    const back = Math.min(first.addMm, segmentLength(s) / 2);
    const on = Math.min(second.addMm, segmentLength(r) / 2);
    const from = first.folded ? [along(out1, d1, -back), v] : first.addMm > 0 ? [out1, v] : [v];
    const to = second.folded ? [along(out2, d2, on)] : second.addMm > 0 ? [out2] : [];
    if (first.folded && second.folded && Math.abs(cross(d1, d2)) < STRAIGHT_ON && dot(d1, d2) > 0)
      return [mean(out1, out2)];
    return [...from, ...to];
  }
  const straightOn = Math.abs(cross(d1, d2)) < STRAIGHT_ON;
  if (straightOn && dot(d1, d2) > 0) {
    return Math.abs(first.addMm - second.addMm) < 1e-9 ? [mean(out1, out2)] : [out1, out2];
  }
  const near = add(v, scale(add(right(d1), right(d2)), Math.max(first.addMm, second.addMm)));
  const mitre = straightOn ? null : carriersMeet(offsetRight(s, first.addMm), offsetRight(r, second.addMm), near);
  const reach = MITRE_LIMIT * Math.max(first.addMm, second.addMm);
  return mitre && distance(mitre, v) <= reach ? [mitre] : [out1, out2];
}

const mean = (a: Vec, b: Vec): Vec => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
