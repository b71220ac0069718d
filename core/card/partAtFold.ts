import { inside, points } from '../measure/path';
import type { Segment } from '../measure/segment';
import { isStraight, pointAt } from '../measure/segment';
import { ROUNDING, ROUNDING_MM } from '../measure/tolerance';
import type { Vec } from '../measure/vector';
import { along, cross, distance, mix, sub, unit } from '../measure/vector';
import { beadLine } from './beadPath';
import { freeLetter, letterAgain, partEdge, splitSide } from './edit';
import { chordOf, endsOfFold, stayingAt } from './foldPlace';
import type { NewId } from './kinds';
import { outlineOf, segmentOfSide } from './outline';
import { partsOf } from './rule/dependents';
import type { Edge, Fold, PatternDoc, Place, Side } from './pattern';

/** Both parts of a card that was cut apart: each a card, with the edge that meets the other. */
export type Parted = { card: PatternDoc; seam: string };

/**
 * A card cut apart along one of its folds, to be welded there: first the part with the face that
 * stays put, whose edges keep their letters, then the other. Each is drawn back from the fold by
 * `backMm` (below 0 it goes beyond), so that its metal reaches to where the two meet. Folds, holes,
 * beads and marks go with the part they lie on, rules with the part that has all they speak of.
 *
 * Null where it can't be done: a panel curved two ways, a bead that runs over the fold, a curved
 * side or one too short where a part would have to be drawn back.
 */
export function partAtFold(
  doc: PatternDoc,
  foldId: string,
  backMm: number,
  newId: NewId,
): [Parted, Parted] | null {
  if (doc.crown) return null;
  const cut = withCorners(doc, foldId, newId);
  if (!cut) return null;
  const { whole, from, to } = cut;
  const chains = [chain(whole, from, to), chain(whole, to, from)] as const;
  if (chains.some((sides) => sides.length < 2)) return null;
  const [one, other] = chains.map((sides) => partOf(whole, foldId, sides, backMm, newId));
  if (!one || !other || !keepsAll(whole, foldId, one.card, other.card)) return null;
  const stays = whole.base ? (within(other.card, whole.base) ? other : one) : largest(one, other);
  const moves = stays === one ? other : one;
  return [stays, { ...moves, card: letterAgain({ ...moves.card, underlay: null }) }];
}

/** The card with a corner at each end of a fold, edges ending there too. */
function withCorners(
  doc: PatternDoc,
  foldId: string,
  newId: NewId,
): { whole: PatternDoc; from: string; to: string } | null {
  const ends = (card: PatternDoc) =>
    chordOf(
      card,
      card.folds.find(({ id }) => id === foldId)!,
    );
  if (!doc.folds.some(({ id }) => id === foldId)) return null;
  let whole = doc;
  const corners: string[] = [];
  for (const end of ['from', 'to'] as const) {
    const spot = ends(whole)?.[end];
    const segment = spot && segmentOfSide(whole, spot.side);
    if (!segment) return null;
    const p = pointAt(segment, spot.at);
    const at = (card: PatternDoc) =>
      card.corners.find(({ x, y }) => distance([x, y], p) < CORNER_MM)?.id;
    if (!at(whole)) {
      const split = splitSide(whole, spot.side, spot.at, newId);
      if (!split.ok) return null;
      whole = split.doc;
    }
    const corner = at(whole);
    if (!corner) return null;
    const parted = partEdge(whole, corner, newId);
    if (parted.ok) whole = parted.doc;
    corners.push(corner);
  }
  return { whole, from: corners[0]!, to: corners[1]! };
}

/** An end of a fold this near to a corner is at it, mm. */
const CORNER_MM = 0.05;

/** The sides from one corner to another, in outline order. */
function chain(doc: PatternDoc, from: string, to: string): Side[] {
  const start = doc.sides.findIndex((side) => side.from === from);
  const turned = [...doc.sides.slice(start), ...doc.sides.slice(0, start)];
  return turned.slice(0, turned.findIndex((side) => side.to === to) + 1);
}

/** The part of a card that some of its sides go round, closed along the fold. */
function partOf(
  whole: PatternDoc,
  foldId: string,
  sides: readonly Side[],
  backMm: number,
  newId: NewId,
): Parted | null {
  const [first, last] = [sides[0]!, sides[sides.length - 1]!];
  const closing: Side = { id: newId(), from: last.to, to: first.from, shape: { kind: 'line' } };
  const seam: Edge = {
    id: newId(),
    letter: freeLetter(whole),
    sides: [closing.id],
    joint: { kind: 'butt', trimMm: 0 },
  };
  const own = new Set(sides.map(({ id }) => id));
  const order = new Map(sides.map(({ id }, i) => [id, i]));
  const ends = new Set(sides.flatMap(({ from, to }) => [from, to]));
  const outline: PatternDoc = {
    ...whole,
    corners: whole.corners.filter(({ id }) => ends.has(id)),
    sides: [...sides, closing],
    edges: [
      ...whole.edges
        .filter(({ sides: [start] }) => own.has(start!))
        .sort((a, b) => order.get(a.sides[0]!)! - order.get(b.sides[0]!)!),
      seam,
    ],
  };
  const folds = whole.folds.flatMap((fold): Fold[] => {
    if (fold.id === foldId) return [];
    const chord = chordOf(whole, fold);
    const ends = chord && [chord.from, chord.to].map(({ side, at }) => placed(whole, side, at));
    if (!chord || !ends || !within(outline, mix(ends[0]!, ends[1]!, 0.5))) return [];
    const { path } = fold;
    if (path.kind === 'along' && own.has(path.side)) return [fold];
    // What was told by a side of the other part is told by one that is left: it stays where it is.
    const told = [chord.from, chord.to].map((spot, i): Place | null => {
      if (path.kind === 'between' && own.has(spot.side)) return i === 0 ? path.from : path.to;
      if (own.has(spot.side)) return { side: spot.side, share: spot.at };
      const near = (corner: string) => distance(cornerAt(whole, corner), ends[i]!) < CORNER_MM;
      const side = sides.find(({ from, to }) => near(from) || near(to));
      return side ? { side: side.id, share: near(side.from) ? 0 : 1 } : null;
    });
    const [from, to] = told;
    return from && to ? [{ ...fold, path: { kind: 'between', from, to } }] : [];
  });
  const holes = whole.holes.filter(({ x, y }) => within(outline, [x, y]));
  const beads = whole.beads.filter((bead) => {
    const run = beadLine(whole, bead)?.run ?? [];
    return run.length > 0 && run.every((s) => ALONG.every((at) => within(outline, pointAt(s, at))));
  });
  const known = new Set([
    ...own,
    ...ends,
    ...folds.map(({ id }) => id),
    ...holes.map(({ id }) => id),
  ]);
  const card = drawnBack(
    {
      ...outline,
      folds,
      holes,
      beads,
      base: whole.base && within(outline, whole.base) ? whole.base : null,
      rules: whole.rules.filter((rule) => partsOf(rule).every((id) => known.has(id))),
      dismissedRules: whole.dismissedRules.filter((one) => one.sides.every((id) => known.has(id))),
      meetings: whole.meetings?.filter((meeting) => meeting.folds.every((id) => known.has(id))),
      tucks: whole.tucks.filter(({ at }) => own.has(at.side)),
      marks: whole.marks.filter(({ from, to }) =>
        ALONG.some((at) => within(outline, mix(from, to, at))),
      ),
      linkedFrom: null,
    },
    closing.id,
    backMm,
  );
  return card && { card, seam: seam.id };
}

/** Where along them beads and marks are looked at: near the ends and between. */
const ALONG = [0.01, 0.25, 0.5, 0.75, 0.99];

const cornerAt = (doc: PatternDoc, id: string): Vec => {
  const { x, y } = doc.corners.find((corner) => corner.id === id)!;
  return [x, y];
};

const placed = (doc: PatternDoc, side: string, at: number): Vec =>
  pointAt(segmentOfSide(doc, side)!, at);

const within = (doc: PatternDoc, p: Vec): boolean => inside(p, points(outlineOf(doc).path));

/** A side brought square to itself into the card, its ends going along the sides beside it. */
function drawnBack(doc: PatternDoc, sideId: string, mm: number): PatternDoc | null {
  if (Math.abs(mm) < ROUNDING_MM) return doc;
  const i = doc.sides.findIndex(({ id }) => id === sideId);
  const beside = (by: number) => doc.sides[(i + by + doc.sides.length) % doc.sides.length]!;
  const own = segmentOfSide(doc, sideId)!;
  const ways = ([-1, 1] as const).map((by) => {
    const next = segmentOfSide(doc, beside(by).id)!;
    // Away from the seam, along the side beside it.
    return isStraight(next)
      ? gone(own, by < 0 ? { ...next, a: next.b, b: next.a } : next, mm)
      : null;
  });
  const [from, to] = ways;
  if (!from || !to) return null;
  const { from: a, to: b } = doc.sides[i]!;
  const at = new Map([
    [a, from],
    [b, to],
  ]);
  // A fold that ends there would be torn from its end.
  const ends = doc.folds.flatMap((fold) => endsOfFold(doc, fold) ?? []);
  if (ends.some((end) => [a, b].some((id) => distance(cornerAt(doc, id), end) < CORNER_MM)))
    return null;
  const back: PatternDoc = {
    ...doc,
    corners: doc.corners.map((corner) => {
      const [x, y] = at.get(corner.id) ?? [corner.x, corner.y];
      return { ...corner, x, y };
    }),
  };
  const stay = (place: Place): Place => stayingAt(place, doc, back);
  return {
    ...back,
    folds: doc.folds.map((fold) =>
      fold.path.kind === 'along'
        ? fold
        : { ...fold, path: { ...fold.path, from: stay(fold.path.from), to: stay(fold.path.to) } },
    ),
    tucks: doc.tucks.map((tuck) => ({ ...tuck, at: stay(tuck.at) })),
  };
}

/**
 * Where a corner of `seam` goes along the straight side `beside`; null past the end of that, and
 * where that leads out of the card.
 */
function gone(seam: Segment, beside: Segment, mm: number): Vec | null {
  const way = unit(sub(beside.b, beside.a));
  // Above 0 where it leads into the card.
  const sine = cross(unit(sub(seam.b, seam.a)), way);
  if (sine < ROUNDING || mm / sine > distance(beside.a, beside.b) - ROUNDING_MM) return null;
  return along(beside.a, way, mm / sine);
}

/** Whether every fold, hole and bead of a card is on one of its parts, and every mark on one. */
const keepsAll = (whole: PatternDoc, foldId: string, one: PatternDoc, other: PatternDoc): boolean =>
  one.folds.length + other.folds.length === whole.folds.filter(({ id }) => id !== foldId).length &&
  one.holes.length + other.holes.length === whole.holes.length &&
  one.beads.length + other.beads.length === whole.beads.length &&
  whole.marks.every((mark) => one.marks.includes(mark) || other.marks.includes(mark));

const largest = (one: Parted, other: Parted): Parted => {
  const area = ({ card }: Parted) =>
    outlineOf(card).path.reduce((sum, { a, b }) => sum + cross(a, b) / 2, 0);
  return area(one) >= area(other) ? one : other;
};
