import type { Ellipse } from '../ellipse';
import { ellipseOf } from '../ellipse';
import type { Failure, Result } from '../result';
import { failure } from '../result';
import { cholesky, inverse } from '../../solve/symmetric';
import type { Places, Span } from './adjust';
import {
  adjusted,
  changesOf,
  columnsOf,
  misfit,
  normals,
  spanLength,
  undetermined,
} from './adjust';
import { frameOf } from './frame';
import { shapeOf, standings } from './shape';

/** On a line, in the plane, or in space. */
export type Dimension = 1 | 2 | 3;
/**
 * A point by its name; with `at` (mm, as many figures as there are dimensions) it is held there.
 */
export type NetworkPoint = { name: string; at?: readonly number[] | null };
/**
 * A distance read between two points: mm, and how good the reading is (one standard deviation), mm.
 */
export type Tape = { from: string; to: string; mm: number; uMm: number };
export type Network = {
  dimension: Dimension;
  points: readonly NetworkPoint[];
  tapes: readonly Tape[];
};

export type PlacedPoint = {
  name: string;
  at: number[];
  /**
   * ± of each figure of `at`, one standard deviation, from how good the tapes are said to be; 0 for
   * what is held.
   */
  uMm: number[];
  /** In the plane: the ellipse of that. */
  ellipse: Ellipse | null;
  /**
   * Where else it could as well stand, on the other side of those it was measured from: no tape
   * here would tell; else null.
   */
  elsewhere: number[] | null;
};
export type AdjustedTape = {
  from: string;
  to: string;
  /** Adjusted − read, mm. */
  residualMm: number;
  /**
   * |residual| / (u·√r), r the tape's share of the redundancy; null where no other tape checks it (r ≈ 0).
   */
  normalised: number | null;
};
export type Adjustment = {
  points: PlacedPoint[];
  tapes: AdjustedTape[];
  /**
   * √(Σ(residual/u)²/redundancy): about 1 when the tapes are as good as they are said to be; null
   * without redundancy.
   */
  sigma0: number | null;
  /** How many tapes there are beyond those that it takes. */
  redundancy: number;
  /** The tape most likely misread; null when all agree, or when several are as likely. */
  suspect: { from: string; to: string } | null;
};

/** A tape with less of the redundancy than this is checked by no other. */
const UNCHECKED = 1e-6;
/**
 * A normalised residual above this makes a tape suspect (Baarda's test, about one in four hundred
 * by chance).
 */
export const SUSPECT_ABOVE = 3;
/**
 * Two normalised residuals within this share of each other are equal: which of the two it was
 * cannot be told.
 */
const AS_LIKELY = 1e-4;
/** Another place that fits worse by no more than this (Σ(v/u)²) is not ruled out. */
const NOT_RULED_OUT = 9;

/**
 * Places points by the distances read between them, by least squares with weights 1/u². Points that
 * are held stay; what they leave open is settled so: the first point at the origin, the second on
 * +x, the third on the +y side, in space the fourth on the +z side (where one lies on the line or
 * in the plane of those before, the next that does not); beside held points likewise, with x along
 * the first two of them.
 *
 * Residual = adjusted − read. Formulas: Ghilani & Wolf, Adjustment Computations, chapters 14, 16
 * and 21.
 *
 * Problems: `network-empty`, `network-point-twice`, `network-point-unknown`, `network-point-form`,
 * `network-tape-loop`, `network-tape-form`, `undetermined` (about: the points that the tapes leave
 * free to move).
 */
export function adjustNetwork(network: Network): Result<Adjustment> {
  const read = spansOf(network);
  if (!read.ok) return read;
  const { dimension, points } = network;
  const { spans, held } = read;
  if (points.length === 1) return alone(points[0]!, dimension);
  // First the shape by itself, what is held tied together by how far apart it is, then in its
  // place.
  const shape = shapeOf(points.length, dimension, [...spans, ...heldApart(held, dimension, spans)]);
  const frame = frameOf(shape, held);
  const places = adjusted(frame.places, spans);
  const loose = undetermined(places, spans);
  if (loose.length > 0)
    return failure({ code: 'undetermined', about: loose.map((i) => points[i]!.name) });
  const columns = columnsOf(places);
  const { column, free } = columns;
  const l = cholesky(normals(places, spans, columns).matrix, free);
  const covariance = l ? inverse(l, free) : new Float64Array(0);
  const d = dimension;
  const blockOf = (i: number): Float64Array => {
    const inside = new Float64Array(d * d);
    for (let j = 0; j < d; j++)
      for (let k = 0; k < d; k++) {
        const [a, b] = [column[i * d + j]!, column[i * d + k]!];
        if (a >= 0 && b >= 0) inside[j * d + k] = covariance[a * free + b]!;
      }
    return frame.turned(inside);
  };
  const redundancy = spans.length - free;
  const tapes = network.tapes.map(({ from, to }, i): AdjustedTape => {
    const span = spans[i]!;
    const residualMm = spanLength(places, span) - span.mm;
    const changes = changesOf(places, column, span);
    let known = 0;
    for (const [a, x] of changes)
      for (const [b, y] of changes) known += x * y * covariance[a * free + b]!;
    const share = 1 - known / span.uMm ** 2;
    const normalised =
      share > UNCHECKED ? Math.abs(residualMm) / (span.uMm * Math.sqrt(share)) : null;
    return { from, to, residualMm, normalised };
  });
  return {
    ok: true,
    points: points.map((point, i): PlacedPoint => {
      const block = blockOf(i);
      const other = held[i] || frame.anchors.includes(i) ? null : placeElsewhere(places, spans, i);
      return {
        name: point.name,
        at: held[i] ? [...held[i]] : frame.outward(places.at.subarray(i * d, (i + 1) * d)),
        uMm: Array.from({ length: d }, (_, k) => Math.sqrt(Math.max(0, block[k * d + k]!))),
        ellipse: d === 2 ? ellipseOf(block[0]!, block[1]!, block[3]!) : null,
        elsewhere: other && frame.outward(other),
      };
    }),
    tapes,
    sigma0: redundancy > 0 ? Math.sqrt(misfit(places, spans) / redundancy) : null,
    redundancy,
    suspect: suspectOf(tapes),
  };
}

function suspectOf(tapes: readonly AdjustedTape[]): Adjustment['suspect'] {
  const [worst, second] = [...tapes].sort((a, b) => (b.normalised ?? 0) - (a.normalised ?? 0));
  if (!worst || (worst.normalised ?? 0) <= SUSPECT_ABOVE) return null;
  if (second && (second.normalised ?? 0) >= worst.normalised! * (1 - AS_LIKELY)) return null;
  return { from: worst.from, to: worst.to };
}

/** Where one point, all others as they are, fits as well a good way off; null where nowhere. */
function placeElsewhere(places: Places, spans: readonly Span[], i: number): number[] | null {
  const d = places.dimension;
  const place = (j: number) => [...places.at.subarray(j * d, (j + 1) * d)];
  const ties = spans
    .filter((span) => span.from === i || span.to === i)
    .map(({ from, to, mm, uMm }) => ({ at: place(from === i ? to : from), mm, uMm }));
  if (ties.length === 0) return null;
  const here = place(i);
  const found = standings(ties, d);
  const away = (at: number[]) => Math.hypot(...at.map((x, k) => x - here[k]!));
  const own = ties.reduce((sum, { at, mm, uMm }) => sum + ((away(at) - mm) / uMm) ** 2, 0);
  const far = 10 * Math.max(...ties.map((tie) => tie.uMm));
  return (
    found.find(({ at, misfit: other }) => away(at) > far && other < own + NOT_RULED_OUT)?.at ?? null
  );
}

const alone = ({ name, at }: NetworkPoint, dimension: Dimension): Result<Adjustment> => ({
  ok: true,
  points: [
    {
      name,
      at: at ? [...at] : Array.from({ length: dimension }, () => 0),
      uMm: Array.from({ length: dimension }, () => 0),
      ellipse: dimension === 2 ? ellipseOf(0, 0, 0) : null,
      elsewhere: null,
    },
  ],
  tapes: [],
  sigma0: null,
  redundancy: 0,
  suspect: null,
});

type Held = (readonly number[] | null)[];

function spansOf({
  dimension,
  points,
  tapes,
}: Network): Failure | { ok: true; spans: Span[]; held: Held } {
  if (points.length === 0) return failure({ code: 'network-empty' });
  const index = new Map<string, number>();
  for (const { name, at } of points) {
    if (index.has(name)) return failure({ code: 'network-point-twice', about: [name] });
    if (at && (at.length !== dimension || !at.every(Number.isFinite)))
      return failure({ code: 'network-point-form', about: [name], numbers: { dimension } });
    index.set(name, index.size);
  }
  const spans: Span[] = [];
  for (const { from, to, mm, uMm } of tapes) {
    const [a, b] = [index.get(from), index.get(to)];
    if (a === undefined || b === undefined)
      return failure({ code: 'network-point-unknown', about: [a === undefined ? from : to] });
    if (a === b) return failure({ code: 'network-tape-loop', about: [from] });
    if (!(mm > 0) || !(uMm > 0) || !Number.isFinite(mm + uMm))
      return failure({ code: 'network-tape-form', about: [from, to], numbers: { mm, uMm } });
    spans.push({ from: a, to: b, mm, uMm });
  }
  return { ok: true, spans, held: points.map((point) => point.at ?? null) };
}

/** How far apart the held points are, as tapes better than any that was read. */
function heldApart(held: Held, dimension: number, spans: readonly Span[]): Span[] {
  const best = Math.min(1, ...spans.map((span) => span.uMm)) / 10;
  const found: Span[] = [];
  held.forEach((a, i) => {
    for (let j = 0; a && j < i; j++) {
      const b = held[j];
      const mm = b ? Math.hypot(...a.map((x, k) => x - b[k]!)) : 0;
      if (mm > 0) found.push({ from: j, to: i, mm, uMm: best });
    }
  });
  // A few to each are enough: of many held points not every pair.
  return found.length > 400 ? found.filter(({ from, to }) => to - from <= dimension + 1) : found;
}
