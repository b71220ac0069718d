import type { Joint } from '../../card/pattern';
import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import { ROUNDING_MM } from '../../measure/tolerance';
import type { JointAllowance } from '../blank';
import type { Bend, Rule } from './allowance';
import { measuredOutside, bendAllowance } from './allowance';
import type { SheetMetal } from './practice';
import { achievedRadius } from './achievedRadius';
import { STEP_ANGLE_DEG, stepLine } from '../offsetStep';

const flat = (
  addMm: number,
  formula: string,
  lines: JointAllowance['lines'] = [],
): JointAllowance => ({
  addMm,
  takeUpMm: 0,
  lines,
  turn: null,
  ends: {},
  middleMm: addMm / 2,
  formula,
});

/**
 * A strip of finished width `w` turned over at the edge: the card's line is where the outside of
 * its bend comes, and the width is measured from there. Refused where it is narrower than its own
 * bend.
 */
function turnedStrip(
  w: number,
  bend: Bend,
  rule: Rule,
  formula: string,
  narrow: 'hem-narrow' | 'turned-flange-narrow',
): Result<{ allowance: JointAllowance }> {
  const found = bendAllowance(bend, rule);
  if (!found.ok) return found;
  const leastMm = Math.max(found.outsideSetbackMm, found.deductionMm);
  if (w < leastMm - ROUNDING_MM) return failure({ code: narrow, numbers: { widthMm: w, leastMm } });
  const inner = -found.outsideSetbackMm;
  const addMm = w - found.deductionMm;
  return {
    ok: true,
    allowance: {
      addMm,
      takeUpMm: -found.deductionMm,
      lines: [
        { outMm: inner, role: 'turn' },
        { outMm: inner + measuredOutside(found, bend).allowanceMm, role: 'turn' },
      ],
      turn: {
        thicknessMm: bend.thicknessMm,
        angleDeg: bend.angleDeg,
        deductionMm: found.deductionMm,
        toward: null,
      },
      ends: {},
      middleMm: w / 2 - found.deductionMm,
      formula,
    },
  };
}

/**
 * What an edge's joint adds to the blank. Widths of laps and steps are common practice; bends are
 * reckoned as folds.
 *
 * Problems: `hem-narrow`, `turned-flange-narrow` (numbers: widthMm, leastMm), those of
 * `bendAllowance`.
 */
export function jointAllowance(
  joint: Joint,
  sheet: SheetMetal,
): Result<{ allowance: JointAllowance }> {
  const t = sheet.thicknessMm;
  const plain = (allowance: JointAllowance): Result<{ allowance: JointAllowance }> => ({
    ok: true,
    allowance,
  });
  switch (joint.kind) {
    case 'free':
    case 'butt':
    case 'backed-butt':
      return plain(
        flat(joint.trimMm, 'joint-trim', joint.trimMm > 0 ? [{ outMm: 0, role: 'trim' }] : []),
      );
    case 'lap':
      return plain(
        flat(joint.widthMm, 'joint-lap', joint.widthMm > 0 ? [{ outMm: 0, role: 'trim' }] : []),
      );
    case 'joggle': {
      const bend = bendAllowance(
        { thicknessMm: t, radiusMm: t, angleDeg: STEP_ANGLE_DEG },
        sheet.rule,
      );
      if (!bend.ok) return bend;
      const step = stepLine(joint.depthMm, t + bend.k * t);
      return plain({
        ...flat(joint.widthMm + step.takeUpMm, 'joint-joggle', [
          { outMm: 0, role: 'step' },
          { outMm: step.runMm + step.takeUpMm, role: 'step' },
        ]),
        takeUpMm: step.takeUpMm,
      });
    }
    case 'hem': {
      const radiusMm = joint.gapMm / 2;
      const bend = { thicknessMm: t, radiusMm, angleDeg: 180 };
      return turnedStrip(joint.widthMm, bend, sheet.rule, 'joint-hem', 'hem-narrow');
    }
    case 'plug-flange': {
      if (!(joint.turnDeg > 0))
        return plain(
          flat(
            joint.widthMm,
            'joint-flange',
            joint.widthMm > 0 ? [{ outMm: 0, role: 'trim' }] : [],
          ),
        );
      const radiusMm = achievedRadius(sheet.usualRadiusMm, sheet.radii ?? []);
      const bend = { thicknessMm: t, radiusMm, angleDeg: joint.turnDeg };
      return turnedStrip(joint.widthMm, bend, sheet.rule, 'joint-flange', 'turned-flange-narrow');
    }
  }
}
