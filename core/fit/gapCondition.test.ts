import fc from 'fast-check';
import { spread } from '../measure/spread.arbitrary';
import { edgeConditionOf } from './gapCondition';
import { evenStations, gapTarget } from './target';

const target = { gapMm: 1, toleranceMm: 0.5, flushMm: 0.3 };
const along = (gap: (share: number) => number, n = 5) =>
  Array.from({ length: n }, (_, i) => ({ atMm: i * 100, gapMm: gap(i / (n - 1)), flushMm: null }));

// Target 1 ± 0.5; what each list of readings is called.
test.each([
  ['even', [1, 1, 1, 1, 1]],
  ['even', [1.5, 0.9, 0.5, 0.9, 1.5]],
  ['even-wide', [2.5, 2.5, 1.9, 2.5, 3]],
  ['even-tight', [0, 0.1, 0.2, 0, 0]],
  ['tapers-to-start', [0, 0.5, 1, 1.5, 2]],
  ['tapers-to-end', [2, 1.5, 1, 0.5, 0]],
  ['wide-at-ends', [2.5, 0.6, 0.6, 0.6, 2.5]],
  ['wide-at-end', [0.5, 0.6, 0.5, 0.6, 3.3]],
  ['wide-at-start', [3.3, 2, 0.5, 0.6, 1]],
  ['wide-in-middle', [1, 1.2, 2, 1.2, 1]],
  ['wide-in-places', [1, 2, 1, 2, 1]],
  ['tight-in-middle', [1, 0.4, 0.1, 0.6, 1]],
  ['tight-at-ends', [0.2, 0.6, 0.6, 0.6, 0.2]],
  ['tight-at-start', [0.2, 0.6, 0.6, 0.6, 1]],
  ['uneven', [1, 2.2, 1, 0.1, 2.2]],
] as const)('%s: %j', (lie, gaps) => {
  const readings = gaps.map((gapMm, i) => ({ atMm: i * 100, gapMm, flushMm: null }));
  expect(edgeConditionOf(readings, target).condition).toBe(lie);
  // Read in another order it lies no other way.
  expect(edgeConditionOf([...readings].reverse(), target).condition).toBe(lie);
  // From the other end, start and end change about.
  const turned = readings.map((r) => ({ ...r, atMm: 400 - r.atMm }));
  const other = /start$/.test(lie) ? lie.replace('start', 'end') : lie.replace(/end$/, 'start');
  expect(edgeConditionOf(turned, target).condition).toBe(other);
});

test('what is said follows from which stations are out, and nothing else', () => {
  fc.assert(
    fc.property(fc.array(spread(0, 2.5), { minLength: 1, maxLength: 9 }), (gaps) => {
      const found = edgeConditionOf(
        gaps.map((gapMm, i) => ({ atMm: i * 40, gapMm, flushMm: null })),
        target,
      );
      const out = gaps.map((g) => (g < 0.5 ? -1 : g > 1.5 ? 1 : 0));
      expect(found.condition === 'even').toBe(out.every((o) => o === 0));
      if (/^(even-)?tight/.test(found.condition)) expect(Math.max(...out)).toBeLessThan(1);
      if (/^(even-)?wide/.test(found.condition)) expect(Math.min(...out)).toBeGreaterThan(-1);
      if (/middle$/.test(found.condition)) expect([out[0], out[out.length - 1]]).toEqual([0, 0]);
      if (/at-start$/.test(found.condition))
        expect([out[0] !== 0, out[out.length - 1]]).toEqual([true, 0]);
      if (/ends$/.test(found.condition))
        expect([out[0] !== 0, out[out.length - 1] !== 0]).toEqual([true, true]);
      if (/^tapers/.test(found.condition))
        expect(out[0]! * out[out.length - 1]!).toBeLessThanOrEqual(0);
    }),
  );
});

test('a straight taper is found exactly, wherever it was read and however many stations', () => {
  fc.assert(
    fc.property(spread(-3, 3), fc.integer({ min: 2, max: 30 }), (taper, n) => {
      const found = edgeConditionOf(
        along((s) => 5 + taper * s, n),
        target,
      );
      expect(found.taperMm).toBeCloseTo(taper, 9);
      expect(found.maxDeviationMm).toBeCloseTo(0, 9);
    }),
  );
});

test('it is good exactly when every reading, gap and flush, is within tolerance', () => {
  const reading = fc.record({
    gapMm: fc.option(spread(0, 3)),
    flushMm: fc.option(spread(-1, 1)),
  });
  fc.assert(
    fc.property(fc.array(reading, { minLength: 1, maxLength: 12 }), (list) => {
      const found = edgeConditionOf(
        list.map((r, i) => ({ ...r, atMm: i * 50 })),
        target,
      );
      const within = list.every(
        (r) =>
          (r.gapMm === null || Math.abs(r.gapMm - 1) <= 0.5 + 1e-9) &&
          (r.flushMm === null || Math.abs(r.flushMm) <= 0.3 + 1e-9),
      );
      expect(found.good).toBe(within && list.some((r) => r.gapMm !== null));
    }),
  );
  expect(edgeConditionOf([{ atMm: 0, gapMm: null, flushMm: null }], target).condition).toBe(
    'unread',
  );
});

test('targets by joint (common practice) and stations that keep off the corners', () => {
  expect(gapTarget('butt', 'tig', 1)).toMatchObject({ gapMm: 0 });
  expect(gapTarget('butt', 'mig', 0.9)).toMatchObject({ gapMm: 0.45, toleranceMm: 0.45 });
  expect(gapTarget('free', null, 1)).toMatchObject({ gapMm: 4, toleranceMm: 1 });
  expect(evenStations(320)).toEqual([10, 85, 160, 235, 310]);
  expect(evenStations(20).length).toBe(3);
});
