import { eigen } from '../../solve/symmetric';
import type { Places, Span } from './adjust';
import { adjusted, misfit } from './adjust';

/**
 * Maximum misfit of the right solution, in multiples of what the tapes allow; else others are
 * looked for.
 */
const GOOD = 3;
/** As many other beginnings are tried. */
const BEGINNINGS = 24;

/**
 * Budget for a shape, multiplications, about half a second: tapes that fit nothing at all must not
 * keep anyone waiting. A net of ten points could be adjusted thousands of times for it, one of
 * sixty in space thirty times.
 */
const WORK = 1e9;
const TURNS = 15;

/**
 * A shape that spans could have, somewhere and in some position, nothing held: the best of several
 * beginnings, each brought to its least misfit. Distances alone let a part be folded over onto the
 * wrong side, so that one beginning is not enough: the points one after the other from those that
 * stand, and all at once by their distances along the spans (Torgerson's scaling). Always gives the
 * same for the same.
 */
export function shapeOf(count: number, dimension: number, spans: readonly Span[]): Places {
  const freedom = Math.max(
    1,
    spans.length - (count * dimension - (dimension * (dimension + 1)) / 2),
  );
  const good = (places: Places) => misfit(places, spans) <= GOOD * GOOD * freedom;
  const unknown = count * dimension;
  const each = TURNS * (unknown ** 3 / 3 + spans.length * (2 * dimension) ** 2);
  const purse = { left: Math.max(4, Math.floor(WORK / each)) };
  const finished = (at: Float64Array) => {
    purse.left--;
    const free = { dimension, at, held: new Uint8Array(at.length) };
    const found = adjusted(free, spans, 2 * TURNS);
    return good(found) ? found : unfolded(found, spans, purse);
  };
  const inTurn = placedInTurn(count, dimension, spans);
  let best = finished(inTurn);
  if (good(best)) return best;
  const scaled = scaledFrom(count, dimension, spans);
  const size = Math.max(...spans.map((span) => span.mm), 1);
  const chance = series();
  for (let i = 0; i < BEGINNINGS && purse.left > 0 && !good(best); i++) {
    const base = i % 2 === 0 ? scaled : inTurn;
    const shaken = i === 0 ? base : base.map((x) => x + (chance() - 0.5) * size * 0.5);
    const found = finished(shaken);
    if (misfit(found, spans) < misfit(best, spans)) best = found;
  }
  return best;
}

/**
 * Always the same row of figures from 0 to 1 that look like chance (Numerical Recipes' quick
 * generator).
 */
function series(): () => number {
  let state = 20_011;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
}

type Tie = { at: readonly number[]; mm: number; uMm: number };

/**
 * The places where one point could stand by its distances to others: local best ones, the best
 * first.
 */
export function standings(
  ties: readonly Tie[],
  dimension: number,
): { at: number[]; misfit: number }[] {
  const centre = Array.from(
    { length: dimension },
    (_, k) => ties.reduce((sum, tie) => sum + tie.at[k]!, 0) / ties.length,
  );
  const reach = Math.max(...ties.map((tie) => tie.mm));
  const found: { at: number[]; misfit: number }[] = [];
  for (const direction of directions(dimension)) {
    const places: Places = {
      dimension,
      at: Float64Array.from([
        ...centre.map((x, k) => x + reach * direction[k]!),
        ...ties.flatMap((tie) => tie.at),
      ]),
      held: Uint8Array.from({ length: dimension * (ties.length + 1) }, (_, i) =>
        i < dimension ? 0 : 1,
      ),
    };
    const spans = ties.map(({ mm, uMm }, i): Span => ({ from: i + 1, to: 0, mm, uMm }));
    const at = adjusted(places, spans, 60);
    const one = { at: [...at.at.subarray(0, dimension)], misfit: misfit(at, spans) };
    if (
      !found.some((other) => Math.hypot(...other.at.map((x, k) => x - one.at[k]!)) < 1e-4 * reach)
    )
      found.push(one);
  }
  return found.sort((a, b) => a.misfit - b.misfit);
}

/**
 * Directions to look in, evenly about: both ways on a line, eight in the plane, fourteen in space.
 */
function directions(dimension: number): number[][] {
  if (dimension === 1) return [[1], [-1]];
  if (dimension === 2)
    return Array.from({ length: 8 }, (_, i) => [
      Math.cos((i * Math.PI) / 4),
      Math.sin((i * Math.PI) / 4),
    ]);
  const faces = [0, 1, 2].flatMap((k) =>
    [1, -1].map((sign) => [0, 1, 2].map((j) => (j === k ? sign : 0))),
  );
  const corners = [1, -1].flatMap((x) =>
    [1, -1].flatMap((y) => [1, -1].map((z) => [x, y, z].map((c) => c / Math.sqrt(3)))),
  );
  return [...faces, ...corners];
}

/** The spans of each point, with whom they lead to. */
function spansByPoint(count: number, spans: readonly Span[]): { other: number; span: Span }[][] {
  const of: { other: number; span: Span }[][] = Array.from({ length: count }, () => []);
  for (const span of spans) {
    of[span.from]!.push({ other: span.to, span });
    of[span.to]!.push({ other: span.from, span });
  }
  return of;
}

/**
 * One point after the other, that with the most distances to those that stand next; beside those
 * that cannot be placed so the rest are put down anywhere.
 */
function placedInTurn(count: number, dimension: number, spans: readonly Span[]): Float64Array {
  const at = new Float64Array(count * dimension);
  const placed = new Set<number>();
  const of = spansByPoint(count, spans);
  const size = Math.max(...spans.map((span) => span.mm), 1);
  const first = of.reduce((best, list, i) => (list.length > of[best]!.length ? i : best), 0);
  placed.add(first);
  const standing = (list: { other: number }[]) =>
    list.filter(({ other }) => placed.has(other)).length;
  const chance = series();
  while (placed.size < count) {
    let next = -1;
    for (let i = 0; i < count; i++)
      if (!placed.has(i) && (next < 0 || standing(of[i]!) > standing(of[next]!))) next = i;
    const ties = of[next]!.filter(({ other }) => placed.has(other)).map(({ other, span }): Tie => ({
      at: [...at.subarray(other * dimension, (other + 1) * dimension)],
      mm: span.mm,
      uMm: span.uMm,
    }));
    if (ties.length > 0) at.set(standings(ties, dimension)[0]!.at, next * dimension);
    else for (let k = 0; k < dimension; k++) at[next * dimension + k] = size * chance();
    placed.add(next);
  }
  return at;
}

/**
 * All at once: distances along the shortest way of spans, taken for straight ones, scaled into
 * `dimension` dimensions.
 */
function scaledFrom(count: number, dimension: number, spans: readonly Span[]): Float64Array {
  const apart = new Float64Array(count * count).fill(Infinity);
  for (let i = 0; i < count; i++) apart[i * count + i] = 0;
  for (const { from, to, mm } of spans) {
    const shorter = Math.min(mm, apart[from * count + to]!);
    apart[from * count + to] = apart[to * count + from] = shorter;
  }
  for (let k = 0; k < count; k++)
    for (let i = 0; i < count; i++)
      for (let j = 0; j < count; j++) {
        const by = apart[i * count + k]! + apart[k * count + j]!;
        if (by < apart[i * count + j]!) apart[i * count + j] = by;
      }
  const far = Math.max(...apart.filter(Number.isFinite), 1);
  const squares = apart.map((x) => (Number.isFinite(x) ? x : far) ** 2);
  const row = Array.from(
    { length: count },
    (_, i) => squares.subarray(i * count, (i + 1) * count).reduce((sum, x) => sum + x, 0) / count,
  );
  const all = row.reduce((sum, x) => sum + x, 0) / count;
  const centred = squares.map(
    (x, i) => -(x - row[Math.floor(i / count)]! - row[i % count]! + all) / 2,
  );
  const { values, vectors } = eigen(centred, count);
  const at = new Float64Array(count * dimension);
  for (let k = 0; k < dimension; k++) {
    const scale = Math.sqrt(Math.max(0, values[k] ?? 0));
    for (let i = 0; i < count; i++) at[i * dimension + k] = scale * (vectors[k]?.[i] ?? 0);
  }
  return at;
}

/**
 * Points that would stand better elsewhere, by themselves, are put there until none would, or the
 * purse is empty.
 */
function unfolded(from: Places, spans: readonly Span[], purse: { left: number }): Places {
  const { dimension: d } = from;
  const count = from.at.length / d;
  const of = spansByPoint(count, spans);
  let best = from;
  let cost = misfit(best, spans);
  for (let round = 0; round < 3; round++) {
    const before = cost;
    for (let i = 0; i < count; i++) {
      if (cost < 1e-12 * spans.length || purse.left <= 0) return best;
      const ties = of[i]!.map(({ other, span }): Tie => ({
        at: [...best.at.subarray(other * d, (other + 1) * d)],
        mm: span.mm,
        uMm: span.uMm,
      }));
      if (ties.length < d) continue;
      for (const { at } of standings(ties, d).slice(0, 2)) {
        if (Math.hypot(...at.map((x, k) => x - best.at[i * d + k]!)) < 1) continue;
        const there = Float64Array.from(best.at);
        there.set(at, i * d);
        purse.left--;
        const tried = adjusted({ ...best, at: there }, spans, TURNS);
        const found = misfit(tried, spans);
        if (found < cost * (1 - 1e-6)) [best, cost] = [tried, found];
      }
    }
    if (cost >= before * (1 - 1e-3)) break;
  }
  return adjusted(best, spans, 2 * TURNS);
}
