import type { Path } from '../measure/path';
import { perimeter } from '../measure/path';
import { directionAt, nearest, pointAt, segmentLength } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { along, distance, right } from '../measure/vector';
import type { ShadowEdge } from './shadows';
import { isBeside } from './shadows';
import type { StraightPicture } from './straightPicture';

/** Distance between the places at which an outline is checked, mm, and their maximum number. */
const APART_MM = 2;
const MAX_PLACES = 1200;
/** Distance to either side at which card and bench are compared, mm. */
const BESIDE_MM = 2.5;
/** Half width of the running mean along the outline, in places. */
const HEARD = 3;
/** A stretch shorter than this is none, nor is a rest between two of them, mm. */
const MIN_LONG_MM = 15;
/** An edge place within this says that the edge was seen there, mm. */
const SEEN_MM = 8;
/**
 * Card and bench that differ by less than this are hardly told apart, as a logarithm over three
 * colours.
 */
const MIN_APART = 0.1;
/**
 * Tolerance of the difference between card and bench from its usual value along the outline: as a
 * share of it, in spreads, and at least, as a logarithm.
 */
const [VARIES_SHARE, VARIES_SPREADS, VARIES_LEAST] = [0.6, 5, 0.12];

/**
 * Stretches of an outline that want to be compared with the picture: where no edge was seen (the
 * edge of a shadow crosses, or card and bench look alike: where they do so along most of it, all of
 * it), and where what lies inside differs from what lies outside otherwise than along most of the
 * outline, as it does where the edge of a shadow, or of something that lies on the card, was taken
 * for the card's own; and a side that goes on beyond its end as the same step, as only the edge of
 * a shadow does. It is the ratio of colours across the edge that is compared: light cancels out in
 * it.
 *
 * @param path the outline, counter-clockwise, mm
 * @param places where an edge was seen, mm
 * @returns each stretch as a row of places along it, counter-clockwise
 */
export function doubtfulAlong(
  path: Path,
  places: readonly Vec[],
  straight: StraightPicture,
  shadows: readonly ShadowEdge[],
): Vec[][] {
  const all = placesAlong(path);
  if (all.length === 0) return [];
  const seen = near(places, SEEN_MM);
  const across = all.map(({ at, out }) =>
    isBeside(shadows, straight, at) ? null : ratioAcross(straight, at, out),
  );
  const heard = across.map((_, i) => middleOf(around(across, i, HEARD)));
  const usual = middleOf(heard);
  // Where card and bench look alike along most of it, no place is surer than another.
  if (!usual || Math.hypot(...usual) < MIN_APART) return [all.map(({ at }) => at)];
  const off = heard.map((one) => (one ? Math.hypot(...one.map((x, c) => x - usual[c]!)) : 0));
  const most = Math.max(
    VARIES_LEAST,
    VARIES_SHARE * Math.hypot(...usual),
    VARIES_SPREADS * 1.48 * middle(off),
  );
  const goesOn = path.map((_, i) => stepGoesOn(path, i, all, across, straight));
  const doubted = all.map(({ at, side }, i) => off[i]! > most || goesOn[side]! || !seen(at));
  return stretches(doubted, perimeter(path) / all.length).map((run) => run.map((i) => all[i]!.at));
}

type Place = { at: Vec; out: Vec; side: number };

/** Places along a closed path, evenly, with the direction outward. */
function placesAlong(path: Path): Place[] {
  const long = perimeter(path);
  const apart = Math.max(APART_MM, long / MAX_PLACES);
  return path.flatMap((s, side) => {
    const count = Math.max(1, Math.round(segmentLength(s) / apart));
    return Array.from({ length: count }, (_, k) => {
      const t = (k + 0.5) / count;
      return { at: pointAt(s, t), out: right(directionAt(s, t)), side };
    });
  });
}

/**
 * Sides shorter than this are not followed beyond their ends; the others over a range of lengths,
 * at equal steps, mm.
 */
const FOLLOWED_MM = 40;
const [BEYOND_FROM, BEYOND_TO, BEYOND_STEP] = [8, 40, 2];
/**
 * A side goes on beyond its end where the step across it differs from that along the side by no
 * more than this share, at that number of places.
 */
const SAME_STEP = 0.35;
const BEYOND_PLACES = 6;

/** Whether the step across a side goes on, straight or in its own arc, beyond one of its ends. */
function stepGoesOn(
  path: Path,
  i: number,
  all: readonly Place[],
  across: readonly (number[] | null)[],
  straight: StraightPicture,
): boolean {
  const side = path[i]!;
  const long = segmentLength(side);
  if (long < FOLLOWED_MM) return false;
  const own = middleOf(across.filter((_, k) => all[k]!.side === i));
  if (!own) return false;
  return [-1, 1].some((way) => {
    const beyond: number[][] = [];
    for (let off = BEYOND_FROM; off <= BEYOND_TO; off += BEYOND_STEP) {
      const t = way < 0 ? -off / long : 1 + off / long;
      const at = pointAt(side, t);
      // Where the outline itself goes on that way it is its own step.
      if (path.some((other, k) => k !== i && nearest(other, at).distance < 2 * BESIDE_MM)) continue;
      const ratio = ratioAcross(straight, at, right(directionAt(side, t)));
      if (ratio) beyond.push(ratio);
    }
    const there = beyond.length >= BEYOND_PLACES ? middleOf(beyond) : null;
    return (
      there !== null &&
      Math.hypot(...there.map((x, c) => x - own[c]!)) < SAME_STEP * Math.hypot(...own)
    );
  });
}

/**
 * By how much each colour is brighter inside than outside, as logarithms; null where one of both
 * does not lie on the picture.
 */
function ratioAcross(straight: StraightPicture, at: Vec, out: Vec): number[] | null {
  const by = Math.max(BESIDE_MM, 2 * straight.stepMm);
  const [inside, outside] = [
    colourAt(straight, along(at, out, -by)),
    colourAt(straight, along(at, out, by)),
  ];
  return inside && outside && inside.map((x, c) => Math.log((x + 4) / (outside[c]! + 4)));
}

function colourAt(
  { data, width, height, leftMm, topMm, stepMm }: StraightPicture,
  [x, y]: Vec,
): number[] | null {
  const [i, j] = [Math.floor((x - leftMm) / stepMm), Math.floor((topMm - y) / stepMm)];
  if (i < 1 || j < 1 || i + 1 >= width || j + 1 >= height) return null;
  return [0, 1, 2].map((c) => {
    let sum = 0;
    for (let b = -1; b <= 1; b++)
      for (let a = -1; a <= 1; a++) sum += data[4 * ((j + b) * width + i + a) + c]!;
    return sum / 9;
  });
}

/**
 * Whether one of some places lies within reach of another: looked up in squares as wide as that.
 */
function near(places: readonly Vec[], reach: number): (at: Vec) => boolean {
  const squares = new Map<string, Vec[]>();
  const square = (x: number, y: number) => `${Math.floor(x / reach)} ${Math.floor(y / reach)}`;
  for (const p of places) {
    const key = square(...p);
    squares.set(key, [...(squares.get(key) ?? []), p]);
  }
  return (at) =>
    [-1, 0, 1].some((i) =>
      [-1, 0, 1].some((j) =>
        (squares.get(square(at[0] + i * reach, at[1] + j * reach)) ?? []).some(
          (p) => distance(p, at) <= reach,
        ),
      ),
    );
}

const around = <T>(all: readonly T[], i: number, reach: number): T[] =>
  Array.from({ length: 2 * reach + 1 }, (_, k) => all[(i + k - reach + all.length) % all.length]!);

/** The middle of some colours, each by itself; null of none. */
function middleOf(some: readonly (readonly number[] | null)[]): number[] | null {
  const there = some.flatMap((one) => (one ? [one] : []));
  return there.length === 0 ? null : [0, 1, 2].map((c) => middle(there.map((one) => one[c]!)));
}

const middle = (of: readonly number[]): number =>
  [...of].sort((a, b) => a - b)[of.length >> 1] ?? 0;

/**
 * Runs of places that are set along a closed row, short rests between them closed and short ones
 * left out.
 */
function stretches(set: readonly boolean[], apart: number): number[][] {
  const n = set.length;
  if (set.every(Boolean)) return [Array.from({ length: n + 1 }, (_, i) => i % n)];
  const least = Math.max(1, Math.round(MIN_LONG_MM / apart));
  const closed = runsOf(set.map((one) => !one)).reduce(
    (all, run) => {
      if (run.length < least && run.length < n) for (const i of run) all[i] = true;
      return all;
    },
    [...set],
  );
  return closed.every(Boolean)
    ? [Array.from({ length: n + 1 }, (_, i) => i % n)]
    : runsOf(closed).filter((run) => run.length >= least);
}

/** The runs of places that are set along a closed row of which not all are. */
function runsOf(set: readonly boolean[]): number[][] {
  const n = set.length;
  const start = set.findIndex((one, i) => one && !set[(i + n - 1) % n]);
  if (start < 0) return [];
  const runs: number[][] = [];
  for (let k = 0; k < n; k++) {
    const i = (start + k) % n;
    if (!set[i]) continue;
    const last = runs[runs.length - 1];
    if (last && last[last.length - 1] === (i + n - 1) % n) last.push(i);
    else runs.push([i]);
  }
  return runs;
}
