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

/**
 * The beads that the machine presses on while a fold is made, by their ids, and how high they stand,
 * mm: beside them the sheet is packed as thick as that, or fingers leave them free.
 */
export function beadsUnderBar(
  development: Pick<Development, 'beads' | 'faces' | 'folds'>,
  step: OrderStep,
  brake: Brake,
): { id: string; heightMm: number }[] {
  const { beads, faces, folds } = development;
  const fold = folds[step.fold]!;
  const { onMachine, line } = poseOf(fold, step.clamped);
  const held = faces[step.clamped === 'base' ? fold.parent : fold.child]!;
  const outline = points(
    held.pieces.map(({ segment }) => segment),
    CLOSE_MM,
  );
  return beads.flatMap(({ id, runs, size }) => {
    const half = size.widthMm / 2;
    const isPressed = points(runs.flat(), CLOSE_MM)
      .concat(runs.flatMap((run) => run.slice(-1).map(({ b }) => b)))
      .some((p) => {
        if (!inside(p, outline)) return false;
        const [x, y] = apply(onMachine, [p[0], p[1], 0]);
        return (
          x - half < 0 && x + half > -brake.noseDepthMm && y + half > line[0] && y - half < line[1]
        );
      });
    const crosses = runs.flat().some(({ a, b }) => {
      const [[x0, y0], [x1, y1]] = [a, b].map((p) => apply(onMachine, [p[0], p[1], 0])) as [
        readonly [number, number, number],
        readonly [number, number, number],
      ];
      const [low, high] = [Math.min(x0, x1), Math.max(x0, x1)];
      return (
        low < 0 &&
        high > -brake.noseDepthMm &&
        inside([(a[0] + b[0]) / 2, (a[1] + b[1]) / 2], outline) &&
        Math.max(y0, y1) > line[0] &&
        Math.min(y0, y1) < line[1]
      );
    });
    return isPressed || crosses ? [{ id, heightMm: size.heightMm }] : [];
  });
}
