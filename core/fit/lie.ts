import type { Target } from './target';

/** A gap read along an edge: where, mm from the edge's start, and how wide; flush is + when the piece stands proud. */
export type Reading = { atMm: number; gapMm: number | null; flushMm: number | null };

export type Lie =
  | 'unread'
  | 'even'
  | 'even-tight'
  | 'even-wide'
  | 'tapers-to-start'
  | 'tapers-to-end'
  | 'tight-in-middle'
  | 'wide-in-middle'
  | 'uneven';

export type EdgeLie = {
  lie: Lie;
  meanMm: number;
  /** How much wider the gap is at the far end than at the start, along the best straight line, mm. */
  taperMm: number;
  /** Largest distance of a reading from that line, mm. */
  strayMm: number;
  /** Places outside the tolerance. */
  tight: { atMm: number; byMm: number }[];
  wide: { atMm: number; byMm: number }[];
  proud: { atMm: number; byMm: number }[];
  low: { atMm: number; byMm: number }[];
  /** Every station read is within tolerance. */
  good: boolean;
  read: number;
};

/**
 * How an edge lies, from its readings against a target: a straight line is laid through the gaps by least squares; what
 * is left over tells even from tapered from bowed. A taper or bow counts when it is more than the tolerance, and a taper
 * only when it explains more than it leaves over.
 */
export function lieOf(
  readings: readonly Reading[],
  target: Pick<Target, 'gapMm' | 'toleranceMm' | 'flushMm'>,
): EdgeLie {
  const gaps = readings.flatMap((r) => (r.gapMm === null ? [] : [{ x: r.atMm, g: r.gapMm }]));
  const off = (list: { atMm: number; byMm: number }[]) => list.filter((p) => p.byMm > 1e-9);
  const tight = off(gaps.map(({ x, g }) => ({ atMm: x, byMm: target.gapMm - target.toleranceMm - g })));
  const wide = off(gaps.map(({ x, g }) => ({ atMm: x, byMm: g - target.gapMm - target.toleranceMm })));
  const flush = readings.flatMap((r) => (r.flushMm === null ? [] : [{ x: r.atMm, f: r.flushMm }]));
  const proud = off(flush.map(({ x, f }) => ({ atMm: x, byMm: f - target.flushMm })));
  const low = off(flush.map(({ x, f }) => ({ atMm: x, byMm: -f - target.flushMm })));
  const good = gaps.length > 0 && [tight, wide, proud, low].every((list) => list.length === 0);
  const base = { tight, wide, proud, low, good, read: gaps.length };
  if (gaps.length === 0) return { ...base, lie: 'unread', meanMm: 0, taperMm: 0, strayMm: 0 };

  const meanX = gaps.reduce((sum, p) => sum + p.x, 0) / gaps.length;
  const meanMm = gaps.reduce((sum, p) => sum + p.g, 0) / gaps.length;
  const sxx = gaps.reduce((sum, p) => sum + (p.x - meanX) ** 2, 0);
  const slope = sxx > 0 ? gaps.reduce((sum, p) => sum + (p.x - meanX) * (p.g - meanMm), 0) / sxx : 0;
  const xs = gaps.map((p) => p.x);
  const span = Math.max(...xs) - Math.min(...xs);
  const taperMm = slope * span;
  const left = gaps.map((p) => ({ x: p.x, r: p.g - meanMm - slope * (p.x - meanX) }));
  const strayMm = Math.max(...left.map((p) => Math.abs(p.r)));
  const tolerance = Math.max(target.toleranceMm, 0.1);

  // Bowed: the middle half stands off the two ends, together, by more than the tolerance.
  const middle = left.filter((p) => Math.abs(p.x - Math.min(...xs) - span / 2) <= span / 4);
  const ends = left.filter((p) => !middle.includes(p));
  const mean = (list: { r: number }[]) => list.reduce((sum, p) => sum + p.r, 0) / Math.max(1, list.length);
  const bow = mean(middle) - mean(ends);

  let lie: Lie;
  if (gaps.length >= 3 && Math.abs(bow) > tolerance && Math.abs(bow) > Math.abs(taperMm) / 2) {
    lie = bow > 0 ? 'wide-in-middle' : 'tight-in-middle';
  } else if (Math.abs(taperMm) > tolerance && Math.abs(taperMm) >= strayMm) {
    lie = taperMm > 0 ? 'tapers-to-start' : 'tapers-to-end';
  } else if (strayMm > tolerance) {
    lie = 'uneven';
  } else if (Math.abs(meanMm - target.gapMm) <= target.toleranceMm + 1e-9) {
    lie = 'even';
  } else {
    lie = meanMm > target.gapMm ? 'even-wide' : 'even-tight';
  }
  return { ...base, lie, meanMm, taperMm, strayMm };
}
