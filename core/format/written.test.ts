import fc from 'fast-check';
import { written } from './written';

test('whatever JSON can say is read back as it was, and no line that could be shorter is longer than a hundred', () => {
  fc.assert(
    fc.property(fc.jsonValue({ maxDepth: 5 }), fc.constantFrom('', '    '), (value, indent) => {
      const text = written(value, indent);
      const plain = JSON.parse(JSON.stringify(value)) as unknown;
      expect(JSON.parse(text)).toEqual(plain);
      expect(written(JSON.parse(text), indent)).toBe(text);
      for (const line of text.split('\n')) {
        const said = line.trimStart();
        // Longer are only a text by itself and what stands before it.
        if (said.length > 101)
          expect(said.replaceAll(/"(?:[^"\\]|\\.)*"/g, '').length).toBeLessThanOrEqual(101);
      }
    }),
    { numRuns: 300 },
  );
});

test('what JSON has no word for goes as it goes by JSON.stringify', () => {
  for (const value of [{ a: undefined, b: 1 }, [undefined, 1], {}, [], [[]], NaN, 'a\nb'])
    expect(JSON.parse(written(value))).toEqual(JSON.parse(JSON.stringify(value)));
});

test('a line of places takes a third of what two spaces an indent take', () => {
  const places = Array.from({ length: 500 }, (_, i) =>
    [i * 1.1, 300 - i].map((x) => Math.round(x * 10) / 10),
  );
  expect(written({ places }).length).toBeLessThan(JSON.stringify({ places }, null, 2).length / 2.5);
});
