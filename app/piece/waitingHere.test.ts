import fc from 'fast-check';
import { withWaiting } from './waitingHere';

test('what waits comes after what the server has, once, and no more once that has it', () => {
  const ids = fc.uniqueArray(
    fc.integer({ min: 0, max: 30 }).map((i) => ({ id: `r${i}` })),
    { selector: ({ id }) => id },
  );
  fc.assert(
    fc.property(ids, ids, (there, here) => {
      const both = withWaiting(there, here);
      expect(both.slice(0, there.length)).toEqual(there);
      expect(both.slice(there.length)).toEqual(
        here.filter(({ id }) => !there.some((one) => one.id === id)),
      );
      expect(new Set(both.map(({ id }) => id)).size).toBe(both.length);
      // With nothing waiting it is the very list: nothing that hangs on it is reckoned anew.
      expect(withWaiting(there, [])).toBe(there);
    }),
  );
});
