import type { BlankFold, Development } from '#core/blank/fold/developed';
import type { Metal } from '#core/metal/metals';
import type { BlankBead } from '#core/blank/blank';
import type { TallyFigure, Working } from '../frame/Tally';
import { MADE_WORDS } from '../frame/words';

type Show = (mm: number, digits?: number) => string;
/**
 * The ways to show a length in the unit in use: a length; a thin thing without its unit, and with
 * it.
 */
export type Shown = { show: Show; thin: (mm: number) => string; showThin: (mm: number) => string };

/** Where each rule for K comes from, by formula id. */
const RULE_SOURCES: Record<string, string> = {
  'bend-din6935':
    'DIN 6935: K = ½·(0.65 + ½·log₁₀(R/T)), at most ½; nothing is taken off outside legs under 15°; below R = T/2 it runs evenly to the Machinery’s Handbook’s sharp bend (c·T at 90°)',
  'bend-machinery':
    'Machinery’s Handbook: a square bend is c·T + 1.57·R long (c 0.55 soft, 0.64 half, 0.71 hard)',
  'bend-faa': 'FAA AC 43.13-1B: (0.01743·R + 0.0078·T) for each degree',
  'bend-k': 'K as typed in the shop settings',
  'bend-measured': 'K from the shop’s own test bends',
};

const n = (value: number, digits = 3): string => value.toFixed(digits);

/** How one fold's deduction and shift were reckoned, line by line with its own figures. */
export function foldWorking(fold: BlankFold, { show, thin, showThin }: Shown): Working {
  const { bend, allowance } = fold;
  const { thicknessMm: t, radiusMm: r, angleDeg: a } = bend;
  const past = a > 90;
  return {
    title: `${a}° over ${show(r, 2)} inside, sheet ${showThin(t)}`,
    lines: [
      allowance.uncertaintyMm === null
        ? `K = ${n(allowance.k)}`
        : `K = ${n(allowance.k)} from test bends${allowance.beyondTested ? ' of another roundness, carried along the shape of DIN 6935' : ''}; here that is good to ± ${showThin(allowance.uncertaintyMm)}`,
      allowanceLine(fold, { thin, showThin }),
      past
        ? `Outside setback = R + T = ${showThin(allowance.outsideSetbackMm)} (past square, to the tangent)`
        : `Outside setback = (R + T)·tan(${a}/2) = ${showThin(allowance.outsideSetbackMm)}`,
      deductionLine(fold, { thin, showThin }),
      `${MADE_WORDS[fold.convention].short}: mark to tangent ${showThin(fold.setbackMm)}`,
      `Beyond the fold everything moves ${thin(allowance.allowanceMm)} − 2 × ${thin(fold.setbackMm)} = ${showThin(fold.shiftMm)}`,
    ],
    source: RULE_SOURCES[allowance.formula] ?? allowance.formula,
  };
}

/** The deduction with its own figures. */
function deductionLine(
  { bend, allowance }: BlankFold,
  { thin, showThin }: Omit<Shown, 'show'>,
): string {
  const { outsideSetbackMm, deductionMm } = allowance;
  if (allowance.formula === 'bend-din6935' && bend.angleDeg < 15)
    return 'Deduction = 0: DIN 6935 takes nothing off outside legs under 15°';
  return `Deduction = 2 × ${thin(outsideSetbackMm)} − ${thin(2 * outsideSetbackMm - deductionMm)} = ${showThin(deductionMm)}`;
}

/** The allowance with its own figures, by the formula that was used. */
function allowanceLine(
  { bend, allowance, convention: made }: BlankFold,
  { thin, showThin }: Omit<Shown, 'show'>,
): string {
  const { thicknessMm: t, radiusMm: r, angleDeg: a } = bend;
  const gives = showThin(allowance.allowanceMm);
  if (allowance.formula === 'bend-faa') {
    return `Allowance = (0.01743·${thin(r)} + 0.0078·${thin(t)})·${a} = ${gives}`;
  }
  if (allowance.formula === 'bend-din6935' && a < 15 && made === 'outside-sharp')
    return `Allowance = 2 × outside setback (under 15°) = ${gives}`;
  return `Allowance = ${a}·π/180·(${thin(r)} + ${n(allowance.k)}·${thin(t)}) = ${gives}`;
}

export function sizeWorkings(
  { size }: Development,
  metal: Metal,
  thicknessMm: number,
  {
    show,
    showThin,
    showArea,
    showWeight,
  }: Pick<Shown, 'show' | 'showThin'> & {
    showArea: (mm2: number, digits?: number) => string;
    showWeight: (kg: number) => string;
  },
): Record<'size' | 'area' | 'mass' | 'difference', Working> {
  const { parts } = size;
  return {
    size: {
      title: 'Size of the blank',
      lines: [
        'The smallest upright rectangle round the outline to cut,',
        'laps and flanges included.',
        `${show(size.widthMm, 2)} × ${show(size.heightMm, 2)}`,
      ],
      source: 'Exact geometry of the outline',
    },
    area: {
      title: 'Area of the blank',
      lines: [
        `Flat faces      ${showArea(parts.facesMm2, 1)}`,
        `Bends           ${showArea(parts.zonesMm2, 1)}`,
        `Joints, reliefs ${showArea(parts.jointsMm2, 1)}`,
        `Holes           ${showArea(parts.holesMm2, 1)}`,
        `Together        ${showArea(size.areaMm2, 1)}`,
      ],
      source: 'Exact geometry; arcs by their segments',
    },
    mass: {
      title: 'Weight',
      lines: [
        `${showArea(size.areaMm2, 1)} × ${showThin(thicknessMm)} of sheet`,
        `at ${metal.weight.value} kg/m² for each mm = ${showWeight(size.massKg)}`,
      ],
      source: metal.weight.source,
    },
    difference: {
      title: 'What cutting the card as it is would cost',
      lines: [
        'Each fold moves what lies beyond it by allowance − 2 × setback;',
        'joints, flanges and beads add metal.',
        `The most that a face moves or an edge gains: ${showThin(size.differenceMm)}`,
      ],
      source: 'Exact geometry: paper has no thickness, steel has',
    },
  };
}

/** What a bead adds to the blank, for the tally. */
export const beadFigure = (
  { size, addsMm, drawsIn }: BlankBead,
  number: number,
  { show }: Pick<Shown, 'show'>,
): TallyFigure => ({
  label: `Bead ${number} adds`,
  value: show(addsMm, 2),
  working: {
    title: `What the blank gains for bead ${number}`,
    lines: [
      `Metal across it ${show(size.developedMm, 2)}, over ${show(size.widthMm, 2)} of surface`,
      `take-up ${show(size.takeUpMm, 2)} × ${Math.round(drawsIn * 100)} % = ${show(addsMm, 2)}`,
    ],
    source: 'Exact geometry of the section; the share of its take-up that draws the edges in',
  },
});
