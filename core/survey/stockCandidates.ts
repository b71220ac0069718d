import type { Metal } from '../metal/metals';

/** Sheet that a piece could be made of. */
export type SheetOffered = { metal: Metal; thicknessMm: number; name: string };

/** Cold-rolled sheet that merchants usually have, mm (common practice). */
export const COMMON_SHEETS_MM = [0.6, 0.7, 0.75, 0.8, 0.9, 1, 1.2, 1.25, 1.5, 2, 2.5, 3] as const;

export type StockCandidate = SheetOffered & {
  /** How many times as stiff as the old, the same shape bent: E·t³. */
  stiffer: number;
  /** How many times as heavy. */
  heavier: number;
  /**
   * The step on the back of a butt weld to the old with the faces flush, mm, and the most that is
   * usual.
   */
  stepMm: number;
  stepLimitMm: number;
};

/**
 * The most that two sheets of a butt weld are out of line, mm, by the thinner of them: 0.2 + 0.15·t
 * for 0.5 to 3 mm, 0.15·t and 4 at the most beyond (ISO 5817:2014 no. 507, quality C; from memory).
 */
export const stepLimit = (thinnerMm: number): number =>
  thinnerMm <= 3 ? 0.2 + 0.15 * thinnerMm : Math.min(4, 0.15 * thinnerMm);

/** Thicknesses nearer to each other than this are the same sheet, mm. */
const SAME_MM = 0.005;

/**
 * Of the sheet that can be had that which comes nearest to the old, `most` at most, nearest first,
 * and what each changes. `old`: its thickness (mm), how sure that is (one standard deviation) and
 * the metal it is taken to be. For a structural piece nothing thinner than the old can be shown to
 * be (two standard deviations).
 */
export function stockCandidates(
  old: { metal: Metal; thicknessMm: number; uMm: number },
  structural: boolean,
  offered: readonly SheetOffered[],
  most: number,
): StockCandidate[] {
  const fit = offered.filter(
    ({ thicknessMm }) => !structural || thicknessMm >= old.thicknessMm - 2 * old.uMm,
  );
  const apart = (t: number) => Math.abs(t - old.thicknessMm);
  const kept: SheetOffered[] = [];
  for (const one of [...fit].sort((a, b) => apart(a.thicknessMm) - apart(b.thicknessMm)))
    if (
      !kept.some(
        (k) => k.metal.id === one.metal.id && Math.abs(k.thicknessMm - one.thicknessMm) < SAME_MM,
      )
    )
      kept.push(one);
  return kept.slice(0, most).map((one): StockCandidate => {
    const { metal, thicknessMm: t } = one;
    return {
      ...one,
      stiffer: (metal.young.value / old.metal.young.value) * (t / old.thicknessMm) ** 3,
      heavier: (metal.weight.value * t) / (old.metal.weight.value * old.thicknessMm),
      stepMm: apart(t),
      stepLimitMm: stepLimit(Math.min(t, old.thicknessMm)),
    };
  });
}
