import fc from 'fast-check';
import type { Brake } from '../../../machine/brake';
import { area } from '../../../measure/path';
import { spread } from '../../../measure/spread.arbitrary';
import type { Vec } from '../../../measure/vector';
import { cross, distance, dot, sub, unit } from '../../../measure/vector';
import { beyondMachine } from '../onMachine';
import { planOf } from './plan';
import { poseOf } from './pose';
import type { Cut } from './slice';
import { sliceOf, wallsOf } from './slice';
import type { OrderStep } from './solve';
import { UP, piece, strip, tray } from './strips.arbitrary';
import { holesUnderBar } from './underBar';

/**
 * What is drawn of a fold as it is made: the section, the piece from above, what is pressed on,
 * what the machine cannot take.
 */

const turns = fc.record({
  angleDeg: spread(10, 140),
  toward: fc.constantFrom('face' as const, 'back' as const),
});
const strips = fc
  .array(fc.record({ width: spread(25, 90), turn: turns }), { minLength: 1, maxLength: 4 })
  .map((all) => ({
    development: strip(
      [...all.map(({ width }) => width), 60],
      all.map(({ turn }) => turn),
    ),
    turns: all.map(({ turn }) => turn),
  }));
const clampings = fc.constantFrom('base' as const, 'far' as const);
const stepFor = (
  development: ReturnType<typeof strip>,
  fold: number,
  clamped: 'base' | 'far',
): OrderStep => {
  const { faceUp, turnDeg } = poseOf(development.folds[fold]!, clamped);
  return { fold, clamped, faceUp, turnDeg } as OrderStep;
};
const long = ({ from, to }: Cut) => distance(from, to);

test('a section goes through every plate of a strip, as long as it is flat; each stands to the next as its fold is made', () => {
  fc.assert(
    fc.property(
      strips,
      fc.nat(),
      clampings,
      fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }),
      spread(0, 1),
      spread(6, 194),
      ({ development, turns }, which, clamped, done, share, alongMm) => {
        const fold = which % turns.length;
        const made = turns.flatMap((_, i) => (done[i] && i !== fold ? [i] : []));
        const deg = share * turns[fold]!.angleDeg;
        const step = stepFor(development, fold, clamped);
        const drawn = sliceOf(development, step, {
          made,
          anglesDeg: turns.map(({ angleDeg }) => angleDeg),
          deg,
          alongMm,
        });
        const cuts = drawn.filter(({ kind }) => kind === 'face');
        expect(cuts.map(({ face }) => face).sort()).toEqual(development.faces.map((_, i) => i));
        const at = (face: number) => cuts.find((cut) => cut.face === face)!;
        development.faces.forEach(({ pieces }, face) =>
          expect(long(at(face))).toBeCloseTo(area(pieces.map(({ segment }) => segment)) / 200, 6),
        );
        for (const [i, { parent, child }] of development.folds.entries()) {
          const angle = i === fold ? deg : made.includes(i) ? turns[i]!.angleDeg : 0;
          const [u, v] = [at(parent), at(child)].map(({ from, to }) => unit(sub(to, from))) as [
            Vec,
            Vec,
          ];
          // Which end of a plate comes first is not said: so only how it leans.
          expect(Math.abs(dot(u, v))).toBeCloseTo(Math.abs(Math.cos((angle * Math.PI) / 180)), 6);
        }
        // What is held lies flat on the bed behind the line, half its thickness down; what swings
        // has swung upward by that angle.
        const { parent, child } = development.folds[fold]!;
        const [held, swung] =
          clamped === 'base' ? [at(parent), at(child)] : [at(child), at(parent)];
        expect([held.held, swung.held]).toEqual([true, false]);
        for (const [x, z] of [held.from, held.to]) {
          expect(x).toBeLessThan(1e-6);
          expect(z).toBeCloseTo(-0.5, 6);
        }
        const [near, far] = [swung.from, swung.to].sort(
          (p, q) => Math.hypot(...p) - Math.hypot(...q),
        ) as [Vec, Vec];
        const rise = (Math.atan2(far[1] - near[1], far[0] - near[0]) * 180) / Math.PI;
        expect(rise).toBeCloseTo(deg, 5);
        expect(
          wallsOf(development, step, {
            made,
            anglesDeg: turns.map(({ angleDeg }) => angleDeg),
            deg,
          }),
        ).toEqual([]);
      },
    ),
    { numRuns: 60 },
  );
});

test('a tray: walls that are up at the ends stand along the section, the others are cut; a plate that is hollow is cut in several', () => {
  fc.assert(
    fc.property(
      spread(80, 300),
      spread(80, 300),
      spread(15, 60),
      fc.nat({ max: 3 }),
      (l, w, h, fold) => {
        const box = tray(l, w, h);
        const others = [0, 1, 2, 3].filter((i) => i !== fold);
        const step = stepFor(box, fold, 'base');
        const sliced = { made: others, anglesDeg: [90, 90, 90, 90], deg: 45 };
        const walls = wallsOf(box, step, sliced).filter(({ kind }) => kind === 'face');
        const beside = [(fold + 1) % 4, (fold + 3) % 4].map((i) => box.folds[i]!.child).sort();
        expect(walls.map(({ face }) => face).sort()).toEqual(beside);
        // As high as the flat of their wall, from where it ends to where it begins.
        const high =
          area(box.faces[beside[0]!]!.pieces.map(({ segment }) => segment)) /
          // Each wall is a thickness short at either end, so that its neighbour has room.
          ((fold % 2 === 0 ? w : l) - 2);
        for (const { rim } of walls)
          expect(
            Math.max(...rim.map(([, z]) => z)) - Math.min(...rim.map(([, z]) => z)),
          ).toBeCloseTo(high, 0);
        const cut = sliceOf(box, step, sliced)
          .filter(({ kind }) => kind === 'face')
          .map(({ face }) => face)
          .sort();
        expect(cut).toEqual([0, 1, 2, 3, 4].filter((face) => !beside.includes(face)));
      },
    ),
    { numRuns: 40 },
  );
  // A window open to one end, between 30 and 70 across the strip: cut through it there are two
  // stretches.
  const notched = piece(
    [
      [0, 0],
      [200, 0],
      [200, 30],
      [120, 30],
      [120, 70],
      [200, 70],
      [200, 100],
      [0, 100],
    ],
    [{ from: [0, 15], to: [200, 15], ...UP }],
  );
  const step = stepFor(notched, 0, 'base');
  const base = (alongMm: number) =>
    sliceOf(notched, step, { made: [], anglesDeg: [90], deg: 0, alongMm }).filter(
      ({ face }) => face === notched.folds[0]!.parent,
    );
  const through = [60, 140]
    .map((alongMm) => base(alongMm).map((cut) => Math.round(long(cut))))
    .sort((a, b) => a.length - b.length);
  expect(through.map((cuts) => cuts.length)).toEqual([1, 2]);
  expect(through[0]![0]! - through[1]![0]! - through[1]![1]!).toBe(40);
});

test('from above a piece keeps its size, its line runs level from left to right, and what swings lies before it', () => {
  fc.assert(
    fc.property(strips, fc.nat(), clampings, ({ development }, which, clamped) => {
      const fold = which % development.folds.length;
      const step = stepFor(development, fold, clamped);
      const plan = planOf(development, step);
      const [[x0, y0], [x1, y1]] = plan.line;
      expect(x1).toBeGreaterThan(x0);
      expect(y1).toBeCloseTo(y0, 6);
      expect(x1 - x0).toBeCloseTo(distance(...development.folds[fold]!.centre), 6);
      const flat = development.net.map(({ segment }) => segment.a);
      const turned = (points: readonly Vec[]) =>
        points.reduce((sum, p, i) => sum + cross(p, points[(i + 1) % points.length]!), 0) / 2;
      expect(turned(plan.outline)).toBeCloseTo(turned(flat) * (step.faceUp ? 1 : -1), 4);
      const { across, centre } = development.folds[fold]!;
      const swings = clamped === 'base' ? 1 : -1;
      development.folds.forEach((other, i) => {
        if (i === fold) return;
        // In the strip as it is drawn, how far beyond the line; and the same from above, downward.
        const beyond = swings * dot(sub(other.centre[0], centre[0]), across);
        expect(y0 - plan.folds[i]!.at[1]).toBeCloseTo(beyond, 5);
      });
    }),
    { numRuns: 60 },
  );
});

const BRAKE: Brake = {
  lengthMm: 1250,
  openMm: 45,
  noseHeightMm: 100,
  noseDepthMm: 40,
  noseRakeDeg: 30,
  noseRadiusMm: 1,
  apronMm: 15,
  fingersMm: null,
};

test('bar and fingers press on a hole of what is held when it lies under them, and on no other', () => {
  const hole = fc.record({
    share: spread(0.05, 0.95),
    in: spread(3, 115),
    diameterMm: spread(2, 12),
  });
  fc.assert(
    fc.property(
      fc.array(hole, { minLength: 1, maxLength: 6 }),
      clampings,
      fc.boolean(),
      spread(10, 90),
      fc.option(fc.tuple(spread(0, 60), spread(20, 60), spread(20, 60))),
      (holes, clamped, up, noseDepthMm, fingers) => {
        const flat = strip([120, 120], [{ angleDeg: 90, toward: up ? 'face' : 'back' }]);
        const { tangents, across } = flat.folds[0]!;
        const [origin] = tangents[clamped === 'base' ? 0 : 1];
        const outward = (clamped === 'base' ? 1 : -1) * across[1];
        // Straight back from the line, and along it from its left end as the machine sees it.
        const ahead: Vec = poseOf(flat.folds[0]!, clamped).onMachine.x[1] > 0 ? [1, 0] : [-1, 0];
        const left = ahead[0] > 0 ? 0 : 200;
        const placed = holes.map(({ share, in: back, diameterMm }, i) => ({
          id: `h${i}`,
          centre: [200 * share, origin[1] - outward * back] as Vec,
          diameterMm,
        }));
        const spans = fingers
          ? [
              [fingers[0], fingers[0] + fingers[1]],
              [fingers[0] + fingers[1], fingers[0] + fingers[1] + fingers[2]],
            ]
          : [[0, 200]];
        const wanted = placed.filter(({ centre, diameterMm }, i) => {
          const r = diameterMm / 2;
          const along = (centre[0] - left) * ahead[0];
          return (
            holes[i]!.in > -r &&
            holes[i]!.in - r < noseDepthMm &&
            spans.some(([from, to]) => along + r > from! && along - r < to!)
          );
        });
        const step = {
          ...stepFor(flat, 0, clamped),
          ...(fingers && {
            fingersMm: [fingers[1], fingers[2]],
            fingersAtMm: [fingers[0], fingers[0] + fingers[1]],
          }),
        } as OrderStep;
        // And one on what swings, which nothing presses on.
        const swung = {
          id: 'swung',
          centre: [100, origin[1] + outward * 60] as Vec,
          diameterMm: 5,
        };
        const found = holesUnderBar(
          { ...flat, holes: [...placed, swung] as typeof flat.holes },
          step,
          { ...BRAKE, noseDepthMm },
        );
        expect(found).toEqual(wanted.map(({ id }) => id));
      },
    ),
  );
});

test('what a machine cannot take is named with its figures: too long, too thick for the length, sharper than its bar, too short a flange', () => {
  const flanged = strip([60, 60], [{ angleDeg: 90, toward: 'face' }], 300);
  const radius = flanged.folds[0]!.bend.radiusMm;
  const flat =
    area(flanged.faces[flanged.folds[0]!.child]!.pieces.map(({ segment }) => segment)) / 300;
  fc.assert(
    fc.property(
      spread(200, 400),
      fc.array(fc.record({ lengthMm: spread(100, 500), thicknessMm: spread(0.5, 1.5) }), {
        maxLength: 3,
      }),
      spread(0, 2 * radius + 1),
      fc.option(spread(40, 80), { nil: undefined }),
      (lengthMm, thickest, noseRadiusMm, leastFlangeMm) => {
        const found = beyondMachine(flanged, {
          ...BRAKE,
          lengthMm,
          thickest,
          noseRadiusMm,
          ...(leastFlangeMm !== undefined && { leastFlangeMm }),
        });
        const longer = thickest.filter((row) => row.lengthMm >= 300);
        const longest = Math.max(...thickest.map((row) => row.lengthMm));
        const rows =
          longer.length > 0 ? longer : thickest.filter((row) => row.lengthMm === longest);
        const wanted = [
          ...(lengthMm < 300
            ? [{ code: 'fold-too-long', numbers: { longMm: 300, mostMm: lengthMm } }]
            : []),
          ...(rows.length > 0 && Math.max(...rows.map((row) => row.thicknessMm)) < 1
            ? [{ code: 'sheet-too-thick' }]
            : []),
          ...(noseRadiusMm > radius
            ? [{ code: 'radius-under-tip', numbers: { radiusMm: radius, tipMm: noseRadiusMm } }]
            : []),
          ...((leastFlangeMm ?? 0) > flat ? [{ code: 'flange-not-held' }] : []),
        ];
        const near = [lengthMm - 300, noseRadiusMm - radius, (leastFlangeMm ?? 0) - flat].some(
          (off) => Math.abs(off) < 0.02,
        );
        if (near) return;
        expect(found.map(({ code }) => code)).toEqual(wanted.map(({ code }) => code));
        found.forEach((one, i) =>
          expect(one).toMatchObject({ about: [flanged.folds[0]!.id], ...wanted[i] }),
        );
      },
    ),
  );
});
