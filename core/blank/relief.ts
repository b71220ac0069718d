import type { Path } from '../measure/path';
import { area } from '../measure/path';
import type { Segment } from '../measure/segment';
import { line } from '../measure/segment';
import type { Carrier } from '../measure/subtract';
import { subtracted } from '../measure/subtract';
import { SAME_WAY } from '../measure/tolerance';
import type { Vec } from '../measure/vector';
import { add, along, cross, left, length, scale, turned, unit } from '../measure/vector';

export type ReliefKind = 'round' | 'square' | 'none';

/**
 * Metal to be taken out of the blank beside a bend, as a closed counter-clockwise path, and where
 * to put the drill.
 */
export type Relief = { fold: string; path: Path; centre: Vec; acrossMm: number };

/**
 * The relief where two bends meet at `centre`: a hole of radius `reach`, or a square of that half
 * width whose sides lie evenly to the two bends. `first` and `second` are the directions in which
 * the ends of the bends leave the place.
 */
export function reliefAtMeeting(
  fold: string,
  centre: Vec,
  reach: number,
  kind: 'round' | 'square',
  first: Vec,
  second: Vec,
): Relief {
  const acrossMm = 2 * reach;
  if (kind === 'round') {
    const [a, b]: [Vec, Vec] = [along(centre, [1, 0], reach), along(centre, [-1, 0], reach)];
    return {
      fold,
      centre,
      acrossMm,
      path: [
        { a, b, bulge: 1 },
        { a: b, b: a, bulge: 1 },
      ],
    };
  }
  // Half way between the two bends, so that a mirrored blank has the mirrored square.
  const sum = add(unit(first), unit(second));
  const middle = length(sum) > SAME_WAY ? unit(sum) : left(unit(first));
  const corners = [0, 1, 2, 3].map((quarter) =>
    add(centre, scale(turned(middle, (quarter * Math.PI) / 2), reach * Math.SQRT2)),
  );
  return { fold, centre, acrossMm, path: corners.map((p, i) => line(p, corners[(i + 1) % 4]!)) };
}

/**
 * The slot that opens a slit beside a bend: `width` wide on the side away from the fold (`out`),
 * from `outwardMm` above the mouth of the slit to `deeper` beyond its foot on the tangent. `inward`
 * is the unit direction from mouth to foot.
 */
export function slotAtSlit(
  fold: string,
  { mouth, foot, inward, out }: { mouth: Vec; foot: Vec; inward: Vec; out: Vec },
  width: number,
  deeper: number,
  outwardMm: number,
  kind: 'round' | 'square',
): Relief {
  const round = kind === 'round';
  const top = along(mouth, inward, -outwardMm);
  const bottom = along(foot, inward, round ? Math.max(0, deeper - width / 2) : deeper);
  const corners = [top, bottom, along(bottom, out, width), along(top, out, width)];
  const path = corners.map((p, i): Segment => ({
    a: p,
    b: corners[(i + 1) % 4]!,
    bulge: round && i === 1 ? 1 : 0,
  }));
  const turnsLeft = cross(inward, out) > 0;
  const centre = along(bottom, out, width / 2);
  if (turnsLeft) return { fold, path, centre, acrossMm: width };
  const back = [...path].reverse().map(({ a, b, bulge }): Segment => ({ a: b, b: a, bulge }));
  return { fold, path: back, centre, acrossMm: width };
}

/** A relief that cuts off more than this many times its own area has no room where it stands. */
const MAX_CUT_OFF = 1;

/**
 * An outline with its reliefs taken out, all from the untouched outline at once, and the folds
 * beside which there was no room for one: it would have cut the blank in two. Scraps no larger than
 * a relief fall away.
 */
export function withReliefs<P extends Carrier>(
  outline: readonly P[],
  reliefs: readonly Relief[],
  make: (segment: Segment, fold: string) => P,
): { pieces: readonly P[]; made: readonly Relief[]; missed: string[] } {
  const attempt = (list: readonly Relief[]): readonly P[] | null => {
    if (list.length === 0) return outline;
    const loops = subtracted(
      outline,
      list.map((r) => r.path),
      (segment, i) => make(segment, list[i]!.fold),
    );
    if (!loops || !(loops[0]!.areaMm2 > 0)) return null;
    const most = MAX_CUT_OFF * Math.max(...list.map((r) => area(r.path)));
    // One that lies wholly in the metal relieves nothing: it would be a hole.
    return loops.slice(1).every((loop) => loop.areaMm2 > -1e-6 && loop.areaMm2 <= most)
      ? loops[0]!.pieces
      : null;
  };
  const all = attempt(reliefs);
  if (all) return { pieces: all, made: reliefs, missed: [] };
  const made = reliefs.filter((relief) => attempt([relief]) !== null);
  const pieces = attempt(made);
  const left = pieces ? made : [];
  const missed = reliefs.filter((relief) => !left.includes(relief)).map((relief) => relief.fold);
  return { pieces: pieces ?? outline, made: left, missed: [...new Set(missed)] };
}
