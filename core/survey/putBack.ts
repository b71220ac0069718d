import type { Ellipse } from '../measure/ellipse';
import { axesOf, ellipseOf } from '../measure/ellipse';
import type { Places, Span } from '../measure/network/adjust';
import { columnsOf, normals, undetermined } from '../measure/network/adjust';
import type { Result } from '../measure/result';
import { failure } from '../measure/result';
import { cholesky, inverse } from '../solve/symmetric';

/** A point where it stands (mm), and whether it is taken away with what is cut out. */
export type ReferencePoint = {
  name: string;
  at: readonly number[];
  lost: boolean;
  /**
   * Where it could as well stand, where the tapes leave two places: what is said is then true for
   * both.
   */
  elsewhere?: readonly number[] | null;
};
/** A distance that has been read, and how good it is (one standard deviation), mm. */
export type ReadTape = { from: string; to: string; uMm: number };

export type PutBack = {
  name: string;
  /**
   * How well it can be placed again from what stays: half the longest axis, one standard deviation,
   * mm; null: not at all.
   */
  uMm: number | null;
  /** In the plane, where it can be placed. */
  ellipse: Ellipse | null;
  /**
   * The one further measure that would help most, and how good it would then be; null where no one
   * measure helps.
   */
  bestNext: { to: string; uMm: number } | null;
};

/** How good a further measure is taken to be: a tape's, where nothing else is said, mm. */
const NEXT_TAPE_MM = 1;
/** A further measure that makes it better by less than this share is no help. */
const NO_HELP = 0.99;

/**
 * How well each point that is taken away could be placed again from those that stay, which are
 * taken as known: by the tapes that have been read between it and them, and between it and others
 * that are lost.
 *
 * Problems: `network-point-twice`, `network-point-unknown`, `network-point-form`,
 * `network-tape-form`, `network-tape-loop`.
 */
export function putBack(
  dimension: 2 | 3,
  points: readonly ReferencePoint[],
  tapes: readonly ReadTape[],
  nextMm = NEXT_TAPE_MM,
): Result<{ lost: PutBack[] }> {
  const index = new Map<string, number>();
  for (const { name, at } of points) {
    if (index.has(name)) return failure({ code: 'network-point-twice', about: [name] });
    if (at.length !== dimension || !at.every(Number.isFinite))
      return failure({ code: 'network-point-form', about: [name], numbers: { dimension } });
    index.set(name, index.size);
  }
  const spans: Span[] = [];
  for (const { from, to, uMm } of tapes) {
    const [a, b] = [index.get(from), index.get(to)];
    if (a === undefined || b === undefined)
      return failure({ code: 'network-point-unknown', about: [a === undefined ? from : to] });
    if (a === b) return failure({ code: 'network-tape-loop', about: [from] });
    if (!(uMm > 0) || !Number.isFinite(uMm))
      return failure({ code: 'network-tape-form', about: [from, to], numbers: { mm: 0, uMm } });
    spans.push({ from: a, to: b, mm: 0, uMm });
  }
  const lost = points.flatMap((point, i) => (point.lost ? [i] : []));
  const found = lost.map((i): PutBack => {
    const { elsewhere } = points[i]!;
    // Where the tapes leave it two places: as it is at the worse of them.
    const worst = (tapes: readonly Span[]): HowWell => {
      const here = howWell(dimension, points, tapes, i);
      if (!elsewhere || !here) return here;
      const there = howWell(
        dimension,
        points.map((point, k) => (k === i ? { ...point, at: elsewhere } : point)),
        tapes,
        i,
      );
      return there && there.uMm < here.uMm ? here : there;
    };
    const now = worst(spans);
    const measured = new Set(
      spans.flatMap(({ from, to }) => (from === i ? [to] : to === i ? [from] : [])),
    );
    let bestNext: PutBack['bestNext'] = null;
    points.forEach(({ name, at }, to) => {
      // Two points on one spot: a tape between them says nothing of a direction.
      if (to === i || measured.has(to) || at.every((x, k) => x === points[i]!.at[k])) return;
      const then = worst([...spans, { from: i, to, mm: 0, uMm: nextMm }]);
      if (then && then.uMm < (bestNext?.uMm ?? Infinity)) bestNext = { to: name, uMm: then.uMm };
    });
    const helps = bestNext as PutBack['bestNext'];
    return {
      name: points[i]!.name,
      uMm: now?.uMm ?? null,
      ellipse: now?.ellipse ?? null,
      bestNext: helps && helps.uMm < (now?.uMm ?? Infinity) * NO_HELP ? helps : null,
    };
  });
  return { ok: true, lost: found };
}

type HowWell = { uMm: number; ellipse: Ellipse | null } | null;

/** How well one lost point is placed by the spans; null where they leave it free to move. */
function howWell(
  d: 2 | 3,
  points: readonly ReferencePoint[],
  spans: readonly Span[],
  wanted: number,
): HowWell {
  const lost = points.map((point) => point.lost);
  // Lost points that are tied to none of these are no concern of theirs, and would leave the whole
  // undetermined.
  const near = new Set([wanted]);
  for (let before = 0; before < near.size;) {
    before = near.size;
    for (const { from, to } of spans) {
      if (near.has(from) && lost[to]) near.add(to);
      if (near.has(to) && lost[from]) near.add(from);
    }
  }
  const placesOf = (free: ReadonlySet<number>): Places => ({
    dimension: d,
    at: Float64Array.from(points.flatMap((point) => [...point.at])),
    held: Uint8Array.from({ length: d * points.length }, (_, k) =>
      Number(!free.has(Math.floor(k / d))),
    ),
  });
  const within = (free: ReadonlySet<number>) =>
    spans.filter(
      ({ from, to }) =>
        [from, to].every((i) => !lost[i] || free.has(i)) && (free.has(from) || free.has(to)),
    );
  // A lost neighbour that cannot be placed itself is no help; without it, what is left may still
  // be.
  let free: Set<number> = near;
  for (;;) {
    const loose = new Set(undetermined(placesOf(free), within(free)));
    if (loose.has(wanted)) {
      const others = [...loose].filter((i) => i !== wanted);
      if (others.length === 0) return null;
      // It may hang loose only on them.
      free = new Set([...free].filter((i) => !loose.has(i) || i === wanted));
    } else if (loose.size > 0) free = new Set([...free].filter((i) => !loose.has(i)));
    else break;
  }
  const places = placesOf(free);
  const used = within(free);
  const columns = columnsOf(places);
  const { column, free: count } = columns;
  const l = cholesky(normals(places, used, columns).matrix, count);
  if (!l) return null;
  const covariance = inverse(l, count);
  const block = new Float64Array(d * d);
  for (let j = 0; j < d; j++)
    for (let k = 0; k < d; k++)
      block[j * d + k] = covariance[column[wanted * d + j]! * count + column[wanted * d + k]!]!;
  return {
    uMm: axesOf(block, d)[0]!,
    ellipse: d === 2 ? ellipseOf(block[0]!, block[1]!, block[3]!) : null,
  };
}
