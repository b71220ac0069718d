import type { Development } from '../developed';
import type { Frame, Vec3 } from '../refold';
import { foldedFrames } from '../refold';

/**
 * Where parts of a piece lie to each other while some of its folds are made: rigid motions from one
 * face's places to another's.
 */

export const apply = ({ x, y, z, origin }: Frame, [a, b, c]: Vec3): Vec3 => [
  x[0] * a + y[0] * b + z[0] * c + origin[0],
  x[1] * a + y[1] * b + z[1] * c + origin[1],
  x[2] * a + y[2] * b + z[2] * c + origin[2],
];

const turned = ({ x, y, z }: Frame, [a, b, c]: Vec3): Vec3 => [
  x[0] * a + y[0] * b + z[0] * c,
  x[1] * a + y[1] * b + z[1] * c,
  x[2] * a + y[2] * b + z[2] * c,
];

/** First the second, then the first. */
export const composed = (first: Frame, second: Frame): Frame => ({
  x: turned(first, second.x),
  y: turned(first, second.y),
  z: turned(first, second.z),
  origin: apply(first, second.origin),
});

export const inverse = ({ x, y, z, origin }: Frame): Frame => {
  const across = (v: Vec3) => -(v[0] * origin[0] + v[1] * origin[1] + v[2] * origin[2]);
  return {
    x: [x[0], y[0], z[0]],
    y: [x[1], y[1], z[1]],
    z: [x[2], y[2], z[2]],
    origin: [across(x), across(y), across(z)],
  };
};

export const IDENTITY: Frame = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1], origin: [0, 0, 0] };

/**
 * Where the face beyond a fold lies, as the face before it sees it, with the fold taken to an
 * angle.
 */
export function closedTo(development: Development, fold: number, deg: number): Frame {
  const angles = development.folds.map((_, i) => (i === fold ? deg : 0));
  return foldedFrames(development, angles)[development.folds[fold]!.child]!;
}

/**
 * For each pair of faces the folds on the way from one to the other, and which way each is passed.
 */
export type Way = { fold: number; outward: boolean }[];

export function waysBetween({ faces, folds, order }: Development): Way[][] {
  const toBase = faces.map((): number[] => []);
  for (const face of order.slice(1)) {
    const fold = faces[face]!.fold;
    toBase[face] = [fold, ...toBase[folds[fold]!.parent]!];
  }
  return toBase.map((a) =>
    toBase.map((b) => [
      ...a.filter((fold) => !b.includes(fold)).map((fold) => ({ fold, outward: false })),
      ...b
        .filter((fold) => !a.includes(fold))
        .reverse()
        .map((fold) => ({ fold, outward: true })),
    ]),
  );
}
