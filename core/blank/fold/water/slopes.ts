import { degrees, radians } from '../../../measure/angle';
import { points } from '../../../measure/path';
import type { Result } from '../../../measure/result';
import { failure } from '../../../measure/result';
import type { Vec } from '../../../measure/vector';
import type { Development } from '../developed';
import type { Folding } from '../folding';
import type { Frame, Vec3 } from '../refold';
import { foldedFrames, placed } from '../refold';

/** How a folded piece lies on the vehicle, and how each of its faces slopes. */

export type Lies = NonNullable<Folding['lies']>;

/** A side of a face's rim: what lies beyond it. */
export type Rim = { from: Vec; to: Vec; fold: number | null };

export type Slope = {
  /** Which side of it rain falls on. */
  rain: 'face' | 'back';
  /** Out of level, degrees: 0 flat, 90 upright. */
  fallDeg: number;
  /** The way down on the blank, a unit vector; null where it is level. */
  down: Vec | null;
  rims: Rim[];
  outline: Vec[];
};
export type Lying = {
  frames: Frame[];
  up: Vec3;
  slopes: Slope[];
  heightOf: (face: number, p: Vec) => number;
};

/** A face that is less out of level than this is level, degrees: no level reads so little. */
const LEVEL_DEG = 0.05;
/** A rim is followed so closely, mm. */
const CLOSE_MM = 0.2;

const dot3 = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/**
 * Where up is in a face's own directions, by a level held along x and along y of the card; null
 * where both cannot be.
 */
function upOn({ alongDeg, acrossDeg, faceUp }: Lies): Vec3 | null {
  const [x, y] = [Math.sin(radians(alongDeg)), Math.sin(radians(acrossDeg))];
  const rest = 1 - x * x - y * y;
  return rest < -1e-9 ? null : [x, y, (faceUp ? 1 : -1) * Math.sqrt(Math.max(0, rest))];
}

/**
 * A piece with its folds at these angles, as it lies on the vehicle: heights in mm over its base's
 * zero.
 *
 * Problems: `lies-impossible` (numbers: alongDeg, acrossDeg; two directions square to each other
 * cannot both rise by those angles), `lies-on-no-face` (about: the fold beyond which the face
 * should be).
 */
export function lying(
  development: Development,
  lies: Lies,
  anglesDeg?: readonly number[],
): Result<{ lying: Lying }> {
  const frames = foldedFrames(development, anglesDeg);
  const { folds, order } = development;
  const face = lies.fold === null ? order[0]! : folds.find(({ id }) => id === lies.fold)?.child;
  if (face === undefined) return failure({ code: 'lies-on-no-face', about: [lies.fold!] });
  const own = upOn(lies);
  if (!own)
    return failure({
      code: 'lies-impossible',
      numbers: { alongDeg: lies.alongDeg, acrossDeg: lies.acrossDeg },
    });
  const { x, y, z } = frames[face]!;
  const up: Vec3 = [0, 1, 2].map(
    (k) => own[0] * x[k]! + own[1] * y[k]! + own[2] * z[k]!,
  ) as unknown as Vec3;
  const slopes = development.faces.map(({ pieces }, f): Slope => {
    const frame = frames[f]!;
    const gradient: Vec = [dot3(up, frame.x), dot3(up, frame.y)];
    const steep = Math.hypot(...gradient);
    const fallDeg = degrees(Math.asin(Math.min(1, steep)));
    const rims = pieces.flatMap((piece): Rim[] => {
      const way = [...points([piece.segment], CLOSE_MM), piece.segment.b];
      return way.slice(1).map((to, i) => ({
        from: way[i]!,
        to,
        fold: piece.kind === 'tangent' ? piece.fold : null,
      }));
    });
    return {
      rain: dot3(up, frame.z) >= 0 ? 'face' : 'back',
      fallDeg,
      down: fallDeg < LEVEL_DEG ? null : [-gradient[0] / steep, -gradient[1] / steep],
      rims,
      outline: rims.map(({ from }) => from),
    };
  });
  return {
    ok: true,
    lying: { frames, up, slopes, heightOf: (f, p) => dot3(up, placed(frames[f]!, p, 0)) },
  };
}
