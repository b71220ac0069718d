import { inside, points } from '../../../measure/path';
import type { Brake } from '../../../machine/brake';
import type { Development } from '../developed';
import { apply } from './lie';
import { poseOf } from './pose';
import type { OrderStep } from './solve';

/** A face is followed so closely, mm. */
const CLOSE_MM = 0.2;

/**
 * The holes of the face that is held which bar or fingers press on while a fold is made, by their
 * ids.
 */
export function holesUnderBar(
  { holes, faces, folds }: Pick<Development, 'holes' | 'faces' | 'folds'>,
  step: OrderStep,
  brake: Brake,
): string[] {
  const fold = folds[step.fold]!;
  const { onMachine, line } = poseOf(fold, step.clamped);
  const held = faces[step.clamped === 'base' ? fold.parent : fold.child]!;
  const outline = points(
    held.pieces.map(({ segment }) => segment),
    CLOSE_MM,
  );
  const spans = step.fingersMm
    ? step.fingersMm.map(
        (width, i) =>
          [line[0] + step.fingersAtMm![i]!, line[0] + step.fingersAtMm![i]! + width] as const,
      )
    : [line];
  return holes.flatMap(({ id, centre, diameterMm }) => {
    if (!inside(centre, outline)) return [];
    const [x, y] = apply(onMachine, [centre[0], centre[1], 0]);
    const r = diameterMm / 2;
    const pressed =
      x - r < 0 &&
      x + r > -brake.noseDepthMm &&
      spans.some(([from, to]) => y + r > from && y - r < to);
    return pressed ? [id] : [];
  });
}
