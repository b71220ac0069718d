import fc from 'fast-check';
import type { CutDown } from './cutDown';
import { CutDownSchema } from './cutDown';
import { FAULTS, HOLED, LAID_ON, PIECE_KINDS, VERDICTS } from './kinds';
import { hoursOfFaults, medianMm, openOf } from './progress';
import { uncut } from './uncut';

const at = '2026-11-23T08:00:00.000Z';
const some = <T>(of: fc.Arbitrary<T>) => fc.array(of, { maxLength: 6 });
const anyCutDown: fc.Arbitrary<CutDown> = fc.record({
  readingsMm: some(fc.double({ min: 0.4, max: 3, noNaN: true })),
  received: fc.option(
    fc.record({
      at: fc.constant(at),
      laidOn: fc.constantFrom(...LAID_ON),
      verdict: fc.option(fc.constantFrom(...VERDICTS)),
      note: fc.constant(''),
    }),
  ),
  faults: some(
    fc.record({
      kind: fc.constantFrom(...FAULTS),
      edge: fc.constant(null),
      by: fc.option(fc.double({ min: 0, max: 40, noNaN: true })),
      note: fc.constant(''),
      mendedAt: fc.option(fc.constant(at)),
      how: fc.constant(''),
      hours: fc.option(fc.double({ min: 0, max: 9, noNaN: true })),
    }),
  ).map((all) => all.map((one, i) => ({ id: `f${i}`, ...one }))),
  works: some(
    fc.record({
      kind: fc.constant('spots' as const),
      count: fc.integer({ min: 1, max: 90 }),
      holed: fc.constantFrom(...HOLED),
      edge: fc.constant(null),
      note: fc.constant(''),
      doneAt: fc.option(fc.constant(at)),
    }),
  ).map((all) => all.map((one, i) => ({ id: `w${i}`, ...one }))),
});

test('nothing is open only where all that its kind asks was written down as done', () => {
  let closed = 0;
  fc.assert(
    fc.property(
      anyCutDown,
      fc.constantFrom(...PIECE_KINDS),
      fc.nat({ max: 3 }),
      (cutDown, kind, edges) => {
        expect(CutDownSchema.parse(cutDown)).toEqual(cutDown);
        const verdict = cutDown.received?.verdict;
        const ready =
          edges > 0 &&
          cutDown.readingsMm.length > 0 &&
          (kind !== 'bought' || verdict === 'kept' || verdict === 'in-part') &&
          cutDown.faults.every(({ mendedAt }) => mendedAt) &&
          cutDown.works.every(({ doneAt }) => doneAt);
        expect(openOf(kind, cutDown, edges).length === 0).toBe(Boolean(ready));
        if (ready) closed++;
      },
    ),
    { numRuns: 1000 },
  );
  expect(closed).toBeGreaterThan(0);
});

test('a median is between the readings, half of them on either side, and in whatever order', () => {
  expect(medianMm([])).toBeNull();
  expect(hoursOfFaults(uncut())).toBeNull();
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 0.4, max: 3, noNaN: true }), { minLength: 1 }),
      (readings) => {
        const median = medianMm(readings)!;
        const half = readings.length / 2;
        expect(readings.filter((mm) => mm < median).length).toBeLessThanOrEqual(half);
        expect(readings.filter((mm) => mm > median).length).toBeLessThanOrEqual(half);
        expect(medianMm([...readings].reverse())).toBe(median);
      },
    ),
  );
});
