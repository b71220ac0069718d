import type { Path } from '../measure/path';
import { inside, points } from '../measure/path';
import type { Result } from '../measure/result';
import { failure, stop } from '../measure/result';
import type { Segment } from '../measure/segment';
import { crossingsWithLine, isStraight, line, nearest, part, pointAt } from '../measure/segment';
import { meetings } from '../measure/intersect';
import { ROUNDING, SAME_PLACE_MM } from '../measure/tolerance';
import type { Vec } from '../measure/vector';
import { cross, distance, dot, sub, unit } from '../measure/vector';

/** A piece that was slit from an edge inward, and its slit opened or closed. */
export type Slit = {
  /** What the left part (seen from the start of the cut) was turned by about its end, + counter-clockwise. */
  turnDeg: number;
  /** The piece as it lies then. Straight across the rim ahead, where that was stretched or gathered. */
  outline: Segment[];
  /** What stands open between the lips, counter-clockwise from the mouth; empty where they touch or lap. */
  wedge: Vec[];
  /** Where metal laps over metal. */
  overlaps: Vec[][];
  /** What the rim straight ahead of the end is stretched (+) or gathered (−) by, mm along it. */
  hingeMm: number;
};

/** A place on an outline: its segment, and the fraction along that. */
type Spot = { at: number; share: number };

/** A cut that starts farther from the outline than this does not start on it, mm. */
const ON_OUTLINE_MM = 0.05;

/**
 * Slits a piece from a place on its outline straight to one inside, and turns what lies left of the
 * cut about its end until the mouth stands open by `openMm` (below 0: it is closed). Where the cut
 * already is one lip of an open slit, that is opened further or closed.
 *
 * turn = −2·asin(openMm / (2·length)); the rim `D` of metal ahead of the end gives 2·D·sin(turn/2).
 *
 * @param outline counter-clockwise, closed, mm
 *
 * Problems (stop): `slit-off-edge` (its start is not on the outline, or its end not in the piece),
 * `slit-leaves` (it meets the outline on its way), `slit-opening` (the mouth cannot stand that far
 * open: numbers, the largest opening).
 */
export function slit(outline: Path, from: Vec, to: Vec, openMm: number): Result<Slit> {
  const long = distance(from, to);
  const start = spotAt(outline, from);
  if (!start || long < SAME_PLACE_MM) return failure(stop('slit-off-edge', []));
  const lip = lipAt(outline, from, to);
  if (lip === null && !isInside(outline, to)) return failure(stop('slit-off-edge', []));
  if (!(Math.abs(openMm) < 2 * long))
    return failure(stop('slit-opening', [], { mostMm: 2 * long }));
  const way = unit(sub(to, from));
  const ahead = crossingsAhead(outline, from, way);
  if (lip === null && ahead.some(({ mm }) => mm > ON_OUTLINE_MM && mm < long - SAME_PLACE_MM))
    return failure(stop('slit-leaves', []));
  const rim = ahead.find(({ mm }) => mm > long + ON_OUTLINE_MM);
  if (!rim) return failure(stop('slit-off-edge', []));

  const turn = -2 * Math.asin(openMm / (2 * long));
  const turned = turningAbout(to, turn);
  const right = between(outline, start, rim.spot);
  const left = between(outline, rim.spot, lip === null ? start : { at: lip, share: 0 }).map(
    ({ a, b, bulge }): Segment => ({ a: turned(a), b: turned(b), bulge }),
  );
  // Of an open slit the left part ends with its own lip; of a fresh one that is made.
  const mouth = lip === null ? turned(from) : left[left.length - 1]!.a;
  const rest = lip === null ? left : left.slice(0, -1);
  const touching = distance(mouth, from) < SAME_PLACE_MM;
  const lips = touching ? [] : [line(mouth, to), line(to, from)];
  const isOpen = cross(way, sub(mouth, from)) > 0;
  return {
    ok: true,
    turnDeg: (turn * 180) / Math.PI,
    outline: [...acrossRim(right, rest), ...lips],
    wedge: !touching && isOpen ? [from, to, mouth] : [],
    overlaps: !touching && !isOpen ? [[from, mouth, to]] : [],
    hingeMm: 2 * (rim.mm - long) * Math.sin(turn / 2),
  };
}

/** Where a point lies on an outline; null where it does not. */
function spotAt(outline: Path, p: Vec): Spot | null {
  const found = outline.map((segment, at) => ({ at, distance: nearest(segment, p).distance }));
  const [best] = found.sort((a, b) => a.distance - b.distance);
  return best && best.distance <= ON_OUTLINE_MM
    ? { at: best.at, share: shareOf(outline[best.at]!, p) }
    : null;
}
/** `nearest` tells the fraction by length; ends are told exactly. */
function shareOf(segment: Segment, p: Vec): number {
  if (distance(p, segment.a) < SAME_PLACE_MM) return 0;
  if (distance(p, segment.b) < SAME_PLACE_MM) return 1;
  return nearest(segment, p).at;
}

const isInside = (outline: Path, p: Vec): boolean =>
  inside(p, points(outline)) && !outline.some((s) => nearest(s, p).distance < SAME_PLACE_MM);

/** The segment of an outline that runs from the end of a cut to its start: a lip; null for none. */
function lipAt(outline: Path, from: Vec, to: Vec): number | null {
  const at = outline.findIndex(
    (s) =>
      isStraight(s) && distance(s.a, to) < ON_OUTLINE_MM && distance(s.b, from) < ON_OUTLINE_MM,
  );
  return at < 0 ? null : at;
}

/** Where a ray crosses an outline, mm from its start, the nearest first. */
const crossingsAhead = (outline: Path, from: Vec, way: Vec): { mm: number; spot: Spot }[] =>
  outline
    .flatMap((segment, at) =>
      crossingsWithLine(segment, from, way).map((share) => ({
        mm: dot(sub(pointAt(segment, share), from), way),
        spot: { at, share },
      })),
    )
    .filter(({ mm }) => mm > -ROUNDING)
    .sort((a, b) => a.mm - b.mm);

/** The run of an outline from one place to another, the way it is wound. */
function between(outline: Path, from: Spot, to: Spot): Segment[] {
  const n = outline.length;
  const run: Segment[] = [];
  const add = (segment: Segment, a: number, b: number) => {
    if (b - a > ROUNDING && distance(pointAt(segment, a), pointAt(segment, b)) >= SAME_PLACE_MM)
      run.push(a === 0 && b === 1 ? segment : part(segment, a, b));
  };
  if (from.at === to.at && from.share < to.share) {
    add(outline[from.at]!, from.share, to.share);
    return run;
  }
  add(outline[from.at]!, from.share, 1);
  for (let i = (from.at + 1) % n; i !== to.at; i = (i + 1) % n) add(outline[i]!, 0, 1);
  add(outline[to.at]!, 0, to.share);
  return run;
}

function turningAbout(centre: Vec, radians: number): (p: Vec) => Vec {
  const [c, s] = [Math.cos(radians), Math.sin(radians)];
  return (p) => {
    const [x, y] = sub(p, centre);
    return [centre[0] + c * x - s * y, centre[1] + s * x + c * y];
  };
}

/**
 * Two runs joined where the first ends and the second begins: straight across a gap, and where they
 * cross there (the rim was gathered), at the crossing.
 */
function acrossRim(one: readonly Segment[], other: readonly Segment[]): Segment[] {
  const [last, first] = [one[one.length - 1]!, other[0]!];
  if (distance(last.b, first.a) < SAME_PLACE_MM) return [...one, ...other];
  const [found] = meetings(last, first).filter(
    ({ at, other: share }) => at > ROUNDING && share < 1 - ROUNDING && (at < 1 || share > 0),
  );
  return found
    ? [...one.slice(0, -1), part(last, 0, found.at), part(first, found.other, 1), ...other.slice(1)]
    : [...one, line(last.b, first.a), ...other];
}
