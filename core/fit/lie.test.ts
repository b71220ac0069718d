import fc from 'fast-check';
import { lieOf } from './lie';
import { evenStations, gapTarget } from './target';
import { spread } from '../measure/spread.arbitrary';

const target = { gapMm: 1, toleranceMm: 0.5, flushMm: 0.3 };
const along = (gap: (share: number) => number, n = 5) =>
  Array.from({ length: n }, (_, i) => ({ atMm: i * 100, gapMm: gap(i / (n - 1)), flushMm: null }));

test.each([
  ['even', () => 1],
  ['even-wide', () => 2.5],
  ['even-tight', () => 0],
  ['tapers-to-end', (s: number) => 2 - 2 * s],
  ['tapers-to-start', (s: number) => 2 * s],
  ['tight-in-middle', (s: number) => 3 * Math.abs(s - 0.5)],
  ['wide-in-middle', (s: number) => 2.5 - 4 * Math.abs(s - 0.5)],
  ['uneven', (s: number) => (s === 0.25 ? 2.2 : s === 0.75 ? 0.1 : 1)],
] as const)('%s', (lie, gap) => expect(lieOf(along(gap), target).lie).toBe(lie));

test('a straight taper is found exactly, wherever it was read and however many stations', () => {
  fc.assert(
    fc.property(spread(-3, 3), fc.integer({ min: 2, max: 30 }), (taper, n) => {
      const found = lieOf(
        along((s) => 5 + taper * s, n),
        target,
      );
      expect(found.taperMm).toBeCloseTo(taper, 9);
      expect(found.strayMm).toBeCloseTo(0, 9);
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
      const found = lieOf(
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
  expect(lieOf([{ atMm: 0, gapMm: null, flushMm: null }], target).lie).toBe('unread');
});

test('targets by joint (common practice) and stations that keep off the corners', () => {
  expect(gapTarget('butt', 'tig', 1)).toMatchObject({ gapMm: 0 });
  expect(gapTarget('butt', 'mig', 0.9)).toMatchObject({ gapMm: 0.45, toleranceMm: 0.45 });
  expect(gapTarget('free', null, 1)).toMatchObject({ gapMm: 4, toleranceMm: 1 });
  expect(evenStations(320)).toEqual([10, 85, 160, 235, 310]);
  expect(evenStations(20).length).toBe(3);
});
