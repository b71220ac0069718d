import type { Limit } from './forming';

/**
 * What may happen to a stretched rim, and from which strain on: it thins unevenly (the metal has
 * stopped hardening faster than it thins), then it cracks. The first asks for care, the second is
 * the end.
 */

/**
 * How a first hole was made: drilled and its burr taken off, or punched, which leaves an edge that
 * tears sooner.
 */
export type HoleMade = 'drilled' | 'punched';

/**
 * Least first hole as a share of the finished mean diameter, by first hole over thickness: soft
 * steel, flat-ended punch. Romanovsky, Handbook of Cold Stamping (from memory).
 */
const MIN_SHARE: Record<HoleMade, readonly (readonly [number, number])[]> = {
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
 * The strain at which the rim of a first hole cracks as it is drawn over a die, a share; metals other than soft steel in
 * ratio of elongation at break.
 */
export function holeFlangeLimit(
  firstHoleMm: number,
  thicknessMm: number,
  made: HoleMade,
  elongation = TABLE_ELONGATION,
): number {
  const table = MIN_SHARE[made];
  const at = firstHoleMm / thicknessMm;
  const next = table.findIndex(([ratio]) => ratio >= at);
  const [r1, k1] = table[Math.max(0, next < 0 ? table.length - 1 : next - 1)]!;
  const [r2, k2] = table[next < 0 ? table.length - 1 : next]!;
  const share = r2 === r1 ? k1 : k1 + ((k2 - k1) * (at - r1)) / (r2 - r1);
  return (1 / share - 1) * Math.min(1, elongation / TABLE_ELONGATION);
}

/** A limit with whether a strain keeps it. */
export type Verdict = Limit & { within: boolean };

export type RimVerdict = {
  thinning: Verdict;
  cracking: Verdict;
  /**
   * The one the work goes by: a closed hole is drawn over a die in one stroke, until it cracks; an
   * open edge is stretched by hand, as far as it stays even.
   */
  decides: 'thinning' | 'cracking';
  within: boolean;
};

/** A rim that is stretched by `strain`, a share; `hole` of a closed one, null for an open edge. */
export type StretchedRim = {
  strain: number;
  thicknessMm: number;
  /** To where the metal stretches evenly (`stretchLimit`). */
  thinning: Limit;
  /** Elongation at break, %, by the standard or data sheet of the metal. */
  elongation: number;
  hole: { firstHoleMm: number; made: HoleMade } | null;
};

/**
 * Both verdicts on a stretched rim. A closed hole cracks by the hole-flange tables; an open edge is
 * taken to tear at the metal's elongation at break (a cut edge with its burr taken off: common
 * practice), or where one tore in this shop.
 */
export function rimVerdict({
  strain,
  thicknessMm,
  thinning,
  elongation,
  hole,
}: StretchedRim): RimVerdict {
  const judged = (limit: Limit): Verdict => ({ ...limit, within: strain <= limit.strain });
  const openEdge: Limit =
    thinning.why === 'torn-here'
      ? thinning
      : { strain: elongation / 100, why: 'elongation-at-break' };
  const cracking = judged(
    hole
      ? {
          strain: holeFlangeLimit(hole.firstHoleMm, thicknessMm, hole.made, elongation),
          why: 'hole-flange-table',
        }
      : openEdge,
  );
  const even = judged(thinning);
  return {
    thinning: even,
    cracking,
    decides: hole ? 'cracking' : 'thinning',
    within: hole ? cracking.within : even.within,
  };
}
