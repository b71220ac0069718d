import { holePolygon, holeReach } from './holeForm';
import { crossingPairs } from '../measure/crossings';
import { boxesOf } from '../measure/intersect';
import type { Path } from '../measure/path';
import { area, distanceToPolygon, inside } from '../measure/path';
import type { Problem } from '../measure/result';
import { care, fewOfAKind, stop } from '../measure/result';
import type { Segment } from '../measure/segment';
import { line, segmentLength, segmentsCross } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { distance, mix } from '../measure/vector';
import { BASE_REACH_MM, facesOf } from './faces';
import { endsOfFold } from './foldPlace';
import { outlineOf } from './outline';
import type { Fold, Hole, PatternDoc } from './pattern';

/** How much of a fold's length at either end is left out when it is tested against the outline. */
const CLEAR_OF_ENDS = 0.005;

/**
 * No more crossings, and no more pairs of holes, are looked for than this: nobody mends them one by
 * one.
 */
const MAX_FOUND = 200;

/** Shorter sides than this are taken as a slip of the hand, mm. */
const SHORTEST_SIDE_MM = 0.01;

/**
 * Everything that is wrong or doubtful on a card, worst first. Nothing is thrown away: a card with
 * `stop` problems can be kept and mended, but has no blank. Of many of a kind the first few are
 * told, and how many more were found.
 *
 * Stop: `outline-presumed` (only the lengths of its edges are known), `outline-empty`, `outline-not-closed`, `side-zero`, `outline-crosses` (about: two sides),
 * `outline-clockwise`, `fold-off-outline`, `fold-zero`, `fold-leaves-card`, `folds-cross` (about:
 * two folds), `hole-zero`. Care: `card-both-sides` (about: the first fold, then those that
 * contradict it), `hole-outside`, `hole-over-edge` (numbers: overMm), `holes-overlap`,
 * `base-off-card` (the largest face then stays put).
 */
export function checkCard(doc: PatternDoc): Problem[] {
  const outline = checkOutline(doc);
  if (outline.some((p) => p.severity === 'stop')) return fewOfAKind(outline);
  const polygon = outlineOf(doc).polygon();
  const rest = [
    ...checkFolds(doc, polygon),
    ...checkSides(doc),
    ...checkBase(doc, polygon),
    ...checkHoles(doc, polygon),
  ];
  const rank = (p: Problem) => (p.severity === 'stop' ? 0 : 1);
  return fewOfAKind([...outline, ...rest].sort((a, b) => rank(a) - rank(b)));
}

function checkOutline(doc: PatternDoc): Problem[] {
  if (doc.sides.length === 0) return [stop('outline-empty', [])];
  if (doc.source === 'lengths') return [stop('outline-presumed', [])];
  const { path, sideIds } = outlineOf(doc);
  const chained = doc.sides.every(
    (side, i) => side.to === doc.sides[(i + 1) % doc.sides.length]!.from,
  );
  if (path.length !== doc.sides.length || path.length < 2 || !chained)
    return [stop('outline-not-closed', [])];
  const problems = path.flatMap((s, i) =>
    segmentLength(s) < SHORTEST_SIDE_MM
      ? [stop('side-zero', [sideIds[i]!], { lengthMm: segmentLength(s) })]
      : [],
  );
  for (const [i, j] of crossingPairs(path, MAX_FOUND))
    problems.push(stop('outline-crosses', [sideIds[i]!, sideIds[j]!]));
  if (problems.length === 0 && area(path) <= 0) problems.push(stop('outline-clockwise', []));
  return problems;
}

/** Whether a straight segment crosses any of a path, whose boxes rule most of it out. */
function crossesAny(path: Path, boxes: Float64Array, s: Segment): boolean {
  const [minX, maxX] = s.a[0] < s.b[0] ? [s.a[0], s.b[0]] : [s.b[0], s.a[0]];
  const [minY, maxY] = s.a[1] < s.b[1] ? [s.a[1], s.b[1]] : [s.b[1], s.a[1]];
  for (let i = 0; i < path.length; i++) {
    if (
      boxes[4 * i]! > maxX ||
      boxes[4 * i + 2]! < minX ||
      boxes[4 * i + 1]! > maxY ||
      boxes[4 * i + 3]! < minY
    )
      continue;
    if (segmentsCross(path[i]!, s)) return true;
  }
  return false;
}

function checkFolds(doc: PatternDoc, polygon: readonly Vec[]): Problem[] {
  const { path } = outlineOf(doc);
  const boxes = doc.folds.length > 0 ? boxesOf(path) : new Float64Array();
  const problems: Problem[] = [];
  const chords = doc.folds.map((fold) => {
    const [a, b] = endsOfFold(doc, fold) ?? [null, null];
    if (!a || !b) {
      problems.push(stop('fold-off-outline', [fold.id], { offMm: 0 }));
      return null;
    }
    if (distance(a, b) < 1) {
      problems.push(stop('fold-zero', [fold.id], { lengthMm: distance(a, b) }));
      return null;
    }
    const chord = line(a, b);
    const within = [0.25, 0.5, 0.75].every((t) => inside(mix(a, b, t), polygon));
    // A little short of both ends: on an arc they lie off the chords that stand in for it here.
    const inner = line(mix(a, b, CLEAR_OF_ENDS), mix(b, a, CLEAR_OF_ENDS));
    if (!within || crossesAny(path, boxes, inner)) {
      problems.push(stop('fold-leaves-card', [fold.id]));
      return null;
    }
    return chord;
  });
  for (let i = 0; i < chords.length; i++) {
    for (let j = i + 1; j < chords.length; j++) {
      const a = chords[i];
      const b = chords[j];
      if (a && b && segmentsCross(a, b))
        problems.push(stop('folds-cross', [doc.folds[i]!.id, doc.folds[j]!.id]));
    }
  }
  if (problems.length === 0) {
    const faces = facesOf(doc);
    if (!faces.ok) problems.push(...faces.problems);
  }
  return problems;
}

/**
 * A card lies on one face of the metal. On the face that is drawn it is inside of what folds toward
 * you and outside of what folds away; on the back the other way about. The folds that say otherwise
 * than the first are told with it.
 */
function checkSides(doc: PatternDoc): Problem[] {
  const face = ({ toward, convention: made }: Fold) =>
    (toward === 'face') === made.startsWith('inside');
  const [first, ...others] = doc.folds;
  const odd = others.filter((fold) => face(fold) !== face(first!));
  return first && odd.length > 0
    ? [care('card-both-sides', [first.id, ...odd.map((fold) => fold.id)])]
    : [];
}

function checkBase(doc: PatternDoc, polygon: readonly Vec[]): Problem[] {
  const off =
    doc.base !== null &&
    !inside(doc.base, polygon) &&
    distanceToPolygon(doc.base, polygon) > BASE_REACH_MM;
  return off ? [care('base-off-card', [])] : [];
}

function checkHoles(doc: PatternDoc, polygon: readonly Vec[]): Problem[] {
  const alone = doc.holes.flatMap((hole): Problem[] => {
    if (!(hole.diameterMm > 0)) return [stop('hole-zero', [hole.id])];
    const centre = [hole.x, hole.y] as const;
    if (!inside(centre, polygon)) return [care('hole-outside', [hole.id])];
    const overMm = hole.form
      ? reachesOut(hole, polygon)
      : hole.diameterMm / 2 - distanceToPolygon(centre, polygon);
    return overMm > 0 ? [care('hole-over-edge', [hole.id], { overMm })] : [];
  });
  return [...alone, ...overlaps(doc.holes)];
}

/** How far a hole that is not round reaches beyond the outline, mm; 0 where it does not. */
const reachesOut = (hole: Hole, polygon: readonly Vec[]): number =>
  Math.max(
    0,
    ...holePolygon([hole.x, hole.y], hole).map((p) =>
      inside(p, polygon) ? 0 : distanceToPolygon(p, polygon),
    ),
  );

/** Whether two holes lie on each other. */
function holesMeet(hole: Hole, other: Hole): boolean {
  const apart = distance([hole.x, hole.y], [other.x, other.y]);
  if (!hole.form && !other.form) return apart < (hole.diameterMm + other.diameterMm) / 2;
  if (apart >= holeReach(hole) + holeReach(other)) return false;
  const [a, b] = [hole, other].map((one) => holePolygon([one.x, one.y], one)) as [Vec[], Vec[]];
  if (a.some((p) => inside(p, b)) || b.some((p) => inside(p, a))) return true;
  return a.some((p, i) =>
    b.some((q, k) =>
      segmentsCross(line(p, a[(i + 1) % a.length]!), line(q, b[(k + 1) % b.length]!)),
    ),
  );
}

/** Pairs of holes that lie on each other, found by a sweep from left to right. */
function overlaps(holes: readonly Hole[]): Problem[] {
  const order = holes
    .map((hole, i) => ({
      hole,
      i,
      left: hole.x - holeReach(hole),
      right: hole.x + holeReach(hole),
    }))
    .sort((a, b) => a.left - b.left);
  const pairs: [number, number][] = [];
  for (let k = 0; k < order.length && pairs.length < MAX_FOUND; k++) {
    const { hole, i, right } = order[k]!;
    for (
      let l = k + 1;
      l < order.length && order[l]!.left < right && pairs.length < MAX_FOUND;
      l++
    ) {
      const { hole: other, i: j } = order[l]!;
      if (holesMeet(hole, other)) pairs.push(i < j ? [i, j] : [j, i]);
    }
  }
  return pairs
    .sort(([a, b], [c, d]) => a - c || b - d)
    .map(([i, j]) => care('holes-overlap', [holes[i]!.id, holes[j]!.id]));
}
