import type { Path } from '../measure/path';
import type { Segment } from '../measure/segment';
import { nearest, pointAt, segmentLength } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import type { Edge, PatternDoc, Place } from './pattern';
import type { NewId } from './kinds';

export type Outline = { path: Segment[]; sideIds: string[] };

/** Outlines already made, by the corners they were made from: documents are never changed in place. */
const made = new WeakMap<PatternDoc['corners'], { sides: PatternDoc['sides']; outline: Outline }>();

/** The sides of a card as segments, in outline order. A side whose corner is missing is left out. */
export function outlineOf(doc: Pick<PatternDoc, 'corners' | 'sides'>): Outline {
  const known = made.get(doc.corners);
  if (known?.sides === doc.sides) return known.outline;
  const at = new Map(doc.corners.map((c) => [c.id, [c.x, c.y] as Vec]));
  const path: Segment[] = [];
  const sideIds: string[] = [];
  for (const side of doc.sides) {
    const a = at.get(side.from);
    const b = at.get(side.to);
    if (!a || !b) continue;
    path.push({ a, b, bulge: side.shape.kind === 'arc' ? side.shape.bulge : 0 });
    sideIds.push(side.id);
  }
  const outline = { path, sideIds };
  made.set(doc.corners, { sides: doc.sides, outline });
  return outline;
}

export const segmentOfSide = (doc: PatternDoc, sideId: string): Segment | null => {
  const { path, sideIds } = outlineOf(doc);
  return path[sideIds.indexOf(sideId)] ?? null;
};

/** The point of a place on the outline, or null when its side is no longer there. */
export function pointOfPlace(doc: PatternDoc, place: Place): Vec | null {
  const side = segmentOfSide(doc, place.side);
  return side && pointAt(side, place.at);
}

/**
 * The place on the outline nearest to a point and how far off it is (mm); corners win within `cornerMm`.
 * Null for a card without sides.
 */
export function placeNearest(
  doc: Pick<PatternDoc, 'corners' | 'sides'>,
  p: Vec,
  cornerMm = 1e-6,
): { place: Place; point: Vec; distance: number } | null {
  const { path, sideIds } = outlineOf(doc);
  let best: { place: Place; point: Vec; distance: number } | null = null;
  path.forEach((s, i) => {
    const near = nearest(s, p);
    let at = near.at;
    let d = near.distance;
    for (const end of [0, 1]) {
      const toEnd = distance(p, pointAt(s, end));
      if (toEnd <= cornerMm) {
        at = end;
        d = toEnd;
      }
    }
    if (!best || d < best.distance - 1e-12) {
      best = { place: { side: sideIds[i]!, at }, point: pointAt(s, at), distance: d };
    }
  });
  return best;
}

/** The segments of an edge in outline order. */
export function segmentsOfEdge(doc: PatternDoc, edge: Edge): Segment[] {
  const { path, sideIds } = outlineOf(doc);
  return edge.sides.flatMap((sideId) => path[sideIds.indexOf(sideId)] ?? []);
}

/** Length of an edge along the card, mm. */
export const edgeLength = (doc: PatternDoc, edge: Edge): number =>
  segmentsOfEdge(doc, edge).reduce((sum, s) => sum + segmentLength(s), 0);

/** `A`…`Z`, `AA`, `AB`… */
export function letterAt(index: number): string {
  const last = String.fromCharCode(65 + (index % 26));
  return index < 26 ? last : letterAt(Math.floor(index / 26) - 1) + last;
}

/**
 * Letters for edges in outline order, clockwise from the datum corner (the first corner of the outline), which is
 * against the order of the sides.
 */
export function lettered(edges: readonly Edge[]): Edge[] {
  const n = edges.length;
  return edges.map((edge, i) => ({ ...edge, letter: letterAt(n - 1 - i) }));
}

/** Makes a card's corners, sides and one edge for each side from a closed outline, wound counter-clockwise. */
export function patternParts(path: Path, newId: NewId): Pick<PatternDoc, 'corners' | 'sides' | 'edges'> {
  const corners = path.map((s) => ({ id: newId(), x: s.a[0], y: s.a[1] }));
  const sides = path.map((s, i) => ({
    id: newId(),
    from: corners[i]!.id,
    to: corners[(i + 1) % corners.length]!.id,
    shape: s.bulge === 0 ? { kind: 'line' as const } : { kind: 'arc' as const, bulge: s.bulge },
  }));
  const edges = sides.map((side) => ({
    id: newId(),
    letter: '?',
    sides: [side.id],
    meets: '',
    joint: { kind: 'free' as const, trimMm: 0 },
    weld: null,
  }));
  return { corners, sides, edges: lettered(edges) };
}
