import type { GaugeSystem } from './gauges';

/** A figure of a metal with where it comes from. */
export type Figure = { value: number; source: string };

/**
 * How hard the sheet is for the 90° length of Machinery's Handbook: c = 0.55, 0.64, 0.71 (see
 * docs/formulas.md).
 */
export type Temper = 'soft' | 'half' | 'hard';

export type Metal = {
  id: MetalId;
  name: string;
  /** One line that tells it from its neighbours in a list. */
  about: string;
  family: 'steel' | 'coated-steel' | 'stainless' | 'aluminium';
  /** The system its gauge numbers are usually given in. */
  gauges: GaugeSystem;
  /** kg/m² for each mm of thickness. */
  weight: Figure;
  /**
   * 0.2 % proof or upper yield stress, N/mm². For EN 10130 grades the largest the standard allows.
   */
  yield: Figure;
  /** Young's modulus, N/mm². */
  young: Figure;
  /** Elongation at break over 80 mm, %. */
  elongation: Figure;
  /** Strain-hardening exponent n at 90° to rolling, where one is known. */
  hardening?: Figure;
  /** Plastic strain ratio r at 90° to rolling, where one is known. */
  anisotropy?: Figure;
  /** Least inside bend radius as a multiple of thickness, bent across the rolling direction. */
  minRadius: Figure;
  temper: Temper;
};

export const METAL_IDS = [
  'dc01',
  'dc03',
  'dc04',
  'dc05',
  'dc06',
  'cr1008',
  'zinc-coated',
  'al1100o',
  'al3003h14',
  'al5052h32',
  'al6061t6',
  'ss304',
] as const;
export type MetalId = (typeof METAL_IDS)[number];

const EN = 'EN 10130 table of mechanical properties';
const MEMORY = 'handbook figure, from memory';
const PRACTICE = 'common practice';
const steelWeight: Figure = { value: 7.85, source: 'EN 10130: 7.85 kg/dm³' };
const steelYoung: Figure = { value: 207_000, source: MEMORY };
const aluYoung: Figure = { value: 69_000, source: MEMORY };
const said = (value: number, source: string): Figure => ({ value, source });

function drawing(
  id: MetalId,
  name: string,
  about: string,
  re: number,
  a80: number,
  r90?: number,
  n90?: number,
): Metal {
  return {
    id,
    name,
    about,
    family: 'steel',
    gauges: 'msg',
    weight: steelWeight,
    yield: said(re, `${EN}: the most allowed`),
    young: steelYoung,
    elongation: said(a80, `${EN}: the least allowed`),
    hardening: n90 === undefined ? undefined : said(n90, `${EN}: the least allowed`),
    anisotropy: r90 === undefined ? undefined : said(r90, `${EN}: the least allowed`),
    minRadius: said(0, 'EN 10130 grades bend flat on themselves (from memory)'),
    temper: 'half',
  };
}

function aluminium(
  id: MetalId,
  name: string,
  about: string,
  weight: number,
  re: number,
  a: number,
  minRadius: number,
  temper: Temper,
): Metal {
  return {
    id,
    name,
    about,
    family: 'aluminium',
    gauges: 'bs',
    weight: said(weight, MEMORY),
    yield: said(re, MEMORY),
    young: aluYoung,
    elongation: said(a, MEMORY),
    minRadius: said(minRadius, MEMORY),
    temper,
  };
}

/** The metals on the shelf. Order is the order they are offered in. */
export const METALS: readonly Metal[] = [
  drawing(
    'dc01',
    'DC01 cold-rolled steel',
    'Ordinary cold-rolled sheet: folds and simple lips',
    280,
    28,
  ),
  drawing('dc03', 'DC03 drawing steel', 'Softer: lips that shrink or stretch', 240, 34, 1.3),
  drawing(
    'dc04',
    'DC04 deep-drawing steel',
    'The usual choice for crowned pieces',
    210,
    38,
    1.6,
    0.18,
  ),
  drawing('dc05', 'DC05 deep-drawing steel', 'For deep shapes', 180, 40, 1.9, 0.2),
  drawing('dc06', 'DC06 interstitial-free steel', 'The softest of the steels', 170, 41, 2.1, 0.22),
  {
    id: 'cr1008',
    name: '1008 cold-rolled steel',
    about: 'Commercial sheet sold by gauge number',
    family: 'steel',
    gauges: 'msg',
    weight: steelWeight,
    yield: said(240, MEMORY),
    young: steelYoung,
    elongation: said(34, MEMORY),
    hardening: said(0.2, MEMORY),
    minRadius: said(0, MEMORY),
    temper: 'half',
  },
  {
    id: 'zinc-coated',
    name: 'Zinc-coated steel',
    about: 'Galvanized or electro-zinc: mind the fume when welding',
    family: 'coated-steel',
    gauges: 'gsg',
    weight: steelWeight,
    yield: said(280, MEMORY),
    young: steelYoung,
    elongation: said(30, MEMORY),
    minRadius: said(0.5, `${PRACTICE}: tighter bends crack the coating`),
    temper: 'half',
  },
  aluminium(
    'al1100o',
    '1100-O aluminium',
    'Pure and soft: easily shaped, weak',
    2.71,
    35,
    35,
    0,
    'soft',
  ),
  aluminium(
    'al3003h14',
    '3003-H14 aluminium',
    'Half hard: the usual coachbuilder’s sheet',
    2.73,
    145,
    8,
    0.5,
    'half',
  ),
  aluminium('al5052h32', '5052-H32 aluminium', 'Stronger, weldable', 2.68, 195, 12, 1, 'half'),
  aluminium(
    'al6061t6',
    '6061-T6 aluminium',
    'Hard: cracks in a tight bend',
    2.7,
    275,
    10,
    3,
    'hard',
  ),
  {
    id: 'ss304',
    name: '304 stainless steel',
    about: 'Hardens as it is worked, springs back',
    family: 'stainless',
    gauges: 'msg',
    weight: said(7.93, MEMORY),
    yield: said(230, MEMORY),
    young: said(193_000, MEMORY),
    elongation: said(45, MEMORY),
    hardening: said(0.45, MEMORY),
    minRadius: said(0.5, MEMORY),
    temper: 'hard',
  },
];

export const metalById = (id: MetalId): Metal => METALS.find((metal) => metal.id === id)!;

/**
 * The inside radius a fold gets when nobody says otherwise: one thickness, or the metal's least if
 * that is more (common practice).
 */
export const usualRadius = (metal: Metal, thicknessMm: number): number =>
  thicknessMm * Math.max(1, metal.minRadius.value);

/**
 * Least inside radius in thicknesses from the reduction of area in a tensile test, `r` in %: R/T =
 * 50/r − 1, never below 0. Kalpakjian & Schmid, Manufacturing Engineering and Technology, sheet
 * forming.
 */
export const minRadiusFromReduction = (r: number): number => Math.max(0, 50 / r - 1);
