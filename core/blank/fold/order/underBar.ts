import { inside, points } from '../../../measure/path';
import { pointAt, segmentLength } from '../../../measure/segment';
import type { Brake } from '../../../machine/brake';
import type { Vec } from '../../../measure/vector';
import type { Development } from '../developed';
import { apply } from './foldTransforms';
import { poseOf } from './pose';
import type { OrderStep } from './solve';

/** A face is followed so closely, mm. */
const CLOSE_MM = 0.2;

type Piece = Pick<Development, 'holes' | 'beads' | 'faces' | 'folds'>;

/** The face that is held while a fold is made: its rim, and where its places lie in the machine. */
function heldFace({ faces, folds }: Pick<Piece, 'faces' | 'folds'>, step: OrderStep) {
  const fold = folds[step.fold]!;
  const { onMachine, line } = poseOf(fold, step.clamped);
  const held = faces[step.clamped === 'base' ? fold.parent : fold.child]!;
  const rim = points(
    held.pieces.map(({ segment }) => segment),
    CLOSE_MM,
  );
  const lies = ([x, y]: Vec) => apply(onMachine, [x, y, 0]);
  return { line, isOn: (p: Vec) => inside(p, rim), lies };
}

/**
 * The holes of the face that is held which bar or fingers press on while a fold is made, by their
 * ids.
 */
export function holesUnderBar(
  piece: Pick<Piece, 'holes' | 'faces' | 'folds'>,
  step: OrderStep,
  brake: Brake,
): string[] {
  const { line, isOn, lies } = heldFace(piece, step);
  const spans = step.fingersMm
    ? step.fingersMm.map(
        (width, i) =>
          [line[0] + step.fingersAtMm![i]!, line[0] + step.fingersAtMm![i]! + width] as const,
      )
    : [line];
  return piece.holes.flatMap(({ id, centre, diameterMm }) => {
    if (!isOn(centre)) return [];
    const [x, y] = lies(centre);
    const r = diameterMm / 2;
    const pressed =
      x - r < 0 &&
      x + r > -brake.noseDepthMm &&
      spans.some(([from, to]) => y + r > from && y - r < to);
    return pressed ? [id] : [];
  });
}

/** Length of the bits in which a bead is followed, mm. */
const BIT_MM = 4;

/**
 * The beads of the face that is held which the machine presses on while a fold is made, by their
 * ids, and how high they stand, mm: beside them the sheet is packed as thick as that, or fingers
 * leave them free.
 */
export function beadsUnderBar(
  piece: Pick<Piece, 'beads' | 'faces' | 'folds'>,
  step: OrderStep,
  brake: Brake,
): { id: string; heightMm: number }[] {
  const { line, isOn, lies } = heldFace(piece, step);
  return piece.beads.flatMap(({ id, runs, size }) => {
    const half = size.widthMm / 2;
    const isPressed = runs.flat().some((segment) => {
      const bits = Math.max(1, Math.ceil(segmentLength(segment) / BIT_MM));
      return Array.from({ length: bits + 1 }, (_, i) => pointAt(segment, i / bits)).some((p) => {
        if (!isOn(p)) return false;
        const [x, y] = lies(p);
        return (
          x - half < 0 && x + half > -brake.noseDepthMm && y + half > line[0] && y - half < line[1]
        );
      });
    });
    return isPressed ? [{ id, heightMm: size.heightMm }] : [];
  });
}
