import type { Clamped, Pose } from './pose';
import type { Step } from './passage';

/** What the search for an order of folds works on, and what turning a piece over and changing fingers cost. */

/** Turning the piece counts before changing fingers, and that before which fold comes last. */
export const [TURNING_COST, FINGER_CHANGE_COST] = [1e6, 1e3];

/** How a piece lies for each fold, how long each is, mm, and whether it can be made. */
export type Transitions = {
  poses: Record<Clamped, Pose>[];
  long: number[];
  step: (fold: number, side: Clamped, made: number) => Step;
};

/** A step of a way: a fold, the side it is held on, and the folds that were made before it. */
export type FoldStep = { fold: number; side: Clamped; made: number };
/**
 * The search's subject: `n` folds, bit sets of those to be made (`all`) and of those made at the
 * start (`from`), and what is known of each step.
 */
export type SearchProblem = {
  count: number;
  goal: number;
  start: number;
  transitions: Transitions;
};

/** Turned over, and turned round: each counts one. */
export const turnings = (
  a: Pick<Pose, 'faceUp' | 'turnDeg'>,
  b: Pick<Pose, 'faceUp' | 'turnDeg'>,
): number => {
  const round = Math.abs(((a.turnDeg - b.turnDeg + 540) % 360) - 180);
  return (a.faceUp === b.faceUp ? 0 : 1) + (round < 0.01 ? 0 : 1);
};

export const sameFingers = (a: readonly number[] | null, b: readonly number[] | null): boolean =>
  (a ?? []).join() === (b ?? []).join();
