import type { Joint } from '../card/pattern';
import { radians } from '../measure/angle';
import type { Rule } from './fold/allowance';
import { bendAllowance } from './fold/allowance';
import type { SheetMetal } from './practice';

export type JointAllowance = {
  /** Metal added beyond the card's line, square to the edge, mm. */
  addMm: number;
  /** Of that, what the bends of the joint take up beyond its plain width, mm. */
  takeUpMm: number;
  /** Lines to scribe parallel to the edge: distance outward from the card's line (negative: inside it), mm. */
  lines: { outMm: number; what: 'fold-tangent' | 'step' | 'trim' }[];
  /** Whether the strip is folded over, so that its ends must be clipped not to foul its neighbours. */
  folded: boolean;
  /** Middle of the overlap, where plugs go: distance outward from the card's line, mm. */
  middleMm: number;
  formula: string;
};

/** Each of the two bends of a joggle is turned through this much where the step is deep enough. */
const JOGGLE_ANGLE_DEG = 45;

/**
 * Extra length that a step of depth `h` takes over its own run: two equal and opposite bends of neutral radius r and
 * angle θ with a straight between. Exact geometry: rise 2r(1−cosθ) + q·sinθ = h, run 2r·sinθ + q·cosθ,
 * length 2rθ + q. A step too shallow for 45° has no straight and cosθ = 1 − h/2r.
 */
export function stepTakeUp(depthMm: number, neutralRadiusMm: number): { takeUpMm: number; runMm: number } {
  if (!(depthMm > 0)) return { takeUpMm: 0, runMm: 0 };
  const r = neutralRadiusMm;
  let theta = radians(JOGGLE_ANGLE_DEG);
  let q = (depthMm - 2 * r * (1 - Math.cos(theta))) / Math.sin(theta);
  if (q < 0) {
    theta = Math.acos(1 - depthMm / (2 * r));
    q = 0;
  }
  const runMm = 2 * r * Math.sin(theta) + q * Math.cos(theta);
  return { takeUpMm: 2 * r * theta + q - runMm, runMm };
}

const flat = (addMm: number, formula: string, lines: JointAllowance['lines'] = []): JointAllowance => ({
  addMm,
  takeUpMm: 0,
  lines,
  folded: false,
  middleMm: addMm / 2,
  formula,
});

/** A strip of finished width `w` turned over at the edge: the card's line is where the outside of its bend comes. */
function turnedStrip(
  w: number,
  angleDeg: number,
  radiusMm: number,
  t: number,
  rule: Rule,
  formula: string,
): JointAllowance {
  const bend = bendAllowance({ thicknessMm: t, radiusMm, angleDeg }, rule);
  if (!bend.ok) return flat(w, formula);
  const inner = -bend.outsideSetbackMm;
  return {
    addMm: Math.max(0, w - bend.deductionMm),
    takeUpMm: -bend.deductionMm,
    lines: [
      { outMm: inner, what: 'fold-tangent' },
      { outMm: inner + bend.allowanceMm, what: 'fold-tangent' },
    ],
    folded: true,
    middleMm: w / 2 - bend.deductionMm,
    formula,
  };
}

/** What an edge's joint adds to the blank. Widths of laps and steps are common practice; bends are reckoned as folds. */
export function jointAllowance(joint: Joint, sheet: SheetMetal): JointAllowance {
  const t = sheet.thicknessMm;
  switch (joint.kind) {
    case 'free':
    case 'butt':
    case 'backed-butt':
      return flat(joint.trimMm, 'joint-trim', joint.trimMm > 0 ? [{ outMm: 0, what: 'trim' }] : []);
    case 'lap':
      return flat(joint.widthMm, 'joint-lap', [{ outMm: 0, what: 'trim' }]);
    case 'joggle': {
      const bend = bendAllowance({ thicknessMm: t, radiusMm: t, angleDeg: JOGGLE_ANGLE_DEG }, sheet.rule);
      const step = stepTakeUp(joint.depthMm, t + (bend.ok ? bend.k : 0.5) * t);
      return {
        ...flat(joint.widthMm + step.takeUpMm, 'joint-joggle', [
          { outMm: 0, what: 'step' },
          { outMm: step.runMm + step.takeUpMm, what: 'step' },
        ]),
        takeUpMm: step.takeUpMm,
      };
    }
    case 'hem':
      return turnedStrip(joint.widthMm, 180, joint.gapMm / 2, t, sheet.rule, 'joint-hem');
    case 'plug-flange':
      return joint.turnDeg > 0
        ? turnedStrip(joint.widthMm, joint.turnDeg, sheet.usualRadiusMm, t, sheet.rule, 'joint-flange')
        : flat(joint.widthMm, 'joint-flange', [{ outMm: 0, what: 'trim' }]);
  }
}
