import type { Result } from '../measure/result';
import { failure } from '../measure/result';
import { eigen } from '../solve/symmetric';
import type { Vec } from '../measure/vector';
import { distance, dot, sub, unit } from '../measure/vector';
import { circleOf } from './fitOutline';
import { leastSquares } from '../solve/leastSquares';

/**
 * A distance between two places of a flat thing in a picture: known (mm, ± one standard deviation),
 * or asked for.
 */
export type PictureSpan = { from: Vec; to: Vec };
export type KnownSpan = PictureSpan & { mm: number; uMm?: number };
/** Three places that make a right angle, its corner in the middle. */
export type RightAngle = readonly [Vec, Vec, Vec];

export type PictureScaleGiven = {
  known: readonly KnownSpan[];
  square?: readonly RightAngle[];
  ask: readonly PictureSpan[];
  /** Rims of round things, three places or more each: their diameters are asked for. */
  round?: readonly (readonly Vec[])[];
  /** Places whose position on the plane is asked for. */
  place?: readonly Vec[];
  /** How well a place is pointed at, one standard deviation, px. */
  uPx: number;
};

export type Asked = { mm: number; uMm: number };
export type PictureScale = {
  asked: Asked[];
  /** Diameters of the round things. */
  round: Asked[];
  /**
   * Places on the plane, x to the right of the picture, y up, mm from the middle of what is known,
   * and how sure of that.
   */
  placed: { at: Vec; uMm: number }[];
  /**
   * `known`: what is known says how the plane is tilted. `assumed`: it does not, and the picture is
   * taken to have been taken about square on (by some 15°); the ± have that in them.
   */
  tilt: 'known' | 'assumed';
  /** √(Σ(residual/u)²/redundancy); null where nothing is known twice. */
  sigma0: number | null;
  /** The numbers of known distances that contradict the others. */
  contradict: number[];
};

/**
 * How good a known distance is where nothing is said, mm, and how right a right angle of a made
 * thing, radians.
 */
const KNOWN_U_MM = 0.5;
const SQUARE_U = 0.004;
/**
 * How far a picture taken by hand is from square on: what one side is longer by, how askew, and how
 * much nearer one end of what is looked at is than its middle, each one standard deviation of tilts
 * about 15°.
 */
const USUAL = [0.2, 0.2, 0.08, 0.08] as const;
/**
 * Ratio of variances from which the known distances, and not the usual values, say how the plane is
 * tilted.
 */
const SURER = 25;
const CONTRADICTS_ABOVE = 3.5;
const SCALE = 4;
const UNKNOWN = 5;

/**
 * Distances on a flat thing in a photograph from others that are known on it. The map from the
 * picture to the plane, up to where it lies there, has five unknowns (two of perspective, stretch,
 * skew, size: Hartley & Zisserman 2004, 2.7): each distance and each right angle says one thing of
 * them. They are fitted by least squares; ± come from how well places are pointed at and how good
 * what is known is, carried through, and so grow away from it.
 *
 * Problems: `picture-place` (about: what: a span of no length, a figure that is none),
 * `not-enough-known` (about: what would do: `another-distance`, `right-angle`,
 * `rectangle-of-known-sides`; numbers: how much is known and how much it takes).
 */
export function pictureScale(given: PictureScaleGiven): Result<PictureScale> {
  const { known, square = [], ask, round = [], place = [], uPx } = given;
  const bad = unreadable(given);
  if (bad) return failure({ code: 'picture-place', about: [bad] });
  if (known.length === 0 || known.length + square.length < 2)
    return tooLittle(known.length + square.length, known.length === 0);
  const places = [...known, ...ask]
    .flatMap(({ from, to }) => [from, to])
    .concat(square.flat(), round.flat(), place);
  const view = viewOf(places);
  const weights = (x: Float64Array) => weightsAt(view, x, known, square, uPx);
  const start = bestStart(view, known, square, uPx);
  const { free, covariance } = fit(view, start, known, square, weights(start), false);
  const tilt = free && covariance && isSure(covariance) ? 'known' : 'assumed';
  const at =
    tilt === 'known'
      ? { x: free!, covariance: covariance! }
      : assumed(view, start, known, square, weights(start));
  if (!at) return tooLittle(known.length + square.length, false);
  const count = known.length + square.length;
  const off = residuals(view, at.x, known, square, weights(at.x));
  const redundancy = tilt === 'known' ? count - UNKNOWN : 0;
  const sigma0 =
    redundancy > 0 ? Math.sqrt(off.reduce((sum, one) => sum + one * one, 0) / redundancy) : null;
  const wide = Math.max(1, sigma0 ?? 1);
  const spanOf =
    ({ from, to }: PictureSpan) =>
    (x: Float64Array) =>
      distance(onPlane(view, x, from), onPlane(view, x, to));
  const asked = (of: (x: Float64Array) => number, own: number): Asked => ({
    mm: of(at.x),
    uMm: Math.hypot(wide * Math.sqrt(carried(of, at.x, at.covariance)), own),
  });
  return {
    ok: true,
    asked: ask.map((span) => asked(spanOf(span), pointing(view, at.x, span, uPx))),
    round: round.map((rim) => {
      const own = (2 * uPx * perPx(view, at.x, rim[0]!)) / Math.sqrt(rim.length / 3);
      return asked((x) => 2 * (circleOf(rim.map((p) => onPlane(view, x, p)))?.radius ?? NaN), own);
    }),
    placed: place.map((p) => {
      const from = (x: Float64Array) =>
        sub(
          onPlane(view, x, p),
          middleOf(known, (q) => onPlane(view, x, q)),
        );
      const spread = [0, 1].reduce(
        (sum, k) => sum + carried((x) => from(x)[k]!, at.x, at.covariance),
        0,
      );
      return {
        at: from(at.x),
        uMm: Math.hypot(wide * Math.sqrt(spread), Math.SQRT2 * uPx * perPx(view, at.x, p)),
      };
    }),
    tilt,
    sigma0,
    contradict: redundancy > 0 ? contradicting(view, at, known, square, weights(at.x), off) : [],
  };
}

/** The middle of the ends of what is known. */
function middleOf(known: readonly KnownSpan[], on: (p: Vec) => Vec): Vec {
  const ends = known.flatMap(({ from, to }) => [on(from), on(to)]);
  return [0, 1].map((k) => ends.reduce((sum, p) => sum + p[k]!, 0) / ends.length) as unknown as Vec;
}

function unreadable({
  known,
  square = [],
  ask,
  round = [],
  place = [],
  uPx,
}: PictureScaleGiven): string | null {
  const figures = [
    uPx,
    ...[...known, ...ask].flatMap(({ from, to }) => [...from, ...to]),
    ...square.flat(2),
    ...round.flat(2),
    ...place.flat(),
  ];
  if (!figures.every(Number.isFinite) || !(uPx > 0)) return 'figure';
  for (const [i, { from, to, mm, uMm = 1 }] of known.entries())
    if (!(mm > 0) || !(uMm > 0) || !Number.isFinite(mm + uMm) || distance(from, to) === 0)
      return `known ${i}`;
  for (const [i, [a, b, c]] of square.entries())
    if (distance(a, b) === 0 || distance(b, c) === 0) return `square ${i}`;
  const flat = round.findIndex((rim) => rim.length < 3 || !circleOf(rim));
  return flat < 0 ? null : `round ${flat}`;
}

const tooLittle = (known: number, noDistance: boolean) =>
  failure({
    code: 'not-enough-known',
    about: noDistance
      ? ['another-distance', 'rectangle-of-known-sides']
      : ['another-distance', 'right-angle', 'rectangle-of-known-sides'],
    numbers: { known, needed: 2 },
  });

/** What figures are reckoned from: about the middle of all places, in half their reach. */
type View = { u: number; v: number; half: number };
function viewOf(places: readonly Vec[]): View {
  const [us, vs] = [places.map((p) => p[0]), places.map((p) => p[1])];
  const [u0, u1, v0, v1] = [Math.min(...us), Math.max(...us), Math.min(...vs), Math.max(...vs)];
  return { u: (u0 + u1) / 2, v: (v0 + v1) / 2, half: Math.max(u1 - u0, v1 - v0) / 2 };
}

/**
 * A place of the picture on the plane, mm: [stretch, skew, perspective to the right, and up, log of
 * the size].
 */
function onPlane({ u, v, half }: View, x: Float64Array, [a, b]: Vec): Vec {
  const [p, q] = [(a - u) / half, (v - b) / half];
  const w = 1 + x[2]! * p + x[3]! * q;
  const size = Math.exp(x[SCALE]!);
  const wide = Math.exp(x[0]! / 2);
  return [(size * (wide * p + x[1]! * q)) / w, (size * q) / wide / w];
}

/** How much of the plane a pixel shows at a place, mm, as the wider of two directions. */
function perPx(view: View, x: Float64Array, p: Vec): number {
  const at = onPlane(view, x, p);
  const reach = view.half * 1e-4;
  return (
    Math.max(
      distance(at, onPlane(view, x, [p[0] + reach, p[1]])),
      distance(at, onPlane(view, x, [p[0], p[1] + reach])),
    ) / reach
  );
}

/** What pointing at both ends makes of a distance, mm. */
function pointing(view: View, x: Float64Array, { from, to }: PictureSpan, uPx: number): number {
  const way = unit(sub(onPlane(view, x, to), onPlane(view, x, from)));
  const reach = view.half * 1e-4;
  let sum = 0;
  for (const p of [from, to])
    for (const by of [
      [reach, 0],
      [0, reach],
    ] as const) {
      const moved = sub(onPlane(view, x, [p[0] + by[0], p[1] + by[1]]), onPlane(view, x, p));
      sum += (dot(moved, way) / reach) ** 2;
    }
  return uPx * Math.sqrt(sum);
}

/** One over how good each thing known is, at some map. */
function weightsAt(
  view: View,
  x: Float64Array,
  known: readonly KnownSpan[],
  square: readonly RightAngle[],
  uPx: number,
): number[] {
  return [
    ...known.map((span) => 1 / Math.hypot(span.uMm ?? KNOWN_U_MM, pointing(view, x, span, uPx))),
    ...square.map(([a, b, c]) => {
      const arms = [a, c].map(
        (p) =>
          (uPx * Math.SQRT2 * perPx(view, x, b)) /
          distance(onPlane(view, x, b), onPlane(view, x, p)),
      );
      return 1 / Math.hypot(SQUARE_U, ...arms);
    }),
  ];
}

function residuals(
  view: View,
  x: Float64Array,
  known: readonly KnownSpan[],
  square: readonly RightAngle[],
  weights: readonly number[],
): number[] {
  return [
    ...known.map(
      ({ from, to, mm }, i) =>
        weights[i]! * (distance(onPlane(view, x, from), onPlane(view, x, to)) - mm),
    ),
    ...square.map(([a, b, c], i) => {
      const corner = onPlane(view, x, b);
      const cosine = dot(
        unit(sub(onPlane(view, x, a), corner)),
        unit(sub(onPlane(view, x, c), corner)),
      );
      return weights[known.length + i]! * cosine;
    }),
  ];
}

const usual = (x: Float64Array) => USUAL.map((u, i) => x[i]! / u);

/** The map that fits best of those that several tilts lead to, what is usual held to lightly. */
function bestStart(
  view: View,
  known: readonly KnownSpan[],
  square: readonly RightAngle[],
  uPx: number,
): Float64Array {
  const size = Math.log((known[0]!.mm / distance(known[0]!.from, known[0]!.to)) * view.half);
  let best: { x: Float64Array; sum: number } | null = null;
  for (const right of [0, -0.3, 0.3])
    for (const up of [0, -0.3, 0.3]) {
      const x = Float64Array.from([0, 0, right, up, size]);
      const found = fit(view, x, known, square, weightsAt(view, x, known, square, uPx), true);
      if (!best || found.sum < best.sum * (1 - 1e-9)) best = { x: found.free ?? x, sum: found.sum };
    }
  return best!.x;
}

function fit(
  view: View,
  start: Float64Array,
  known: readonly KnownSpan[],
  square: readonly RightAngle[],
  weights: readonly number[],
  held: boolean,
) {
  const count = known.length + square.length + (held ? USUAL.length : 0);
  if (count < UNKNOWN) return { free: null, sum: Infinity, covariance: null };
  const { x, sum, covariance } = leastSquares(
    start,
    (x, into) =>
      into.set([...residuals(view, x, known, square, weights), ...(held ? usual(x) : [])]),
    count,
    new Float64Array(UNKNOWN).fill(1e-6),
    60,
  );
  return { free: x.every(Number.isFinite) ? x : null, sum, covariance };
}

/** The map where what is usual has to help. */
function assumed(
  view: View,
  start: Float64Array,
  known: readonly KnownSpan[],
  square: readonly RightAngle[],
  weights: readonly number[],
) {
  const { free, covariance } = fit(view, start, known, square, weights, true);
  return free && covariance ? { x: free, covariance } : null;
}

/**
 * Whether how the plane is tilted is known much better than what is usual says: in every direction
 * of the four figures.
 */
function isSure(covariance: Float64Array): boolean {
  const n = USUAL.length;
  const own = new Float64Array(n * n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++)
      own[i * n + j] = covariance[i * UNKNOWN + j]! / (USUAL[i]! * USUAL[j]!);
  const [most] = eigen(own, n).values;
  return most! * SURER < 1;
}

/** The variance of a figure from that of the map. */
function carried(
  of: (x: Float64Array) => number,
  x: Float64Array,
  covariance: Float64Array,
): number {
  const slope = Array.from(x, (figure, i) => {
    const [ahead, back] = [Float64Array.from(x), Float64Array.from(x)];
    ahead[i] = figure + 1e-6;
    back[i] = figure - 1e-6;
    return (of(ahead) - of(back)) / 2e-6;
  });
  let sum = 0;
  slope.forEach((a, i) => slope.forEach((b, j) => (sum += a * b * covariance[i * UNKNOWN + j]!)));
  return Math.max(0, sum);
}

/**
 * Known distances whose residual is too large for how much of it the others check (Baarda's test).
 */
function contradicting(
  view: View,
  at: { x: Float64Array; covariance: Float64Array },
  known: readonly KnownSpan[],
  square: readonly RightAngle[],
  weights: readonly number[],
  off: readonly number[],
): number[] {
  return known.flatMap((_, i) => {
    const own = (x: Float64Array) => residuals(view, x, known, square, weights)[i]!;
    const share = 1 - carried(own, at.x, at.covariance);
    return share > 1e-6 && Math.abs(off[i]!) / Math.sqrt(share) > CONTRADICTS_ABOVE ? [i] : [];
  });
}
