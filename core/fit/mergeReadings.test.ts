import fc from 'fast-check';
import { FIELD_OF, mergedReadings } from './mergeReadings';

type EdgeRecord = Parameters<typeof mergedReadings>[1];
const KINDS = ['gap', 'flush'] as const;

const reading = fc.option(fc.integer({ min: -3, max: 9 }), { nil: null });
const edgeOf = (places: readonly number[], turned = false) =>
  fc
    .record({
      own: fc.boolean(),
      targetMm: fc.integer({ min: 0, max: 3 }),
      read: fc.array(fc.tuple(reading, reading), {
        minLength: places.length,
        maxLength: places.length,
      }),
    })
    .map(({ own, targetMm, read }): EdgeRecord => ({
      turned,
      own,
      targetMm,
      toleranceMm: 0.5,
      flushMm: 1,
      stations: read.map(([gapMm, flushMm], i) => ({ atMm: places[i]!, gapMm, flushMm })),
    }));
const placesAlong = fc
  .uniqueArray(fc.integer({ min: 0, max: 12 }), { minLength: 1, maxLength: 6 })
  .map((all) => all.sort((a, b) => a - b).map((n) => n * 10));
const samePlaces = placesAlong.chain((at) => fc.tuple(edgeOf(at), edgeOf(at), edgeOf(at)));
const anyEdge = fc.tuple(placesAlong, fc.boolean()).chain(([at, turned]) => edgeOf(at, turned));

/** A reading by the place it was made at: which way the edge ran, mm along it, gap or flush. */
const cells = ({ turned, stations }: EdgeRecord) =>
  new Map(
    stations.flatMap((s) =>
      KINDS.flatMap((of) => {
        const value = s[FIELD_OF[of]];
        return value === null ? [] : [[`${turned} ${s.atMm} ${of}`, value] as const];
      }),
    ),
  );

test('station by station: whoever alone read anew is heard; where both did, it is told and what is there stays', () => {
  fc.assert(
    fc.property(samePlaces, ([since, mine, now]) => {
      const { merged, clashes, elsewhere } = mergedReadings(since, mine, now);
      expect(elsewhere).toBe(false);
      for (const [i, { atMm }] of mine.stations.entries())
        for (const of of KINDS) {
          const [was, here, there, got] = [since, mine, now, merged].map(
            (one) => one.stations[i]![FIELD_OF[of]],
          );
          const both = here !== was && there !== was && here !== there;
          expect(got).toBe(both ? there : here !== was ? here : there);
          expect(clashes.some((one) => one.atMm === atMm && one.of === of)).toBe(both);
        }
    }),
  );
});

test('whatever the places: a reading stands where it was made, with the value it was made with', () => {
  fc.assert(
    fc.property(anyEdge, anyEdge, anyEdge, (since, mine, now) => {
      const { merged, clashes, elsewhere } = mergedReadings(since, mine, now);
      const [here, there] = [cells(mine), cells(now)];
      for (const [place, value] of cells(merged))
        expect([here.get(place), there.get(place)]).toContain(value);
      if (elsewhere) {
        // Nothing of mine has gone in: each reading that is not there as well is told.
        expect(merged).toBe(now);
        for (const [place, value] of here) {
          const [turned, atMm, of] = place.split(' ');
          if (turned === String(now.turned) && there.get(place) === value) continue;
          expect(
            clashes.some(
              (one) => String(one.atMm) === atMm && one.of === of && one.hereMm === value,
            ),
          ).toBe(true);
        }
      }
    }),
    { numRuns: 500 },
  );
});

test('the same readings at other places are nobody’s quarrel: whoever alone has read since stands', () => {
  fc.assert(
    fc.property(anyEdge, anyEdge, (since, other) => {
      const mine = mergedReadings(since, other, since);
      expect(mine).toMatchObject({ merged: { stations: other.stations }, clashes: [] });
      const theirs = mergedReadings(since, since, other);
      expect(theirs).toMatchObject({ merged: { stations: other.stations }, clashes: [] });
      expect(mergedReadings(since, other, null).merged).toBe(other);
    }),
  );
});

test('what went in, sent again, changes nothing', () => {
  fc.assert(
    fc.property(samePlaces, ([since, mine, now]) => {
      const once = mergedReadings(since, mine, now);
      if (once.clashes.length > 0) return;
      expect(mergedReadings(since, mine, once.merged)).toEqual(once);
    }),
  );
});

test('readings of an edge that is longer now, or of a card turned over, are told and not moved', () => {
  const edge = (at: number[], gaps: (number | null)[], turned = false): EdgeRecord => ({
    turned,
    own: false,
    targetMm: 0,
    toleranceMm: 0.5,
    flushMm: 1,
    stations: at.map((atMm, i) => ({ atMm, gapMm: gaps[i]!, flushMm: null })),
  });
  const began = edge([10, 50], [null, null]);
  const longer = mergedReadings(began, edge([10, 80], [null, 2]), edge([10, 50], [null, 3]));
  expect(longer).toMatchObject({
    elsewhere: true,
    merged: { stations: [{ gapMm: null }, { atMm: 50, gapMm: 3 }] },
    clashes: [
      { atMm: 50, thereMm: 3, hereMm: null },
      { atMm: 80, thereMm: null, hereMm: 2 },
    ],
  });
  const turned = mergedReadings(began, edge([10, 50], [1, null], true), edge([10, 50], [5, null]));
  expect(turned).toMatchObject({ elsewhere: true, merged: { stations: [{ gapMm: 5 }, {}] } });
});
