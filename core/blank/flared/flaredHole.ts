import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import type { HoleMade } from '../../metal/rim';
import { holeFlangeLimit } from '../../metal/rim';

/**
 * A flared hole. `meanMm` is its diameter in the middle of the wall, `heightMm` over all: from the
 * face of the sheet that it does not stand on to its rim, the sheet's thickness included;
 * `radiusMm` inside where the sheet turns.
 */
export type Flare = { meanMm: number; heightMm: number; radiusMm: number; thicknessMm: number };

export type Flared = {
  /** The hole to make first, mm. */
  firstHoleMm: number;
  /** How much longer the rim gets, a share. */
  edgeStrain: number;
  /** The most it may before the rim cracks, and whether that is kept. */
  limit: number;
  within: boolean;
};

/**
 * First hole d = D − 2(H − 0.43r − 0.72S): the length along the middle of the sheet stays as it is.
 * Romanovsky. The rim is stretched by D/d − 1.
 *
 * Problems: `flare-figures` (about: what is not above 0), `flare-low` (numbers: heightMm, leastMm:
 * no higher than its own bend), `flare-no-hole` (numbers: heightMm, mostMm: so high that no hole is
 * left to begin with).
 */
export function flaredHole(
  { meanMm, heightMm, radiusMm, thicknessMm }: Flare,
  made: HoleMade,
  elongation?: number,
): Result<Flared> {
  const bad = Object.entries({ meanMm, heightMm, thicknessMm }).flatMap(([name, value]) =>
    value > 0 && Number.isFinite(value) ? [] : [name],
  );
  if (!(radiusMm >= 0 && Number.isFinite(radiusMm))) bad.push('radiusMm');
  if (bad.length > 0) return failure({ code: 'flare-figures', about: bad });
  const leastMm = radiusMm + thicknessMm;
  if (heightMm < leastMm) return failure({ code: 'flare-low', numbers: { heightMm, leastMm } });
  const bend = 0.43 * radiusMm + 0.72 * thicknessMm;
  const firstHoleMm = meanMm - 2 * (heightMm - bend);
  if (firstHoleMm <= 0)
    return failure({ code: 'flare-no-hole', numbers: { heightMm, mostMm: meanMm / 2 + bend } });
  const edgeStrain = meanMm / firstHoleMm - 1;
  const limit = holeFlangeLimit(firstHoleMm, thicknessMm, made, elongation);
  return { ok: true, firstHoleMm, edgeStrain, limit, within: edgeStrain <= limit };
}
