import type { Vec } from '../measure/vector';
import { means } from './regions';
import type { StraightPicture } from './straightPicture';
import { coarser } from './straightPicture';

/**
 * The straight edge of a hard shadow across a straight picture: beyond it, where nx·x + ny·y > c
 * (x, y in pixels from the upper left; n of length 1), all is brighter by `log` as a natural
 * logarithm, whatever it is; below 0 darker.
 */
export type ShadowEdge = { nx: number; ny: number; c: number; log: number };

/**
 * Distance from a shadow's edge within which a place may lie on either side of it or in the
 * penumbra: mm, and at least in pixels.
 */
const [EDGE_MM, EDGE_PIXELS] = [3, 2.5];
export const shadowEdgeMm = ({ stepMm }: StraightPicture): number =>
  Math.max(EDGE_MM, EDGE_PIXELS * stepMm);
/** Size of the picture on which lines are sought, and of that on which they are placed, pixels. */
const [ROUGH_PIXELS, FINE_PIXELS] = [24_000, 260_000];
/**
 * Distance to either side at which the light is compared when a line is sought and when it is
 * placed, and the step along it, in pixels of that picture.
 */
const [BESIDE, CLOSE_BESIDE] = [3, 1.5];
const ALONG = 2;
/** Steps at which lines are sought, degrees and pixels. */
const TURN_DEG = 2;
const APART = 2;
/** A shadow is darker by this at least, as a logarithm: by an eighth. */
const MIN_STEP = 0.13;
/**
 * Of the places along its edge this share at least goes the same way by as much as half of what the
 * middle one does.
 */
const MIN_ALIKE = 0.72;
/**
 * Share of each end of the edge that must by itself do what the whole does: a card's own side ends
 * before.
 */
const END_SHARE = 0.04;
/** Its colour stays: red and blue against green change by less than this, as a logarithm. */
const MAX_COLOUR = 0.2;
/** Minimum length of a shadow's edge in the picture, as a share of the shorter side. */
const MIN_LONG = 0.3;
/** Two edges of a strip of shadow, or of two shadows: more are none. */
const MAX_EDGES = 3;

/**
 * Where the edges of hard shadows cross a picture from rim to rim: lines along which all that is
 * seen, card and bench alike, steps by one and the same ratio of brightness while its colour stays
 * (a shadow takes the same share of light from everything; Finlayson, Hordley, Lu & Drew 2006, "On
 * the removal of shadows from images"). The clearest first.
 *
 * @param where 1 for each pixel that is looked at
 */
export function shadowEdges(straight: StraightPicture, where: Uint8Array): ShadowEdge[] {
  const rough = seenAs(straight, where, ROUGH_PIXELS, true);
  let fine: Seen | null = null;
  const found: ShadowEdge[] = [];
  while (found.length < MAX_EDGES) {
    const nearly = clearest(rough, BESIDE, linesAcross(rough), found);
    if (!nearly) break;
    fine ??= seenAs(straight, where, FINE_PIXELS, false);
    const pixel = rough.by / fine.by;
    const placed =
      clearest(fine, CLOSE_BESIDE, linesBeside(scaled(nearly, pixel), fine, pixel), []) ??
      scaled(nearly, pixel);
    // Within this of it light still goes over into shade: how much darker it gets is seen farther off.
    const edge = { ...scaled(placed, fine.by), log: Math.sign(placed.log) * Math.abs(nearly.log) };
    // What this one does is taken out before the next is looked for.
    for (const seen of [rough, fine]) takeOut(seen, scaled(edge, 1 / seen.by));
    found.push(edge);
  }
  return found;
}

type Line = Pick<ShadowEdge, 'nx' | 'ny' | 'c'>;
const scaled = <L extends Line>(line: L, by: number): L => ({ ...line, c: line.c * by });

function seenAs(
  straight: StraightPicture,
  where: Uint8Array,
  pixels: number,
  coloured: boolean,
): Seen {
  const by = Math.max(1, Math.round(Math.sqrt((straight.width * straight.height) / pixels)));
  const small = coarser(straight, by);
  const { width, height } = small;
  return {
    ...logsOf(small, coloured),
    where: thinned(where, straight.width, small, by),
    width,
    height,
    by,
  };
}

function takeOut({ bright, width, height }: Seen, { nx, ny, c, log }: ShadowEdge): void {
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) if (nx * (x + 0.5) + ny * (y + 0.5) > c) bright[i]! -= log;
}

const lineAt = (turnDeg: number, c: number): Line => ({
  nx: Math.cos((turnDeg * Math.PI) / 180),
  ny: Math.sin((turnDeg * Math.PI) / 180),
  c,
});

/** Lines all over a picture. */
function* linesAcross({ width, height }: Seen): Generator<Line> {
  for (let turn = 0; turn < 180; turn += TURN_DEG) {
    const { nx, ny } = lineAt(turn, 0);
    const ends = [0, nx * width, ny * height, nx * width + ny * height];
    for (let c = Math.min(...ends); c < Math.max(...ends); c += APART) yield { nx, ny, c };
  }
}

/**
 * Lines near one, a quarter of a degree and a pixel apart, out to two such steps; about the middle of
 * what is looked at.
 */
function* linesBeside(
  { nx, ny, c }: Line,
  { width, height }: Seen,
  pixel: number,
): Generator<Line> {
  const turnDeg = (Math.atan2(ny, nx) * 180) / Math.PI;
  const [mx, my] = [width / 2, height / 2];
  for (let by = -TURN_DEG; by <= TURN_DEG; by += 0.25) {
    const line = lineAt(turnDeg + by, 0);
    const middle = c + (line.nx - nx) * mx + (line.ny - ny) * my;
    for (let off = -2 * APART * pixel; off <= 2 * APART * pixel; off++)
      yield { ...line, c: middle + off };
  }
}

type Seen = {
  /**
   * Logarithms over a few neighbours: of brightness, and, where colour is asked for, of red and
   * blue against green.
   */
  bright: Float32Array;
  colours: Float32Array[];
  where: Uint8Array;
  width: number;
  height: number;
  /** How many pixels of the straight picture one of these is wide. */
  by: number;
};

function logsOf(
  { data, width, height }: StraightPicture,
  coloured: boolean,
): Pick<Seen, 'bright' | 'colours'> {
  const of = (value: (r: number, g: number, b: number) => number) => {
    const all = new Float32Array(width * height);
    for (let i = 0, k = 0; i < all.length; i++, k += 4)
      all[i] = Math.log(value(data[k]! + 4, data[k + 1]! + 4, data[k + 2]! + 4));
    return means(all, width, height, 1);
  };
  return {
    bright: of((r, g, b) => 0.3 * r + 0.59 * g + 0.11 * b),
    colours: coloured ? [of((r, g) => r / g), of((_, g, b) => b / g)] : [],
  };
}

/** Of each block of pixels whether its middle is set. */
function thinned(where: Uint8Array, width: number, small: StraightPicture, by: number): Uint8Array {
  const found = new Uint8Array(small.width * small.height);
  for (let y = 0; y < small.height; y++)
    for (let x = 0; x < small.width; x++)
      found[y * small.width + x] = where[(y * by + (by >> 1)) * width + x * by + (by >> 1)]!;
  return found;
}

/**
 * Of some lines that with the clearest step along all of it, none that was found before; null for
 * none.
 */
function clearest(
  seen: Seen,
  beside: number,
  lines: Iterable<Line>,
  before: readonly ShadowEdge[],
): ShadowEdge | null {
  let best: (ShadowEdge & { score: number }) | null = null;
  const most = Math.ceil(Math.hypot(seen.width, seen.height) / ALONG) + 2;
  const [steps, pairs] = [new Float32Array(most), new Int32Array(2 * most)];
  for (const line of lines) {
    const one = stepAlong(seen, line, beside, pairs, steps);
    if (
      one &&
      (!best || one.score > best.score) &&
      !before.some((b) => near(scaled(b, 1 / seen.by), line))
    )
      best = { ...line, ...one };
  }
  return best && { nx: best.nx, ny: best.ny, c: best.c, log: best.log };
}

/** Whether two lines are nearly the same: of one soft edge two would be found. */
function near(a: Line, b: Line): boolean {
  const same = a.nx * b.nx + a.ny * b.ny;
  return Math.abs(same) > 0.98 && Math.abs(a.c - Math.sign(same) * b.c) < 2 * BESIDE;
}

/**
 * Pairs of pixels to either side of a line where both are looked at, one after the other along it:
 * how many, into `pairs`.
 */
function pairsAlong(
  { where, width, height }: Seen,
  { nx, ny, c }: Line,
  beside: number,
  pairs: Int32Array,
): number {
  const [dx, dy] = [beside * nx, beside * ny];
  // Only as far as the middle of a pair can lie on the picture.
  let [from, to] = [-Infinity, Infinity];
  for (const [at, way, most] of [
    [c * nx, -ny, width],
    [c * ny, nx, height],
  ] as const) {
    if (Math.abs(way) < 1e-9) {
      if (at < 0 || at >= most) return 0;
      continue;
    }
    const [a, b] = [-at / way, (most - at) / way];
    from = Math.max(from, Math.min(a, b));
    to = Math.min(to, Math.max(a, b));
  }
  let count = 0;
  for (let s = from; s <= to; s += ALONG) {
    const [x, y] = [c * nx - s * ny, c * ny + s * nx];
    const [ax, ay, bx, by] = [x - dx, y - dy, x + dx, y + dy];
    if (
      Math.min(ax, bx) < 0 ||
      Math.min(ay, by) < 0 ||
      Math.max(ax, bx) >= width ||
      Math.max(ay, by) >= height
    )
      continue;
    const [a, b] = [(ay | 0) * width + (ax | 0), (by | 0) * width + (bx | 0)];
    if (!where[a] || !where[b]) continue;
    pairs[count++] = a;
    pairs[count++] = b;
  }
  return count / 2;
}

/**
 * How brightness steps along a line: the middle step, and how clear it is; null where that is no
 * shadow.
 */
function stepAlong(
  seen: Seen,
  line: Line,
  beside: number,
  pairs: Int32Array,
  steps: Float32Array,
): { log: number; score: number } | null {
  const { bright, width, height } = seen;
  const count = pairsAlong(seen, line, beside, pairs);
  if (count * ALONG < MIN_LONG * Math.min(width, height)) return null;
  const between = (of: Float32Array) => {
    for (let i = 0; i < count; i++) steps[i] = of[pairs[2 * i + 1]!]! - of[pairs[2 * i]!]!;
  };
  between(bright);
  let [up, down] = [0, 0];
  for (let i = 0; i < count; i++)
    if (steps[i]! > MIN_STEP / 2) up++;
    else if (steps[i]! < -MIN_STEP / 2) down++;
  if (Math.max(up, down) < MIN_ALIKE * count) return null;
  const log = middle(steps, 0, count);
  if (Math.abs(log) < MIN_STEP) return null;
  let alike = 0;
  for (let i = 0; i < count; i++) if (Math.abs(steps[i]! - log) < Math.abs(log) / 2) alike++;
  const end = Math.max(4, Math.round(END_SHARE * count));
  const ends = [middle(steps, 0, end), middle(steps, count - end, count)];
  if (alike < MIN_ALIKE * count || ends.some((one) => Math.abs(one - log) > Math.abs(log) / 2))
    return null;
  for (const colour of seen.colours) {
    between(colour);
    if (Math.abs(middle(steps, 0, count)) > MAX_COLOUR) return null;
  }
  return { log, score: (alike / count) * Math.abs(log) * Math.sqrt(count) };
}

/** Whether a place of the plane lies in the penumbra of a shadow's edge. */
export const isBeside = (
  shadows: readonly ShadowEdge[],
  straight: StraightPicture,
  [x, y]: Vec,
): boolean => {
  const { leftMm, topMm, stepMm } = straight;
  const [i, j] = [(x - leftMm) / stepMm, (topMm - y) / stepMm];
  return shadows.some(
    ({ nx, ny, c }) => Math.abs(nx * i + ny * j - c) * stepMm < shadowEdgeMm(straight),
  );
};

/** The middle one of some figures. */
const middle = (of: Float32Array, from: number, to: number): number =>
  of.slice(from, to).sort()[(to - from) >> 1] ?? 0;
