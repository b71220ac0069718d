import type { Result } from '../measure/result';
import { failure } from '../measure/result';

/** Four corners A, B, C, D round an opening: its sides and its two diagonals, mm. */
export type SixTapes = { ab: number; bc: number; cd: number; da: number; ac: number; bd: number };
export type Twist = {
  /**
   * How far D lies off the plane of A, B and C, mm; 0 where the tapes would have it less than flat.
   */
  outOfPlaneMm: number;
  /**
   * ± of that, one standard deviation, mm. Near flat it is large: the height then hangs on tiny
   * differences.
   */
  uMm: number;
  /** Whether the tapes can show it: the height is at least twice its ±. */
  visible: boolean;
};

/**
 * How far an opening is twisted, from six tapes that are each good to `uMm` (one standard
 * deviation, mm). The volume V of the tetrahedron by Cayley's and Menger's determinant (288·V² =
 * det), the height 3V over the area of A, B, C by Heron; ± by propagation of each tape. At and near
 * flat the first-order ± grows without bound; there the square root of the ± of the height's square
 * stands for it.
 *
 * Problems: `twist-tape-form` (about: the tape), `twist-no-triangle` (about: three tapes that close
 * no triangle).
 */
export function twistOf(tapes: SixTapes, uMm: number): Result<Twist> {
  const names = ['ab', 'bc', 'cd', 'da', 'ac', 'bd'] as const;
  for (const name of names)
    if (!(tapes[name] > 0) || !Number.isFinite(tapes[name]))
      return failure({ code: 'twist-tape-form', about: [name], numbers: { mm: tapes[name] } });
  if (!(uMm > 0)) return failure({ code: 'twist-tape-form', about: ['uMm'], numbers: { mm: uMm } });
  for (const sides of [
    ['ab', 'bc', 'ac'],
    ['cd', 'da', 'ac'],
    ['ab', 'da', 'bd'],
    ['bc', 'cd', 'bd'],
  ] as const) {
    const [a, b, c] = sides.map((name) => tapes[name]).sort((x, y) => x - y);
    if (a! + b! <= c!) return failure({ code: 'twist-no-triangle', about: [...sides] });
  }
  const square = heightSquared(tapes);
  let variance = 0;
  for (const name of names) {
    // A middle difference over a thousandth of the tape's own ±: the square of the height is smooth
    // in every tape.
    const step = uMm / 1000;
    const more = heightSquared({ ...tapes, [name]: tapes[name] + step });
    const less = heightSquared({ ...tapes, [name]: tapes[name] - step });
    variance += (((more - less) / (2 * step)) * uMm) ** 2;
  }
  const ofSquare = Math.sqrt(variance);
  const outOfPlaneMm = Math.sqrt(Math.max(0, square));
  const u = Math.min(ofSquare / (2 * outOfPlaneMm), Math.sqrt(ofSquare));
  return { ok: true, outOfPlaneMm, uMm: u, visible: outOfPlaneMm >= 2 * u };
}

/** (3V/area)², mm²; below nothing where the tapes fit no four points. */
function heightSquared({ ab, bc, cd, da, ac, bd }: SixTapes): number {
  const [A, B, C] = [ab ** 2, ac ** 2, da ** 2];
  // From A: the products of the three edges with each other; their determinant is (6V)², and that
  // of two (2·area)².
  const bb = A;
  const cc = B;
  const dd = C;
  const xy = (A + B - bc ** 2) / 2;
  const xz = (A + C - bd ** 2) / 2;
  const yz = (B + C - cd ** 2) / 2;
  const six = bb * (cc * dd - yz * yz) - xy * (xy * dd - yz * xz) + xz * (xy * yz - cc * xz);
  return six / (bb * cc - xy * xy);
}
