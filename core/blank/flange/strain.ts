import { radians } from '../../measure/angle';
import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';

/**
 * A place along a flange. `curvature` of the fold line in plan, 1/mm: above 0 where the flange
 * stands on the inside of the curve (it has to stretch), below 0 on the outside (it has to shrink),
 * 0 straight. `widthMm` in the flat beyond the fold line; `slope` how it changes along the fold, mm
 * per mm.
 */
export type FlangePlace = { curvature: number; widthMm: number; slope: number };

/**
 * How a flange is made: cut to the curve and turned over; or a straight angle, folded first and
 * then pulled round, of which the leg that lies in the plane of the curve is strained.
 */
export type FlangeWay = 'tipped' | 'pulled';

/**
 * Strain along the free edge, + longer: of the blank's edge, |1 − κh·cos A| over |1 − κh|, each
 * with the slope square to it; of a straight angle, |1 + κh| over 1. Exact for a sharp fold whose
 * width stays as it was.
 *
 * On an arc without slope: h(1 − cos A)/(R − h) inside, −h(1 − cos A)/(R + h) outside, ±h/R pulled.
 */
export function edgeStrain(
  { curvature, widthMm, slope }: FlangePlace,
  angleDeg: number,
  way: FlangeWay,
): number {
  const bent = curvature * widthMm;
  if (way === 'pulled') return Math.hypot(1 + bent, slope) / Math.hypot(1, slope) - 1;
  return (
    Math.hypot(1 - bent * Math.cos(radians(angleDeg)), slope) / Math.hypot(1 - bent, slope) - 1
  );
}

/**
 * The widest flange of even width that stays within a strain of the same sign, mm; null where any
 * width does.
 */
export function widestWithin(
  curvature: number,
  angleDeg: number,
  way: FlangeWay,
  limit: number,
): number | null {
  const radius = 1 / Math.abs(curvature);
  const most = Math.abs(limit);
  if (way === 'pulled') return most * radius;
  const turned = 1 - Math.cos(radians(angleDeg));
  const share = curvature > 0 ? turned + most : turned - most;
  return share > 0 ? (most * radius) / share : null;
}

/**
 * The angle up to which a tipped flange of this width stays within a strain of the same sign,
 * degrees; 180 where all do.
 */
export function openedWithin({ curvature, widthMm }: FlangePlace, limit: number): number {
  const bent = curvature * widthMm;
  const cos = 1 - (limit * (1 - bent)) / bent;
  return cos <= -1 ? 180 : (Math.acos(Math.min(1, cos)) * 180) / Math.PI;
}

export type FlangeFigures = {
  radiusMm: number;
  widthMm: number;
  angleDeg: number;
  curve: 'inside' | 'outside';
  arcDeg: number;
  how: FlangeWay;
};

/**
 * A flange on one arc in figures: strain at its free edge, and what that edge gains or loses over
 * the arc, mm.
 */
export type FlangeStrained = { edgeStrain: number; edgeChangeMm: number };

/**
 * Problems: `flange-figures` (about: the figures that can be no flange's: nothing above 0, an angle
 * over 180, an arc over 360), `flange-past-centre` (numbers: widthMm, radiusMm: the flange would
 * reach over the middle of its curve, in the flat or turned).
 */
export function flangeStrain({
  radiusMm,
  widthMm,
  angleDeg,
  curve,
  arcDeg,
  how,
}: FlangeFigures): Result<FlangeStrained> {
  const bad = Object.entries({ radiusMm, widthMm, angleDeg, arcDeg }).flatMap(([name, value]) =>
    value > 0 && Number.isFinite(value) ? [] : [name],
  );
  if (angleDeg > 180) bad.push('angleDeg');
  if (arcDeg > 360) bad.push('arcDeg');
  if (bad.length > 0) return failure({ code: 'flange-figures', about: bad });
  const reaches = how === 'pulled' ? curve === 'outside' : curve === 'inside';
  if (reaches && widthMm >= radiusMm)
    return failure({ code: 'flange-past-centre', numbers: { widthMm, radiusMm } });
  // Turned past square an outside flange comes back over the panel: its rim must not reach the
  // middle.
  const rimMm = radiusMm + widthMm * Math.cos(radians(angleDeg));
  if (how === 'tipped' && curve === 'outside' && rimMm <= 0)
    return failure({ code: 'flange-past-centre', numbers: { widthMm, radiusMm } });
  const curvature = (curve === 'inside' ? 1 : -1) / radiusMm;
  const strain = edgeStrain({ curvature, widthMm, slope: 0 }, angleDeg, how);
  const flatRadius = how === 'pulled' ? radiusMm : radiusMm - Math.sign(curvature) * widthMm;
  return { ok: true, edgeStrain: strain, edgeChangeMm: strain * flatRadius * radians(arcDeg) };
}
