import fc from 'fast-check';
import { z } from 'zod';
import { eachOnce, withOwnIds } from './eachOnce';

const item = fc.record({
  id: fc.constantFrom('a', 'b', 'a.2', 'a.3', 'twenty-characters-id', 'twenty-characters-idXYZ'),
  n: fc.nat(),
});

test('doubled ids get one of their own: all items stay, in their order, the first of each under its own', () => {
  fc.assert(
    fc.property(fc.array(item, { maxLength: 12 }), (items) => {
      const mended = withOwnIds(items) as typeof items;
      expect(mended.map(({ n }) => n)).toEqual(items.map(({ n }) => n));
      expect(new Set(mended.map(({ id }) => id)).size).toBe(items.length);
      for (const [i, { id }] of items.entries())
        if (items.findIndex((one) => one.id === id) === i) expect(mended[i]!.id).toBe(id);
      for (const { id } of mended) expect(id.length).toBeLessThanOrEqual(24);
      const schema = eachOnce(z.array(z.object({ id: z.string(), n: z.number() })));
      expect(schema.safeParse(mended).success).toBe(true);
      expect(schema.safeParse(items).success).toBe(
        new Set(items.map(({ id }) => id)).size === items.length,
      );
      expect(withOwnIds(mended)).toEqual(mended);
    }),
  );
});

test('what is no list comes back as it is', () => {
  for (const odd of [null, undefined, 'a', 3, { id: 'a' }]) expect(withOwnIds(odd)).toBe(odd);
});
