import fc from 'fast-check';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { placeIn } from '../blank/fold/order/contact';
import { thickestAt } from './brake';

test('the thickest sheet at a length is what is said for that length or a longer one', () => {
  const thickest = [{ lengthMm: 600, thicknessMm: 2 }, { lengthMm: 1250, thicknessMm: 1.5 }]; // prettier-ignore
  expect([100, 600, 601, 1250, 3000].map((long) => thickestAt({ thickest }, long))).toEqual([2, 2, 1.5, 1.5, 1.5]);
  expect(thickestAt({ thickest: [...thickest].reverse() }, 601)).toBe(1.5);
  expect(thickestAt({}, 100)).toBeNull();
});

test('a plate in section runs through a part where sampled points of it do', () => {
  const square: Vec[] = [[0, 0], [10, 0], [10, 10], [0, 10]]; // prettier-ignore
  const place = fc.tuple(spread(-15, 25), spread(-15, 25));
  fc.assert(
    fc.property(place, place, (from, to) => {
      const found = placeIn(square, from, to, 0);
      const long = Math.hypot(to[0] - from[0], to[1] - from[1]);
      const inside = Array.from({ length: 2001 }, (_, i) => i / 2000).filter((t) => {
        const [x, y] = [from[0] + (to[0] - from[0]) * t, from[1] + (to[1] - from[1]) * t];
        return x > 0.05 && x < 9.95 && y > 0.05 && y < 9.95;
      }).length; // prettier-ignore
      expect(Math.abs((found?.longMm ?? 0) - (inside / 2001) * long)).toBeLessThan(0.2 + long / 900);
    }),
  );
  // Lying on it with half its thickness it only touches.
  expect(placeIn(square, [-5, 10.5], [15, 10.5], 1)).toBeNull();
});
