import fc from 'fast-check';
import { JobFileScanner } from './jobFileParts';

/**
 * The file put together again from its parts, cut into chunks of any lengths; null where it is
 * none.
 */
function parted(text: string, cuts: readonly number[]): unknown {
  const scanner = new JobFileScanner();
  const whole: Record<string, unknown> = {};
  const at = [
    0,
    ...[...cuts].map((cut) => cut % (text.length + 1)).sort((a, b) => a - b),
    text.length,
  ];
  try {
    const parts = at.slice(1).flatMap((to, i) => scanner.take(text.slice(at[i], to)));
    scanner.end();
    for (const part of parts) {
      // As JSON.parse keeps it: a member of its own, whatever it is called.
      const put = (value: unknown) =>
        Object.defineProperty(whole, part.member, {
          value,
          enumerable: true,
          configurable: true,
          writable: true,
        });
      if ('text' in part) put(JSON.parse(part.text));
      else
        put([
          ...((Object.hasOwn(whole, 'pieces') ? whole.pieces : []) as unknown[]),
          JSON.parse(part.piece),
        ]);
    }
  } catch (error) {
    if (error instanceof SyntaxError) return null;
    throw error;
  }
  return whole;
}
const parsed = (text: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
};
const cuts = fc.array(fc.nat(100_000), { maxLength: 12 });
const spaced = fc.constantFrom(undefined, 1, 2, '\t', '\r\n ');

test('a file in parts is the file, wherever the chunks are cut and however it is spaced', () => {
  const file = fc
    .record({
      pieces: fc.array(fc.jsonValue({ maxDepth: 3 }), { minLength: 1 }),
      job: fc.jsonValue(),
      version: fc.nat(),
    })
    .chain((members) =>
      fc.dictionary(fc.string(), fc.jsonValue()).map((more) => ({ ...more, ...members })),
    );
  fc.assert(
    fc.property(file, spaced, cuts, (given, space, at) => {
      const text = JSON.stringify(given, null, space);
      expect(parted(text, at)).toEqual(JSON.parse(text));
    }),
  );
});

test('a damaged file is none: what JSON does not read is not read in parts either', () => {
  const file = JSON.stringify({
    format: 'x',
    pieces: [{ a: [1, { b: '}]"\\' }] }, 2, 'three'],
    job: { name: 'n' },
  });
  const damage = fc.record({
    at: fc.nat(file.length - 1),
    gone: fc.nat(3),
    put: fc.constantFrom('', '"', '}', ']', '{', '[', ',', ':', '\\', '1', ' '),
  });
  fc.assert(
    fc.property(fc.array(damage, { minLength: 1, maxLength: 3 }), cuts, (all, at) => {
      const text = all.reduce((t, d) => t.slice(0, d.at) + d.put + t.slice(d.at + d.gone), file);
      const whole = parsed(text);
      const mine = parted(text, at);
      // A list of pieces twice, or nothing like an object, is refused here though JSON has a rule
      // for it.
      const odd =
        whole === null ||
        typeof whole !== 'object' ||
        Array.isArray(whole) ||
        /pieces.*pieces/.test(text);
      if (odd) return expect(whole === null ? mine : null).toBeNull();
      // No pieces leave no member of that name.
      const { pieces, ...rest } = whole as { pieces?: unknown };
      expect(mine).toEqual(Array.isArray(pieces) && pieces.length === 0 ? rest : whole);
    }),
    { numRuns: 3000 },
  );
});
