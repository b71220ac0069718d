import type { Unit } from '../measure/length';
import { inside } from '../measure/path';
import type { Result } from '../measure/result';
import { failure } from '../measure/result';
import {
  crossingsWithLine,
  directionAt,
  isStraight,
  pointAt,
  segmentLength,
} from '../measure/segment';
import { ROUNDING_MM, SAME_PLACE_MM } from '../measure/tolerance';
import type { Vec } from '../measure/vector';
import { along, cross, distance, dot, left, mix, sub, unit } from '../measure/vector';
import type { Outline, Spot } from './outline';
import {
  outlineOf,
  pointOfSpot,
  segmentOfSide,
  segmentsOfEdge,
  spotNearest,
  spotOf,
} from './outline';
import type { Edge, Fold, PatternDoc, Place } from './pattern';
import { roundStep } from './snap';

/** Directions within this sine of each other are parallel to a rule. */
const PARALLEL = 1e-3;

/** A fold as it lies on the card now: from one spot of the outline to another. */
export type Chord = { from: Spot; to: Spot };

/**
 * Chords already found, by fold and the outline they were found on: documents are never changed in
 * place.
 */
const found = new WeakMap<Fold, { outline: Outline; chord: Chord | null }>();

/**
 * Where a fold lies on the card now; null when its places are gone, or the line along a side misses
 * the card.
 */
export function chordOf(doc: Pick<PatternDoc, 'corners' | 'sides'>, fold: Fold): Chord | null {
  const outline = outlineOf(doc);
  const known = found.get(fold);
  if (known?.outline === outline) return known.chord;
  let chord: Chord | null = null;
  if (fold.path.kind === 'along') {
    const along = chordAlong(doc, fold.path.side, fold.path.inMm);
    chord = along.ok ? along.chord : null;
  } else {
    const from = spotOf(doc, fold.path.from);
    const to = spotOf(doc, fold.path.to);
    chord = from && to && { from, to };
  }
  found.set(fold, { outline, chord });
  return chord;
}

/** The two ends of a fold on the card now, mm; null where it has none. */
export function endsOfFold(
  doc: Pick<PatternDoc, 'corners' | 'sides'>,
  fold: Fold,
): [Vec, Vec] | null {
  const chord = chordOf(doc, fold);
  const from = chord && pointOfSpot(doc, chord.from);
  const to = chord && pointOfSpot(doc, chord.to);
  return from && to && [from, to];
}

/**
 * The line across the card parallel to a straight side, `offMm` in from it (0 runs on along the
 * side): from one side of the outline to another, in the direction of the side. Where the card is
 * crossed more than once, the stretch that faces the side.
 *
 * Problems: `side-not-straight` (about: the side), `fold-misses-card` (about: the side, numbers:
 * offMm).
 */
export function chordAlong(
  doc: Pick<PatternDoc, 'corners' | 'sides'>,
  sideId: string,
  offMm: number,
): Result<{ chord: Chord }> {
  const side = segmentOfSide(doc, sideId);
  if (!side || !isStraight(side)) return failure({ code: 'side-not-straight', about: [sideId] });
  const u = directionAt(side, 0);
  const p = along(side.a, left(u), offMm);
  const { path, sideIds, polygon } = outlineOf(doc);
  const crossings = path
    .flatMap((s, i) =>
      crossingsWithLine(s, p, u).map((at) => {
        const place: Spot = { side: sideIds[i]!, at };
        return { place, s: dot(sub(pointAt(s, at), p), u) };
      }),
    )
    .sort((a, b) => a.s - b.s);
  const length = segmentLength(side);
  let best: { chord: Chord; facing: number } | null = null;
  for (let i = 0; i + 1 < crossings.length; i++) {
    const [a, b] = [crossings[i]!, crossings[i + 1]!];
    if (b.s - a.s < SAME_PLACE_MM || !inside(along(p, u, (a.s + b.s) / 2), polygon())) continue;
    // How much of the side it faces; off to one side of it altogether, how far off, as a negative
    // amount.
    const facing = Math.min(b.s, length) - Math.max(a.s, 0);
    if (!best || facing > best.facing) best = { chord: { from: a.place, to: b.place }, facing };
  }
  return best
    ? { ok: true, chord: best.chord }
    : failure({ code: 'fold-misses-card', about: [sideId], numbers: { offMm } });
}

/** A place on a side that has become shorter or longer, told so that it stays where it was. */
export function stayingAt(place: Place, before: PatternDoc, after: PatternDoc): Place {
  const [was, is] = [segmentOfSide(before, place.side), segmentOfSide(after, place.side)];
  if (!was || !is || (distance(was.a, is.a) < ROUNDING_MM && distance(was.b, is.b) < ROUNDING_MM))
    return place;
  const spot = spotOf(before, place);
  if (!spot) return place;
  const p = pointAt(was, spot.at);
  const share = dot(sub(p, is.a), unit(sub(is.b, is.a))) / segmentLength(is);
  return { side: place.side, share: Math.min(1, Math.max(0, share)) };
}

/** A straight side that a fold runs parallel to, and how far in from it the fold lies, mm. */
export type Beside = { side: string; edge: string; letter: string; offMm: number };

/**
 * The straight sides that a fold can be measured from with a rule, nearest first; those it lies
 * outside of are left out.
 */
export function besideFold(doc: PatternDoc, fold: Fold): Beside[] {
  const [a, b] = endsOfFold(doc, fold) ?? [null, null];
  if (!a || !b) return [];
  const u = unit(sub(b, a));
  const found: Beside[] = [];
  for (const edge of doc.edges) {
    for (const side of edge.sides) {
      const s = segmentOfSide(doc, side);
      if (!s || !isStraight(s) || Math.abs(cross(u, directionAt(s, 0))) > PARALLEL) continue;
      const offMm = dot(sub(mix(a, b, 0.5), s.a), left(directionAt(s, 0)));
      if (offMm > SAME_PLACE_MM) found.push({ side, edge: edge.id, letter: edge.letter, offMm });
    }
  }
  return found.sort((p, q) => p.offMm - q.offMm || p.letter.localeCompare(q.letter));
}

/**
 * How far along its edge a place lies, mm from the edge's first corner in outline order; null for a
 * place that is gone.
 */
export function alongEdge(
  doc: PatternDoc,
  place: Spot,
): { edge: Edge; atMm: number; lengthMm: number } | null {
  const edge = doc.edges.find((e) => e.sides.includes(place.side));
  if (!edge) return null;
  const lengths = segmentsOfEdge(doc, edge).map(segmentLength);
  const index = edge.sides.indexOf(place.side);
  if (lengths.length !== edge.sides.length) return null;
  const before = lengths.slice(0, index).reduce((sum, l) => sum + l, 0);
  return {
    edge,
    atMm: before + place.at * lengths[index]!,
    lengthMm: lengths.reduce((sum, l) => sum + l, 0),
  };
}

/**
 * The place `atMm` along an edge from its first corner; held to the edge's own length. Meant as a
 * distance from the start of the side it falls on.
 */
export function placeAlong(doc: PatternDoc, edge: Edge, atMm: number): Place | null {
  let left = Math.max(0, atMm);
  const lengths = segmentsOfEdge(doc, edge).map(segmentLength);
  for (const [i, side] of edge.sides.entries()) {
    const l = lengths[i];
    if (l === undefined) return null;
    if (left <= l || i === edge.sides.length - 1) return { side, startMm: Math.min(left, l) };
    left -= l;
  }
  return null;
}

/** A touch farther from the outline than this many reaches means nothing on it. */
const FAR = 6;

export type PlaceReason = 'corner' | 'square' | 'parallel' | 'round' | 'free';
export type SnappedPlace = { place: Place; spot: Spot; point: Vec; reason: PlaceReason };

export type PlaceContext = {
  /** Where the fold began, when this is its other end. */
  from: Spot | null;
  /** How near a corner, a square or a parallel counts, mm (a fixed distance on the screen). */
  reachMm: number;
  unit: Unit;
};

/**
 * The place on the outline that someone means who touches the card at `p`: a corner that is near;
 * else, for the second end of a fold, where the fold runs parallel or square to a straight side;
 * else a round distance from the nearer corner of that side. Null for a card without sides or a
 * touch farther than six times the reach from the outline.
 */
export function snapPlace(
  doc: PatternDoc,
  p: Vec,
  { from, reachMm, unit: lengths }: PlaceContext,
): SnappedPlace | null {
  const near = spotNearest(doc, p, reachMm);
  if (!near || near.distance > FAR * reachMm) return null;
  const { side, at } = near.spot;
  const free = (reason: PlaceReason): SnappedPlace => ({
    place: { side, share: at },
    ...near,
    reason,
  });
  if (at === 0 || at === 1) return free('corner');
  const segment = segmentOfSide(doc, side)!;
  const start = from && pointOfSpot(doc, from);
  if (start) {
    const ruled = doc.sides.flatMap((other): SnappedPlace[] => {
      const s = segmentOfSide(doc, other.id);
      if (!s || !isStraight(s)) return [];
      const u = directionAt(s, 0);
      return (
        [
          ['parallel', u],
          ['square', left(u)],
        ] as const
      ).flatMap(([reason, way]) =>
        crossingsWithLine(segment, start, way).map((t) => ({
          place: { side, share: t },
          spot: { side, at: t },
          point: pointAt(segment, t),
          reason,
        })),
      );
    });
    const meant = ruled
      .filter((r) => distance(r.point, near.point) <= reachMm && distance(r.point, start) > reachMm)
      .sort((a, b) => distance(a.point, near.point) - distance(b.point, near.point))[0];
    if (meant) return meant;
  }
  const length = segmentLength(segment);
  const step = roundStep(lengths, reachMm);
  const gone = at <= 0.5 ? at * length : (1 - at) * length;
  const figure = Math.round(gone / step) * step;
  if (figure <= 0 || figure >= length) return free('free');
  const rounded = (at <= 0.5 ? figure : length - figure) / length;
  return {
    place: at <= 0.5 ? { side, startMm: figure } : { side, endMm: figure },
    spot: { side, at: rounded },
    point: pointAt(segment, rounded),
    reason: 'round',
  };
}
