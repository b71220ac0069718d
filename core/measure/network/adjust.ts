import type { Square } from '../../solve/symmetric';
import { cholesky, inverse, solved } from '../../solve/symmetric';

/**
 * A distance that was read between two points, by index: mm, and how good it is (one standard
 * deviation), mm.
 */
export type Span = { from: number; to: number; mm: number; uMm: number };

/**
 * Points in `dimension` dimensions one after the other in one array, and which of their figures are
 * held.
 */
export type Places = { dimension: number; at: Float64Array; held: Uint8Array };

/** The column of each free figure, −1 for those held, and how many are free. */
export function columnsOf({ held }: Places): { column: Int32Array; free: number } {
  let free = 0;
  const column = new Int32Array(held.length);
  for (let i = 0; i < held.length; i++) column[i] = held[i] ? -1 : free++;
  return { column, free };
}

/** How far apart the two points of a span are, mm. */
export function spanLength({ dimension: d, at }: Places, { from, to }: Span): number {
  let sum = 0;
  for (let k = 0; k < d; k++) sum += (at[to * d + k]! - at[from * d + k]!) ** 2;
  return Math.sqrt(sum);
}

/** Σ((length − read)/u)². */
export function misfit(places: Places, spans: readonly Span[]): number {
  let sum = 0;
  for (const span of spans) sum += ((spanLength(places, span) - span.mm) / span.uMm) ** 2;
  return sum;
}

/**
 * How a span's length changes with the free figures: pairs of column and change (direction
 * cosines).
 */
export function changesOf(
  places: Places,
  column: Int32Array,
  span: Span,
): [column: number, change: number][] {
  const { dimension: d, at } = places;
  const length = spanLength(places, span);
  const found: [number, number][] = [];
  for (let k = 0; k < d; k++) {
    // Two points on one spot have no direction between them; any will lead them apart.
    const cosine =
      length > 0 ? (at[span.to * d + k]! - at[span.from * d + k]!) / length : k === 0 ? 1 : 0;
    const [to, from] = [column[span.to * d + k]!, column[span.from * d + k]!];
    if (to >= 0) found.push([to, cosine]);
    if (from >= 0) found.push([from, -cosine]);
  }
  return found;
}

/** Σ aᵀa and Σ a·(read − length) of the spans' changes, each over u² or, `plainly`, over one. */
export function normals(
  places: Places,
  spans: readonly Span[],
  { column, free }: ReturnType<typeof columnsOf>,
  plainly = false,
): { matrix: Square; slope: Float64Array } {
  const { dimension: d, at } = places;
  const matrix = new Float64Array(free * free);
  const slope = new Float64Array(free);
  // As `changesOf`, without its lists: this is most of what is done here.
  const index = new Int32Array(2 * d);
  const change = new Float64Array(2 * d);
  for (const span of spans) {
    const length = spanLength(places, span);
    const weight = plainly ? 1 : 1 / (span.uMm * span.uMm);
    const off = weight * (span.mm - length);
    for (let k = 0; k < d; k++) {
      const cosine =
        length > 0 ? (at[span.to * d + k]! - at[span.from * d + k]!) / length : k === 0 ? 1 : 0;
      index[k] = column[span.to * d + k]!;
      change[k] = cosine;
      index[d + k] = column[span.from * d + k]!;
      change[d + k] = -cosine;
    }
    for (let i = 0; i < 2 * d; i++) {
      const row = index[i]!;
      if (row < 0) continue;
      slope[row]! += change[i]! * off;
      for (let j = 0; j < 2 * d; j++)
        if (index[j]! >= 0) matrix[row * free + index[j]!]! += weight * change[i]! * change[j]!;
    }
  }
  return { matrix, slope };
}

/**
 * Nearer than this to where the misfit is least is there, mm; and so is where it falls by no more
 * than this share.
 */
const ENOUGH_MM = 1e-9;
const ENOUGH_SHARE = 1e-15;

/**
 * The places at which Σ((length − read)/u)² is least, found from where they are by Levenberg's and
 * Marquardt's steps (Nocedal & Wright, Numerical Optimization, 10.3). What is held stays.
 */
export function adjusted(from: Places, spans: readonly Span[], most = 120): Places {
  const columns = columnsOf(from);
  const { column, free } = columns;
  let now: Places = from;
  let cost = misfit(now, spans);
  let damping = 1e-3;
  for (let turn = 0; turn < most && free > 0; turn++) {
    const { matrix: n, slope } = normals(now, spans, columns);
    let largest = 0;
    for (let i = 0; i < free; i++) largest = Math.max(largest, n[i * free + i]!);
    // Steps ever shorter until one is no worse; there is no better place once a step would be
    // shorter than any tape shows.
    let better = false;
    for (let tries = 0; tries < 40 && !better; tries++) {
      const damped = Float64Array.from(n);
      for (let i = 0; i < free; i++)
        damped[i * free + i]! += damping * (n[i * free + i]! + 1e-9 * largest);
      const l = cholesky(damped, free);
      const step = l && solved(l, free, slope);
      if (step && step.every((x) => Math.abs(x) < ENOUGH_MM)) return shifted(now, column, step);
      const moved = step && shifted(now, column, step);
      const found = moved ? misfit(moved, spans) : Infinity;
      better = found <= cost;
      if (moved && better && cost - found <= ENOUGH_SHARE * cost) return moved;
      if (moved && better) [now, cost] = [moved, found];
      damping = better ? Math.max(1e-15, damping / 9) : Math.max(1e-12, damping * 8);
    }
    if (!better) break;
  }
  return now;
}

function shifted({ dimension, at, held }: Places, column: Int32Array, step: Float64Array): Places {
  const moved = Float64Array.from(at);
  for (let i = 0; i < moved.length; i++) if (column[i]! >= 0) moved[i]! += step[column[i]!]!;
  return { dimension, held, at: moved };
}

/**
 * Threshold of the ratio of a figure's variance to its tapes' above which it is not determined by
 * them.
 */
const UNDETERMINED = 1e8;
/**
 * So little holds every figure, that there is always an answer: what only this holds stands out by
 * far.
 */
const RIDGE = 1e-11;

/**
 * Which points, by index, the spans leave free to move some way: their lengths would not tell, to
 * the first order.
 */
export function undetermined(places: Places, spans: readonly Span[]): number[] {
  const columns = columnsOf(places);
  const { column, free } = columns;
  if (free === 0) return [];
  const n = normals(places, spans, columns, true).matrix;
  for (let i = 0; i < free; i++) n[i * free + i]! += RIDGE;
  const l = cholesky(n, free);
  const variance = l && inverse(l, free);
  const found = new Set<number>();
  column.forEach((c, i) => {
    if (c >= 0 && (!variance || !(variance[c * free + c]! < UNDETERMINED)))
      found.add(Math.floor(i / places.dimension));
  });
  return [...found];
}
