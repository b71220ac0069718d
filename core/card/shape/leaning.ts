import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import type { Vec } from '../../measure/vector';
import type { RolledSheet } from './rolledSheet';
import { toNeutral, wrongSheet } from './rolledSheet';
import type { Vec3 } from './unfold';
import { unfolded } from './unfold';

/**
 * Number of triangles between the two rims each way: their chords miss a rim of 1 m by less than
 * 0.1 mm.
 */
const STEPS = 180;

/**
 * A cone that leans: between two level circles, the upper one `offsetMm` to the side of the lower.
 * Unrolled by triangles, parted at its shortest side; both rims from the seam round to the seam.
 * Rolled, not folded; of `sheet` its middle is unrolled, T/2 square to the wall from what was
 * measured.
 *
 * Problems: `shape-figures` (about: what is not above 0).
 */
export function leaningCone(given: {
  lowerMm: number;
  upperMm: number;
  heightMm: number;
  offsetMm: number;
  sheet?: RolledSheet | null;
}): Result<{
  lower: Vec[];
  upper: Vec[];
}> {
  const { lowerMm, upperMm, heightMm, offsetMm, sheet = null } = given;
  const bad = Object.entries({ lowerMm, upperMm, heightMm }).flatMap(([name, mm]) =>
    mm > 0 && Number.isFinite(mm) ? [] : [name],
  );
  if (!Number.isFinite(offsetMm)) bad.push('offsetMm');
  if (bad.length > 0) return failure({ code: 'shape-figures', about: bad });
  const wrong = wrongSheet(sheet, Math.min(lowerMm, upperMm));
  if (wrong) return wrong;
  const off = toNeutral(sheet);
  const rim = (radius: number, x: number, z: number) =>
    Array.from({ length: STEPS + 1 }, (_, i): Vec3 => {
      // Round from the shortest side: there the rims are nearest to each other.
      const turn = start + (2 * Math.PI * i) / STEPS;
      const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
      // The wall's normal: square to the rim, and to the rule from rim to rim at this turn, which
      // rises by the height as it leans out by `leans`.
      const leans = offsetMm * cos + (upperMm - lowerMm) / 2;
      const slope = Math.hypot(heightMm, leans);
      const [out, up] = [(off * heightMm) / slope, (-off * leans) / slope];
      return [x + (radius + out) * cos, (radius + out) * sin, z + up];
    });
  // Leaning to the right, with rims alike, its left side slopes as long as its right; with rims
  // unlike one is shorter.
  const side = (sign: number) => Math.hypot(offsetMm + (sign * (upperMm - lowerMm)) / 2, heightMm);
  const start = side(1) <= side(-1) ? 0 : Math.PI;
  const steps = Array.from({ length: 2 * STEPS }, (_, i): 'lower' | 'upper' =>
    i % 2 === 0 ? 'lower' : 'upper',
  );
  return {
    ok: true,
    ...unfolded(rim(lowerMm / 2, 0, 0), rim(upperMm / 2, offsetMm, heightMm), steps),
  };
}
