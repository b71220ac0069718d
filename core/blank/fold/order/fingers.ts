/** Fingers of a box-and-pan brake under one line. */

/** Along the line, mm. */
export type Span = readonly [from: number, to: number];

/**
 * Fingers set for a fold: their widths, and where each begins along the line, from its beginning
 * on, mm; or how much too wide the narrowest set is.
 */
export type Set = { ok: true; fingersMm: number[]; atMm: number[] } | { ok: false; overMm: number };

/** More fingers than these are not tried in all combinations. */
const MAX_TRIED = 14;

/**
 * Fingers for a line from one place to another, none of them where something stands. Between what
 * stands the fingers leave free at most a gap at either end and between each two; beyond the ends
 * of the line they may reach where nothing is.
 *
 * @param blocked where no finger may stand, along the line
 */
export function fingersFor(
  line: Span,
  blocked: readonly Span[],
  all: readonly number[],
  gapMm: number,
): Set {
  const walls = merged(blocked);
  const free = between(line, walls);
  if (free.length === 0) return { ok: false, overMm: line[1] - line[0] };
  const left = [...all].sort((a, b) => b - a);
  const [chosen, atMm]: number[][] = [[], []];
  for (const { from, to, low, high } of free) {
    const [wide, room] = [to - from, high - low];
    // What is narrower than two gaps needs no finger beside another.
    if (wide <= 2 * gapMm && free.length > 1) continue;
    const found = setFor(wide, room, left, gapMm);
    if (found === null) {
      const least = Math.min(...left);
      return {
        ok: false,
        overMm: Math.max(TOO_NARROW_MM, Number.isFinite(least) ? least - room : wide),
      };
    }
    const [first, apart] = laidIn({ from, to, low, high }, found);
    let at = first;
    for (const width of found) {
      left.splice(left.indexOf(width), 1);
      chosen!.push(width);
      atMm!.push(at);
      at += width + apart;
    }
  }
  return { ok: true, fingersMm: chosen!, atMm: atMm! };
}

/**
 * Where the first finger of a stretch begins, and how far apart they stand: evenly in it, or over
 * an end of the line that is free.
 */
function laidIn(
  { from, to, low, high }: Free,
  widths: readonly number[],
): [at: number, apart: number] {
  const sum = widths.reduce((all, width) => all + width, 0);
  const apart = Math.max(0, (to - from - sum) / (widths.length + 1));
  const middle = (from + to - sum - apart * (widths.length - 1)) / 2;
  return [Math.max(low, Math.min(high - sum - apart * (widths.length - 1), middle)), apart];
}

/** Minimum misfit of a set of fingers that counts as not coming out, mm. */
const TOO_NARROW_MM = 0.1;

/**
 * The fewest fingers that fill a stretch: no wider than the room for them, and short of it by no
 * more than the gaps.
 */
function setFor(
  wide: number,
  room: number,
  left: readonly number[],
  gapMm: number,
): number[] | null {
  const some = left.slice(0, MAX_TRIED);
  let best: { fingers: number[]; sum: number } | null = null;
  for (let bits = 1; bits < 1 << some.length; bits++) {
    let [sum, count] = [0, 0];
    for (let i = 0; i < some.length; i++)
      if (bits & (1 << i)) {
        sum += some[i]!;
        count++;
      }
    if (sum > room || wide - sum > (count + 1) * gapMm) continue;
    if (best && (best.fingers.length < count || (best.fingers.length === count && best.sum <= sum)))
      continue;
    best = { fingers: some.filter((_, i) => bits & (1 << i)), sum };
  }
  return best?.fingers ?? null;
}

/** A stretch of the line that is free, and the room of which it is part. */
type Free = { from: number; to: number; low: number; high: number };

function between([from, to]: Span, walls: readonly Span[]): Free[] {
  const ends = [-Infinity, ...walls.flat(), Infinity];
  const found: Free[] = [];
  for (let i = 0; i < ends.length; i += 2) {
    const [low, high] = [ends[i]!, ends[i + 1]!];
    const [a, b] = [Math.max(low, from), Math.min(high, to)];
    if (b - a > 1e-9) found.push({ from: a, to: b, low, high });
  }
  return found;
}

/** Spans that overlap as one, from the left. */
function merged(spans: readonly Span[]): Span[] {
  const found: [number, number][] = [];
  for (const [from, to] of [...spans].sort((a, b) => a[0] - b[0])) {
    const last = found.at(-1);
    if (last && from <= last[1]) last[1] = Math.max(last[1], to);
    else found.push([from, to]);
  }
  return found;
}
