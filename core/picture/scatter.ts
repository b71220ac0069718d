import type { Vec } from '../measure/vector';
import { cross, distance, sub } from '../measure/vector';

/**
 * Points to either side by which it is seen how much they scatter, and how far from one its
 * neighbours lie.
 */
const [SCATTER_OVER, SCATTER_BESIDE] = [14, 4];

/**
 * What each point says against one that is off by no more than `uMm`: the less, the more those
 * about it scatter. How far a point is off the chord between two of its neighbours is even along a
 * line or an arc; how it varies is chance.
 */
export function weightsOf(points: readonly Vec[], uMm: number): Float64Array {
  const n = points.length;
  const beside = Math.max(1, Math.min(SCATTER_BESIDE, Math.floor(n / 8)));
  const off = points.map((p, i) => {
    const [a, b] = [points[(i - beside + n) % n]!, points[(i + beside) % n]!];
    const long = distance(a, b);
    return long > 0 ? cross(sub(b, a), sub(p, a)) / long : 0;
  });
  const over = Math.min(SCATTER_OVER, Math.floor((n - 1) / 2));
  return Float64Array.from(points, (_, i) => {
    const some = Array.from({ length: 2 * over + 1 }, (_, k) => off[(i + k - over + n) % n]!);
    const middle = middleOf(some);
    // Of a normal distribution, 1.48 times what the middle one is off; the chord's own ends add a
    // half to the variance.
    const scatter = (1.48 * middleOf(some.map((one) => Math.abs(one - middle)))) / Math.sqrt(1.5);
    return Math.min(1, (uMm / Math.max(scatter, 1e-9)) ** 2);
  });
}

const middleOf = (of: readonly number[]): number => [...of].sort((a, b) => a - b)[of.length >> 1]!;
