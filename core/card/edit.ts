import { pointAt, segmentLength } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { cross, distance, scale, sub, unit } from '../measure/vector';
import { letterAt, lettered, segmentOfSide } from './outline';
import type { Edge, Fold, Hole, PatternDoc, Place, Side } from './pattern';
import type { NewId } from './kinds';

/** Edits of a card. Each returns a new document and leaves the one it was given alone. */

export const moveCorner = (doc: PatternDoc, corner: string, to: Vec): PatternDoc => ({
  ...doc,
  corners: doc.corners.map((c) => (c.id === corner ? { ...c, x: to[0], y: to[1] } : c)),
});

export const reshapeSide = (doc: PatternDoc, side: string, bulge: number): PatternDoc => ({
  ...doc,
  sides: doc.sides.map((s) =>
    s.id === side ? { ...s, shape: Math.abs(bulge) < 1e-9 ? { kind: 'line' } : { kind: 'arc', bulge } } : s,
  ),
});

const corner = (doc: PatternDoc, id: string): Vec => {
  const found = doc.corners.find((c) => c.id === id)!;
  return [found.x, found.y];
};

/**
 * Makes a straight side `mm` long by moving its far end. Where the side after next runs parallel to it (a rectangle, a
 * strip) the next corner goes along, so that the neighbours keep their directions and that side takes up the change.
 */
export function setSideLength(doc: PatternDoc, sideId: string, mm: number): PatternDoc {
  const i = doc.sides.findIndex((s) => s.id === sideId);
  const side = doc.sides[i];
  if (!side || !(mm > 0)) return doc;
  const a = corner(doc, side.from);
  const b = corner(doc, side.to);
  const u = unit(sub(b, a));
  const shift = scale(u, mm - distance(a, b));
  const n = doc.sides.length;
  const next = doc.sides[(i + 1) % n]!;
  const afterNext = doc.sides[(i + 2) % n]!;
  const opposite = unit(sub(corner(doc, afterNext.to), corner(doc, afterNext.from)));
  const carries = n > 3 && afterNext.to !== side.to && Math.abs(cross(u, opposite)) < 1e-6;
  const moving = new Set(carries ? [side.to, next.to] : [side.to]);
  return {
    ...doc,
    corners: doc.corners.map((c) => (moving.has(c.id) ? { ...c, x: c.x + shift[0], y: c.y + shift[1] } : c)),
  };
}

/** Puts a corner into a side at a fraction of its length. Both halves stay in the same edge; folds on it follow. */
export function splitSide(doc: PatternDoc, sideId: string, at: number, newId: NewId): PatternDoc {
  const segment = segmentOfSide(doc, sideId);
  const i = doc.sides.findIndex((s) => s.id === sideId);
  const side = doc.sides[i];
  if (!segment || !side || at <= 0.001 || at >= 0.999) return doc;
  const [x, y] = pointAt(segment, at);
  const middle = { id: newId(), x, y };
  const half = (share: number): Side['shape'] =>
    side.shape.kind === 'line' ? side.shape : { kind: 'arc', bulge: Math.tan(Math.atan(side.shape.bulge) * share) };
  const second: Side = { id: newId(), from: middle.id, to: side.to, shape: half(1 - at) };
  const first: Side = { ...side, to: middle.id, shape: half(at) };
  const cornerAt = doc.corners.findIndex((c) => c.id === side.from) + 1;
  const follow = (place: Place): Place => {
    if (place.side !== sideId) return place;
    return place.at <= at ? { side: sideId, at: place.at / at } : { side: second.id, at: (place.at - at) / (1 - at) };
  };
  return {
    ...doc,
    corners: [...doc.corners.slice(0, cornerAt), middle, ...doc.corners.slice(cornerAt)],
    sides: [...doc.sides.slice(0, i), first, second, ...doc.sides.slice(i + 1)],
    edges: doc.edges.map((edge) => ({
      ...edge,
      sides: edge.sides.flatMap((s) => (s === sideId ? [sideId, second.id] : [s])),
    })),
    folds: doc.folds.map((fold) => ({ ...fold, from: follow(fold.from), to: follow(fold.to) })),
  };
}

/** Takes a corner out: its two sides become one straight one. A card keeps at least three corners. */
export function removeCorner(doc: PatternDoc, cornerId: string): PatternDoc {
  const before = doc.sides.find((s) => s.to === cornerId);
  const after = doc.sides.find((s) => s.from === cornerId);
  if (!before || !after || doc.sides.length <= 3) return doc;
  const lengths = [before, after].map((s) => segmentLength(segmentOfSide(doc, s.id)!));
  const share = lengths[0]! / (lengths[0]! + lengths[1]!);
  const follow = (place: Place): Place => {
    if (place.side === before.id) return { side: before.id, at: place.at * share };
    return place.side === after.id ? { side: before.id, at: share + place.at * (1 - share) } : place;
  };
  const left = doc.edges.map((edge) => ({ ...edge, sides: edge.sides.filter((s) => s !== after.id) }));
  const gone = left.find((edge) => edge.sides.length === 0);
  const edges = left
    .filter((edge) => edge !== gone)
    .map((edge) => (gone && edge.sides.includes(before.id) ? absorbing(edge, gone) : edge));
  return {
    ...doc,
    corners: doc.corners.filter((c) => c.id !== cornerId),
    sides: doc.sides
      .filter((s) => s.id !== after.id)
      .map((s) => (s.id === before.id ? { ...s, to: after.to, shape: { kind: 'line' } } : s)),
    edges,
    folds: doc.folds.map((fold) => ({ ...fold, from: follow(fold.from), to: follow(fold.to) })),
  };
}

/** The first letter not yet used by an edge. */
function freeLetter(doc: PatternDoc): string {
  const used = new Set(doc.edges.map((edge) => edge.letter));
  for (let i = 0; ; i++) if (!used.has(letterAt(i))) return letterAt(i);
}

/**
 * Parts an edge at a corner inside it. The part before the corner keeps the edge's id, and with it whatever was read or
 * welded there; the part after is a new edge with the same joint and the next free letter.
 */
export function partEdge(doc: PatternDoc, cornerId: string, newId: NewId): PatternDoc {
  const i = doc.edges.findIndex((edge) => {
    const at = edge.sides.findIndex((s) => doc.sides.find((side) => side.id === s)?.from === cornerId);
    return at > 0;
  });
  const edge = doc.edges[i];
  if (!edge) return doc;
  const at = edge.sides.findIndex((s) => doc.sides.find((side) => side.id === s)?.from === cornerId);
  const rest: Edge = { ...edge, id: newId(), letter: freeLetter(doc), sides: edge.sides.slice(at), was: undefined };
  const kept: Edge = { ...edge, sides: edge.sides.slice(0, at) };
  return { ...doc, edges: [...doc.edges.slice(0, i), kept, rest, ...doc.edges.slice(i + 1)] };
}

/** An edge that takes over from one that is no more: the old id and letter stay known, so that nothing hung there is lost. */
const absorbing = (edge: Edge, gone: Edge): Edge => ({
  ...edge,
  was: [...(edge.was ?? []), { id: gone.id, letter: gone.letter }, ...(gone.was ?? [])],
});

/**
 * Joins an edge with the one that follows it in outline order; the first one's id, letter and joint stay, and the record
 * of the second goes with it.
 */
export function joinEdges(doc: PatternDoc, edgeId: string): PatternDoc {
  const i = doc.edges.findIndex((edge) => edge.id === edgeId);
  const edge = doc.edges[i];
  const next = doc.edges[(i + 1) % doc.edges.length];
  if (!edge || !next || doc.edges.length < 2) return doc;
  const joined = absorbing({ ...edge, sides: [...edge.sides, ...next.sides] }, next);
  return { ...doc, edges: doc.edges.filter((e) => e.id !== next.id).map((e) => (e.id === edgeId ? joined : e)) };
}

/** The edge that a record belongs to: by its id, or by the id of an edge that was made one with it. */
export const edgeOfRecord = (doc: PatternDoc, id: string): Edge | undefined =>
  doc.edges.find((edge) => edge.id === id) ?? doc.edges.find((edge) => edge.was?.some((old) => old.id === id));

/** Letters all edges again, clockwise from the datum corner. */
export const letterAgain = (doc: PatternDoc): PatternDoc => ({ ...doc, edges: lettered(doc.edges) });

export const setEdge = (doc: PatternDoc, id: string, change: Partial<Omit<Edge, 'id'>>): PatternDoc => ({
  ...doc,
  edges: doc.edges.map((edge) => (edge.id === id ? { ...edge, ...change } : edge)),
});

export const setFold = (doc: PatternDoc, id: string, change: Partial<Omit<Fold, 'id'>>): PatternDoc => ({
  ...doc,
  folds: doc.folds.map((fold) => (fold.id === id ? { ...fold, ...change } : fold)),
});

export const setHole = (doc: PatternDoc, id: string, change: Partial<Omit<Hole, 'id'>>): PatternDoc => ({
  ...doc,
  holes: doc.holes.map((hole) => (hole.id === id ? { ...hole, ...change } : hole)),
});

/** Takes a fold or a hole off the card. */
export const without = (doc: PatternDoc, id: string): PatternDoc => ({
  ...doc,
  folds: doc.folds.filter((fold) => fold.id !== id),
  holes: doc.holes.filter((hole) => hole.id !== id),
});
