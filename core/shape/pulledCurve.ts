import type { Result } from '../measure/result';
import { failure } from '../measure/result';

/**
 * The radius that a strip takes up when one of its edges is strained and the other stays as it was:
 * width over strain, mm, measured to the edge that stays; negative where that edge is the outer one
 * (the other was shrunk). Exact for a strain that grows evenly across.
 *
 * Problems: `strip-figures` (about: what is no width above 0, or a strain of nothing or of −100 %
 * and less).
 */
export function radiusByStrain(widthMm: number, strain: number): Result<{ radiusMm: number }> {
  if (!(widthMm > 0) || !Number.isFinite(widthMm))
    return failure({ code: 'strip-figures', about: ['widthMm'] });
  if (!(strain > -1) || strain === 0 || !Number.isFinite(strain))
    return failure({ code: 'strip-figures', about: ['strain'] });
  return { ok: true, radiusMm: widthMm / strain };
}

/**
 * What one edge of a strip has to be strained by so that the other lies on a radius: stretched on
 * the outside of the curve, shrunk on its inside.
 *
 * Problems: `strip-figures` (about: what is not above 0; of a shrunk edge a radius no more than the
 * width).
 */
export function strainForRadius(
  widthMm: number,
  radiusMm: number,
  edge: 'stretched' | 'shrunk',
): Result<{ strain: number }> {
  if (!(widthMm > 0) || !Number.isFinite(widthMm))
    return failure({ code: 'strip-figures', about: ['widthMm'] });
  const least = edge === 'shrunk' ? widthMm : 0;
  if (!(radiusMm > least) || !Number.isFinite(radiusMm))
    return failure({ code: 'strip-figures', about: ['radiusMm'] });
  return { ok: true, strain: (edge === 'stretched' ? 1 : -1) * (widthMm / radiusMm) };
}
