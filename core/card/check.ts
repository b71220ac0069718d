import { crossingPairs } from '../measure/crossings';
import { boxesOf } from '../measure/intersect';
import type { Path } from '../measure/path';
import { area, distanceToPolygon, inside } from '../measure/path';
import type { Problem } from '../measure/result';
import { care, stop } from '../measure/result';
import type { Segment } from '../measure/segment';
import { line, segmentLength, segmentsCross } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { distance, mix } from '../measure/vector';
import { BASE_REACH_MM, facesOf } from './faces';
import { endsOfFold } from './foldPlace';
import { outlineOf } from './outline';
import type { Fold, PatternDoc } from './pattern';

/** How much of a fold's length at either end is left out when it is tested against the outline. */
const CLEAR_OF_ENDS = 0.005;

/** Shorter sides than this are taken as a slip of the hand, mm. */
const SHORTEST_SIDE_MM = 0.01;

/**
 * Everything that is wrong or doubtful on a card, worst first. Nothing is thrown away: a card with `stop` problems can
 * be kept and mended, but has no blank.
 *
 * Stop: `outline-empty`, `outline-not-closed`, `side-zero`, `outline-crosses` (about: two sides), `outline-clockwise`,
 * `fold-off-outline`, `fold-zero`, `fold-leaves-card`, `folds-cross` (about: two folds), `hole-zero`.
 * Care: `card-both-sides` (about: the first fold, then those that contradict it), `hole-outside`, `hole-over-edge` (numbers: overMm), `holes-overlap`, `base-off-card` (the largest face then stays
 * put).
 */
export function checkCard(doc: PatternDoc): Problem[] {
  const outline = checkOutline(doc);
  if (outline.some((p) => p.severity === 'stop')) return outline;
  const polygon = outlineOf(doc).polygon();
  const rest = [
    ...checkFolds(doc, polygon),
    ...checkSides(doc),
    ...checkBase(doc, polygon),
    ...checkHoles(doc, polygon),
  ];
  const rank = (p: Problem) => (p.severity === 'stop' ? 0 : 1);
  return [...outline, ...rest].sort((a, b) => rank(a) - rank(b));
}

function checkOutline(doc: PatternDoc): Problem[] {
  if (doc.sides.length === 0) return [stop('outline-empty', [])];
  const { path, sideIds } = outlineOf(doc);
  const chained = doc.sides.every((side, i) => side.to === doc.sides[(i + 1) % doc.sides.length]!.from);
  if (path.length !== doc.sides.length || path.length < 2 || !chained) return [stop('outline-not-closed', [])];
  const problems = path.flatMap((s, i) =>
    segmentLength(s) < SHORTEST_SIDE_MM ? [stop('side-zero', [sideIds[i]!], { lengthMm: segmentLength(s) })] : [],
  );
  for (const [i, j] of crossingPairs(path)) problems.push(stop('outline-crosses', [sideIds[i]!, sideIds[j]!]));
  if (problems.length === 0 && area(path) <= 0) problems.push(stop('outline-clockwise', []));
  return problems;
}

/** Whether a straight segment crosses any of a path, whose boxes rule most of it out. */
function crossesAny(path: Path, boxes: Float64Array, s: Segment): boolean {
  const [minX, maxX] = s.a[0] < s.b[0] ? [s.a[0], s.b[0]] : [s.b[0], s.a[0]];
  const [minY, maxY] = s.a[1] < s.b[1] ? [s.a[1], s.b[1]] : [s.b[1], s.a[1]];
  for (let i = 0; i < path.length; i++) {
    if (boxes[4 * i]! > maxX || boxes[4 * i + 2]! < minX || boxes[4 * i + 1]! > maxY || boxes[4 * i + 3]! < minY)
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
      if (a && b && segmentsCross(a, b)) problems.push(stop('folds-cross', [doc.folds[i]!.id, doc.folds[j]!.id]));
    }
  }
  if (problems.length === 0) {
    const faces = facesOf(doc);
    if (!faces.ok) problems.push(...faces.problems);
  }
  return problems;
}

/**
 * A card lies on one face of the metal. On the face that is drawn it is inside of what folds toward you and outside of
 * what folds away; on the back the other way about. The folds that say otherwise than the first are told with it.
 */
function checkSides(doc: PatternDoc): Problem[] {
  const face = ({ toward, made }: Fold) => (toward === 'face') === made.startsWith('inside');
  const [first, ...others] = doc.folds;
  const odd = others.filter((fold) => face(fold) !== face(first!));
  return first && odd.length > 0 ? [care('card-both-sides', [first.id, ...odd.map((fold) => fold.id)])] : [];
}

function checkBase(doc: PatternDoc, polygon: readonly Vec[]): Problem[] {
  const off = doc.base !== null && !inside(doc.base, polygon) && distanceToPolygon(doc.base, polygon) > BASE_REACH_MM;
  return off ? [care('base-off-card', [])] : [];
}

function checkHoles(doc: PatternDoc, polygon: readonly Vec[]): Problem[] {
  return doc.holes.flatMap((hole, i) => {
    if (!(hole.diameterMm > 0)) return [stop('hole-zero', [hole.id])];
    const found: Problem[] = [];
    const centre = [hole.x, hole.y] as const;
    const toEdge = distanceToPolygon(centre, polygon);
    const radius = hole.diameterMm / 2;
    if (!inside(centre, polygon)) found.push(care('hole-outside', [hole.id]));
    else if (toEdge < radius) {
      found.push(care('hole-over-edge', [hole.id], { overMm: radius - toEdge }));
    }
    for (const other of doc.holes.slice(i + 1)) {
      if (distance(centre, [other.x, other.y]) < (hole.diameterMm + other.diameterMm) / 2) {
        found.push(care('holes-overlap', [hole.id, other.id]));
      }
    }
    return found;
  });
}
