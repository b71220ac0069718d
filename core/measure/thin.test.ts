import fc from 'fast-check';
import { thinned } from './thin';
import type { Vec } from './vector';
import { nearestOnSegment } from './vector';

const polygons = fc.array(
  fc.tuple(fc.integer({ min: -500, max: 500 }), fc.integer({ min: -500, max: 500 })),
  {
    minLength: 3,
    maxLength: 60,
  },
);

test('every point left out lies within the tolerance of what is left; what is left are points of it, in their order', () => {
  fc.assert(
    fc.property(polygons, fc.integer({ min: 1, max: 80 }), (given, tolerance) => {
      const polygon: readonly Vec[] = given;
      const few = thinned(polygon, tolerance);
      expect(few.length).toBeGreaterThanOrEqual(3);
      // In order: each is found in the original after the one before.
      let at = -1;
      for (const p of few) {
        at = polygon.indexOf(p, at + 1);
        expect(at).toBeGreaterThanOrEqual(0);
      }
      for (const p of polygon) {
        const off = few.map((a, i) => nearestOnSegment(p, a, few[(i + 1) % few.length]!).distance);
        expect(Math.min(...off)).toBeLessThanOrEqual(tolerance + 1e-9);
      }
    }),
  );
});

test('a circle of a thousand points at a hundredth of its radius keeps a dozen or two', () => {
  const circle = Array.from({ length: 1000 }, (_, i): Vec => {
    const turn = (2 * Math.PI * i) / 1000;
    return [100 * Math.cos(turn), 100 * Math.sin(turn)];
  });
  // A chord that leaves a sagitta of s spans 2·acos(1 − s/r): 22 of them at least, no more than
  // twice as many.
  const least = Math.PI / Math.acos(1 - 1 / 100);
  expect(thinned(circle, 1).length).toBeGreaterThanOrEqual(Math.floor(least));
  expect(thinned(circle, 1).length).toBeLessThanOrEqual(2 * Math.ceil(least));
});
