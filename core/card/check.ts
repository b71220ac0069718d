import type { Box, Path } from '../measure/path';
import { area, box, distanceToPolygon, inside, points } from '../measure/path';
import type { Problem } from '../measure/result';
import { line, segmentLength, segmentsCross } from '../measure/segment';
import { distance, mix } from '../measure/vector';
import { BASE_REACH_MM, facesOf } from './faces';
import { outlineOf, pointOfPlace } from './outline';
import type { PatternDoc } from './pattern';

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
 * Care: `hole-outside`, `hole-over-edge` (numbers: overMm), `holes-overlap`, `base-off-card` (the largest face then stays
 * put).
 */
export function checkCard(doc: PatternDoc): Problem[] {
  const outline = checkOutline(doc);
  const rest = outline.some((p) => p.severity === 'stop')
    ? []
    : [...checkFolds(doc), ...checkBase(doc), ...checkHoles(doc)];
  const rank = (p: Problem) => (p.severity === 'stop' ? 0 : 1);
  return [...outline, ...rest].sort((a, b) => rank(a) - rank(b));
}

const stop = (code: string, about: string[], numbers?: Record<string, number>): Problem => ({
  code,
  about,
  numbers,
  severity: 'stop',
});

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

/** Pairs of segments of a closed path (by index) that cross or lie on each other. Sorted sweep over their boxes. */
export function crossingPairs(path: Path): [number, number][] {
  const boxes: (Box & { index: number })[] = path.map((s, index) => ({ ...box([s]), index }));
  boxes.sort((a, b) => a.minX - b.minX);
  const found: [number, number][] = [];
  for (let i = 0; i < boxes.length; i++) {
    const a = boxes[i]!;
    for (let j = i + 1; j < boxes.length && boxes[j]!.minX <= a.maxX; j++) {
      const b = boxes[j]!;
      if (a.minY > b.maxY || b.minY > a.maxY) continue;
      if (segmentsCross(path[a.index]!, path[b.index]!)) {
        found.push([Math.min(a.index, b.index), Math.max(a.index, b.index)]);
      }
    }
  }
  return found;
}

function checkFolds(doc: PatternDoc): Problem[] {
  const { path } = outlineOf(doc);
  const polygon = points(path);
  const problems: Problem[] = [];
  const chords = doc.folds.map((fold) => {
    const a = pointOfPlace(doc, fold.from);
    const b = pointOfPlace(doc, fold.to);
    if (!a || !b) {
      problems.push(stop('fold-off-outline', [fold.id]));
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
    if (!within || path.some((side) => segmentsCross(side, inner))) {
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

function checkBase(doc: PatternDoc): Problem[] {
  const polygon = points(outlineOf(doc).path);
  const off = doc.base !== null && !inside(doc.base, polygon) && distanceToPolygon(doc.base, polygon) > BASE_REACH_MM;
  return off ? [{ code: 'base-off-card', severity: 'care' }] : [];
}

function checkHoles(doc: PatternDoc): Problem[] {
  const polygon = points(outlineOf(doc).path);
  return doc.holes.flatMap((hole, i) => {
    if (!(hole.diameterMm > 0)) return [stop('hole-zero', [hole.id])];
    const found: Problem[] = [];
    const centre = [hole.x, hole.y] as const;
    const toEdge = distanceToPolygon(centre, polygon);
    const radius = hole.diameterMm / 2;
    if (!inside(centre, polygon)) found.push({ code: 'hole-outside', about: [hole.id], severity: 'care' });
    else if (toEdge < radius) {
      found.push({
        code: 'hole-over-edge',
        about: [hole.id],
        severity: 'care',
        numbers: { overMm: radius - toEdge },
      });
    }
    for (const other of doc.holes.slice(i + 1)) {
      if (distance(centre, [other.x, other.y]) < (hole.diameterMm + other.diameterMm) / 2) {
        found.push({ code: 'holes-overlap', about: [hole.id, other.id], severity: 'care' });
      }
    }
    return found;
  });
}
