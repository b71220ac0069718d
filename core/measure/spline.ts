import type { Vec } from './vector';
import { distance } from './vector';

/**
 * A spline of Bézier pieces in common: its degree, knots, control points, and their weights where
 * they are not all 1.
 */
export type Spline = {
  degree: number;
  knots: readonly number[];
  control: readonly Vec[];
  weights?: readonly number[] | null;
};

/** Points between two knots at least, and at most. */
const [LEAST, MOST] = [8, 400];

/**
 * Points along a spline from its beginning to its end, so close that it can be taken for straight
 * between them: as many between knots that differ as its control polygon is long, one to each
 * `everyMm`. By de Boor's rule (de Boor 1972). Empty for a spline whose figures do not go together.
 */
export function splinePoints({ degree, knots, control, weights }: Spline, everyMm: number): Vec[] {
  const n = control.length;
  if (degree < 1 || n <= degree || knots.length !== n + degree + 1) return [];
  if (knots.some((knot, i) => !Number.isFinite(knot) || (i > 0 && knot < knots[i - 1]!))) return [];
  const long = control.slice(1).reduce((sum, p, i) => sum + distance(control[i]!, p), 0);
  const found: Vec[] = [];
  const spans = knots.slice(degree, n + 1);
  const whole = spans[spans.length - 1]! - spans[0]!;
  if (!(whole > 0)) return [];
  for (let span = degree; span < n; span++) {
    const [from, to] = [knots[span]!, knots[span + 1]!];
    if (from === to) continue;
    const count = Math.min(
      MOST,
      Math.max(LEAST, Math.ceil(((to - from) / whole) * (long / everyMm))),
    );
    for (let i = found.length === 0 ? 0 : 1; i <= count; i++)
      found.push(
        placeAt({ degree, knots, control, weights }, span, from + ((to - from) * i) / count),
      );
  }
  return found;
}

/**
 * De Boor's triangle, in figures with the weight as a third, so that rational splines are the same.
 */
function placeAt({ degree, knots, control, weights }: Spline, span: number, t: number): Vec {
  const row = Array.from({ length: degree + 1 }, (_, j) => {
    const i = span - degree + j;
    const w = weights?.[i] ?? 1;
    return [control[i]![0] * w, control[i]![1] * w, w] as [number, number, number];
  });
  for (let level = 1; level <= degree; level++)
    for (let j = degree; j >= level; j--) {
      const i = span - degree + j;
      const share = (t - knots[i]!) / (knots[i + degree - level + 1]! - knots[i]!);
      row[j] = [0, 1, 2].map((k) => row[j - 1]![k]! + (row[j]![k]! - row[j - 1]![k]!) * share) as [
        number,
        number,
        number,
      ];
    }
  const [x, y, w] = row[degree]!;
  return [x / w, y / w];
}
