import type { Result } from '../measure/result';
import { failure } from '../measure/result';
import { pointAt, segmentLength } from '../measure/segment';
import { ROUNDING, SAME_WAY } from '../measure/tolerance';
import type { Vec } from '../measure/vector';
import { cross, distance, dot, scale, sub, unit } from '../measure/vector';
import type { NewId } from './kinds';
import { edgeLength, letterAt, lettered, segmentOfSide } from './outline';
import type { Bead, Edge, Fold, Hole, PatternDoc, Place, Side } from './pattern';

/**
 * Edits of a card. Each returns a new document and leaves the one it was given alone; one that can
 * be refused says why.
 */
type Edited = Result<{ doc: PatternDoc }>;
const edited = (doc: PatternDoc): Edited => ({ ok: true, doc });

export const moveCorner = (doc: PatternDoc, corner: string, to: Vec): PatternDoc => ({
  ...doc,
  corners: doc.corners.map((c) => (c.id === corner ? { ...c, x: to[0], y: to[1] } : c)),
});

export const reshapeSide = (doc: PatternDoc, side: string, bulge: number): PatternDoc => ({
  ...doc,
  sides: doc.sides.map((s) =>
    s.id === side
      ? { ...s, shape: Math.abs(bulge) < ROUNDING ? { kind: 'line' } : { kind: 'arc', bulge } }
      : s,
  ),
});

const corner = (doc: PatternDoc, id: string): Vec => {
  const found = doc.corners.find((c) => c.id === id)!;
  return [found.x, found.y];
};

/**
 * Makes a straight side `mm` long by moving its far end. Where the side after next runs parallel to
 * it (a rectangle, a strip) the next corner goes along, so that the neighbours keep their
 * directions and that side takes up the change.
 */
export function setSideLength(doc: PatternDoc, sideId: string, mm: number): Edited {
  const i = doc.sides.findIndex((s) => s.id === sideId);
  const side = doc.sides[i];
  if (!side) return failure({ code: 'side-gone' });
  if (!(mm > 0)) return failure({ code: 'side-length-not-positive', about: [sideId] });
  const a = corner(doc, side.from);
  const b = corner(doc, side.to);
  const u = unit(sub(b, a));
  const shift = scale(u, mm - distance(a, b));
  const n = doc.sides.length;
  const next = doc.sides[(i + 1) % n]!;
  const afterNext = doc.sides[(i + 2) % n]!;
  const opposite = unit(sub(corner(doc, afterNext.to), corner(doc, afterNext.from)));
  const carries = n > 3 && afterNext.to !== side.to && Math.abs(cross(u, opposite)) < SAME_WAY;
  const moving = new Set(carries ? [side.to, next.to] : [side.to]);
  return edited({
    ...doc,
    corners: doc.corners.map((c) =>
      moving.has(c.id) ? { ...c, x: c.x + shift[0], y: c.y + shift[1] } : c,
    ),
  });
}

/**
 * The angle of metal at a corner, degrees, 180 for a straight run and more in a hollow one: by its
 * two sides, along which it is read with a bevel. Null where a side is curved or has no length.
 */
export function cornerAngle(doc: PatternDoc, cornerId: string): number | null {
  const sides = sidesAt(doc, cornerId);
  if (!sides) return null;
  const at = corner(doc, cornerId);
  const [into, out] = [
    sub(at, corner(doc, sides.before.from)),
    sub(corner(doc, sides.after.to), at),
  ];
  if (Math.hypot(...into) === 0 || Math.hypot(...out) === 0) return null;
  return 180 - (Math.atan2(cross(into, out), dot(into, out)) * 180) / Math.PI;
}

/**
 * Opens or closes a corner to an angle of metal, degrees over 0 and under 360: the side before it
 * stays, the side after it is turned about the corner with its length, and the side after that
 * takes up the change.
 */
export function setCornerAngle(doc: PatternDoc, cornerId: string, angleDeg: number): Edited {
  const now = cornerAngle(doc, cornerId);
  if (now === null) return failure({ code: 'corner-not-straight', about: [cornerId] });
  if (!(angleDeg > 0 && angleDeg < 360))
    return failure({ code: 'corner-angle-out-of-range', numbers: { angleDeg } });
  const at = corner(doc, cornerId);
  const far = sidesAt(doc, cornerId)!.after.to;
  const turn = ((now - angleDeg) * Math.PI) / 180;
  const [x, y] = sub(corner(doc, far), at);
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return edited(moveCorner(doc, far, [at[0] + x * c - y * s, at[1] + x * s + y * c]));
}

/** The two straight sides that meet at a corner, in outline order. */
function sidesAt(doc: PatternDoc, cornerId: string): { before: Side; after: Side } | null {
  const before = doc.sides.find((s) => s.to === cornerId);
  const after = doc.sides.find((s) => s.from === cornerId);
  return before?.shape.kind === 'line' && after?.shape.kind === 'line' ? { before, after } : null;
}

/** A corner is put into a side no nearer to its ends than this share of it. */
const CLEAR = 0.001;

/**
 * Puts a corner into a side at a fraction of its length. Both halves stay in the same edge; folds
 * on it follow. Refused: `side-gone`, `corner-too-near`.
 */
export function splitSide(doc: PatternDoc, sideId: string, at: number, newId: NewId): Edited {
  const segment = segmentOfSide(doc, sideId);
  const i = doc.sides.findIndex((s) => s.id === sideId);
  const side = doc.sides[i];
  if (!segment || !side) return failure({ code: 'side-gone' });
  if (at <= CLEAR || at >= 1 - CLEAR) return failure({ code: 'corner-too-near', about: [sideId] });
  const [x, y] = pointAt(segment, at);
  const middle = { id: newId(), x, y };
  const half = (share: number): Side['shape'] =>
    side.shape.kind === 'line'
      ? side.shape
      : { kind: 'arc', bulge: Math.tan(Math.atan(side.shape.bulge) * share) };
  const second: Side = { id: newId(), from: middle.id, to: side.to, shape: half(1 - at) };
  const first: Side = { ...side, to: middle.id, shape: half(at) };
  const cornerAt = doc.corners.findIndex((c) => c.id === side.from) + 1;
  const length = segmentLength(segment);
  const firstMm = length * at;
  const follow = (place: Place): Place => {
    if (place.side !== sideId) return place;
    // A distance stays one from the corner it was measured from, where that is still an end of its
    // side.
    if ('share' in place)
      return place.share <= at
        ? { side: sideId, share: place.share / at }
        : { side: second.id, share: (place.share - at) / (1 - at) };
    if ('startMm' in place)
      return place.startMm <= firstMm
        ? place
        : { side: second.id, startMm: place.startMm - firstMm };
    return place.endMm <= length - firstMm
      ? { side: second.id, endMm: place.endMm }
      : { side: sideId, endMm: place.endMm - (length - firstMm) };
  };
  return edited({
    ...doc,
    corners: [...doc.corners.slice(0, cornerAt), middle, ...doc.corners.slice(cornerAt)],
    sides: [...doc.sides.slice(0, i), first, second, ...doc.sides.slice(i + 1)],
    edges: doc.edges.map((edge) => ({
      ...edge,
      sides: edge.sides.flatMap((s) => (s === sideId ? [sideId, second.id] : [s])),
    })),
    folds: doc.folds.map((fold) => following(fold, follow, (s) => s)),
  });
}

/** A fold whose places, or the side it runs along, have gone elsewhere. */
function following(fold: Fold, place: (p: Place) => Place, side: (s: string) => string): Fold {
  const { path } = fold;
  return path.kind === 'along'
    ? { ...fold, path: { ...path, side: side(path.side) } }
    : { ...fold, path: { ...path, from: place(path.from), to: place(path.to) } };
}

/**
 * Takes a corner out: its two sides become one straight one. A card keeps at least three corners.
 * Refused: `side-gone`, `last-corners`.
 */
export function removeCorner(doc: PatternDoc, cornerId: string): Edited {
  const before = doc.sides.find((s) => s.to === cornerId);
  const after = doc.sides.find((s) => s.from === cornerId);
  if (!before || !after) return failure({ code: 'side-gone' });
  if (doc.sides.length <= 3) return failure({ code: 'last-corners' });
  const [first, second] = [before, after].map((s) => segmentLength(segmentOfSide(doc, s.id)!)) as [
    number,
    number,
  ];
  const share = first / (first + second);
  const follow = (place: Place): Place => {
    if (place.side !== before.id && place.side !== after.id) return place;
    const own = place.side === before.id;
    // Measured from an end that stays, a distance stays; from the corner that goes, it becomes a
    // share.
    if (own && 'startMm' in place) return place;
    if (!own && 'endMm' in place) return { side: before.id, endMm: place.endMm };
    const length = own ? first : second;
    const at =
      'share' in place
        ? place.share
        : 'startMm' in place
          ? place.startMm / length
          : 1 - place.endMm / length;
    const held = Math.min(1, Math.max(0, at));
    return { side: before.id, share: own ? held * share : share + held * (1 - share) };
  };
  const left = doc.edges.map((edge) => ({
    ...edge,
    sides: edge.sides.filter((s) => s !== after.id),
  }));
  const gone = left.find((edge) => edge.sides.length === 0);
  const goneMm = gone ? second : 0;
  const edges = left
    .filter((edge) => edge !== gone)
    .map((edge) => {
      if (!gone || !edge.sides.includes(before.id)) return edge;
      const whole = doc.edges.find((e) => e.id === edge.id)!;
      return absorbing(edge, gone, edgeLength(doc, whole), goneMm);
    });
  const into = gone && doc.edges.find((edge) => edge.sides.includes(before.id));
  return edited({
    ...doc,
    beads:
      gone && into
        ? doc.beads.map((bead) => onJoined(bead, into.id, gone.id, edgeLength(doc, into), goneMm))
        : doc.beads,
    corners: doc.corners.filter((c) => c.id !== cornerId),
    sides: doc.sides
      .filter((s) => s.id !== after.id)
      .map((s) => (s.id === before.id ? { ...s, to: after.to, shape: { kind: 'line' } } : s)),
    edges,
    folds: doc.folds.map((fold) =>
      following(fold, follow, (s) => (s === after.id ? before.id : s)),
    ),
  });
}

/** The first letter not yet used by an edge. */
export function freeLetter(doc: PatternDoc): string {
  const used = new Set(doc.edges.map((edge) => edge.letter));
  for (let i = 0; ; i++) if (!used.has(letterAt(i))) return letterAt(i);
}

/**
 * Parts an edge at a corner inside it. The part before the corner keeps the edge's id, and with it
 * whatever was read or welded there; the part after is a new edge with the same joint and the next
 * free letter. Refused: `corner-not-inside`.
 */
export function partEdge(doc: PatternDoc, cornerId: string, newId: NewId): Edited {
  const startsAt = new Map(doc.sides.map((side) => [side.id, side.from]));
  const cut = (edge: Edge) => edge.sides.findIndex((s) => startsAt.get(s) === cornerId);
  const i = doc.edges.findIndex((edge) => cut(edge) > 0);
  const edge = doc.edges[i];
  if (!edge) return failure({ code: 'corner-not-inside' });
  const at = cut(edge);
  const rest: Edge = {
    ...edge,
    id: newId(),
    letter: freeLetter(doc),
    sides: edge.sides.slice(at),
    was: undefined,
  };
  const kept: Edge = { ...edge, sides: edge.sides.slice(0, at) };
  const [keptMm, restMm] = [kept, rest].map((one) => edgeLength(doc, one)) as [number, number];
  // A bead that runs past the new corner goes on along the new edge.
  const beads = doc.beads.flatMap((bead): Bead[] => {
    const { path } = bead;
    if (path.kind !== 'along' || path.edge !== edge.id) return [bead];
    const near: Bead = { ...bead, path: { ...path, endMm: Math.max(0, path.endMm - restMm) } };
    const far: Bead = {
      ...bead,
      id: newId(),
      path: { ...path, edge: rest.id, startMm: Math.max(0, path.startMm - keptMm) },
    };
    return [...(path.startMm < keptMm ? [near] : []), ...(path.endMm < restMm ? [far] : [])];
  });
  return edited({
    ...doc,
    edges: [...doc.edges.slice(0, i), kept, rest, ...doc.edges.slice(i + 1)],
    beads,
  });
}

/**
 * An edge that takes over from one that is no more: the old id and letter stay known, and where
 * along it the old one lies (from `fromMm` on), so that nothing that hung there is lost or moved.
 */
const absorbing = (edge: Edge, gone: Edge, fromMm: number, lengthMm: number): Edge => ({
  ...edge,
  was: [
    ...(edge.was ?? []),
    { id: gone.id, letter: gone.letter, span: { fromMm, lengthMm } },
    ...(gone.was ?? []).map((old) => ({
      ...old,
      span: old.span && { ...old.span, fromMm: old.span.fromMm + fromMm },
    })),
  ],
});

/**
 * Joins an edge with the one that follows it in outline order; the first one's id, letter and joint
 * stay, and the record of the second goes with it. Refused: `edge-gone`, `only-edge`.
 */
export function joinEdges(doc: PatternDoc, edgeId: string): Edited {
  const i = doc.edges.findIndex((edge) => edge.id === edgeId);
  const edge = doc.edges[i];
  if (!edge) return failure({ code: 'edge-gone' });
  if (doc.edges.length < 2) return failure({ code: 'only-edge' });
  const next = doc.edges[(i + 1) % doc.edges.length]!;
  const [mm, nextMm] = [edgeLength(doc, edge), edgeLength(doc, next)];
  const whole = absorbing({ ...edge, sides: [...edge.sides, ...next.sides] }, next, mm, nextMm);
  const beads = doc.beads.map((bead) => onJoined(bead, edge.id, next.id, mm, nextMm));
  return edited({
    ...doc,
    beads,
    edges: doc.edges.filter((e) => e.id !== next.id).map((e) => (e.id === edgeId ? whole : e)),
  });
}

/** A bead along one of two edges that were made one: it runs where it ran. */
function onJoined(bead: Bead, edge: string, gone: string, edgeMm: number, goneMm: number): Bead {
  const { path } = bead;
  if (path.kind !== 'along') return bead;
  if (path.edge === gone)
    return { ...bead, path: { ...path, edge, startMm: path.startMm + edgeMm } };
  return path.edge === edge ? { ...bead, path: { ...path, endMm: path.endMm + goneMm } } : bead;
}

/** Letters all edges again, clockwise from the datum corner. */
export const letterAgain = (doc: PatternDoc): PatternDoc => ({
  ...doc,
  edges: lettered(doc.edges),
});

export const setEdge = (
  doc: PatternDoc,
  id: string,
  change: Partial<Omit<Edge, 'id'>>,
): PatternDoc => ({
  ...doc,
  edges: doc.edges.map((edge) => (edge.id === id ? { ...edge, ...change } : edge)),
});

export const setFold = (
  doc: PatternDoc,
  id: string,
  change: Partial<Omit<Fold, 'id'>>,
): PatternDoc => ({
  ...doc,
  folds: doc.folds.map((fold) => (fold.id === id ? { ...fold, ...change } : fold)),
});

export const setHole = (
  doc: PatternDoc,
  id: string,
  change: Partial<Omit<Hole, 'id'>>,
): PatternDoc => ({
  ...doc,
  holes: doc.holes.map((hole) => (hole.id === id ? { ...hole, ...change } : hole)),
});

export const setBead = (
  doc: PatternDoc,
  id: string,
  change: Partial<Omit<Bead, 'id'>>,
): PatternDoc => ({
  ...doc,
  beads: doc.beads.map((bead) => (bead.id === id ? { ...bead, ...change } : bead)),
});

/** Takes a fold, a hole or a bead off the card. */
export const without = (doc: PatternDoc, id: string): PatternDoc => ({
  ...doc,
  folds: doc.folds.filter((fold) => fold.id !== id),
  holes: doc.holes.filter((hole) => hole.id !== id),
  beads: doc.beads.filter((bead) => bead.id !== id),
});
