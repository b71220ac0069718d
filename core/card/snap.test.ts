import fc from 'fast-check';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { cross, distance, sub, unit } from '../measure/vector';
import type { SnapContext } from './snap';
import { roundStep, snap } from './snap';

const free: SnapContext = { anchors: [], ends: [], directions: [], reachMm: 3, unit: 'mm' };
const near = (x: number, y: number) => [expect.closeTo(x, 9), expect.closeTo(y, 9)];

test('round figures are as fine as a hand can aim on the screen, in the unit in use', () => {
  expect([0.4, 1, 3, 8, 40].map((reach) => roundStep('mm', reach))).toEqual([1, 1, 5, 10, 50]);
  expect([0.5, 4, 14, 30].map((reach) => roundStep('in', reach) / 25.4)).toEqual([
    1 / 16,
    1 / 4,
    1,
    2,
  ]);
});

test('with nothing near a point goes to round figures; near a corner to the corner itself', () => {
  expect(snap([33.2, 18.7], free)).toEqual({ point: [35, 20], reasons: ['round'], guides: [] });
  const corner: Vec = [31.37, 18.05];
  expect(snap([33, 18.7], { ...free, ends: [corner] })).toEqual({
    point: corner,
    reasons: ['end'],
    guides: [],
  });
});

test('level with what it is joined to, at a round length from it', () => {
  const found = snap([83.4, 11.6], { ...free, anchors: [[0, 10]] });
  expect(found).toMatchObject({ reasons: ['along', 'round'], point: near(85, 10) });
  expect(found.guides).toEqual([[[0, 10], expect.anything()]]);
});

test('square or parallel to another side; where two such lines cross, at the crossing', () => {
  const slope = unit([3, 4]);
  const along = snap([31, 38], { ...free, anchors: [[0, 0]], directions: [slope] });
  expect(along.reasons[0]).toBe('parallel');
  expect(cross(unit(along.point), slope)).toBeCloseTo(0, 9);
  const square = snap([-41, 29], { ...free, anchors: [[0, 0]], directions: [slope] });
  expect(square.reasons[0]).toBe('square');
  expect(square.point[0] * slope[0] + square.point[1] * slope[1]).toBeCloseTo(0, 9);
  const both = snap([101.5, 58.9], {
    ...free,
    anchors: [
      [0, 60],
      [100, 0],
    ],
  });
  expect(both).toMatchObject({
    point: near(100, 60),
    guides: [expect.anything(), expect.anything()],
  });
});

test('in inches a side catches inches: 4 1/4, not 108 mm', () => {
  const found = snap([107.1, 0.8], { ...free, anchors: [[0, 0]], unit: 'in', reachMm: 4 });
  expect(found.point).toEqual(near(4.25 * 25.4, 0));
});

test('a corner that was moved keeps what was put there on purpose: four tenths out of level stay four tenths', () => {
  const stood: Vec = [100, 60.4];
  const moved = {
    ...free,
    anchors: [
      [0, 60],
      [100.3, 0],
    ] as Vec[],
    stood,
  };
  expect(snap([121.2, 61.1], moved)).toMatchObject({
    point: near(120, 60.4),
    reasons: ['kept', 'round'],
  });
  expect(snap([101.1, 71.7], moved).point).toEqual(near(100, 70.4));
  // And back to where it stood, exactly.
  expect(snap([101, 59.6], moved)).toMatchObject({ point: stood, reasons: ['end'] });
  fc.assert(
    fc.property(spread(0.02, 4.8), spread(20, 150), spread(-0.9, 0.9), (out, far, shake) => {
      const { point } = snap([100 + far, 60 + out + shake], {
        ...moved,
        stood: [100, 60 + out],
        reachMm: 3,
      });
      expect(point[1]).toBeCloseTo(60 + out, 9);
    }),
  );
});

test('wherever one points, a snapped point is close by, and on every guide that is shown', () => {
  const anywhere = fc.tuple(spread(-200, 200), spread(-200, 200)) as fc.Arbitrary<Vec>;
  const context = fc.record({
    anchors: fc.array(anywhere, { minLength: 1, maxLength: 2 }),
    ends: fc.array(anywhere, { maxLength: 6 }),
    directions: fc.array(
      spread(0, Math.PI).map((a): Vec => [Math.cos(a), Math.sin(a)]),
      { maxLength: 4 },
    ),
    reachMm: spread(0.5, 12),
    unit: fc.constantFrom('mm' as const, 'in' as const),
    stood: fc.option(anywhere, { nil: undefined }),
  });
  fc.assert(
    fc.property(anywhere, context, (p, given) => {
      const found = snap(p, given);
      // A reach aside to a guide and half a round step along it, or one and a half to where two
      // guides cross; the first round length from an anchor is at least one step off it.
      const step = roundStep(given.unit, given.reachMm);
      const beside = Math.min(...given.anchors.map((a) => distance(a, p)));
      const most =
        Math.max(2.3 * given.reachMm, step) + (beside < 2 * step ? step + given.reachMm : 0);
      expect(distance(found.point, p)).toBeLessThanOrEqual(most + 1e-9);
      for (const [from, to] of found.guides) {
        expect(to).toEqual(found.point);
        if (distance(from, to) > 1e-6)
          expect(Math.abs(cross(unit(sub(to, from)), sub(found.point, from)))).toBeLessThan(1e-6);
      }
      // The same hand and the same card: the same point.
      expect(snap(p, given)).toEqual(found);
    }),
  );
});
