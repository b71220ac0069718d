import { radians } from '../../measure/angle';
import { ROUNDING } from '../../measure/tolerance';
import type { Vec } from '../../measure/vector';
import { mix } from '../../measure/vector';
import type { BlankFold, Development } from './developed';

export type Vec3 = readonly [x: number, y: number, z: number];

/**
 * Where a face of the blank is in space: p ↦ x·p[0] + y·p[1] + z·p[2] + origin, for p = (x, y on
 * the blank, height). Height 0 is the face that is drawn, −T the back; +z comes toward you.
 */
export type Frame = { x: Vec3; y: Vec3; z: Vec3; origin: Vec3 };

const FLAT: Frame = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1], origin: [0, 0, 0] };

const combine = (...terms: [number, Vec3][]): Vec3 => {
  let x = 0;
  let y = 0;
  let z = 0;
  for (const [k, v] of terms) {
    x += k * v[0];
    y += k * v[1];
    z += k * v[2];
  }
  return [x, y, z];
};

/** A point of the blank at a height, in space. */
export const placed = (frame: Frame, p: Vec, height: number): Vec3 =>
  combine([p[0], frame.x], [p[1], frame.y], [height, frame.z], [1, frame.origin]);

/**
 * The bend at a partly closed angle: its inside radius then, and which way it turns. Neutral length
 * stays as it is.
 */
function turning(fold: BlankFold, angleRad: number) {
  const t = fold.bend.thicknessMm;
  const ba = fold.allowance.allowanceMm;
  const inside = angleRad < ROUNDING ? Infinity : ba / angleRad - fold.allowance.k * t;
  return { t, ba, inside, sign: fold.toward === 'face' ? 1 : -1 };
}

/**
 * Across and up, from the near tangent, of a place `angle` round the bend at a height and `w`
 * beyond it.
 */
function section(
  fold: BlankFold,
  total: number,
  angle: number,
  height: number,
): { across: number; up: number } {
  const { t, ba, inside, sign } = turning(fold, total);
  if (!Number.isFinite(inside))
    return { across: total === 0 ? 0 : ba * (angle / total), up: height };
  const radius = sign > 0 ? inside - height : inside + t + height;
  const axis = sign > 0 ? inside : -t - inside;
  return { across: radius * Math.sin(angle), up: axis - sign * radius * Math.cos(angle) };
}

/**
 * The frame of every face with each fold closed to the given angle in degrees (by fold index;
 * default: finished). The base stays flat. Exact rigid motions; the neutral layer of each bend
 * keeps its length.
 */
export function foldedFrames(development: Development, anglesDeg?: readonly number[]): Frame[] {
  const frames = development.faces.map(() => FLAT);
  for (const face of development.order.slice(1)) {
    const index = development.faces[face]!.fold;
    const fold = development.folds[index]!;
    const angle = radians(anglesDeg?.[index] ?? fold.bend.angleDeg);
    frames[face] = swung(frames[fold.parent]!, fold, angle);
  }
  return frames;
}

function swung(parent: Frame, fold: BlankFold, angle: number): Frame {
  const [nx, ny] = fold.across;
  const sign = fold.toward === 'face' ? 1 : -1;
  const flat = angle < ROUNDING;
  const at = flat ? { across: fold.allowance.allowanceMm, up: 0 } : section(fold, angle, angle, 0);
  const c = Math.cos(angle);
  const s = Math.sin(angle) * sign;
  // Parent directions: n across the fold, e along it, k up.
  const n = combine([nx, parent.x], [ny, parent.y]);
  const e = combine([-ny, parent.x], [nx, parent.y]);
  const k = parent.z;
  const n2 = combine([c, n], [s, k]);
  const k2 = combine([-s, n], [c, k]);
  const x = combine([nx, n2], [-ny, e]);
  const y = combine([ny, n2], [nx, e]);
  const a = fold.tangents[0][0];
  // The far tangent of the flat blank, square across from `a`, comes to `at`.
  const far: Vec = [a[0] + nx * fold.allowance.allowanceMm, a[1] + ny * fold.allowance.allowanceMm];
  const to = combine([1, placed(parent, a, 0)], [at.across, n], [at.up, k]);
  const origin = combine([1, to], [-far[0], x], [-far[1], y]);
  return { x, y, z: k2, origin };
}

/**
 * The skin of a bend in `steps` strips from the near tangent to the far one: for each of steps + 1
 * lines its two ends, on the face and on the back.
 */
export function bendSkin(
  fold: BlankFold,
  parent: Frame,
  angleDeg: number,
  steps: number,
): { face: [Vec3, Vec3][]; back: [Vec3, Vec3][] } {
  const total = radians(angleDeg);
  const [nx, ny] = fold.across;
  const n = combine([nx, parent.x], [ny, parent.y]);
  const lineAt = (share: number, height: number): [Vec3, Vec3] => {
    const flat = total < ROUNDING;
    const at = flat
      ? { across: fold.allowance.allowanceMm * share, up: height }
      : section(fold, total, total * share, height);
    const endAt = (end: 0 | 1): Vec3 => {
      const near = fold.tangents[0][end];
      const far = fold.tangents[1][end];
      // Only the part along the fold of the way between the tangents; the part across it is the
      // bend itself.
      const p = mix(near, far, share);
      const across = (p[0] - near[0]) * nx + (p[1] - near[1]) * ny;
      const foot: Vec = [p[0] - nx * across, p[1] - ny * across];
      return combine([1, placed(parent, foot, 0)], [at.across, n], [at.up, parent.z]);
    };
    return [endAt(0), endAt(1)];
  };
  const rows = (height: number) =>
    Array.from({ length: steps + 1 }, (_, i) => lineAt(i / steps, height));
  return { face: rows(0), back: rows(-fold.bend.thicknessMm) };
}
