import type { Result } from '../measure/result';
import { failure, stop } from '../measure/result';
import type { Vec } from '../measure/vector';
import { emptyPattern } from './emptyPattern';
import type { NewId } from './kinds';
import { letterAt } from './outline';
import type { Edge, PatternDoc } from './pattern';

/** Halvings of the span in which the circle is looked for: as far as doubles tell apart. */
const HALVINGS = 200;

/**
 * The circle on which the corners of a polygon of these sides lie: t = 1/(2R), 1/mm, and whether its
 * centre lies inside. A side of length l subtends 2·asin(l·t) at the centre. With the centre inside
 * the half angles add up to π; else the longest side subtends as much as all others together.
 *
 * Source: elementary geometry; that there is exactly one such circle: D. S. Macnab, Cyclic polygons
 * and related questions, The Mathematical Gazette 65 (1981), from memory.
 */
function circleThrough(lengthsMm: readonly number[]): { t: number; inside: boolean } {
  const longest = Math.max(...lengthsMm);
  const half = (l: number, t: number) => Math.asin(Math.min(1, l * t));
  const sum = (t: number) => lengthsMm.reduce((all, l) => all + half(l, t), 0);
  const inside = sum(1 / longest) >= Math.PI;
  // Inside: rises with t. Outside: the others less the longest is positive for a small t, as they
  // are longer together, and not at the largest.
  const enough = inside
    ? (t: number) => sum(t) >= Math.PI
    : (t: number) => sum(t) - 2 * half(longest, t) <= 0;
  let [low, high] = [0, 1 / longest];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (enough(middle)) high = middle;
    else low = middle;
  }
  return { t: high, inside };
}

/**
 * Corners of a polygon with sides of given lengths, mm, the one way that a length alone can be
 * drawn: its corners on a circle (three sides: the triangle; opposite sides alike: a rectangle). Side
 * i runs from corner i to corner i+1, clockwise; the longest lies level, the first on the left or on
 * top.
 *
 * Problems (stop): `lengths-few` for fewer than three; `lengths-none` (about: what it is called) for one
 * that is no length; `lengths-open` (about: as before) where the longest is no shorter than all
 * others together, so that they meet nowhere.
 */
function polygonOfLengths(
  lengthsMm: readonly number[],
  called: (side: number) => string = letterAt,
): Result<{ corners: Vec[] }> {
  if (lengthsMm.length < 3) return failure(stop('lengths-few', []));
  const bad = lengthsMm.findIndex((l) => !(l > 0 && Number.isFinite(l)));
  if (bad >= 0) return failure(stop('lengths-none', [called(bad)]));
  const longest = Math.max(...lengthsMm);
  const at = lengthsMm.indexOf(longest);
  const restMm = lengthsMm.reduce((sum, l) => sum + l, 0) - longest;
  // Nearly as long as the others together is a line and no outline.
  if (longest > restMm * (1 - MIN_SLACK))
    return failure(stop('lengths-open', [called(at)], { longestMm: longest, restMm }));
  const { t, inside } = circleThrough(lengthsMm);
  const radius = 1 / (2 * t);
  const corners: Vec[] = [];
  let turned = 0;
  for (const [i, l] of lengthsMm.entries()) {
    corners.push([radius * Math.cos(turned), -radius * Math.sin(turned)]);
    const spans = 2 * Math.asin(Math.min(1, l * t));
    turned += i === at && !inside ? -spans : spans;
  }
  return { ok: true, corners: laidLevel(corners, at) };
}

/** What all other sides have to be longer by than the longest, as a share of them. */
const MIN_SLACK = 0.002;

/** Corners turned so that a side lies level and the first lies on the left or on top, from 0, 0. */
function laidLevel(corners: readonly Vec[], level: number): Vec[] {
  const side = (i: number): [Vec, Vec] => [corners[i]!, corners[(i + 1) % corners.length]!];
  const [a, b] = side(level);
  const along = Math.atan2(b[1] - a[1], b[0] - a[0]);
  const turn = (by: number) =>
    corners.map(([x, y]): Vec => [
      x * Math.cos(by) - y * Math.sin(by),
      x * Math.sin(by) + y * Math.cos(by),
    ]);
  const moved = (all: Vec[]) => {
    const [x, y] = [Math.min(...all.map((p) => p[0])), Math.min(...all.map((p) => p[1]))];
    return all.map((p): Vec => [p[0] - x, p[1] - y]);
  };
  const [way, other] = [moved(turn(-along)), moved(turn(Math.PI - along))];
  // The middle of the first side: farther up and to the left is before.
  const before = (all: Vec[]) => all[0]![0] + all[1]![0] - (all[0]![1] + all[1]![1]);
  return before(way) <= before(other) ? way : other;
}

/** An edge of a piece that has no card: its id, letter, length, mm, and how it is joined. */
export type LengthEdge = Pick<Edge, 'id' | 'letter' | 'joint' | 'was'> & { lengthMm: number };

/**
 * The card of a piece of which only the lengths of its edges are known, in order, clockwise as one
 * looks at its face: edges with the ids and letters they have, on an outline that is drawn because the
 * piece has to be shown, and is no shape to cut by (`source`).
 *
 * Problems: those of `polygonOfLengths`.
 */
export function cardFromLengths(
  edges: readonly LengthEdge[],
  newId: NewId,
): Result<{ doc: PatternDoc }> {
  const found = polygonOfLengths(
    edges.map(({ lengthMm }) => lengthMm),
    (i) => edges[i]!.letter,
  );
  if (!found.ok) return found;
  // The outline of a card runs counter-clockwise: from the last edge to the first.
  const n = edges.length;
  const corners = found.corners.map(([x, y]) => ({ id: newId(), x, y }));
  const sides = edges.map((_, i) => ({
    id: newId(),
    from: corners[(i + 1) % n]!.id,
    to: corners[i]!.id,
    shape: { kind: 'line' as const },
  }));
  return {
    ok: true,
    doc: {
      ...emptyPattern(),
      source: 'lengths',
      corners: corners.reverse(),
      sides: [...sides].reverse(),
      edges: edges
        .map(({ lengthMm: _, ...edge }, i) => ({ ...edge, sides: [sides[i]!.id] }))
        .reverse(),
    },
  };
}
