import { USUAL_BRAKES } from '../../machine/brake';
import type { Limit } from '../../metal/forming';
import { shrinkLimit, stretchLimit } from '../../metal/forming';
import type { Metal, Temper } from '../../metal/metals';
import { usualRadius } from '../../metal/metals';
import type { Shop } from '../shopSchema';
import type { Rule } from './allowance';
import { weightedMean } from '../../measure/mean';
import { shareDrawn } from '../bead/tested';
import type { AchievedRadius } from './achievedRadius';
import { radiiOf } from './achievedRadius';
import { ruleFromStrips } from './testBend';

export const DEFAULT_SHOP: Shop = {
  name: 'My shop',
  units: 'mm',
  dates: 'day',
  rule: 'din6935',
  plainK: 0.42,
  strips: [],
  brakeLine: 'tangent',
  relief: 'round',
  shortestFlangeMm: 6,
  hourRate: 45,
  currency: '€',
  layersApartMm: 50,
  sheets: [],
  brakes: [
    { id: 'box-and-pan', name: 'Box-and-pan brake', ...USUAL_BRAKES['box-and-pan'] },
    { id: 'folder', name: 'Folder with one bar', ...USUAL_BRAKES.folder },
    { id: 'over-a-bar', name: 'Two bars in the vice', ...USUAL_BRAKES['over-a-bar'] },
  ],
  longFolds: 'late',
  springs: [],
  radii: [],
  edgeTools: [
    { id: 'shrinker', name: 'Shrinker', does: 'shrink', throatMm: 25 },
    { id: 'stretcher', name: 'Stretcher', does: 'stretch', throatMm: 25 },
  ],
  beadTools: [
    {
      id: 'round-12',
      name: 'Round die, 12 wide',
      section: { kind: 'arc', widthMm: 12, heightMm: 3 },
      depthPerPassMm: 1,
      leastRadiusMm: 120,
      throatMm: 450,
    },
    {
      id: 'step-1',
      name: 'Step die',
      section: { kind: 'step', depthMm: 1, radiusMm: null },
      depthPerPassMm: 0.5,
      leastRadiusMm: 80,
      throatMm: 450,
    },
  ],
  bites: [],
  beadTests: [],
  limitsSeen: [],
  paces: [],
};

/** The sheet a blank is cut from, as far as folding it is concerned. */
export type SheetMetal = {
  thicknessMm: number;
  rule: Rule;
  /** Inside radius where a fold does not say, mm. */
  usualRadiusMm: number;
  /**
   * Inside radii as they came out in this sheet where others were wanted; left out where none were
   * measured.
   */
  radii?: AchievedRadius[];
  /** Least inside radius of the metal, mm. */
  leastRadiusMm: number;
  temper: Temper;
  /** kg/m² for each mm of thickness. */
  weight: number;
  /**
   * How far it may be stretched and gathered, and its elongation at break, %; left out where the
   * metal is not known.
   */
  forming?: { stretch: Limit; shrink: Limit; elongation: number };
  /**
   * Share of a bead's take-up that drew the edges in on the shop's own test pieces, beaded right
   * across; left out where there are none.
   */
  drawsIn?: number;
};

export type Practice = Pick<Shop, 'brakeLine' | 'relief' | 'shortestFlangeMm'>;

/** Test bends count for a sheet within this share of their own thickness. */
const SAME_THICKNESS = 0.1;

/**
 * The rule the shop bends a metal by: its own strips if it has any of about this thickness, else
 * what it chose.
 */
export function ruleFor(shop: Shop, metal: Metal, thicknessMm: number): Rule {
  const measured = ruleFromStrips(shop.strips.filter((s) => countsFor(s, metal, thicknessMm)));
  if (measured) return measured;
  switch (shop.rule) {
    case 'machinery':
    case 'din6935':
      return { kind: shop.rule, temper: metal.temper };
    case 'k':
      return { kind: 'k', k: shop.plainK };
    case 'faa':
      return { kind: 'faa' };
  }
}

/** Puts a metal, its thickness and the shop's way of bending together. */
export const sheetMetal = (metal: Metal, thicknessMm: number, shop: Shop): SheetMetal => ({
  thicknessMm,
  rule: ruleFor(shop, metal, thicknessMm),
  usualRadiusMm: usualRadius(metal, thicknessMm),
  leastRadiusMm: metal.minRadius.value * thicknessMm,
  temper: metal.temper,
  weight: metal.weight.value,
  forming: {
    stretch: stretchLimit(metal, leastSeen(shop, metal, thicknessMm, 'torn')),
    shrink: shrinkLimit(leastSeen(shop, metal, thicknessMm, 'wrinkled')),
    elongation: metal.elongation.value,
  },
  ...drawnIn(shop, metal, thicknessMm),
  ...withRadii(radiiOf(shop.radii, metal, thicknessMm)),
});

/**
 * The least strain at which an edge of a metal of about a thickness went wrong in this shop, a
 * share; null where none did.
 */
function leastSeen(
  shop: Pick<Shop, 'limitsSeen'>,
  metal: Metal,
  thicknessMm: number,
  kind: 'torn' | 'wrinkled',
): number | null {
  const seen = shop.limitsSeen.filter(
    (one) => one.kind === kind && countsFor(one, metal, thicknessMm),
  );
  return seen.length > 0 ? Math.min(...seen.map(({ strain }) => strain)) : null;
}

function drawnIn(
  shop: Pick<Shop, 'beadTests'>,
  metal: Metal,
  thicknessMm: number,
): { drawsIn?: number } {
  const shares = shop.beadTests
    .filter((one) => countsFor(one, metal, thicknessMm))
    .map((one) => shareDrawn(one))
    .filter((share) => share !== null);
  const mean = weightedMean(shares);
  return mean ? { drawsIn: mean.value } : {};
}

type Tried = { metal: string; thicknessMm: number; leftOut?: string | undefined };
/** Whether what was tried counts for a metal of a thickness. */
export const countsFor = (one: Tried, metal: Pick<Metal, 'id'>, thicknessMm: number): boolean =>
  !one.leftOut &&
  one.metal === metal.id &&
  Math.abs(one.thicknessMm - thicknessMm) <= SAME_THICKNESS * thicknessMm;

const withRadii = (radii: AchievedRadius[]) => (radii.length > 0 ? { radii } : {});
