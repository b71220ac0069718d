import type { Metal } from './metals';

/**
 * What bounds a strain: uniform elongation, a share of the elongation at break or all of it, the
 * hole-flange tables, what the shop saw or what is usual.
 */
export type LimitWhy =
  | 'uniform-elongation'
  | 'elongation'
  | 'elongation-at-break'
  | 'hole-flange-table'
  | 'torn-here'
  | 'wrinkled-here'
  | 'usual';

/** The most that metal may be strained, signed as the strain is (+ longer), with what says so. */
export type Limit = { strain: number; why: LimitWhy };

/**
 * Of a metal whose hardening is not known, this share of its elongation at break is even (common
 * practice, from memory).
 */
const EVEN_SHARE = 0.6;

/**
 * What an edge can usually be gathered by in a shrinker before it folds over (common practice, from
 * memory).
 */
const USUAL_SHRINK = 0.15;

/**
 * Uniform elongation of sheet that hardens as σ = K·ε^n: true strain n at the most load
 * (Considère), as a share.
 */
export const uniformElongation = (hardening: number): number => Math.exp(hardening) - 1;

/**
 * How far an edge stretches evenly: its uniform elongation, for a free edge is pulled one way only
 * (the forming limit at plane strain is for the inside of a panel and lies above it at every
 * thickness); of a metal whose hardening is not known a share of its elongation at break; less where
 * the shop saw it torn at less.
 */
export function stretchLimit(metal: Metal, tornAt: number | null = null): Limit {
  const found = bookLimit(metal);
  return tornAt !== null && tornAt < found.strain ? { strain: tornAt, why: 'torn-here' } : found;
}

function bookLimit({ hardening, elongation }: Metal): Limit {
  return hardening
    ? { strain: uniformElongation(hardening.value), why: 'uniform-elongation' }
    : { strain: (EVEN_SHARE * elongation.value) / 100, why: 'elongation' };
}

/**
 * How far an edge may be gathered (a negative strain): where the shop saw it fold over, else what
 * is usual.
 */
export const shrinkLimit = (wrinkledAt: number | null = null): Limit =>
  wrinkledAt === null
    ? { strain: -USUAL_SHRINK, why: 'usual' }
    : { strain: -Math.abs(wrinkledAt), why: 'wrinkled-here' };

/** Poisson's ratio of sheet metal (from memory; 0.29 to 0.33). */
const POISSON = 0.3;
/** Buckling factor of a long plate pressed along, one long edge hinged, the other free. */
const HINGED_FREE = 0.425;

/**
 * The strain at which a flange held along its fold buckles by itself, negative: −k·π²/(12(1 −
 * ν²))·(t/h)², k = 0.425. Timoshenko & Gere, Theory of Elastic Stability. It is no limit of what
 * can be done: beyond it the metal has to be gathered bite by bite, for it will not shorten of its
 * own.
 */
export const wrinklingStrain = (thicknessMm: number, widthMm: number): number =>
  -((HINGED_FREE * Math.PI ** 2) / (12 * (1 - POISSON ** 2))) * (thicknessMm / widthMm) ** 2;

/**
 * Thickness at a free edge that was strained by `strain`, mm: t(1 + e)^(−1/2), what volume asks of
 * one direction of pull.
 */
export const edgeThickness = (thicknessMm: number, strain: number): number =>
  thicknessMm / Math.sqrt(1 + strain);
