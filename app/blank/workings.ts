import type { BlankFold, Development } from '#core/blank/fold/developed';
import type { Metal } from '#core/metal/metals';
import type { Working } from '../shell/Tally';
import { MADE_WORDS } from '../shell/words';

type Show = (mm: number, digits?: number) => string;

/** Where each rule for K comes from, by formula id. */
export const RULE_SOURCES: Record<string, string> = {
  'bend-din6935': 'DIN 6935: K = ½·(0.65 + ½·log₁₀(R/T)), at most ½; nothing is taken off under 15°',
  'bend-machinery': 'Machinery’s Handbook: a square bend is c·T + 1.57·R long (c 0.55 soft, 0.64 half, 0.71 hard)',
  'bend-faa': 'FAA AC 43.13-1B: (0.01743·R + 0.0078·T) for each degree',
  'bend-k': 'K as typed in the shop settings',
  'bend-measured': 'K from the shop’s own test bends',
};

const n = (value: number, digits = 3): string => value.toFixed(digits);

/** How one fold's deduction and shift were reckoned, line by line with its own figures. */
export function foldWorking(fold: BlankFold, show: Show): Working {
  const { bend, allowance } = fold;
  const { thicknessMm: t, radiusMm: r, angleDeg: a } = bend;
  const past = a > 90;
  return {
    title: `${a}° over ${show(r, 2)} inside, sheet ${show(t, 2)}`,
    lines: [
      allowance.uncertaintyMm === null
        ? `K = ${n(allowance.k)}`
        : `K = ${n(allowance.k)} from test bends; here that is good to ± ${show(allowance.uncertaintyMm, 2)}`,
      allowanceLine(fold, show),
      past
        ? `Outside setback = R + T = ${show(allowance.outsideSetbackMm, 2)} (past square, to the tangent)`
        : `Outside setback = (R + T)·tan(${a}/2) = ${show(allowance.outsideSetbackMm, 2)}`,
      `Deduction = 2 × ${n(allowance.outsideSetbackMm, 2)} − ${n(allowance.allowanceMm, 2)} = ${show(allowance.deductionMm, 2)}`,
      `${MADE_WORDS[fold.made].short}: mark to tangent ${show(fold.setbackMm, 2)}`,
      `Beyond the fold everything moves ${n(allowance.allowanceMm, 2)} − 2 × ${n(fold.setbackMm, 2)} = ${show(fold.shiftMm, 2)}`,
    ],
    source: RULE_SOURCES[allowance.formula] ?? allowance.formula,
  };
}

/** The allowance with its own figures, by the formula that was used. */
function allowanceLine({ bend, allowance }: BlankFold, show: Show): string {
  const { thicknessMm: t, radiusMm: r, angleDeg: a } = bend;
  const gives = show(allowance.allowanceMm, 2);
  if (allowance.formula === 'bend-faa') {
    return `Allowance = (0.01743·${n(r, 2)} + 0.0078·${n(t, 2)})·${a} = ${gives}`;
  }
  if (allowance.formula === 'bend-din6935' && a < 15) return `Allowance = 2 × outside setback (under 15°) = ${gives}`;
  return `Allowance = ${a}·π/180·(${n(r, 2)} + ${n(allowance.k)}·${n(t, 2)}) = ${gives}`;
}

export function sizeWorkings(
  { size }: Development,
  metal: Metal,
  thicknessMm: number,
  show: Show,
  showArea: (mm2: number, digits?: number) => string,
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
        `${(size.areaMm2 / 1e6).toFixed(4)} m² × ${thicknessMm.toFixed(2)} mm × ${metal.weight.value} kg/m² per mm`,
        `= ${size.massKg.toFixed(3)} kg`,
      ],
      source: metal.weight.source,
    },
    difference: {
      title: 'What forgetting the thickness would cost',
      lines: [
        'Each fold moves what lies beyond it by allowance − 2 × setback.',
        `The most that two faces move against each other: ${show(size.differenceMm, 2)}`,
      ],
      source: 'docs/formulas.md, From card to blank',
    },
  };
}
