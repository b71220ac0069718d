import type { Vec } from '../../../measure/vector';
import type { Development } from '../developed';
import type { Vec3 } from '../refold';
import { STILL, after, apply, back, closedTo, waysBetween } from './lie';
import { platesOf } from './plates';
import { poseOf } from './pose';
import type { OrderStep } from './solve';

/** A plate cut through: from where to where in the section (x toward the one who folds, z up), middle of the sheet. */
export type Cut = { face: number; from: Vec; to: Vec; held: boolean };

/** Where and when a piece is cut through: folds `made` before, as far as each is taken, the fold itself so far, degrees; where along the line, by itself in its middle. */
export type SliceAt = {
  made: readonly number[];
  anglesDeg: readonly number[];
  deg: number;
  alongMm?: number | undefined;
};

/** The piece cut through square to the line while a fold is made. */
export function sliceOf(
  development: Development,
  step: OrderStep,
  { made, anglesDeg, deg, alongMm }: SliceAt,
): Cut[] {
  const { folds } = development;
  const fold = folds[step.fold]!;
  const t = fold.bend.thicknessMm;
  const { onMachine, line } = poseOf(fold, step.clamped);
  const held = step.clamped === 'base' ? fold.parent : fold.child;
  const ways = waysBetween(development)[held]!;
  const middle = alongMm ?? (line[0] + line[1]) / 2;
  return platesOf(development).flatMap(({ face, outline }): Cut[] => {
    let frame = STILL;
    for (const { fold: index, outward } of ways[face]!) {
      const angle = index === step.fold ? deg : made.includes(index) ? anglesDeg[index]! : 0;
      const closed = closedTo(development, index, angle);
      frame = after(frame, outward ? closed : back(closed));
    }
    const whole = after(onMachine, frame);
    const at = outline.map(([x, y]): Vec3 => apply(whole, [x, y, -t / 2]));
    const crossings = at.flatMap((p, i): Vec[] => {
      const q = at[(i + 1) % at.length]!;
      if (p[1] > middle === q[1] > middle) return [];
      const share = (middle - p[1]) / (q[1] - p[1]);
      return [[p[0] + (q[0] - p[0]) * share, p[2] + (q[2] - p[2]) * share]];
    });
    const isHeld = !ways[face]!.some(({ fold: index }) => index === step.fold);
    // Cut through a hollow plate there can be several stretches, from crossing to crossing.
    const sorted = crossings.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
    return sorted.flatMap((from, i) => (i % 2 === 0 && sorted[i + 1] ? [{ face, from, to: sorted[i + 1]!, held: isHeld }] : [])); // prettier-ignore
  });
}
