/** Fingers of a box-and-pan brake under one line. */

/** Along the line, mm. */
export type Span = readonly [from: number, to: number];

/** Fingers set for a fold: their widths from the left, and how much free is left in all, mm; or how much too wide the narrowest set is. */
export type Set = { ok: true; fingersMm: number[] } | { ok: false; overMm: number };

/** More fingers than these are not tried in all combinations. */
const MOST_TRIED = 14;

/**
 * Fingers for a line from one place to another, none of them where something stands. Between what stands the fingers leave
 * free at most a gap at either end and between each two; beyond the ends of the line they may reach where nothing is.
 *
 * @param blocked where no finger may stand, along the line
 */
export function fingersFor(line: Span, blocked: readonly Span[], all: readonly number[], gapMm: number): Set {
  const walls = merged(blocked);
  const free = between(line, walls);
  if (free.length === 0) return { ok: false, overMm: line[1] - line[0] };
  const left = [...all].sort((a, b) => b - a);
  const chosen: number[] = [];
  for (const { from, to, room } of free) {
    const wide = to - from;
    // What is narrower than two gaps needs no finger beside another.
    if (wide <= 2 * gapMm && free.length > 1) continue;
    const found = setFor(wide, room, left, gapMm);
    if (found === null) {
      const least = Math.min(...left);
      return { ok: false, overMm: Math.max(TOO_NARROW_MM, Number.isFinite(least) ? least - room : wide) };
    }
    for (const width of found) {
      left.splice(left.indexOf(width), 1);
      chosen.push(width);
    }
  }
  return { ok: true, fingersMm: chosen };
}

/** A set that does not come out is at the least so much off, mm. */
const TOO_NARROW_MM = 0.1;

/** The fewest fingers that fill a stretch: no wider than the room for them, and short of it by no more than the gaps. */
function setFor(wide: number, room: number, left: readonly number[], gapMm: number): number[] | null {
  const some = left.slice(0, MOST_TRIED);
  let best: { fingers: number[]; sum: number } | null = null;
  for (let bits = 1; bits < 1 << some.length; bits++) {
    let [sum, count] = [0, 0];
    for (let i = 0; i < some.length; i++)
      if (bits & (1 << i)) {
        sum += some[i]!;
        count++;
      }
    if (sum > room || wide - sum > (count + 1) * gapMm) continue;
    if (best && (best.fingers.length < count || (best.fingers.length === count && best.sum <= sum))) continue;
    best = { fingers: some.filter((_, i) => bits & (1 << i)), sum };
  }
  return best?.fingers ?? null;
}

/** Stretches of the line that are free, and how wide the room is of which they are part. */
function between([from, to]: Span, walls: readonly Span[]): { from: number; to: number; room: number }[] {
  const ends = [-Infinity, ...walls.flat(), Infinity];
  const found: { from: number; to: number; room: number }[] = [];
  for (let i = 0; i < ends.length; i += 2) {
    const [low, high] = [ends[i]!, ends[i + 1]!];
    const [a, b] = [Math.max(low, from), Math.min(high, to)];
    if (b - a > 1e-9) found.push({ from: a, to: b, room: high - low });
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
