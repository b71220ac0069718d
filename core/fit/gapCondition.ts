import { ROUNDING_MM } from '../measure/tolerance';
import type { Target } from './target';

/**
 * A gap read along an edge: where, mm from the edge's start, and how wide; flush is + when the
 * piece stands proud.
 */
export type Reading = { atMm: number; gapMm: number | null; flushMm: number | null };

/**
 * How the gap along an edge lies against its target, from which stations are out and which way:
 * none (`even`), all one way, one way at one place, tight toward one end and wide toward the other
 * (`tapers-to-…` names the tight end), or both ways without such order (`uneven`).
 */
export const GAP_CONDITIONS = [
  'unread',
  'even',
  'even-tight',
  'even-wide',
  'tapers-to-start',
  'tapers-to-end',
  'tight-at-start',
  'tight-at-end',
  'tight-at-ends',
  'tight-in-middle',
  'tight-in-places',
  'wide-at-start',
  'wide-at-end',
  'wide-at-ends',
  'wide-in-middle',
  'wide-in-places',
  'uneven',
] as const;
export type GapCondition = (typeof GAP_CONDITIONS)[number];

/** A place outside the tolerance, and by how much, mm. */
type Off = { atMm: number; byMm: number };

export type EdgeCondition = {
  condition: GapCondition;
  /** Null where nothing was read. */
  meanMm: number | null;
  /**
   * How much wider the gap is at the far end than at the start, along the best straight line, mm.
   */
  taperMm: number;
  /** Largest distance of a reading from that line, mm. */
  maxDeviationMm: number;
  /** Places outside the tolerance. */
  tight: Off[];
  wide: Off[];
  proud: Off[];
  low: Off[];
  /**
   * Every station read is within tolerance, gap and flush; there may be stations that are not read
   * yet.
   */
  good: boolean;
  /** Stations whose gap was read, of how many. */
  read: number;
  stations: number;
};

/** Where along the readings the ones that are out lie: `out` for each reading in order. */
function whereOut(
  out: readonly boolean[],
): 'all' | 'at-start' | 'at-end' | 'at-ends' | 'in-middle' | 'in-places' {
  const n = out.length;
  const first = out.indexOf(true);
  const last = out.lastIndexOf(true);
  const count = out.filter(Boolean).length;
  if (count === n) return 'all';
  const together = last - first + 1 === count;
  if (together) return first === 0 ? 'at-start' : last === n - 1 ? 'at-end' : 'in-middle';
  // Out at both ends with one stretch between them that is right.
  const right = out.map((o) => !o);
  const rightTogether = right.lastIndexOf(true) - right.indexOf(true) + 1 === n - count;
  return out[0] && out[n - 1] && rightTogether ? 'at-ends' : 'in-places';
}

function conditionFrom(ways: readonly (-1 | 0 | 1)[]): GapCondition {
  const tight = ways.map((w) => w < 0);
  const wide = ways.map((w) => w > 0);
  const anyTight = tight.includes(true);
  const anyWide = wide.includes(true);
  if (!anyTight && !anyWide) return 'even';
  if (anyTight && anyWide) {
    if (tight.lastIndexOf(true) < wide.indexOf(true)) return 'tapers-to-start';
    return wide.lastIndexOf(true) < tight.indexOf(true) ? 'tapers-to-end' : 'uneven';
  }
  const where = whereOut(anyTight ? tight : wide);
  if (where === 'all') return anyTight ? 'even-tight' : 'even-wide';
  return `${anyTight ? 'tight' : 'wide'}-${where}`;
}

/**
 * How an edge lies, from its readings against a target. Words follow from which stations are
 * outside the tolerance and which way; a straight line laid through the gaps by least squares gives
 * the taper. Readings may come in any order.
 */
export function edgeConditionOf(
  readings: readonly Reading[],
  target: Pick<Target, 'gapMm' | 'toleranceMm' | 'flushMm'>,
): EdgeCondition {
  const gaps = readings
    .flatMap((r) => (r.gapMm === null ? [] : [{ x: r.atMm, g: r.gapMm }]))
    .sort((a, b) => a.x - b.x);
  const off = (list: Off[]) => list.filter((p) => p.byMm > ROUNDING_MM);
  const tight = off(
    gaps.map(({ x, g }) => ({ atMm: x, byMm: target.gapMm - target.toleranceMm - g })),
  );
  const wide = off(
    gaps.map(({ x, g }) => ({ atMm: x, byMm: g - target.gapMm - target.toleranceMm })),
  );
  const flush = readings.flatMap((r) => (r.flushMm === null ? [] : [{ x: r.atMm, f: r.flushMm }]));
  const proud = off(flush.map(({ x, f }) => ({ atMm: x, byMm: f - target.flushMm })));
  const low = off(flush.map(({ x, f }) => ({ atMm: x, byMm: -f - target.flushMm })));
  const good = gaps.length > 0 && [tight, wide, proud, low].every((list) => list.length === 0);
  const base = { tight, wide, proud, low, good, read: gaps.length, stations: readings.length };
  if (gaps.length === 0)
    return { ...base, condition: 'unread', meanMm: null, taperMm: 0, maxDeviationMm: 0 };

  const meanX = gaps.reduce((sum, p) => sum + p.x, 0) / gaps.length;
  const meanMm = gaps.reduce((sum, p) => sum + p.g, 0) / gaps.length;
  const sxx = gaps.reduce((sum, p) => sum + (p.x - meanX) ** 2, 0);
  const slope =
    sxx > 0 ? gaps.reduce((sum, p) => sum + (p.x - meanX) * (p.g - meanMm), 0) / sxx : 0;
  const taperMm = slope * (gaps[gaps.length - 1]!.x - gaps[0]!.x);
  const maxDeviationMm = Math.max(
    ...gaps.map((p) => Math.abs(p.g - meanMm - slope * (p.x - meanX))),
  );
  const condition = conditionFrom(
    gaps.map(({ g }) => {
      if (target.gapMm - target.toleranceMm - g > ROUNDING_MM) return -1;
      return g - target.gapMm - target.toleranceMm > ROUNDING_MM ? 1 : 0;
    }),
  );
  return { ...base, condition, meanMm, taperMm, maxDeviationMm };
}
