import fc from 'fast-check';
import type { MergeRules } from './merge';
import { alike, mergedRecord } from './merge';

type Tool = { id: string; name: string; throatMm: number; path: number[] };
type R = { name: string; mm: number; by: string; tags: number[]; tools: Tool[]; corners: string[] };

const RULES: MergeRules<R> = {
  lists: { tags: 'set', tools: ['id'] },
  together: [['mm', 'by']],
};
const tool = (id: string): fc.Arbitrary<Tool> =>
  fc.record({
    id: fc.constant(id),
    name: fc.constantFrom('a', 'b', 'c'),
    throatMm: fc.nat(2),
    path: fc.constantFrom([], [1], [1, 2]),
  });
const record: fc.Arbitrary<R> = fc.record({
  name: fc.constantFrom('a', 'b', 'c'),
  mm: fc.nat(2),
  by: fc.constantFrom('gauge', 'mm'),
  tags: fc.uniqueArray(fc.nat(6), { maxLength: 5 }),
  tools: fc
    .shuffledSubarray(['p', 'q', 'r', 's'])
    .chain((ids) => fc.tuple(...ids.map((id) => tool(id)))),
  corners: fc.shuffledSubarray(['A', 'B', 'C'], { minLength: 3 }),
});

/** One thing that somebody does to a record: `fresh` names what they put in. */
type Edit = (to: R, fresh: string) => R;
const at = <T>(list: T[], i: number) => (list.length === 0 ? -1 : i % list.length);
const edit: fc.Arbitrary<Edit> = fc.oneof(
  fc.constantFrom('a', 'b', 'c').map((name): Edit => (r) => ({ ...r, name })),
  fc
    .tuple(fc.nat(2), fc.constantFrom('gauge', 'mm'))
    .map(([mm, by]): Edit => (r) => ({ ...r, mm, by })),
  fc.nat(6).map((tag): Edit => (r) => ({
    ...r,
    tags: r.tags.includes(tag) ? r.tags.filter((t) => t !== tag) : [...r.tags, tag],
  })),
  fc
    .nat(9)
    .map((i): Edit => (r) => ({ ...r, tools: r.tools.filter((_, k) => k !== at(r.tools, i)) })),
  fc
    .tuple(fc.nat(9), fc.constantFrom('x', 'y'), fc.boolean())
    .map(([i, name, depth]): Edit => (r) => ({
      ...r,
      tools: r.tools.map((one, k) =>
        k === at(r.tools, i) ? { ...one, ...(depth ? { throatMm: 7 + i } : { name }) } : one,
      ),
    })),
  fc.nat(9).map((i): Edit => (r, fresh) => ({
    ...r,
    tools: [
      ...r.tools.slice(0, i),
      { id: `${fresh}${r.tools.length}${i}`, name: 'new', throatMm: i, path: [] },
      ...r.tools.slice(i),
    ],
  })),
);
const edits = fc.array(edit, { maxLength: 6 });
const done = (start: R, all: Edit[], fresh: string) =>
  all.reduce((r, change) => change(r, fresh), start);
const merge = (since: R, mine: R, now: R) => mergedRecord(since, mine, now, RULES);
const byId = (r: R) => new Map(r.tools.map((one) => [one.id, one]));
const sorted = (r: R): R => ({
  ...r,
  tags: [...r.tags].sort(),
  tools: [...r.tools].sort((a, b) => (a.id < b.id ? -1 : 1)),
});

test('who changed nothing changes nothing; who is alone is heard in full; the same change by both is one', () => {
  fc.assert(
    fc.property(record, record, (since, other) => {
      expect(merge(since, since, other)).toEqual({ merged: other, clashes: [] });
      expect(merge(since, other, since)).toEqual({ merged: other, clashes: [] });
      expect(merge(since, other, other)).toEqual({ merged: other, clashes: [] });
    }),
  );
});

test('any edits by two, merged in either order: no field that one alone touched is lost, no id doubled', () => {
  fc.assert(
    fc.property(record, edits, edits, (since, firsts, seconds) => {
      const [one, two] = [done(since, firsts, 'm'), done(since, seconds, 'n')];
      const [there, back] = [merge(since, one, two), merge(since, two, one)];
      const fields = ({ clashes }: typeof there) =>
        clashes.map(({ field, within }) => [field, ...within].join(' ')).sort();
      expect(fields(there)).toEqual(fields(back));
      if (there.clashes.length === 0) expect(sorted(there.merged)).toEqual(sorted(back.merged));
      for (const { merged, clashes } of [there, back]) {
        expect(byId(merged).size).toBe(merged.tools.length);
        const [was, a, b, got] = [since, one, two, merged].map(byId) as [
          Map<string, Tool>,
          Map<string, Tool>,
          Map<string, Tool>,
          Map<string, Tool>,
        ];
        for (const id of new Set([...a.keys(), ...b.keys()])) {
          const [s, m, n, g] = [was.get(id), a.get(id), b.get(id), got.get(id)];
          if (!s) expect(g).toEqual(m ?? n);
          else if (m && n)
            for (const key of ['name', 'throatMm', 'path'] as const) {
              const touched = [m, n].filter((t) => !alike(t[key], s[key]));
              if (touched.length === 0) expect(g![key]).toEqual(s[key]);
              if (touched.length === 1) expect(g![key]).toEqual(touched[0]![key]);
              if (touched.length === 2 && !alike(m[key], n[key]))
                expect(clashes.map(({ within }) => within[1])).toContain(key);
            }
          // Taken out by one: gone where the other left it alone, told where not.
          else if (alike(s, m ?? n)) expect(g).toBeUndefined();
          else expect(clashes.some(({ within }) => within.length === 1)).toBe(true);
        }
        for (const tag of since.tags)
          expect(merged.tags.includes(tag)).toBe(one.tags.includes(tag) && two.tags.includes(tag));
        expect([`${one.mm} ${one.by}`, `${two.mm} ${two.by}`]).toContain(
          `${merged.mm} ${merged.by}`,
        );
      }
    }),
    { numRuns: 1000 },
  );
});

test('kept again upon what stands, one’s own stands where they clashed and nothing of the other is lost', () => {
  fc.assert(
    fc.property(record, edits, edits, (since, firsts, seconds) => {
      const [one, two] = [done(since, firsts, 'm'), done(since, seconds, 'n')];
      const told = merge(since, one, two);
      const again = merge(two, told.merged, two);
      expect(again).toEqual({ merged: told.merged, clashes: [] });
    }),
  );
});

test('an item put in stays where it was put; an order that only one changed is theirs, two orders clash', () => {
  const of = (ids: string) => ({
    tools: [...ids].map((id) => ({ id, name: id, throatMm: 0, path: [] as number[] })),
  });
  const rules = { lists: { tools: ['id'] } } as const;
  const ids = ({ merged }: { merged: { tools: Tool[] } }) =>
    merged.tools.map(({ id }) => id).join('');
  const put = (since: string, mine: string, now: string) =>
    mergedRecord(of(since), of(mine), of(now), rules);
  expect(ids(put('abc', 'axbc', 'abyc'))).toBe('axbyc');
  expect(ids(put('abc', 'abcm', 'abcn'))).toBe('abcnm');
  expect(ids(put('abc', 'cba', 'abnc'))).toBe('ncba');
  expect(ids(put('abc', 'abnc', 'cba'))).toBe('ncba');
  expect(put('abc', 'cba', 'bac').clashes).toMatchObject([{ field: 'tools', within: ['order'] }]);
});

test('a list without a rule is one value: two who move its points are told, and get no third line', () => {
  const line = (x: number) => ({
    points: [
      [0, 0],
      [x, 1],
    ],
  });
  expect(mergedRecord(line(1), line(2), line(3)).clashes).toEqual([
    { field: 'points', within: [], here: line(2).points, there: line(3).points },
  ]);
});

test('the order in which a database gives back the fields of an item is no difference', () => {
  const strips = (legs: number[]) =>
    legs.map((legMm) => ({ metal: 'dc01', legMm, sheet: { mm: 1, by: 'mm' } }));
  const kept = (legs: number[]) =>
    legs.map((legMm) => ({ sheet: { by: 'mm', mm: 1 }, legMm, metal: 'dc01' }));
  expect(
    mergedRecord(
      { strips: strips([1, 2]) },
      { strips: strips([2, 3]) },
      { strips: kept([1, 2, 4]) },
      { lists: { strips: 'set' } },
    ),
  ).toEqual({ merged: { strips: [...kept([2, 4]), ...strips([3])] }, clashes: [] });
});

test('items that cannot be told apart are not merged item by item: told, nothing doubled', () => {
  const twice = {
    tools: [
      { id: 'a', n: 1 },
      { id: 'a', n: 2 },
    ],
  };
  const found = mergedRecord(
    twice,
    { tools: [{ id: 'a', n: 3 }] },
    { tools: [{ id: 'a', n: 1 }] },
    {
      lists: { tools: ['id'] },
    },
  );
  expect(found.clashes).toMatchObject([{ field: 'tools', within: [] }]);
});
