import type { Vec } from '../../../measure/vector';
import { dot, left, scale, sub } from '../../../measure/vector';
import type { BlankFold } from '../developed';
import type { Frame, Vec3 } from '../refold';

/** Which face is held while a fold is made: the one nearer the base, or the one beyond. */
export type Clamped = 'base' | 'far';
export const SIDES: readonly Clamped[] = ['base', 'far'];

/**
 * How a piece lies in the machine for a fold, in the machine's directions: x toward the one who
 * folds, y along the line, z up, from where the line lies on top of the sheet. The apron swings
 * upward: so the side toward which the metal turns is up.
 */
export type Pose = {
  /** Whether the face that is drawn is up. */
  faceUp: boolean;
  /**
   * Rotation from how it is drawn, degrees, counter-clockwise, 0 to 360 (turned over left to right
   * if the back is up).
   */
  turnDeg: number;
  /**
   * From the held face's places (on its blank, and height: 0 the face, −T the back) to those of the
   * machine.
   */
  onMachine: Frame;
  /** From those of the face that swings to the apron as it lies at rest. */
  onApron: Frame;
  /** Along the line: from where to where it runs, mm. */
  line: [number, number];
};

export function poseOf(fold: BlankFold, clamped: Clamped): Pose {
  const faceUp = fold.toward === 'face';
  const across = clamped === 'base' ? fold.across : scale(fold.across, -1);
  const [from, to] = fold.tangents[clamped === 'base' ? 0 : 1];
  const [swung] = fold.tangents[clamped === 'base' ? 1 : 0];
  const t = fold.bend.thicknessMm;
  const along = faceUp ? left(across) : scale(left(across), -1);
  const ends = [0, dot(sub(to, from), along)].sort((a, b) => a - b) as [number, number];
  const laid = (origin: Vec): Frame => {
    const x: Vec3 = [across[0], along[0], 0];
    const y: Vec3 = [across[1], along[1], 0];
    return {
      x,
      y,
      z: [0, 0, faceUp ? 1 : -1],
      origin: [-dot(origin, across), -dot(origin, along), faceUp ? 0 : -t],
    };
  };
  // Seen from above, the side that swings comes toward the one who folds: downward on a drawing.
  const seen = faceUp ? across : ([-across[0], across[1]] as const);
  const turned = -90 - (Math.atan2(seen[1], seen[0]) * 180) / Math.PI;
  return {
    faceUp,
    turnDeg: (Math.round((((turned % 360) + 360) % 360) * 1e6) / 1e6) % 360,
    onMachine: laid(from),
    onApron: laid(swung),
    line: ends,
  };
}
