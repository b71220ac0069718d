import fc from 'fast-check';
import {
  even,
  isEven,
  leastOfRamp,
  meanOf,
  mostOfRamp,
  ramp,
  rampAt,
  rampBack,
  ramped,
  slopeAt,
} from './ramp';
import { spread } from './spread.arbitrary';

const ramps = fc
  .tuple(
    spread(-50, 50),
    spread(-50, 50),
    fc.uniqueArray(spread(0.01, 0.99), { maxLength: 6 }),
    fc.array(spread(-50, 50), { minLength: 6, maxLength: 6 }),
  )
  .map(([start, end, shares, mm]) =>
    ramp(
      start,
      end,
      [...shares].sort((a, b) => a - b).map((share, i) => [share, mm[i]!]),
    ),
  );

test('a ramp is what is said at its places and runs straight between; its slope, mean, least and most are those of many looks at it', () => {
  fc.assert(
    fc.property(ramps, (one) => {
      for (const [share, mm] of one) expect(rampAt(one, share)).toBeCloseTo(mm, 9);
      const looks = Array.from({ length: 4001 }, (_, i) => i / 4000);
      const all = looks.map((share) => rampAt(one, share));
      expect(meanOf(one)).toBeCloseTo(
        all.slice(1).reduce((sum, mm, i) => sum + (mm + all[i]!) / 2, 0) / 4000,
        1,
      );
      expect(Math.min(...all)).toBeGreaterThanOrEqual(leastOfRamp(one) - 1e-9);
      expect(Math.max(...all)).toBeLessThanOrEqual(mostOfRamp(one) + 1e-9);
      for (const [i, [share]] of one.slice(1).entries()) {
        const from = one[i]![0];
        const middle = (from + share) / 2;
        const step = (share - from) / 8;
        expect(slopeAt(one, middle)).toBeCloseTo(
          (rampAt(one, middle + step) - rampAt(one, middle - step)) / (2 * step),
          4,
        );
      }
    }),
  );
});

test('from its other end, and made another, it is so at every place', () => {
  fc.assert(
    fc.property(ramps, spread(0, 1), spread(-5, 5), (one, share, by) => {
      expect(rampAt(rampBack(one), 1 - share)).toBeCloseTo(rampAt(one, share), 6);
      expect(
        rampAt(
          ramped(one, (mm) => mm * by + 1),
          share,
        ),
      ).toBeCloseTo(rampAt(one, share) * by + 1, 6);
    }),
  );
  expect(isEven(even(12))).toBe(true);
  expect(isEven(ramp(12, 12, [[0.5, 13]]))).toBe(false);
});
