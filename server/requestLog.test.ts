import fc from 'fast-check';
import { routeOf } from './requestLog';

test('an address in the log names its kind: whose it was is not in it, nor more than 200 signs', () => {
  fc.assert(
    fc.property(fc.uuid(), fc.uuid(), fc.string(), (piece, other, rest) => {
      const route = routeOf(`/pieces/${piece}/card/beside/${other.toUpperCase()}/${rest}`);
      expect(route).not.toContain(piece);
      expect(route.toLowerCase()).not.toContain(other);
      expect(route.startsWith('/pieces/:id/card/beside/:id/')).toBe(true);
      expect(route.length).toBeLessThanOrEqual(200);
    }),
  );
});
