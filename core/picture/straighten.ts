import type { Vec } from '../measure/vector';
import { along, distance, left, mix, sub, unit } from '../measure/vector';
import type { Homography } from './homography';
import { inverted, mapped } from './homography';
import { leastSquares } from '../solve/leastSquares';
import type { Picture } from './picture';
import { brightAt, isOn } from './picture';
import type { MarkEdge, Standing } from './scaleFrame';
import { edgesOf } from './scaleFrame';

/**
 * How a picture shows a plane: a projective map after the lens's barrel (or cushion) is undone.
 * Places in the picture are taken from its middle, in half diagonals; undone, they lie (1 + k₁r² +
 * k₂r⁴) times as far from it (Brown 1966).
 */
export type PlaneView = { width: number; height: number; toMm: Homography; k1: number; k2: number };

/** Where on the plane, mm, a place in the picture lies. */
export function toMm(view: PlaneView, p: Vec): Vec {
  return mapped(view.toMm, undone(view, centred(view, p)));
}

const halfDiagonal = ({ width, height }: { width: number; height: number }) =>
  Math.hypot(width, height) / 2;
/** A place in a picture from its middle, in half diagonals, v still down. */
export const centred = (size: { width: number; height: number }, [u, v]: Vec): Vec => {
  const half = halfDiagonal(size);
  return [(u - size.width / 2) / half, (v - size.height / 2) / half];
};
const undone = ({ k1, k2 }: { k1: number; k2: number }, [x, y]: Vec): Vec => {
  const r2 = x * x + y * y;
  const by = 1 + k1 * r2 + k2 * r2 * r2;
  return [x * by, y * by];
};

/** The way back: from a place on the plane, mm, to one in the picture, px. */
export function picturing(view: PlaneView): (p: Vec) => Vec {
  const back = inverted(view.toMm);
  const half = halfDiagonal(view);
  const { width, height, k1, k2 } = view;
  return (p) => {
    if (!back) return [NaN, NaN];
    const [x, y] = mapped(back, p);
    const far = x * x + y * y;
    // r·(1 + k₁r² + k₂r⁴) = √far, by Newton's steps on the factor.
    let by = 1;
    for (let i = 0; (k1 !== 0 || k2 !== 0) && i < 5; i++) {
      const q = far * by * by;
      by -= (by * (1 + k1 * q + k2 * q * q) - 1) / (1 + 3 * k1 * q + 5 * k2 * q * q);
    }
    return [x * by * half + width / 2, y * by * half + height / 2];
  };
}

/** Distance to either side at which an edge is looked for, mm, from round to round. */
const REACHES = [1.6, 0.8, 0.8];
/** From one place along an edge to the next, and off its ends, mm. */
const STEP = 2;
const OFF_ENDS = 2;
/** What differs less between black and white is no edge. */
const MIN_STEP = 24;
/** Distance above which a place is an outlier, in medians of all. */
const OUTLIER = 4;

/**
 * Edges whose places are known, or loose angles whose corners are known and of which it is open how
 * they are turned.
 */
export type Known = { edges: readonly MarkEdge[]; loose: readonly Standing[] };

export type Straightened = {
  view: PlaneView;
  loose: Standing[];
  /**
   * How far the edges are off once all is fitted, root of the mean of the squares, mm, and at how
   * many places.
   */
  rmsMm: number;
  places: number;
  /** How many of the places at which an edge should be were seen there, as a share. */
  seen: number;
};

/**
 * A first view made exact by the straight edges of the marks: each is looked for in the picture at
 * every 2 mm, and the map, the lens and how loose angles are turned are what fits all of them best.
 * Null where hardly any edge is to be found.
 *
 * @param picture the picture
 * @param first a view that is right to a millimetre or two
 * @param bends whether the lens is looked for too; else it is taken as in `first`
 */
export function straightened(
  picture: Picture,
  first: PlaneView,
  known: Known,
  bends = true,
): Straightened | null {
  let [view, loose] = [first, [...known.loose]];
  let last: Straightened | null = null;
  for (const [turn, reach] of REACHES.entries()) {
    const { seen, tried } = edgePlaces(picture, view, known.edges, loose, reach);
    if (seen.length < 24) return null;
    // The lens only once the map is about right, and once strays are gone.
    const kept = turn === 0 ? seen : withoutStrays(view, loose, seen);
    const found = { ...fitted(view, loose, kept, bends && turn > 0), seen: kept.length / tried };
    [view, loose, last] = [found.view, found.loose, found];
  }
  return last;
}

/**
 * A place in the picture at which an edge is seen, and the edge: one that stands still, or the nth
 * of a loose angle.
 */
type Seen = { at: Vec; edge: MarkEdge; of: number; side: number };

function edgePlaces(
  picture: Picture,
  view: PlaneView,
  edges: readonly MarkEdge[],
  loose: readonly Standing[],
  reach: number,
): { seen: Seen[]; tried: number } {
  const placeIn = picturing(view);
  const all = [
    ...edges.map((edge) => ({ edge, of: -1, side: 0, size: 1 })),
    ...loose.flatMap((standing, of) =>
      edgesOf(standing).map((edge, side) => ({ edge, of, side, size: standing.size })),
    ),
  ];
  let tried = 0;
  const seen = all.flatMap(({ edge, of, side, size }) => {
    const long = distance(edge.a, edge.b);
    const white = left(unit(sub(edge.a, edge.b)));
    const count = Math.max(1, Math.floor((long - 2 * OFF_ENDS) / STEP));
    tried += count;
    const found: Seen[] = [];
    for (let i = 0; i < count; i++) {
      const p = mix(
        edge.a,
        edge.b,
        (OFF_ENDS + ((i + 0.5) * (long - 2 * OFF_ENDS)) / count) / long,
      );
      const at = edgeAt(
        picture,
        placeIn(along(p, white, -reach * size)),
        placeIn(along(p, white, reach * size)),
      );
      if (at) found.push({ at, edge, of, side });
    }
    return found;
  });
  return { seen, tried };
}

/**
 * Where between two places the picture goes from dark to bright: where it is half way, by the
 * largest step.
 */
function edgeAt(picture: Picture, dark: Vec, bright: Vec): Vec | null {
  if (!isOn(picture, dark[0], dark[1]) || !isOn(picture, bright[0], bright[1])) return null;
  const n = Math.min(80, Math.max(8, Math.ceil(distance(dark, bright) * 2)));
  const values = Float64Array.from({ length: n + 1 }, (_, i) =>
    brightAt(picture, ...mix(dark, bright, i / n)),
  );
  const over = Math.max(2, Math.round(n / 8));
  let [most, at] = [0, 0];
  for (let i = 0; i + over <= n; i++) {
    const step = values[i + over]! - values[i]!;
    if (step > most) [most, at] = [step, i];
  }
  if (most < MIN_STEP) return null;
  const mean = (from: number, to: number) => {
    let sum = 0;
    for (let i = from; i < to; i++) sum += values[i]!;
    return sum / (to - from);
  };
  // What is level on either side of the step, away from it by as much as it is wide.
  const low = mean(Math.max(0, at - 2 * over), Math.max(1, at - over + 1));
  const high = mean(Math.min(n, at + 2 * over), Math.min(n + 1, at + 3 * over + 1));
  const half = (low + high) / 2;
  for (let i = Math.max(0, at - over); i < Math.min(n, at + 2 * over); i++) {
    const [a, b] = [values[i]!, values[i + 1]!];
    if (a <= half && b > half) return mix(dark, bright, (i + (half - a) / (b - a)) / n);
  }
  return null;
}

/** How far off a place lies from its edge, mm, to the right of it above 0. */
function off(view: PlaneView, loose: readonly Standing[], { at, edge, of, side }: Seen): number {
  const { a, b } = of < 0 ? edge : edgesOf(loose[of]!)[side]!;
  const ahead = unit(sub(b, a));
  const p = sub(toMm(view, at), a);
  return ahead[1] * p[0] - ahead[0] * p[1];
}

function withoutStrays(view: PlaneView, loose: readonly Standing[], seen: readonly Seen[]): Seen[] {
  const far = seen.map((one) => Math.abs(off(view, loose, one)));
  const middle = [...far].sort((a, b) => a - b)[Math.floor(far.length / 2)]!;
  return seen.filter((_, i) => far[i]! <= OUTLIER * Math.max(middle, 0.02));
}

function fitted(
  view: PlaneView,
  loose: readonly Standing[],
  seen: readonly Seen[],
  bends: boolean,
): Omit<Straightened, 'seen'> {
  const start = [
    ...view.toMm.slice(0, 8),
    ...(bends ? [view.k1, view.k2] : []),
    ...loose.map(({ turn }) => turn),
  ];
  const open = (x: Float64Array): { view: PlaneView; loose: Standing[] } => {
    const lens = bends ? { k1: x[8]!, k2: x[9]! } : { k1: view.k1, k2: view.k2 };
    return {
      view: { ...view, ...lens, toMm: [...x.subarray(0, 8), 1] as unknown as Homography },
      loose: loose.map((standing, i) => ({ ...standing, turn: x[x.length - loose.length + i]! })),
    };
  };
  const size = Math.hypot(view.toMm[0], view.toMm[4]);
  const sizes = start.map((_, i) => (i < 6 ? size * 1e-6 : 1e-6));
  // What is known of lenses keeps the two terms in bounds where the edges say little of them.
  const lens = bends ? 2 : 0;
  const { x, sum } = leastSquares(
    start,
    (x, into) => {
      const now = open(x);
      seen.forEach((one, i) => (into[i] = off(now.view, now.loose, one)));
      if (bends) [into[seen.length], into[seen.length + 1]] = [x[8]! / 2, x[9]! / 1];
    },
    seen.length + lens,
    sizes,
    20,
  );
  return { ...open(x), rmsMm: Math.sqrt(sum / seen.length), places: seen.length };
}
