import { radians } from '../../../measure/angle';
import { points } from '../../../measure/path';
import type { Vec } from '../../../measure/vector';
import { mix } from '../../../measure/vector';
import type { Development } from '../developed';
import type { OrderStep } from './solve';

/**
 * A blank as it lies before the one who folds, seen from above, mm: whoever stands below the line
 * looks up the page.
 */
export type Plan = {
  outline: Vec[];
  /** The fold that is made, from left to right. */
  line: [Vec, Vec];
  /** The middle of each fold. */
  folds: { fold: number; at: Vec }[];
};

/** Sides are followed so closely, mm. */
const CLOSE_MM = 0.5;

/**
 * How the blank lies for a step: turned over left to right where the side that is drawn is down,
 * then turned round.
 */
export function planOf(
  { net, folds }: Pick<Development, 'net' | 'folds'>,
  step: Pick<OrderStep, 'fold' | 'faceUp' | 'turnDeg'>,
): Plan {
  const [c, s] = [Math.cos(radians(step.turnDeg)), Math.sin(radians(step.turnDeg))];
  const laid = ([x, y]: Vec): Vec => {
    const over = step.faceUp ? x : -x;
    return [c * over - s * y, s * over + c * y];
  };
  const ends = folds[step.fold]!.centre.map(laid) as [Vec, Vec];
  return {
    outline: points(
      net.map(({ segment }) => segment),
      CLOSE_MM,
    ).map(laid),
    line: ends[0][0] <= ends[1][0] ? ends : [ends[1], ends[0]],
    folds: folds.map(({ centre }, fold) => ({ fold, at: laid(mix(...centre, 0.5)) })),
  };
}
