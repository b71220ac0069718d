import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';

/**
 * How a first hole was made: drilled and its burr taken off, or punched, which leaves an edge that
 * tears sooner.
 */
export type HoleMade = 'drilled' | 'punched';

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
  /** The most it may, and whether that is kept. */
  limit: number;
  within: boolean;
};

/**
 * Least first hole as a share of the finished mean diameter, by first hole over thickness: soft
 * steel, flat-ended punch. Romanovsky, Handbook of Cold Stamping (from memory).
 */
const LEAST_SHARE: Record<HoleMade, readonly (readonly [number, number])[]> = {
  drilled: [
    [1, 0.25],
    [3, 0.3],
    [5, 0.35],
    [6.5, 0.37],
    [8, 0.4],
    [10, 0.42],
    [15, 0.45],
    [20, 0.5],
    [35, 0.6],
    [50, 0.7],
    [100, 0.8],
  ],
  punched: [
    [3, 0.47],
    [5, 0.48],
    [6.5, 0.5],
    [8, 0.5],
    [10, 0.52],
    [15, 0.55],
    [20, 0.6],
    [35, 0.65],
    [50, 0.75],
    [100, 0.85],
  ],
};

/** Elongation at break of the soft steel that the table is for, % (DC04's least; EN 10130). */
const TABLE_ELONGATION = 38;

/**
 * The most that the rim of a first hole may be stretched, a share; metals other than soft steel in
 * ratio of elongation at break.
 */
export function flareLimit(
  firstHoleMm: number,
  thicknessMm: number,
  made: HoleMade,
  elongation = TABLE_ELONGATION,
): number {
  const table = LEAST_SHARE[made];
  const at = firstHoleMm / thicknessMm;
  const next = table.findIndex(([ratio]) => ratio >= at);
  const [r1, k1] = table[Math.max(0, next < 0 ? table.length - 1 : next - 1)]!;
  const [r2, k2] = table[next < 0 ? table.length - 1 : next]!;
  const share = r2 === r1 ? k1 : k1 + ((k2 - k1) * (at - r1)) / (r2 - r1);
  return (1 / share - 1) * Math.min(1, elongation / TABLE_ELONGATION);
}

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
  const limit = flareLimit(firstHoleMm, thicknessMm, made, elongation);
  return { ok: true, firstHoleMm, edgeStrain, limit, within: edgeStrain <= limit };
}
