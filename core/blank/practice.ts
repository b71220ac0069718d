import { z } from 'zod';
import type { Metal } from '../metal/metals';
import { METAL_IDS, usualRadius } from '../metal/metals';
import type { Rule } from './fold/allowance';
import { combinedK, kFromStrip } from './fold/testBend';

export const StripSchema = z.object({
  thicknessMm: z.number().positive(),
  radiusMm: z.number().min(0),
  angleDeg: z.number().positive().max(90),
  flatMm: z.number().positive(),
  legAMm: z.number().positive(),
  legBMm: z.number().positive(),
  readingMm: z.number().positive(),
});

/** What the shop does: its settings, from which every blank is reckoned. */
export const ShopSchema = z.object({
  name: z.string().max(80),
  units: z.enum(['mm', 'in', 'inDecimal']),
  rule: z.enum(['din6935', 'machinery', 'faa', 'k']),
  plainK: z.number().min(0).max(0.6),
  /** The shop's own test bends, by metal. Where there are any near the thickness in use, they come before the rule. */
  strips: z.array(StripSchema.extend({ metal: z.enum(METAL_IDS) })),
  /** Where the edge of the clamping bar goes: on the tangent, on the middle of the bend, or one radius in from the tangent. */
  brakeLine: z.enum(['tangent', 'centre', 'radius-in']),
  relief: z.enum(['round', 'square', 'none']),
  /** The shortest flat beyond a bend that the shop's brake can hold or swing, mm. */
  shortestFlangeMm: z.number().min(0).max(100),
});
export type Shop = z.infer<typeof ShopSchema>;

export const USUAL_SHOP: Shop = {
  name: 'My shop',
  units: 'mm',
  rule: 'din6935',
  plainK: 0.42,
  strips: [],
  brakeLine: 'tangent',
  relief: 'round',
  shortestFlangeMm: 6,
};

/** The sheet a blank is cut from, as far as folding it is concerned. */
export type SheetMetal = {
  thicknessMm: number;
  rule: Rule;
  /** Inside radius where a fold does not say, mm. */
  usualRadiusMm: number;
  /** Least inside radius of the metal, mm. */
  leastRadiusMm: number;
  /** kg/m² for each mm of thickness. */
  weight: number;
};

export type Practice = Pick<Shop, 'brakeLine' | 'relief' | 'shortestFlangeMm'>;

/** Test bends count for a sheet within this share of their own thickness. */
const SAME_THICKNESS = 0.1;

/** The rule the shop bends a metal by: its own strips if it has any of about this thickness, else what it chose. */
export function ruleFor(shop: Shop, metal: Metal, thicknessMm: number): Rule {
  const own = shop.strips
    .filter((s) => s.metal === metal.id && Math.abs(s.thicknessMm - thicknessMm) <= SAME_THICKNESS * thicknessMm)
    .map(kFromStrip)
    .filter((k) => k.ok);
  const measured = combinedK(own);
  if (measured.ok) return { kind: 'measured', k: Math.max(0, measured.k), uK: measured.uK };
  if (shop.rule === 'machinery') return { kind: 'machinery', temper: metal.temper };
  return shop.rule === 'k' ? { kind: 'k', k: shop.plainK } : { kind: shop.rule };
}

/** Puts a metal, its thickness and the shop's way of bending together. */
export const sheetMetal = (metal: Metal, thicknessMm: number, shop: Shop): SheetMetal => ({
  thicknessMm,
  rule: ruleFor(shop, metal, thicknessMm),
  usualRadiusMm: usualRadius(metal, thicknessMm),
  leastRadiusMm: metal.minRadius.value * thicknessMm,
  weight: metal.weight.value,
});
