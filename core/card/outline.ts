import type { Path } from '../measure/path';
import { points } from '../measure/path';
import type { Segment } from '../measure/segment';
import { nearest, pointAt, segmentLength } from '../measure/segment';
import { ROUNDING_MM, SAME_PLACE_MM } from '../measure/tolerance';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import type { NewId } from './kinds';
import type { Edge, PatternDoc, Place } from './pattern';

export type Outline = {
  path: Segment[];
  sideIds: string[];
  /** Where each side stands in `path`, by id. */
  index: ReadonlyMap<string, number>;
  /**
   * The outline as points, chords within a hundredth of a millimetre of any arc; made when first
   * asked for.
   */
  polygon: () => readonly Vec[];
};

/**
 * Outlines already made, by the corners they were made from: documents are never changed in place.
 */
const made = new WeakMap<PatternDoc['corners'], { sides: PatternDoc['sides']; outline: Outline }>();

/**
 * The sides of a card as segments, in outline order. A side whose corner is missing is left out.
 */
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
  let polygon: readonly Vec[] | null = null;
  const outline: Outline = {
    path,
    sideIds,
    index: new Map(sideIds.map((id, i) => [id, i])),
    polygon: () => (polygon ??= points(path)),
  };
  made.set(doc.corners, { sides: doc.sides, outline });
  return outline;
}

export const segmentOfSide = (
  doc: Pick<PatternDoc, 'corners' | 'sides'>,
  sideId: string,
): Segment | null => {
  const { path, index } = outlineOf(doc);
  return path[index.get(sideId) ?? -1] ?? null;
};

/** A place as it lies on the outline now: so large a share of a side from its start, by length. */
export type Spot = { side: string; at: number };

/** Where a place lies now, or null when its side is gone or has become too short for it. */
export function spotOf(doc: Pick<PatternDoc, 'corners' | 'sides'>, place: Place): Spot | null {
  const segment = segmentOfSide(doc, place.side);
  if (!segment) return null;
  if ('share' in place) return { side: place.side, at: place.share };
  const length = segmentLength(segment);
  const mm = 'startMm' in place ? place.startMm : length - place.endMm;
  if (mm < -SAME_PLACE_MM || mm > length + SAME_PLACE_MM) return null;
  return { side: place.side, at: length > 0 ? Math.min(1, Math.max(0, mm / length)) : 0 };
}

/** The point of a spot on the outline, or null when its side is no longer there. */
export function pointOfSpot(doc: Pick<PatternDoc, 'corners' | 'sides'>, spot: Spot): Vec | null {
  const side = segmentOfSide(doc, spot.side);
  return side && pointAt(side, spot.at);
}

/**
 * The spot on the outline nearest to a point and how far off it is (mm); corners win within
 * `cornerMm`. Null for a card without sides.
 */
export function spotNearest(
  doc: Pick<PatternDoc, 'corners' | 'sides'>,
  p: Vec,
  cornerMm = SAME_PLACE_MM,
): { spot: Spot; point: Vec; distance: number } | null {
  const { path, sideIds } = outlineOf(doc);
  let best: { spot: Spot; point: Vec; distance: number } | null = null;
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
    if (!best || d < best.distance - ROUNDING_MM) {
      best = { spot: { side: sideIds[i]!, at }, point: pointAt(s, at), distance: d };
    }
  });
  return best;
}

/** The segments of an edge in outline order. */
export function segmentsOfEdge(doc: PatternDoc, edge: Edge): Segment[] {
  const { path, index } = outlineOf(doc);
  return edge.sides.flatMap((sideId) => path[index.get(sideId) ?? -1] ?? []);
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
 * Letters for edges in outline order, clockwise from the datum corner (the first corner of the
 * outline), which is against the order of the sides.
 */
export function lettered(edges: readonly Edge[]): Edge[] {
  const n = edges.length;
  return edges.map((edge, i) => ({ ...edge, letter: letterAt(n - 1 - i) }));
}

/** The edges as one calls them over: A to Z, then AA. */
export const byLetter = (edges: readonly Edge[]): Edge[] =>
  [...edges].sort((a, b) => a.letter.length - b.letter.length || a.letter.localeCompare(b.letter));

/**
 * Makes a card's corners, sides and one edge for each side from a closed outline, wound
 * counter-clockwise.
 */
export function patternParts(
  path: Path,
  newId: NewId,
): Pick<PatternDoc, 'corners' | 'sides' | 'edges'> {
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
    joint: { kind: 'free' as const, trimMm: 0 },
  }));
  return { corners, sides, edges: lettered(edges) };
}
