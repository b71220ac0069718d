import fc from 'fast-check';
import { mergedReadings } from './mergeReadings';

type EdgeRecord = Parameters<typeof mergedReadings>[1];

const reading = fc.option(fc.integer({ min: -3, max: 9 }), { nil: null });
const edgeOf = (count: number) =>
  fc
    .record({
      own: fc.boolean(),
      targetMm: fc.integer({ min: 0, max: 3 }),
      read: fc.array(fc.tuple(reading, reading), { minLength: count, maxLength: count }),
    })
    .map(({ own, targetMm, read }): EdgeRecord => ({
      own,
      targetMm,
      toleranceMm: 0.5,
      flushMm: 1,
      stations: read.map(([gapMm, flushMm], i) => ({ atMm: i * 10, gapMm, flushMm })),
    }));
const inStep = fc
  .integer({ min: 1, max: 6 })
  .chain((n) => fc.tuple(edgeOf(n), edgeOf(n), edgeOf(n)));
const anyCounts = fc
  .tuple(
    fc.integer({ min: 1, max: 5 }),
    fc.integer({ min: 1, max: 5 }),
    fc.integer({ min: 1, max: 5 }),
  )
  .chain(([a, b, c]) => fc.tuple(edgeOf(a), edgeOf(b), edgeOf(c)));

test('station by station: whoever alone read anew is heard, nobody’s reading is lost unsaid', () => {
  fc.assert(
    fc.property(inStep, ([since, mine, now]) => {
      const found = mergedReadings(since, mine, now);
      const cells = since.stations.flatMap((s, i) =>
        (['gapMm', 'flushMm'] as const).map((what) => ({
          i,
          what,
          was: s[what],
          here: mine.stations[i]![what],
          there: now.stations[i]![what],
        })),
      );
      const both = cells.filter(
        ({ was, here, there }) => here !== was && there !== was && here !== there,
      );
      expect(found.ok).toBe(both.length === 0);
      if (!found.ok) return expect(found.clashes).toHaveLength(both.length);
      for (const { i, what, was, here, there } of cells)
        expect(found.merged.stations[i]![what]).toBe(here !== was ? here : there);
    }),
  );
});

test('nothing changed there: mine; nothing changed here: theirs; the same merged again changes nothing', () => {
  fc.assert(
    fc.property(inStep, anyCounts, ([since, mine, now], [one, other]) => {
      expect(mergedReadings(one, other, one)).toEqual({
        ok: true,
        merged: expect.objectContaining({ stations: other.stations }),
      });
      const theirs = mergedReadings(since, since, now);
      expect(theirs).toMatchObject({ ok: true, merged: { stations: now.stations } });
      const once = mergedReadings(since, mine, now);
      if (once.ok) expect(mergedReadings(since, mine, once.merged)).toEqual(once);
    }),
  );
});

test('with other stations, what another has read since then is never silently dropped', () => {
  fc.assert(
    fc.property(anyCounts, ([since, mine, now]) => {
      const found = mergedReadings(since, mine, now);
      if (!found.ok || now.stations.length === mine.stations.length) return;
      for (const [i, s] of now.stations.entries()) {
        const was = since.stations.length === now.stations.length ? since.stations[i]!.gapMm : null;
        const kept = found.merged.stations.find((m) => m.atMm === s.atMm)?.gapMm ?? null;
        expect(s.gapMm === null || s.gapMm === was || s.gapMm === kept).toBe(true);
      }
    }),
  );
});
