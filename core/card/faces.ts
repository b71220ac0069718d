import { distanceToPolygon, inside, points, polygonArea } from '../measure/path';
import type { Result } from '../measure/result';
import { failure, stop } from '../measure/result';
import type { Segment } from '../measure/segment';
import { line, part, pointAt } from '../measure/segment';
import { ROUNDING, ROUNDING_MM } from '../measure/tolerance';
import type { Vec } from '../measure/vector';
import { add, distance, left, mix, scale, sub, unit } from '../measure/vector';
import { chordOf } from './foldPlace';
import type { Outline, Spot } from './outline';
import { outlineOf } from './outline';
import type { PatternDoc } from './pattern';

/**
 * One piece of the boundary of a face: part of a side of the card, or a fold. `fold` and `side` are
 * indices.
 */
export type Bound =
  | { kind: 'side'; side: number; from: number; to: number; segment: Segment }
  | { kind: 'fold'; fold: number; segment: Segment };

/** A part of the card between folds, its boundary counter-clockwise. */
export type Face = { bounds: Bound[] };

export type FaceTree = {
  faces: Face[];
  /**
   * For each fold (by index in the document) the two faces it parts: the one nearer the base first.
   */
  sidesOfFold: { parent: number; child: number }[];
  /** For each face the fold by which it is entered from the base; -1 for the base. */
  entry: number[];
  base: number;
  /** Faces from the base outward, each after its parent. */
  order: number[];
};

/** A place as one number that grows round the outline: index of the side + fraction. */
function placeNumber({ side, at }: Spot, { index, sideIds }: Outline): number | null {
  const i = index.get(side);
  if (i === undefined) return null;
  return (i + (at < ROUNDING ? 0 : at > 1 - ROUNDING ? 1 : at)) % sideIds.length;
}

const same = (a: number, b: number): boolean => Math.abs(a - b) < ROUNDING;

type Node = { start: number; bound: Bound };

/**
 * Cuts a face's boundary at place `g`: the index of the node that then starts there, or -1 if `g`
 * is not on it.
 */
function cutAt(nodes: Node[], g: number): number {
  const found = nodes.findIndex((node) => same(node.start, g));
  if (found >= 0) return found;
  for (let i = 0; i < nodes.length; i++) {
    const { bound } = nodes[i]!;
    if (bound.kind !== 'side') continue;
    const at = g - bound.side;
    if (at <= bound.from || at >= bound.to) continue;
    const t = (at - bound.from) / (bound.to - bound.from);
    const before: Bound = { ...bound, to: at, segment: part(bound.segment, 0, t) };
    const after: Bound = { ...bound, from: at, segment: part(bound.segment, t, 1) };
    nodes.splice(i, 1, { start: nodes[i]!.start, bound: before }, { start: g, bound: after });
    return i + 1;
  }
  return -1;
}

/**
 * Splits a card into the faces between its folds and arranges them as a tree from the base.
 *
 * Problems (all `stop`): `fold-off-outline` when a fold's place is on a side that is gone,
 * `folds-cross` when a fold cannot be laid inside one of the faces the others leave (about: the
 * fold).
 */
export function facesOf(doc: PatternDoc): Result<FaceTree> {
  let tree = made.get(doc);
  if (!tree) made.set(doc, (tree = split(doc)));
  return tree;
}

/**
 * Trees already made: a card is asked for its faces by its checks, its blank and its plugs, and is
 * never changed in place.
 */
const made = new WeakMap<PatternDoc, Result<FaceTree>>();

/**
 * For each fold the unit direction square to it, on the flat card, toward the side that moves when
 * it is folded: away from the face that stays put. Null while the card cannot be parted into faces.
 */
export function movingWays(doc: PatternDoc): (Vec | null)[] {
  const tree = facesOf(doc);
  return doc.folds.map((_, fold) => {
    const child = tree.ok ? tree.faces[tree.sidesOfFold[fold]!.child] : undefined;
    const bound = child?.bounds.find((b) => b.kind === 'fold' && b.fold === fold);
    // A face runs counter-clockwise: it lies to the left of each of its bounds.
    return bound ? left(unit(sub(bound.segment.b, bound.segment.a))) : null;
  });
}

function split(doc: PatternDoc): Result<FaceTree> {
  const outline = outlineOf(doc);
  const { path } = outline;
  const faces: Node[][] = [
    path.map((segment, i) => ({
      start: i,
      bound: { kind: 'side', side: i, from: 0, to: 1, segment },
    })),
  ];
  for (const [index, fold] of doc.folds.entries()) {
    const ends = chordOf(doc, fold);
    const p = ends && placeNumber(ends.from, outline);
    const q = ends && placeNumber(ends.to, outline);
    if (p === null || q === null) return failure(stop('fold-off-outline', [fold.id], { offMm: 0 }));
    const chord = line(placePoint(path, p), placePoint(path, q));
    const home = faceForChord(faces, p, q, chord);
    if (!home) return failure(stop('folds-cross', [fold.id]));
    const start = cutAt(home, p);
    home.push(...home.splice(0, start));
    const end = cutAt(home, q);
    const far = home.splice(end);
    home.push({ start: q, bound: { kind: 'fold', fold: index, segment: line(chord.b, chord.a) } });
    far.push({ start: p, bound: { kind: 'fold', fold: index, segment: chord } });
    faces.push(far);
  }
  return { ok: true, ...rooted(doc, faces) };
}

const placePoint = (path: readonly Segment[], g: number): Vec =>
  pointAt(path[Math.floor(g)]!, g - Math.floor(g));

/** The face that has both ends of a chord on its boundary and the chord inside. */
function faceForChord(faces: Node[][], p: number, q: number, chord: Segment): Node[] | null {
  const reaches = (nodes: Node[], g: number) =>
    nodes.some(
      ({ start, bound }) =>
        same(start, g) ||
        (bound.kind === 'side' && g - bound.side > bound.from && g - bound.side < bound.to),
    );
  const candidates = faces.filter((nodes) => reaches(nodes, p) && reaches(nodes, q));
  if (candidates.length < 2) return candidates[0] ?? null;
  // At a corner where folds meet, several faces hold both ends; the chord lies in one of them.
  const middle = mix(chord.a, chord.b, 0.5);
  return (
    candidates.find((nodes) => inside(middle, points(nodes.map((node) => node.bound.segment)))) ??
    null
  );
}

/** A base this far outside a face still names it, mm: someone who touches its rim means it. */
export const BASE_REACH_MM = 0.5;

/** Index of the face that holds a point, or whose rim it lies on; -1 when it lies off the card. */
function faceHolding(p: Vec, polygons: readonly (readonly Vec[])[]): number {
  const within = polygons.findIndex((polygon) => inside(p, polygon));
  if (within >= 0) return within;
  const off = polygons.map((polygon) => distanceToPolygon(p, polygon));
  const nearest = off.indexOf(Math.min(...off));
  return off[nearest]! <= BASE_REACH_MM ? nearest : -1;
}

/** Faces this much alike in area, as a share, are equally large. */
const SAME_AREA = 1e-9;

/**
 * Index of the largest face; of several equally large ones (a strip folded in the middle) the one
 * whose middle is nearest to the datum corner, so that neither the order of the folds nor turning
 * the card over chooses another.
 */
function largest(doc: PatternDoc, polygons: readonly (readonly Vec[])[]): number {
  const areas = polygons.map((polygon) => Math.abs(polygonArea(polygon)));
  const most = Math.max(...areas);
  const { x, y } = doc.corners[0]!;
  let best = -1;
  let nearest = Infinity;
  polygons.forEach((polygon, i) => {
    if (areas[i]! < most * (1 - SAME_AREA)) return;
    const mean = polygon.reduce((sum, p) => add(sum, p), [0, 0] as Vec);
    const off = distance(scale(mean, 1 / polygon.length), [x, y]);
    if (off < nearest - ROUNDING_MM) [best, nearest] = [i, off];
  });
  return best;
}

function rooted(doc: PatternDoc, nodes: Node[][]): FaceTree {
  const faces = nodes.map((list) => ({ bounds: list.map((node) => node.bound) }));
  const polygons = faces.map((face) =>
    points(
      face.bounds.map((b) => b.segment),
      0.1,
    ),
  );
  let base = doc.base ? faceHolding(doc.base, polygons) : -1;
  if (base < 0) base = largest(doc, polygons);
  const around = doc.folds.map(() => [] as number[]);
  faces.forEach((face, f) =>
    face.bounds.forEach((b) => b.kind === 'fold' && around[b.fold]!.push(f)),
  );
  const sidesOfFold = doc.folds.map(() => ({ parent: -1, child: -1 }));
  const order = [base];
  const entry = faces.map(() => -1);
  const seen = new Set(order);
  for (let i = 0; i < order.length; i++) {
    const face = order[i]!;
    for (const bound of faces[face]!.bounds) {
      if (bound.kind !== 'fold') continue;
      const child = around[bound.fold]!.find((f) => f !== face)!;
      if (seen.has(child)) continue;
      seen.add(child);
      sidesOfFold[bound.fold] = { parent: face, child };
      entry[child] = bound.fold;
      order.push(child);
    }
  }
  return { faces, sidesOfFold, entry, base, order };
}
