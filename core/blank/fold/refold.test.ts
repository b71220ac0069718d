import fc from 'fast-check';
import { Matrix4, Vector3 } from 'three';
import { spread } from '../../measure/spread.arbitrary';
import type { Vec } from '../../measure/vector';
import { cardOf, cardTree, developed } from './cardTree.arbitrary';
import type { BlankFold, Development } from './developed';
import type { Vec3 } from './refold';
import { bendSkin, foldedFrames, placed } from './refold';

/**
 * The folded piece against one folded with three.js: turns about the axis of each bend, as a brake
 * would make them.
 */

/**
 * What making one fold does to everything beyond it, in the flat blank's own coordinates: the flat
 * length of the bend is taken out, and what is beyond is turned about the bend's axis, which lies
 * over (or under) the near tangent.
 */
function made(fold: BlankFold, angleDeg: number): Matrix4 {
  const angle = (angleDeg * Math.PI) / 180;
  const [near] = fold.tangents;
  const across = new Vector3(fold.across[0], fold.across[1], 0);
  const t = fold.bend.thicknessMm;
  const inside = fold.allowance.allowanceMm / angle - fold.allowance.k * t;
  const up = fold.toward === 'face' ? inside : -t - inside;
  const axisAt = new Vector3(near[0][0], near[0][1], up);
  // A right-handed turn about this lifts what lies across the fold toward the face.
  const axis = new Vector3(0, 0, 1)
    .cross(across)
    .negate()
    .multiplyScalar(fold.toward === 'face' ? 1 : -1);
  return new Matrix4()
    .multiply(new Matrix4().makeTranslation(axisAt))
    .multiply(new Matrix4().makeRotationAxis(axis.normalize(), angle))
    .multiply(new Matrix4().makeTranslation(axisAt.clone().negate()))
    .multiply(
      new Matrix4().makeTranslation(across.clone().multiplyScalar(-fold.allowance.allowanceMm)),
    );
}

/** The place of every face: the folds between it and the base, the nearest to the base last. */
function folded(d: Development, angles: readonly number[]): Matrix4[] {
  const matrices: Matrix4[] = d.faces.map(() => new Matrix4());
  for (const face of d.order.slice(1)) {
    const index = d.faces[face]!.fold;
    const fold = d.folds[index]!;
    matrices[face] = matrices[fold.parent]!.clone().multiply(made(fold, angles[index]!));
  }
  return matrices;
}

const gap = (p: Vec3, q: Vector3): number => Math.hypot(p[0] - q.x, p[1] - q.y, p[2] - q.z);

test('any tree of folds, closed to any angles: every face stands where turning about the bends puts it', () => {
  fc.assert(
    fc.property(cardTree, spread(0.05, 1), spread(-3, 3), (t, share, height) => {
      const d = developed(cardOf(t));
      const angles = d.folds.map((fold) => fold.bend.angleDeg * share);
      const frames = foldedFrames(d, angles);
      const matrices = folded(d, angles);
      d.faces.forEach((face, f) => {
        for (const { segment } of face.pieces) {
          const [x, y] = segment.a;
          const theirs = new Vector3(x, y, height).applyMatrix4(matrices[f]!);
          expect(gap(placed(frames[f]!, [x, y], height), theirs)).toBeLessThan(1e-6);
        }
      });
    }),
    { numRuns: 80 },
  );
});

test('frames are rigid: nothing is stretched or turned inside out by folding', () => {
  fc.assert(
    fc.property(cardTree, spread(0, 1), (t, share) => {
      const d = developed(cardOf(t));
      for (const { x, y, z } of foldedFrames(
        d,
        d.folds.map((fold) => fold.bend.angleDeg * share),
      )) {
        const [vx, vy, vz] = [x, y, z].map((v) => new Vector3(...v)) as [Vector3, Vector3, Vector3];
        expect(vx.length()).toBeCloseTo(1, 9);
        expect(vy.length()).toBeCloseTo(1, 9);
        expect(vx.dot(vy)).toBeCloseTo(0, 9);
        expect(vx.clone().cross(vy).distanceTo(vz)).toBeLessThan(1e-9);
      }
    }),
    { numRuns: 60 },
  );
});

test('round a bend the metal keeps its thickness, and its neutral line its length', () => {
  fc.assert(
    fc.property(cardTree, spread(0.1, 1), (t, share) => {
      const d = developed(cardOf(t));
      const angles = d.folds.map((fold) => fold.bend.angleDeg * share);
      const frames = foldedFrames(d, angles);
      for (const [i, fold] of d.folds.entries()) {
        const steps = 40;
        const skin = bendSkin(fold, frames[fold.parent]!, angles[i]!, steps);
        const vector = (v: Vec3) => new Vector3(...v);
        skin.face.forEach((ends, s) => {
          expect(vector(ends[0]).distanceTo(vector(skin.back[s]![0]))).toBeCloseTo(
            fold.bend.thicknessMm,
            6,
          );
        });
        // The line between the skins where they neither stretch nor gather: K of the thickness from
        // the inside.
        const k = fold.toward === 'face' ? fold.allowance.k : 1 - fold.allowance.k;
        const across = new Vector3(fold.across[0], fold.across[1], 0);
        const parent = frames[fold.parent]!;
        const n = new Vector3(
          ...([0, 1, 2].map((c) => across.x * parent.x[c]! + across.y * parent.y[c]!) as [
            number,
            number,
            number,
          ]),
        );
        const neutral = skin.face.map((ends, s) =>
          vector(ends[0]).lerp(vector(skin.back[s]![0]), k),
        );
        let length = 0;
        for (let s = 1; s <= steps; s++) {
          const step = neutral[s]!.clone().sub(neutral[s - 1]!);
          // Only across the fold and up: bends that taper also run a little along it.
          const along = new Vector3(...parent.z).cross(n);
          length += step.sub(along.multiplyScalar(step.dot(along))).length();
        }
        const { allowanceMm } = fold.allowance;
        expect(Math.abs(length - allowanceMm)).toBeLessThan(0.002 * allowanceMm + 1e-6);
      }
    }),
    { numRuns: 60 },
  );
});

test('a U of three plates measures what its card said, outside to outside', () => {
  // Legs 30, base 50 over the outside, folded up square: table-book practice.
  const d = developed({
    thicknessMm: 1.5,
    rule: { kind: 'din6935' },
    outline: [
      [0, 0],
      [110, 0],
      [110, 20],
      [0, 20],
    ],
    folds: [
      { from: [30, 0], to: [30, 20], angleDeg: 90, radiusMm: 2 },
      { from: [80, 0], to: [80, 20], angleDeg: 90, radiusMm: 2 },
    ],
    base: [55, 10],
  });
  const frames = foldedFrames(d);
  const corners = d.faces.flatMap((face, f) =>
    face.pieces.flatMap(({ segment }) =>
      [0, -1.5].map((height) => placed(frames[f]!, segment.a as Vec, height)),
    ),
  );
  const across = corners.map((p) => p[0]);
  const up = corners.map((p) => p[2]);
  expect(Math.max(...across) - Math.min(...across)).toBeCloseTo(50, 6);
  expect(Math.max(...up) - Math.min(...up)).toBeCloseTo(30, 6);
});
