import type { Hole } from '../../card/pattern';
import type { Problem, Result } from '../../measure/result';
import { failure } from '../../measure/result';
import type { BlankFlare } from '../blank';
import { flaredHole } from '../flared/flaredHole';
import type { SheetMetal } from './practice';

/**
 * The first hole of one that is flared. The finished hole's diameter is the one inside its rim.
 *
 * Problems (stop; about: the hole): those of `flaredHole`, `flare-not-round`.
 */
export function flareOf(
  hole: Hole,
  sheet: SheetMetal,
): Result<{ firstHoleMm: number; flare: BlankFlare | null }> {
  const { flare, diameterMm, id } = hole;
  if (!flare) return { ok: true, firstHoleMm: diameterMm, flare: null };
  if (hole.form) return failure({ code: 'flare-not-round', about: [id], severity: 'stop' });
  const radiusMm = flare.radiusMm ?? sheet.usualRadiusMm;
  const { heightMm, toward, made } = flare;
  const meanMm = diameterMm + sheet.thicknessMm;
  const found = flaredHole(
    { meanMm, heightMm, radiusMm, thicknessMm: sheet.thicknessMm },
    made,
    sheet.forming?.elongation,
  );
  if (!found.ok)
    return failure(
      ...found.problems.map((p): Problem => ({ ...p, about: [id], severity: 'stop' })),
    );
  const { firstHoleMm, edgeStrain, limit, within } = found;
  const cracking = { strain: limit, why: 'hole-flange-table' as const, within };
  const even = sheet.forming?.stretch;
  const thinning = even ? { ...even, within: edgeStrain <= even.strain } : null;
  return {
    ok: true,
    firstHoleMm,
    flare: { insideMm: diameterMm, heightMm, radiusMm, edgeStrain, cracking, thinning, toward },
  };
}
