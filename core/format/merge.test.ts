import fc from 'fast-check';
import { mergedRecord } from './merge';

type R = { name: string; metal: string; mm: number; by: string; list: number[] };
const value: fc.Arbitrary<R> = fc.record({
  name: fc.constantFrom('a', 'b', 'c'),
  metal: fc.constantFrom('x', 'y'),
  mm: fc.nat(2),
  by: fc.constantFrom('gauge', 'mm'),
  list: fc.uniqueArray(fc.nat(6), { maxLength: 5 }),
});
const together = [['mm', 'by']] as const;
const merge = (since: R, mine: R, now: R) => mergedRecord(since, mine, now, together);

test('who changed nothing changes nothing; who is alone is heard in full; the same change by both is one', () => {
  fc.assert(
    fc.property(value, value, (since, other) => {
      expect(merge(since, since, other)).toEqual({ ok: true, merged: other });
      expect(merge(since, other, since)).toEqual({ ok: true, merged: other });
      expect(merge(since, other, other)).toEqual({ ok: true, merged: other });
    }),
  );
});

test('each field comes from whoever changed it, whichever of the two came first; what belongs together stays together', () => {
  const lists = (a: R) => ({ ...a, list: [...a.list].sort() });
  fc.assert(
    fc.property(value, value, value, (since, one, two) => {
      const [there, back] = [merge(since, one, two), merge(since, two, one)];
      expect(there.ok).toBe(back.ok);
      if (!there.ok || !back.ok) return;
      expect(lists(there.merged)).toEqual(lists(back.merged));
      for (const key of ['name', 'metal'] as const) {
        expect(there.merged[key]).toBe(one[key] !== since[key] ? one[key] : two[key]);
      }
      const pair = (r: R) => `${r.mm} ${r.by}`;
      expect([pair(one), pair(two)]).toContain(pair(there.merged));
    }),
    { numRuns: 500 },
  );
});

test('the order in which a database gives back the fields of an item is no difference', () => {
  const strip = (legs: number[]) =>
    legs.map((legMm) => ({ metal: 'dc01', legMm, sheet: { mm: 1, by: 'mm' } }));
  const kept = (legs: number[]) =>
    legs.map((legMm) => ({ sheet: { by: 'mm', mm: 1 }, legMm, metal: 'dc01' }));
  const merged = mergedRecord(
    { strips: strip([1, 2]) },
    { strips: strip([2, 3]) },
    { strips: kept([1, 2, 4]) },
  );
  expect(merged).toEqual({ ok: true, merged: { strips: [...kept([2, 4]), ...strip([3])] } });
  expect(mergedRecord({ a: strip([1]) }, { a: strip([1]) }, { a: kept([1]) })).toEqual({
    ok: true,
    merged: { a: kept([1]) },
  });
});

test('a field that both changed and not alike is a clash by name; lists never clash: nothing put in is lost', () => {
  const since: R = { name: 'a', metal: 'x', mm: 1, by: 'mm', list: [1, 2, 3] };
  expect(merge(since, { ...since, name: 'b' }, { ...since, name: 'c', metal: 'y' })).toEqual({
    ok: false,
    clashes: ['name'],
  });
  expect(merge(since, { ...since, mm: 2 }, { ...since, by: 'gauge' })).toEqual({
    ok: false,
    clashes: ['mm', 'by'],
  });
  expect(merge(since, { ...since, list: [1, 3, 4] }, { ...since, list: [1, 2, 3, 5] })).toEqual({
    ok: true,
    merged: { ...since, list: [1, 3, 5, 4] },
  });
  fc.assert(
    fc.property(value, value, value, (start, one, two) => {
      const found = mergedRecord({ list: start.list }, { list: one.list }, { list: two.list });
      if (!found.ok) throw new Error('a list clashed');
      for (const put of [...one.list, ...two.list])
        if (!start.list.includes(put)) expect(found.merged.list).toContain(put);
      for (const item of start.list)
        if (!one.list.includes(item) || !two.list.includes(item))
          expect(found.merged.list).not.toContain(item);
    }),
  );
});
