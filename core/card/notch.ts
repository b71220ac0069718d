import type { Result } from '../measure/result';
import { failure } from '../measure/result';
import { meetings } from '../measure/intersect';
import { isStraight, line, pointAt } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import { moveCorner, partEdge, setFold, splitSide } from './edit';
import { chordOf } from './foldPlace';
import type { NewId } from './kinds';
import type { Spot } from './outline';
import { pointOfSpot, segmentOfSide } from './outline';
import type { PatternDoc, Place } from './pattern';

/**
 * The corner that two folds which cross have to lose: their crossing, and the two neighbouring sides
 * on which they end there, in outline order, with the fold that ends on each.
 */
type Notch = {
  at: Vec;
  first: { fold: string; spot: Spot };
  second: { fold: string; spot: Spot };
};

/** Where two folds cross so that one corner lies beyond both; null where there is no such corner. */
function notchOf(doc: PatternDoc, a: string, b: string): Notch | null {
  const ends = [a, b].map((id) => {
    const fold = doc.folds.find((one) => one.id === id);
    const chord = fold && chordOf(doc, fold);
    if (!chord) return null;
    const [from, to] = [pointOfSpot(doc, chord.from), pointOfSpot(doc, chord.to)];
    return from && to ? { id, spots: [chord.from, chord.to], line: [from, to] as const } : null;
  });
  const [first, second] = ends;
  if (!first || !second) return null;
  const chord = line(...first.line);
  const [met] = meetings(chord, line(...second.line));
  if (!met) return null;
  const at = pointAt(chord, met.at);
  const n = doc.sides.length;
  const place = ({ side }: Spot) => doc.sides.findIndex(({ id }) => id === side);
  const off = (spot: Spot) => distance(pointOfSpot(doc, spot)!, at);
  const found = first.spots.flatMap((p) =>
    second.spots.flatMap((q): (Notch & { mm2: number })[] => {
      const [one, other] = [
        { fold: a, spot: p },
        { fold: b, spot: q },
      ];
      const pair =
        (place(p) + 1) % n === place(q)
          ? ([one, other] as const)
          : (place(q) + 1) % n === place(p)
            ? ([other, one] as const)
            : null;
      const straight = [p, q].every(({ side }) => {
        const segment = segmentOfSide(doc, side);
        return segment !== null && isStraight(segment);
      });
      return pair && straight
        ? [{ at, first: pair[0], second: pair[1], mm2: off(p) * off(q) }]
        : [];
    }),
  );
  // Of the four corners round the crossing the least: what is turned up is less than what stays.
  return found.sort((x, y) => x.mm2 - y.mm2)[0] ?? null;
}

/** Whether two folds that cross can both be had by notching a corner. */
export const canNotch = (doc: PatternDoc, a: string, b: string): boolean =>
  notchOf(doc, a, b) !== null;

/**
 * A card without the corner beyond two folds that cross: the corner comes to where they cross, they
 * end there, and the two sides of the notch are edges of their own.
 *
 * Problems: `no-corner-to-notch` (about: the folds), those of splitting a side and parting an edge.
 */
export function notched(
  doc: PatternDoc,
  a: string,
  b: string,
  newId: NewId,
): Result<{ doc: PatternDoc }> {
  const notch = notchOf(doc, a, b);
  if (!notch) return failure({ code: 'no-corner-to-notch', about: [a, b] });
  const { at, first, second } = notch;
  const corner = doc.sides.find(({ id }) => id === first.spot.side)!.to;
  // The far ends of both, as they were meant; a split side takes them along.
  const far = (fold: string, near: Spot): Place => {
    const chord = chordOf(
      doc,
      doc.folds.find(({ id }) => id === fold)!,
    )!;
    const { side, at: share } = chord.from === near ? chord.to : chord.from;
    return { side, share };
  };
  const ends = [first, second].map(({ fold, spot }) => ({ fold, end: far(fold, spot) }));
  let next = ends.reduce(
    (card, { fold, end }) => setFold(card, fold, { path: { kind: 'between', from: end, to: end } }),
    doc,
  );
  for (const { spot } of [second, first]) {
    const split = splitSide(next, spot.side, spot.at, newId);
    if (!split.ok) return split;
    next = split.doc;
  }
  next = moveCorner(next, corner, at);
  const out = next.sides.find(({ from }) => from === corner)!;
  const into = next.sides.find(({ to }) => to === corner)!;
  for (const { fold } of ends) {
    const { path } = next.folds.find(({ id }) => id === fold)!;
    if (path.kind !== 'between') continue;
    next = setFold(next, fold, {
      path: { kind: 'between', from: { side: out.id, startMm: 0 }, to: path.to },
    });
  }
  // Each side of the notch is the end of a wall, with a joint of its own.
  for (const at of [into.from, corner, out.to]) {
    const parted = partEdge(next, at, newId);
    if (parted.ok) next = parted.doc;
  }
  // The edge behind the notch stays itself: what was read and welded there hangs on it.
  const behind = next.sides.find(({ from }) => from === out.to)!;
  const edgeOf = (side: string) => next.edges.find(({ sides }) => sides.includes(side))!;
  const [notchEdge, oldEdge] = [edgeOf(out.id), edgeOf(behind.id)];
  if (notchEdge !== oldEdge)
    next = {
      ...next,
      edges: next.edges.map((edge) => {
        const other = edge === notchEdge ? oldEdge : edge === oldEdge ? notchEdge : null;
        return other ? { ...edge, id: other.id, letter: other.letter } : edge;
      }),
    };
  return { ok: true, doc: next };
}
