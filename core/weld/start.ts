import type { JointKind, Process } from '../card/kinds';
import type { Joint } from '../card/pattern';
import type { Unit } from '../measure/length';
import { usualLength } from '../measure/length';
import { plugHole } from './spacing';
import type { WeldPlan } from './weldPlan';

/**
 * Current to start from on scrap of the same sheet: about 1 A for each thousandth of an inch
 * (common practice).
 */
export const startCurrent = (thicknessMm: number): number =>
  Math.round(thicknessMm / 0.0254 / 5) * 5;

/**
 * How far apart tacks are put: about 50 mm, closer on thin sheet, which moves more (common
 * practice).
 */
export const usualTackPitch = (thicknessMm: number): number =>
  thicknessMm < 0.8 ? 30 : thicknessMm < 1.2 ? 40 : 50;

const PLUGGED: readonly JointKind[] = ['lap', 'joggle', 'plug-flange'];
/** Whether a joint overlaps its neighbour, so that it can be plug- or spot-welded through. */
export const canBePlugged = (joint: Joint): boolean => PLUGGED.includes(joint.kind);
/** Whether anything is welded there at all: a free edge and a hem are not. */
export const isJoined = (joint: Joint): boolean => joint.kind !== 'free' && joint.kind !== 'hem';

/**
 * A plan to begin with: plugs through an overlap at factory pitch (25 mm on thick sheet), tacks
 * elsewhere. Lengths as they are chosen in a unit.
 */
export function usualWeldPlan(
  joint: Joint,
  thicknessMm: number,
  process: Process = 'mig',
  unit: Unit = 'mm',
): WeldPlan | null {
  if (!isJoined(joint)) return null;
  const plugs = canBePlugged(joint)
    ? {
        holeMm: usualLength(plugHole(thicknessMm), unit),
        pitchMm: usualLength(thicknessMm >= 1.4 ? 25 : 50, unit),
        endMm: usualLength(12, unit),
      }
    : null;
  return { process, tackPitchMm: usualLength(usualTackPitch(thicknessMm), unit), plugs };
}
