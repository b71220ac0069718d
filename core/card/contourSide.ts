import type { Result } from '../measure/result';
import { failure } from '../measure/result';
import { isStraight } from '../measure/segment';
import type { Segment } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { cross, distance, dot, sub, unit } from '../measure/vector';
import { moveCorner, reshapeSide, splitSide } from './edit';
import type { NewId } from './kinds';
import { segmentOfSide } from './outline';
import type { PatternDoc } from './pattern';

/**
 * Maximum difference in length between a contour and the side it is to become, as a share and in
 * mm.
 */
const SAME_LENGTH = 0.01;
const SAME_LENGTH_MM = 2;

/**
 * A straight side made a contour: its ends stay, the contour's arcs run between them, its drops to
 * the outside of the card or to the inside. Where it is a little longer or shorter than the side it
 * is drawn to its length. The new corners part the side and nothing else: edge, joint and folds
 * stay as they lie along it.
 *
 * Problems: `side-gone`, `side-not-straight`, `contour-length` (numbers: contourMm, sideMm),
 * `corner-too-near`.
 */
export function contourSide(
  doc: PatternDoc,
  sideId: string,
  contour: readonly Segment[],
  drops: 'out' | 'in',
  newId: NewId,
): Result<{ doc: PatternDoc }> {
  const side = segmentOfSide(doc, sideId);
  if (!side || contour.length === 0) return failure({ code: 'side-gone' });
  if (!isStraight(side)) return failure({ code: 'side-not-straight', about: [sideId] });
  const [from, to] = [contour[0]!.a, contour[contour.length - 1]!.b];
  const [contourMm, sideMm] = [distance(from, to), distance(side.a, side.b)];
  if (Math.abs(contourMm - sideMm) > Math.max(SAME_LENGTH_MM, SAME_LENGTH * sideMm))
    return failure({ code: 'contour-length', about: [sideId], numbers: { contourMm, sideMm } });
  // On the contour y is up and drops go down, which is to the right of the way along it: out of the
  // card.
  const way = unit(sub(to, from));
  const [along, left] = [
    unit(sub(side.b, side.a)),
    unit([-(side.b[1] - side.a[1]), side.b[0] - side.a[0]]),
  ];
  const turn = drops === 'out' ? 1 : -1;
  const size = sideMm / contourMm;
  const onCard = (p: Vec): Vec => {
    const [s, up] = [dot(sub(p, from), way) * size, turn * cross(way, sub(p, from)) * size];
    return [side.a[0] + along[0] * s + left[0] * up, side.a[1] + along[1] * s + left[1] * up];
  };
  let found = doc;
  let rest = sideId;
  const bulges: [string, number][] = [];
  for (const [i, arc] of contour.entries()) {
    if (i === contour.length - 1) {
      bulges.push([rest, turn * arc.bulge]);
      break;
    }
    // What is left of the side is straight until all are in place: where along it the corner goes,
    // and then off it.
    const left = segmentOfSide(found, rest)!;
    const share =
      distance(onCard(arc.a), onCard(arc.b)) /
      (distance(onCard(arc.a), onCard(arc.b)) + distance(onCard(arc.b), left.b));
    const split = splitSide(found, rest, share, newId);
    if (!split.ok) return split;
    found = split.doc;
    const corner = found.sides.find(({ id }) => id === rest)!.to;
    const next = found.sides.find((one) => one.from === corner)!.id;
    found = moveCorner(found, corner, onCard(arc.b));
    bulges.push([rest, turn * arc.bulge]);
    rest = next;
  }
  return { ok: true, doc: bulges.reduce((d, [id, bulge]) => reshapeSide(d, id, bulge), found) };
}
