import fc from 'fast-check';
import type { z } from 'zod';
import { Matrix3, Vector3 } from 'three';
import { OBB } from 'three/addons/math/OBB.js';
import type { Brake } from '../../../machine/brake';
import { spread } from '../../../measure/spread.arbitrary';
import type { Vec } from '../../../measure/vector';
import { develop } from '../develop';
import type { Development } from '../developed';
import { PlainCardSchema, fromPlain } from '../plain';
import { foldedFrames, placed } from '../refold';
import type { OrderStep } from './solve';
import { checkedOrder, foldOrder } from './solve';

/**
 * Trays in a brake with fingers, in space, by the oriented boxes of three.js: the piece's faces,
 * and each finger where it is said to stand.
 */

const T = 1;

/** A tray, its long walls with lips turned out or in, or none. */
function tray(
  l: number,
  w: number,
  h: number,
  lip: number,
  lipToward: 'face' | 'back',
): Development {
  const tall = h + lip;
  const outline: Vec[] = [
    [0, 0],
    [0, -tall],
    [l, -tall],
    [l, 0],
    [l + h, 0],
    [l + h, w],
    [l, w],
    [l, w + tall],
    [0, w + tall],
    [0, w],
    [-h, w],
    [-h, 0],
  ];
  const walls = [
    [
      [0, 0],
      [l, 0],
    ],
    [
      [l, 0],
      [l, w],
    ],
    [
      [l, w],
      [0, w],
    ],
    [
      [0, w],
      [0, 0],
    ],
  ].map(([from, to]) => ({ from, to, angleDeg: 90, toward: 'face' }));
  const lips =
    lip > 0
      ? [
          [
            [0, -h],
            [l, -h],
          ],
          [
            [l, w + h],
            [0, w + h],
          ],
        ].map(([from, to]) => ({ from, to, angleDeg: 90, toward: lipToward }))
      : [];
  return made(
    PlainCardSchema.parse({
      thicknessMm: T,
      rule: { kind: 'din6935' },
      outline,
      folds: [...walls, ...lips],
    }),
  );
}

function made(card: z.output<typeof PlainCardSchema>): Development {
  const read = fromPlain(card);
  if (!read.ok) throw new Error(JSON.stringify(read));
  const found = develop(read.doc, read.sheet, read.practice);
  if (!found.ok) throw new Error(JSON.stringify(found));
  return found.development;
}

/** Corners that meet are fitted by hand: inset of each face all round, mm. */
const RIM = 4;
/** What lies on something does not run into it, mm. */
const SKIN = 0.15;

const vector = ([x, y, z]: readonly [number, number, number]) => new Vector3(x, y, z);

/** The faces of a piece in the machine's directions for a step, with the folds at these angles. */
function facesAt(development: Development, step: OrderStep, anglesDeg: readonly number[]): OBB[] {
  const fold = development.folds[step.fold]!;
  const held = step.clamped === 'base' ? fold.parent : fold.child;
  const [a, b] = fold.tangents[step.clamped === 'base' ? 0 : 1];
  const frames = foldedFrames(development, anglesDeg);
  const on = frames[held]!;
  const up = fold.toward === 'face';
  const top = up ? 0 : -T;
  const z = vector(on.z).multiplyScalar(up ? 1 : -1);
  const across = step.clamped === 'base' ? 1 : -1;
  const x = vector(on.x)
    .multiplyScalar(across * fold.across[0])
    .addScaledVector(vector(on.y), across * fold.across[1]);
  const y = new Vector3().crossVectors(z, x);
  const ends = [a, b].map((p) => vector(placed(on, p, top)));
  // The line begins at the left of the one who folds: where y is least.
  const origin = ends.sort((p, q) => p.dot(y) - q.dot(y))[0]!;
  return development.faces.map(({ pieces }, face) => {
    const corners = pieces.map(({ segment }) => segment.a);
    const [xs, ys] = [corners.map((p) => p[0]), corners.map((p) => p[1])];
    const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    const frame = frames[face]!;
    const centre = vector(placed(frame, [(x0 + x1) / 2, (y0 + y1) / 2], -T / 2)).sub(origin);
    const turned = [frame.x, frame.y, frame.z].map((axis) =>
      [x, y, z].map((to) => vector(axis).dot(to)),
    );
    const rotation = new Matrix3().set(
      turned[0]![0]!,
      turned[1]![0]!,
      turned[2]![0]!,
      turned[0]![1]!,
      turned[1]![1]!,
      turned[2]![1]!,
      turned[0]![2]!,
      turned[1]![2]!,
      turned[2]![2]!,
    );
    const half = new Vector3(
      Math.max(0.5, (x1 - x0) / 2 - RIM),
      Math.max(0.5, (y1 - y0) / 2 - RIM),
      T / 2 - SKIN,
    );
    return new OBB(new Vector3(centre.dot(x), centre.dot(y), centre.dot(z)), half, rotation);
  });
}

const block = (x: [number, number], y: [number, number], z: [number, number]) =>
  new OBB(
    new Vector3((x[0] + x[1]) / 2, (y[0] + y[1]) / 2, (z[0] + z[1]) / 2),
    new Vector3((x[1] - x[0]) / 2, (y[1] - y[0]) / 2, (z[1] - z[0]) / 2),
    new Matrix3(),
  );

function machine(
  { noseDepthMm, noseHeightMm, bedMm = noseDepthMm }: Brake,
  { fingersMm, fingersAtMm }: OrderStep,
): OBB[] {
  const fingers = fingersMm!.map((width, i) =>
    block(
      [-noseDepthMm, 0],
      [fingersAtMm![i]! + SKIN, fingersAtMm![i]! + width - SKIN],
      [0, noseHeightMm],
    ),
  );
  return [
    ...fingers,
    block([-3000, 0], [-3000, 3000], [noseHeightMm, 4000]),
    block([-bedMm, 0], [-3000, 3000], [-3000, -T]),
  ];
}

/** The first hit of an order, by step and angle; null where nothing is hit. */
function firstHit(
  development: Development,
  brake: Brake,
  steps: readonly OrderStep[],
): string | null {
  const made: number[] = [];
  for (const step of steps) {
    const parts = machine(brake, step);
    for (let deg = 0; deg <= step.angleDeg; deg += 7.5) {
      const angles = development.folds.map(({ bend }, i) =>
        i === step.fold ? deg : made.includes(i) ? bend.angleDeg : 0,
      );
      for (const [face, box] of facesAt(development, step, angles).entries())
        for (const [part, other] of parts.entries())
          if (box.intersectsOBB(other))
            return `fold ${step.fold} at ${deg}: face ${face}, part ${part}`;
    }
    made.push(step.fold);
  }
  return null;
}

const machines = fc.record({
  open: spread(10, 80),
  high: spread(40, 140),
  deep: spread(15, 60),
  fingers: fc.array(fc.constantFrom(20, 25, 30, 40, 50, 75, 100, 150), {
    minLength: 4,
    maxLength: 8,
  }),
});
const trays = fc.record({
  l: spread(80, 260),
  w: spread(60, 200),
  h: spread(15, 70),
  lip: fc.constantFrom(0, 0, 14, 20),
  lipToward: fc.constantFrom('face' as const, 'back' as const),
});
const brakeOf = ({
  open,
  high,
  deep,
  fingers,
}: {
  open: number;
  high: number;
  deep: number;
  fingers: number[];
}): Brake => ({
  lengthMm: 1250,
  openMm: open,
  noseHeightMm: high,
  noseDepthMm: deep,
  noseRakeDeg: 0,
  noseRadiusMm: 1,
  apronMm: 5,
  fingersMm: fingers,
});

test('trays: an order that is given runs into nothing, each finger standing where it is said to; some are found, some are not', () => {
  const seen = { found: 0, none: 0 };
  fc.assert(
    fc.property(machines, trays, (machineGiven, { l, w, h, lip, lipToward }) => {
      const brake = brakeOf(machineGiven);
      const development = tray(l, w, h, lip, lipToward);
      const found = foldOrder(development, brake);
      seen[found.ok ? 'found' : 'none']++;
      if (found.ok) expect(firstHit(development, brake, found.steps)).toBeNull();
    }),
    { numRuns: 120 },
  );
  expect(Math.min(seen.found, seen.none)).toBeGreaterThan(10);
});

test('the boxes see a hit: a wall folded where a finger stands', () => {
  const development = tray(200, 120, 30, 0, 'face');
  const brake = brakeOf({ open: 45, high: 100, deep: 40, fingers: [25, 25, 50, 75, 100] });
  const found = checkedOrder(development, brake, [0, 2, 1, 3]);
  if (!found.ok) throw new Error(JSON.stringify(found));
  expect(firstHit(development, brake, found.steps)).toBeNull();
  // The last fold with a finger as wide as the whole line, through both walls.
  const spoilt = found.steps.map((step, i) =>
    i === 3 ? { ...step, fingersMm: [140], fingersAtMm: [-10] } : step,
  );
  expect(firstHit(development, brake, spoilt)).not.toBeNull();
});

test('what is made is passed over, and what is by hand comes after', () => {
  const development = tray(200, 120, 30, 0, 'face');
  const brake = brakeOf({ open: 45, high: 100, deep: 40, fingers: [25, 25, 50, 75, 100] });
  const rest = foldOrder(development, brake, { made: [0, 2] });
  expect(rest.ok && rest.steps.map(({ fold }) => fold).sort()).toEqual([1, 3]);
  const hand = foldOrder(
    development,
    { ...brake, fingersMm: null },
    { byHand: [1], anglesDeg: [90, 90, 90, 40] },
  );
  if (hand.ok)
    expect(hand.after).toEqual([
      { fold: 1, fromDeg: 0, toDeg: 90 },
      { fold: 3, fromDeg: 40, toDeg: 90 },
    ]);
});

test('of orders that are alike in handling long folds come late, or early where the shop does so', () => {
  const outline: Vec[] = [
    [0, 0],
    [0, -15],
    [200, -15],
    [200, 0],
    [215, 0],
    [215, 90],
    [200, 90],
    [0, 90],
  ];
  const folds = [
    [
      [0, 0],
      [200, 0],
    ],
    [
      [200, 0],
      [200, 90],
    ],
  ].map(([from, to]) => ({ from, to, angleDeg: 90, toward: 'face' }));
  const development = made(
    PlainCardSchema.parse({ thicknessMm: T, rule: { kind: 'din6935' }, outline, folds }),
  );
  const brake = brakeOf({ open: 45, high: 100, deep: 40, fingers: [100, 100, 50, 40, 25, 25] });
  const first = (longFirst: boolean) => {
    const found = foldOrder(development, brake, { longFirst });
    return found.ok && found.steps[0]!.fold;
  };
  expect([first(false), first(true)]).toEqual([1, 0]);
});
