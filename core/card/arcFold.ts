import { inside, points } from '../measure/path';
import type { Ramp } from '../measure/ramp';
import { rampAt } from '../measure/ramp';
import type { Result } from '../measure/result';
import { failure } from '../measure/result';
import type { Segment } from '../measure/segment';
import {
  crossingsWithLine,
  directionAt,
  part,
  pointAt,
  reversed,
  segmentLength,
} from '../measure/segment';
import { thinnedLine } from '../measure/thin';
import { SAME_PLACE_MM } from '../measure/tolerance';
import type { Vec } from '../measure/vector';
import { cross, distance, dot, mix, right, sub } from '../measure/vector';
import { freeLetter, splitSide } from './edit';
import { facesOf } from './faces';
import { endsOfFold } from './foldPlace';
import type { NewId } from './kinds';
import { edgeLength, outlineOf, segmentOfSide, spotNearest } from './outline';
import type { Edge, Flange, Fold, PatternDoc, Side } from './pattern';
import { withoutDangling } from './rule/dependents';

/**
 * An end of the part beyond goes off the arc and its chord by more than this, degrees; what goes
 * along is its rim.
 */
const END_DEG = 30;
/** Number of places along the arc at which the width of the flange is checked. */
const LOOKS = 96;
/** It is kept at so few of these places that what lies between is met to this, mm. */
const CLOSE_MM = 0.15;
/** How wide the leg of a flange is that is pulled round, until it is said, mm. */
const LAND_MM = 15;

/**
 * A straight fold made one that runs in an arc between the same ends, of rise `riseMm` toward the
 * part that turns (below 0: away from it). The card then ends at the arc, and what lay beyond is
 * the flange of that edge: as wide along it as the card is there, square to the arc. The rim's edge
 * goes on with its id, letter and joint; `offMm` says how far the widths that are kept are from the
 * card's rim at the most.
 *
 * Problems: `fold-off-outline`; `arc-fold-rise` (numbers: riseMm, mostMm: no more than half a
 * circle); `arc-fold-leaves` (the arc leaves the card, or meets another fold); `arc-fold-made` (the
 * card has to run to the outside, sharp); `arc-fold-holds` (about: folds, holes, beads, marks,
 * tucks and flanges in the part beyond, which would be lost); `arc-fold-rim` (the rim does not face
 * the arc all along).
 */
export function flangeAlongArc(
  doc: PatternDoc,
  foldId: string,
  riseMm: number,
  newId: NewId,
): Result<{ doc: PatternDoc; edge: string; offMm: number }> {
  const fold = doc.folds.find(({ id }) => id === foldId);
  const cut = fold && withCorners(doc, fold, newId);
  if (!fold || !cut)
    return failure({ code: 'fold-off-outline', about: [foldId], numbers: { offMm: 0 } });
  if (fold.convention !== 'outside-sharp')
    return failure({ code: 'arc-fold-made', about: [foldId] });
  const { from, to, chain } = cut;
  const chord = distance(from, to);
  const arc: Segment = { a: from, b: to, bulge: (2 * riseMm) / chord };
  if (!(Math.abs(arc.bulge) <= 1) || riseMm === 0)
    return failure({
      code: 'arc-fold-rise',
      about: [foldId],
      numbers: { riseMm, mostMm: chord / 2 },
    });
  const held = heldIn(doc, cut.doc, fold, chain, arc);
  if (held.length > 0) return failure({ code: 'arc-fold-holds', about: held });
  if (!staysOn(cut.doc, fold, arc)) return failure({ code: 'arc-fold-leaves', about: [foldId] });
  const looked = widthsAlong(
    arc,
    rimOf(
      chain.map(({ segment }) => segment),
      arc,
    ),
  );
  if (!looked) return failure({ code: 'arc-fold-rim', about: [foldId] });
  const { widths, offMm } = kept(looked, segmentLength(arc));
  const made = flanged(cut.doc, fold, { chain, arc, widths }, newId);
  return { ok: true, ...made, offMm };
}

/** One side of the part beyond, in outline order from the arc's start to its end. */
type Beyond = { side: string; segment: Segment };
type Cut = { doc: PatternDoc; from: Vec; to: Vec; chain: Beyond[] };

/**
 * The card with corners where a fold ends, and the sides beyond it; the panel lies on the left from
 * `from` to `to`.
 */
function withCorners(doc: PatternDoc, fold: Fold, newId: NewId): Cut | null {
  const tree = facesOf(doc);
  const at = doc.folds.indexOf(fold);
  const child = tree.ok ? tree.faces[tree.sidesOfFold[at]!.child] : undefined;
  const bound = child?.bounds.find((one) => one.kind === 'fold' && one.fold === at)?.segment;
  if (!bound) return null;
  let cut = doc;
  // The face beyond runs counter-clockwise: along the fold, then round its own sides from where
  // that ended.
  const [from, to] = [bound.b, bound.a];
  for (const p of [from, to]) {
    const near = spotNearest(cut, p);
    if (!near) return null;
    const split = splitSide(cut, near.spot.side, near.spot.at, newId);
    if (split.ok) cut = split.doc;
  }
  const cornerAt = (p: Vec) =>
    cut.corners.reduce((best, c) =>
      distance([c.x, c.y], p) < distance([best.x, best.y], p) ? c : best,
    );
  const [start, end] = [cornerAt(from), cornerAt(to)];
  const chain: Beyond[] = [];
  for (let corner = start.id; corner !== end.id || chain.length === 0;) {
    const side = cut.sides.find((one) => one.from === corner);
    const segment = side && segmentOfSide(cut, side.id);
    if (!segment || chain.length > cut.sides.length) return null;
    chain.push({ side: side.id, segment });
    corner = side.to;
  }
  return { doc: cut, from: [start.x, start.y], to: [end.x, end.y], chain };
}

/** What lies in the part beyond and would be lost with it. */
function heldIn(
  before: PatternDoc,
  doc: PatternDoc,
  fold: Fold,
  chain: readonly Beyond[],
  arc: Segment,
): string[] {
  const sides = new Set(chain.map(({ side }) => side));
  const beyond = points([...chain.map(({ segment }) => segment), reversed(arc)]);
  const isIn = (p: Vec) => inside(p, beyond);
  const goes = (id: string) =>
    doc.edges.some((edge) => edge.id === id && edge.sides.every((side) => sides.has(side)));
  const ends = (one: Fold) =>
    one.path.kind === 'along' ? [one.path.side] : [one.path.from.side, one.path.to.side];
  return [
    ...doc.folds
      .filter((one) => one.id !== fold.id && ends(one).some((side) => sides.has(side)))
      .map(({ id }) => id),
    ...before.holes.filter(({ x, y }) => isIn([x, y])).map(({ id }) => id),
    ...before.marks.filter((one) => isIn(mix(one.from, one.to, 0.5))).map(({ id }) => id),
    ...before.beads
      .filter(({ path }) =>
        path.kind === 'between' ? isIn(path.from) || isIn(path.to) : goes(path.edge),
      )
      .map(({ id }) => id),
    ...doc.tucks.filter(({ at }) => sides.has(at.side)).map(({ id }) => id),
    ...doc.edges
      .filter((edge) => edge.flange && edge.sides.some((side) => sides.has(side)))
      .map(({ id }) => id),
  ];
}

/** Whether an arc keeps to the card between its ends, and off its other folds. */
function staysOn(doc: PatternDoc, fold: Fold, arc: Segment): boolean {
  const polygon = outlineOf(doc).polygon();
  const places = Array.from({ length: LOOKS - 1 }, (_, i) => pointAt(arc, (i + 1) / LOOKS));
  const others = doc.folds
    .flatMap((one) => (one.id === fold.id ? [] : [endsOfFold(doc, one)]))
    .filter((ends) => ends !== null);
  const meets = others.some(([a, b]) =>
    crossingsWithLine(arc, a, sub(b, a)).some(
      (t) => between(pointAt(arc, t), a, b) && t > SAME && t < 1 - SAME,
    ),
  );
  return places.every((p) => inside(p, polygon)) && !meets;
}
/** Nearer to an end of the arc than this share of it is at its end. */
const SAME = 1e-6;
const between = (p: Vec, a: Vec, b: Vec): boolean => dot(sub(p, a), sub(p, b)) <= 0;

/**
 * What of the sides beyond goes along the arc or its chord: without those that only lead there from
 * its ends.
 */
function rimOf(chain: readonly Segment[], arc: Segment): Segment[] {
  const off = (way: Vec, along: Vec) => Math.abs(Math.atan2(cross(along, way), dot(along, way)));
  const leads = (way: Vec, at: number) =>
    Math.min(off(way, directionAt(arc, at)), off(way, sub(arc.b, arc.a))) >
    (END_DEG * Math.PI) / 180;
  let [first, last] = [0, chain.length];
  while (first < last && leads(directionAt(chain[first]!, 0), 0)) first++;
  while (last > first && leads(directionAt(chain[last - 1]!, 1), 1)) last--;
  return chain.slice(first, last);
}

/**
 * How wide it is to the rim, square to the arc, at places all along; where an end leans in, as wide
 * as beside it. Null where nothing faces the arc.
 */
function widthsAlong(arc: Segment, rim: readonly Segment[]): Ramp | null {
  const found = Array.from({ length: LOOKS + 1 }, (_, i): { share: number; mm: number | null } => {
    const share = i / LOOKS;
    const [p, way] = [pointAt(arc, share), right(directionAt(arc, share))];
    const off = rim
      .flatMap((s) => crossingsWithLine(s, p, way).map((t) => dot(sub(pointAt(s, t), p), way)))
      .filter((mm) => mm > SAME_PLACE_MM);
    return { share, mm: off.length > 0 ? Math.min(...off) : null };
  });
  const [first, last] = [
    found.findIndex(({ mm }) => mm !== null),
    found.findLastIndex(({ mm }) => mm !== null),
  ];
  // In the middle half all of it has to be there.
  if (first < 0 || first > LOOKS / 4 || last < (3 * LOOKS) / 4) return null;
  if (found.slice(first, last + 1).some(({ mm }) => mm === null)) return null;
  return found.map(
    ({ share }, i) => [share, found[Math.min(last, Math.max(first, i))]!.mm!] as const,
  );
}

/** Few of the places looked at, so that what lies between them is met. */
function kept(looked: Ramp, lengthMm: number): { widths: Ramp; offMm: number } {
  const few = thinnedLine(
    looked.map(([share, mm]): Vec => [share * lengthMm, mm]),
    CLOSE_MM,
  );
  const widths = few.map(
    ([alongMm, mm]) => [alongMm / lengthMm, Math.round(mm * 1000) / 1000] as const,
  );
  return {
    widths,
    offMm: Math.max(...looked.map(([share, mm]) => Math.abs(mm - rampAt(widths, share)))),
  };
}

/** The card without what lay beyond, an edge along the arc with its flange instead. */
function flanged(
  doc: PatternDoc,
  fold: Fold,
  { chain, arc, widths }: { chain: readonly Beyond[]; arc: Segment; widths: Ramp },
  newId: NewId,
): { doc: PatternDoc; edge: string } {
  const gone = new Set(chain.map(({ side }) => side));
  const firstAt = doc.sides.findIndex(({ id }) => id === chain[0]!.side);
  const start = doc.sides[firstAt]!.from;
  const end = doc.sides.find(({ id }) => id === chain[chain.length - 1]!.side)!.to;
  // A corner at each place whose width is kept, so that it is as wide there as it is said to be.
  const inner = widths.slice(1, -1).map(([share]) => ({ id: newId(), at: pointAt(arc, share) }));
  const ends = [start, ...inner.map(({ id }) => id), end];
  const sides = ends.slice(1).map((to, i): Side => ({
    id: newId(),
    from: ends[i]!,
    to,
    shape: { kind: 'arc', bulge: part(arc, widths[i]![0], widths[i + 1]![0]).bulge },
  }));
  const rim = doc.edges.filter((edge) => edge.sides.every((side) => gone.has(side)));
  const main = rim.reduce<Edge | null>(
    (best, edge) => (best && edgeLength(doc, best) >= edgeLength(doc, edge) ? best : edge),
    null,
  );
  const [[, widthMm], [, endMm]] = [widths[0]!, widths[widths.length - 1]!];
  const flange: Flange = {
    card: 'fold',
    widthMm,
    endWidthMm: Math.abs(endMm - widthMm) < CLOSE_MM && widths.length === 2 ? null : endMm,
    ...(widths.length > 2 && {
      between: widths.slice(1, -1).map(([share, mm]): [number, number] => [share, mm]),
    }),
    turnDeg: fold.angleDeg,
    toward: fold.toward,
    radiusMm: fold.radiusMm,
    how: 'tipped',
    landMm: LAND_MM,
  };
  const edge: Edge = {
    ...(main ?? { id: newId(), letter: freeLetter(doc), joint: { kind: 'free', trimMm: 0 } }),
    sides: sides.map(({ id }) => id),
    flange,
  };
  const corners = new Map([
    ...doc.corners.map((corner) => [corner.id, corner] as const),
    ...inner.map(({ id, at: [x, y] }) => [id, { id, x, y }] as const),
  ]);
  const left = [...doc.sides.slice(firstAt), ...doc.sides.slice(0, firstAt)].filter(
    ({ id }) => !gone.has(id),
  );
  const round = [...sides, ...left];
  // Outline order, beginning at the datum, or at the corner nearest to where that was.
  const { x, y } = doc.corners[0]!;
  const isInner = new Set(inner.map(({ id }) => id));
  const off = (side: Side) =>
    isInner.has(side.from)
      ? Infinity
      : distance([corners.get(side.from)!.x, corners.get(side.from)!.y], [x, y]);
  const first = round.reduce((best, side, i) => (off(side) < off(round[best]!) ? i : best), 0);
  const all = [...round.slice(first), ...round.slice(0, first)];
  const kept = doc.edges.map((one) => ({
    ...one,
    sides: one.sides.filter((side) => !gone.has(side)),
  }));
  const place = new Map(all.map(({ id }, i) => [id, i]));
  const edges = [...kept.filter((one) => one.sides.length > 0 && one.id !== edge.id), edge].sort(
    (a, b) => place.get(a.sides[0]!)! - place.get(b.sides[0]!)!,
  );
  const next: PatternDoc = {
    ...doc,
    corners: all.map((side) => corners.get(side.from)!),
    sides: all,
    edges,
    folds: doc.folds.filter(({ id }) => id !== fold.id),
  };
  // Where the arc takes the place that stays put into the flange, the largest face does.
  const base = next.base && inside(next.base, outlineOf(next).polygon()) ? next.base : null;
  return { doc: withoutDangling({ ...next, base }), edge: edge.id };
}
