import { degrees } from '../measure/angle';
import type { Result } from '../measure/result';
import { failure } from '../measure/result';

/**
 * A fold of paper lapped over itself: by how much at its mouth, and how far from there it runs out,
 * mm.
 */
export type Tuck = { overlapMm: number; depthMm: number };
/**
 * A cut in paper that stands open: by how much at its mouth, and how far from there it runs out,
 * mm.
 */
export type Slit = { openMm: number; depthMm: number };

export type PaperCurve = {
  /** Σ tucks − Σ slits, degrees: the curvature of the surface over the paper (Gauss and Bonnet). */
  totalDeg: number;
  /** The radius of a ball of that curvature over that area, mm; null where it is flat. */
  meanRadiusMm: number | null;
  /** A bowl curves one way, a saddle two ways. */
  shape: 'bowl' | 'saddle' | 'flat';
};

/**
 * The angle of a tuck or slit, degrees, from its width at the mouth and its depth, mm:
 * 2·atan(w/2d).
 */
export const wedgeDeg = (wideMm: number, deepMm: number): number =>
  degrees(2 * Math.atan2(wideMm / 2, deepMm));

/** Less than this is flat, degrees: paper cannot be laid better. */
const FLAT_DEG = 1e-9;

/**
 * How a surface curves that paper was laid on with tucks and slits: each tuck takes an angle out of
 * the paper, each slit lets one in, and what is left over is the curvature of what lies under it.
 * `areaMm2`: of the surface that the paper covers.
 *
 * Problems: `tuck-form` (about: `tuck 1`, `slit 2` …: a width below 0 or a depth not above 0;
 * `area`).
 */
export function paperCurve(
  tucks: readonly Tuck[],
  slits: readonly Slit[],
  areaMm2: number,
): Result<PaperCurve> {
  const wedges = [
    ...tucks.map(({ overlapMm: wide, depthMm: deep }, i) => ({
      name: `tuck ${i + 1}`,
      wide,
      deep,
      sign: 1,
    })),
    ...slits.map(({ openMm: wide, depthMm: deep }, i) => ({
      name: `slit ${i + 1}`,
      wide,
      deep,
      sign: -1,
    })),
  ];
  const bad = wedges.filter(
    ({ wide, deep }) => !(wide >= 0 && deep > 0 && Number.isFinite(wide + deep)),
  );
  if (bad.length > 0) return failure({ code: 'tuck-form', about: bad.map(({ name }) => name) });
  if (!(areaMm2 > 0) || !Number.isFinite(areaMm2))
    return failure({ code: 'tuck-form', about: ['area'] });
  const totalDeg = wedges.reduce(
    (sum, { wide, deep, sign }) => sum + sign * wedgeDeg(wide, deep),
    0,
  );
  const flat = Math.abs(totalDeg) < FLAT_DEG;
  return {
    ok: true,
    totalDeg,
    meanRadiusMm: flat ? null : Math.sqrt(areaMm2 / (Math.abs(totalDeg) * (Math.PI / 180))),
    shape: flat ? 'flat' : totalDeg > 0 ? 'bowl' : 'saddle',
  };
}
