import { radians } from '../../measure/angle';
import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import type { Rule } from './allowance';
import { dinK } from './allowance';

/**
 * A strip folded once to find the shop's own K. `flatMm` before folding; `legAMm`, `legBMm` outside
 * legs to the sharp; `readingMm` how far any one of the three lengths may be out (standard
 * uncertainty).
 */
export type Strip = {
  thicknessMm: number;
  radiusMm: number;
  angleDeg: number;
  flatMm: number;
  legAMm: number;
  legBMm: number;
  readingMm: number;
};

export type MeasuredK = { k: number; uK: number };

/**
 * The rule that test bends of one metal and about one thickness give: K at their mean roundness R/T,
 * each strip first carried there along the shape that DIN 6935 gives K, weighted by 1/u². Strips of
 * which no K follows are left out; null where none is left.
 */
export function ruleFromStrips(
  strips: readonly Strip[],
): Extract<Rule, { kind: 'measured' }> | null {
  const found = strips.flatMap((strip) => {
    const one = kFromStrip(strip);
    return one.ok ? [{ ...one, ratio: strip.radiusMm / strip.thicknessMm }] : [];
  });
  const weight = found.reduce((sum, { uK }) => sum + 1 / uK ** 2, 0);
  const ratio = found.reduce((sum, one) => sum + one.ratio / one.uK ** 2, 0) / weight;
  const shape = (r: number) => dinK(r, 'half');
  const mean = combinedK(
    found.map((one) => ({ ...one, k: one.k + shape(ratio) - shape(one.ratio) })),
  );
  if (!mean.ok) return null;
  const ratios = found.map((one) => one.ratio);
  const span: [number, number] = [Math.min(...ratios), Math.max(...ratios)];
  return { kind: 'measured', k: mean.k, uK: mean.uK, tested: { ratio, span } };
}

/**
 * K and its standard uncertainty from one test bend: BA = L0 − a − b + 2·OSSB, K = (BA·180/(πA) −
 * R)/T; u(K) = u·√3 · 180/(πA·T), the three readings being independent.
 *
 * Problems: `angle-out-of-range` (0 < A ≤ 90: past square the sharp cannot be measured to),
 * `thickness-not-positive`, `reading-not-positive`, `strip-not-credible` (K outside 0 to 1: the
 * legs and the flat length do not belong together).
 */
export function kFromStrip(strip: Strip): Result<MeasuredK> {
  const { thicknessMm: t, radiusMm: r, angleDeg } = strip;
  if (!(t > 0)) return failure({ code: 'thickness-not-positive', numbers: { thicknessMm: t } });
  if (!(angleDeg > 0 && angleDeg <= 90))
    return failure({ code: 'angle-out-of-range', numbers: { angleDeg } });
  if (!(strip.readingMm > 0))
    return failure({ code: 'reading-not-positive', numbers: { readingMm: strip.readingMm } });
  const a = radians(angleDeg);
  const allowance = strip.flatMm - strip.legAMm - strip.legBMm + 2 * (r + t) * Math.tan(a / 2);
  const k = (allowance / a - r) / t;
  const uK = (strip.readingMm * Math.sqrt(3)) / (a * t);
  if (!(k >= 0 && k <= 1)) return failure({ code: 'strip-not-credible', numbers: { k, uK } });
  return { ok: true, k, uK };
}

/**
 * Several strips of one metal and thickness as one K: the mean weighted by 1/u², with its own u.
 */
export function combinedK(strips: readonly MeasuredK[]): Result<MeasuredK> {
  if (strips.length === 0) return failure({ code: 'no-strips' });
  const weight = strips.reduce((sum, s) => sum + 1 / s.uK ** 2, 0);
  return {
    ok: true,
    k: strips.reduce((sum, s) => sum + s.k / s.uK ** 2, 0) / weight,
    uK: 1 / Math.sqrt(weight),
  };
}
