import fc from 'fast-check';
import { spread } from '../measure/spread.arbitrary';
import { changesBetween, hasMoved, movedSoFar, sinceFirstRead } from './moved';
import type { Measure, Round, Surveyed } from './references';

const measure = (id: string, u: number, tolerance: number | null): Surveyed<Measure> =>
  ({
    id,
    kind: 'measure',
    of: 'distance',
    name: id,
    from: null,
    to: null,
    where: '',
    u,
    tolerance,
    partner: null,
    putAway: false,
  }) as unknown as Surveyed<Measure>;
const round = (i: number, values: readonly (number | null)[]): Surveyed<Round> =>
  ({
    id: `r${i}`,
    kind: 'round',
    stage: 'other',
    name: `Round ${i}`,
    at: `2026-10-0${i + 1}T10:00:00.000Z`,
    putAway: false,
    readings: Object.fromEntries(values.map((value, k) => [`m${k}`, { value, note: '', as: '' }])),
  }) as unknown as Surveyed<Round>;

const surveys = fc
  .record({
    measures: fc.array(fc.record({ u: spread(0.2, 3), tolerance: fc.option(spread(0.5, 8)) }), {
      minLength: 1,
      maxLength: 5,
    }),
    rounds: fc.array(fc.array(fc.option(spread(990, 1010)), { minLength: 5, maxLength: 5 }), {
      maxLength: 5,
    }),
  })
  .map(({ measures, rounds }) => ({
    measures: measures.map(({ u, tolerance }, k) => measure(`m${k}`, u, tolerance)),
    rounds: rounds.map((values, i) => round(i, values.slice(0, measures.length))),
  }));

test('each measure is held against the first round it was read in; moved is what the readings cannot be out by, or over its tolerance', () => {
  let moved = 0;
  fc.assert(
    fc.property(surveys, ({ measures, rounds }) => {
      const wanted = measures.flatMap((one, k) => {
        const read = rounds
          .map(({ readings }, i) => ({ i, value: readings[`m${k}`]?.value ?? null }))
          .filter(({ value }) => value !== null);
        const [first, last] = [read[0], read[read.length - 1]];
        if (read.length < 2) {
          expect(sinceFirstRead(one, rounds)).toBeNull();
          return [];
        }
        const by = last!.value! - first!.value!;
        expect(sinceFirstRead(one, rounds)).toMatchObject({
          from: rounds[first!.i],
          to: rounds[last!.i],
          by,
        });
        // Two readings of the same ±: apart by more than twice the root of the sum of their
        // squares.
        const shown = Math.abs(by) > 2 * Math.SQRT2 * one.u;
        const beyond = one.tolerance !== null && Math.abs(by) > one.tolerance;
        return shown || beyond ? [{ id: one.id, by, shown, beyond }] : [];
      });
      expect(
        movedSoFar(measures, rounds).map(({ measure: { id }, by, shown, beyond }) => ({
          id,
          by,
          shown,
          beyond,
        })),
      ).toEqual(wanted);
      moved += wanted.length;
    }),
    { numRuns: 400 },
  );
  expect(moved).toBeGreaterThan(100);
});

test('what changed between two rounds is the same the other way round, with its sign; over a chain of rounds changes add up', () => {
  fc.assert(
    fc.property(surveys, ({ measures, rounds }) => {
      const [a, b, c] = rounds;
      if (!a || !b) return;
      const [there, back] = [changesBetween(measures, a, b), changesBetween(measures, b, a)];
      expect(back.map(({ measure: { id }, by }) => [id, -by + 0])).toEqual(
        there.map(({ measure: { id }, by }) => [id, by + 0]),
      );
      expect(back.map(hasMoved)).toEqual(there.map(hasMoved));
      if (!c) return;
      const whole = changesBetween(measures, a, c);
      for (const one of there) {
        const on = changesBetween(measures, b, c).find(
          ({ measure: { id } }) => id === one.measure.id,
        );
        const all = whole.find(({ measure: { id } }) => id === one.measure.id);
        if (on && all) expect(all.by).toBeCloseTo(one.by + on.by, 9);
      }
    }),
  );
});
