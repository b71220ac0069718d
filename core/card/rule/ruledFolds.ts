import { directionAt, isStraight, segmentLength } from '../../measure/segment';
import { SAME_PLACE_MM } from '../../measure/tolerance';
import type { Vec } from '../../measure/vector';
import { cross, distance, dot, left, mix, sub } from '../../measure/vector';
import { chordOf, endsOfFold } from '../foldPlace';
import type { Spot } from '../outline';
import { segmentOfSide } from '../outline';
import type { Fold, PatternDoc, Place } from '../pattern';
import { partsOf } from './dependents';
import type { Rule } from './rules';

/**
 * Folds among the rules: their ends slide along the sides they lie on, and how they are placed is
 * written anew.
 */

/** A fold that a rule is about, and its ends as they lie now. */
export type FoldLine = { fold: Fold; ends: [Vec, Vec] };

/** The folds that rules are about and that lie on the card. */
export function foldLines(doc: PatternDoc): FoldLine[] {
  const named = new Set(doc.rules.flatMap(partsOf));
  return doc.folds.flatMap((fold): FoldLine[] => {
    const ends = named.has(fold.id) ? endsOfFold(doc, fold) : null;
    return ends ? [{ fold, ends }] : [];
  });
}

/**
 * What ties a fold to the outline while it is ruled: its ends stay on the straight sides they lie
 * on, keep to the corner or to the share of an arc they lie at; one along a side stays parallel to
 * it.
 *
 * @param line the number of the fold as a side
 * @param ends the numbers of its ends as places
 * @param numberOf the number of a side of the outline
 */
export function tied(
  doc: PatternDoc,
  { fold, ends: at }: FoldLine,
  line: number,
  ends: readonly [number, number],
  numberOf: (side: string) => number,
): Rule[] {
  const chord = chordOf(doc, fold);
  if (!chord) return [];
  const hangs = [chord.from, chord.to].flatMap((spot, i): Rule[] => {
    const segment = segmentOfSide(doc, spot.side)!;
    const side = numberOf(spot.side);
    if (isStraight(segment) && (fold.path.kind === 'along' || (spot.at > 0 && spot.at < 1)))
      return [{ kind: 'on', place: ends[i]!, side }];
    // The end of a fold along a side goes where its line meets an arc: nothing ties it.
    if (fold.path.kind === 'along') return [];
    const way = sub(segment.b, segment.a);
    const off = sub(at[i]!, segment.a);
    const share = 1 / dot(way, way);
    return [
      {
        kind: 'share',
        place: ends[i]!,
        side,
        of: [dot(off, way) * share, cross(way, off) * share],
      },
    ];
  });
  return fold.path.kind === 'along'
    ? [...hangs, { kind: 'parallel', sides: [numberOf(fold.path.side), line] }]
    : hangs;
}

/**
 * A fold whose ends were moved along their sides, placed as it was meant (a distance from a start or an end, a share, a distance in from a side); null where an end has left its side.
 *
 * @param before the card on which it lay before
 * @param doc the card with its corners where they are now
 */
export function foldAt(
  before: PatternDoc,
  doc: PatternDoc,
  fold: Fold,
  [a, b]: readonly [Vec, Vec],
): Fold | null {
  const { path } = fold;
  if (path.kind === 'along') {
    const side = segmentOfSide(doc, path.side);
    if (!side) return null;
    return {
      ...fold,
      path: { ...path, inMm: dot(sub(mix(a, b, 0.5), side.a), left(directionAt(side, 0))) },
    };
  }
  const chord = chordOf(before, fold);
  const from = chord && placeAt(doc, path.from, chord.from, a);
  const to = chord && placeAt(doc, path.to, chord.to, b);
  return from && to && { ...fold, path: { kind: 'between', from, to } };
}

/** A place as it was meant, now at a point of its side. */
function placeAt(doc: PatternDoc, place: Place, spot: Spot, at: Vec): Place | null {
  const side = segmentOfSide(doc, place.side);
  if (!side) return null;
  const length = segmentLength(side);
  // At a corner it stays there; on an arc it keeps its share of it.
  const share =
    spot.at === 0 || spot.at === 1 || !isStraight(side) ? spot.at : distance(side.a, at) / length;
  const behind =
    isStraight(side) && dot(sub(at, side.a), sub(side.b, side.a)) < -SAME_PLACE_MM * length;
  if (behind || share * length > length + SAME_PLACE_MM) return null;
  if ('share' in place) return { side: place.side, share: Math.min(1, share) };
  const mm = Math.min(share * length, length);
  return 'startMm' in place
    ? { side: place.side, startMm: mm }
    : { side: place.side, endMm: length - mm };
}
