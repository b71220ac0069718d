import { endsOfFold } from '../../card/foldPlace';
import { outlineOf } from '../../card/outline';
import type { CardMark, PatternDoc } from '../../card/pattern';
import { inside } from '../../measure/path';
import type { Segment } from '../../measure/segment';
import { crossingsWithLine, line, pointAt } from '../../measure/segment';
import { SAME_PLACE_MM } from '../../measure/tolerance';
import type { Vec } from '../../measure/vector';
import { along, cross, distance, dot, left, mix, sub, unit } from '../../measure/vector';
import type { BlankLine } from '../blank';

/**
 * A line marked on the card as it lies on the blank: straight on each face, bent where a fold's
 * tangents shift it or the metal of a bend comes in between. One line for each part of it that lies
 * on the card.
 *
 * @param setbacks from the mark of each fold on the card to the tangents of its bend, mm, in the
 * order of the folds
 * @param fromCard where a point of the card comes to on the blank
 */
export function markOnBlank(
  doc: PatternDoc,
  { id, name, from, to }: CardMark,
  setbacks: readonly number[],
  fromCard: (p: Vec) => Vec,
): BlankLine[] {
  const long = distance(from, to);
  if (long < SAME_PLACE_MM) return [];
  const u = unit(sub(to, from));
  const { path, polygon } = outlineOf(doc);
  const rims = path.flatMap((s) =>
    crossingsWithLine(s, from, u).map((at) => dot(sub(pointAt(s, at), from), u) / long),
  );
  const bends = doc.folds.flatMap((fold, i) => {
    const ends = endsOfFold(doc, fold);
    return ends
      ? framing(ends, setbacks[i]!).flatMap((bar) => crossing([from, to], bar) ?? [])
      : [];
  });
  // Where there is no bend between two faces the line breaks: it is told on either side of each
  // such place.
  const aside = SAME_PLACE_MM / long;
  const shares = [0, 1, ...[...rims, ...bends].flatMap((t) => [t - aside, t + aside])]
    .filter((t) => t >= 0 && t <= 1)
    .sort((a, b) => a - b);
  const runs: Vec[][] = [[]];
  shares.forEach((t, i) => {
    runs.at(-1)!.push(fromCard(mix(from, to, t)));
    const next = shares[i + 1];
    const on =
      next !== undefined &&
      (next - t < 3 * aside || inside(mix(from, to, (t + next) / 2), polygon()));
    if (!on) runs.push([]);
  });
  return runs.flatMap((places): BlankLine[] => {
    const found = joined(places);
    return found.length > 0 ? [{ role: 'mark', of: { kind: 'mark', id }, path: found, name }] : [];
  });
}

/** The mark of a fold, the tangents to either side of it, and what joins their ends. */
function framing([a, b]: readonly [Vec, Vec], setback: number): [Vec, Vec][] {
  const off = left(unit(sub(b, a)));
  const [a1, a2, b1, b2] = [
    along(a, off, setback),
    along(a, off, -setback),
    along(b, off, setback),
    along(b, off, -setback),
  ];
  return [
    [a, b],
    [a1, b1],
    [a2, b2],
    [a1, a2],
    [b1, b2],
  ];
}

/** Where the first line crosses the second, as a share of the first; null where it does not. */
function crossing([a, b]: readonly [Vec, Vec], [c, d]: readonly [Vec, Vec]): number | null {
  const [u, v] = [sub(b, a), sub(d, c)];
  const across = cross(u, v);
  if (across === 0) return null;
  const t = cross(sub(c, a), v) / across;
  const s = cross(sub(c, a), u) / across;
  return t > 0 && t < 1 && s >= 0 && s <= 1 ? t : null;
}

/** Places joined up by as few straight lines as there are bends in them. */
function joined(places: readonly Vec[]): Segment[] {
  const kept: Vec[] = [];
  for (const p of places) {
    const [before, last] = [kept.at(-2), kept.at(-1)];
    if (last && distance(last, p) < 3 * SAME_PLACE_MM) continue;
    const straight =
      before &&
      last &&
      Math.abs(cross(unit(sub(p, before)), sub(last, before))) < 3 * SAME_PLACE_MM;
    if (straight) kept.pop();
    kept.push(p);
  }
  return kept.slice(1).map((p, i) => line(kept[i]!, p));
}
