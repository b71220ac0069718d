import fc from 'fast-check';
import { cut } from './cut';
import { storable, text } from './text';

test('what is called storable comes back from UTF-8 as it went in, and holds no NUL; what is not, does not', () => {
  const anything = fc.oneof(
    fc.string({ unit: 'binary' }),
    fc
      .array(fc.constantFrom('a', '\0', '\ud83d', '\udd27', '\u00e9', '\u{1f527}'))
      .map((parts) => parts.join('')),
  );
  fc.assert(
    fc.property(anything, (given) => {
      const back = Buffer.from(given, 'utf8').toString('utf8');
      expect(storable(given)).toBe(back === given && !given.includes('\0'));
      expect(text(1000).safeParse(given).success).toBe(storable(given));
    }),
    { numRuns: 400 },
  );
});

test('a text that is cut stays storable, is no longer than asked, and loses at most half a sign more', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), fc.nat(20), (given, most) => {
      const short = cut(given, most);
      expect(storable(short)).toBe(true);
      expect(given.startsWith(short)).toBe(true);
      expect(short.length).toBeLessThanOrEqual(most);
      expect(short.length).toBeGreaterThanOrEqual(Math.min(given.length, most) - 1);
    }),
    { numRuns: 400 },
  );
});
