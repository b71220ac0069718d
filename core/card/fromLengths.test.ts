import fc from 'fast-check';
import { distance } from '../measure/vector';
import type { Vec } from '../measure/vector';
import { checkCard } from './check';
import { cardFromLengths } from './fromLengths';
import { countingIds } from './kinds';
import { byLetter, edgeLength, letterAt, outlineOf } from './outline';
import { readPattern } from './read';

const edgesOf = (lengthsMm: readonly number[]) =>
  lengthsMm.map((lengthMm, i) => ({
    id: `e${i}`,
    letter: letterAt(i),
    joint: { kind: 'free' as const, trimMm: 0 },
    lengthMm,
  }));
const made = (lengthsMm: readonly number[]) => {
  const found = cardFromLengths(edgesOf(lengthsMm), countingIds());
  if (!found.ok) throw new Error(JSON.stringify(found.problems));
  return found.doc;
};
const cornersOf = (lengthsMm: readonly number[]): Vec[] =>
  outlineOf(made(lengthsMm)).path.map(({ a }) => a);
/** Shoelace. */
const areaOf = (p: readonly Vec[]): number =>
  p.reduce((sum, [x, y], i) => {
    const [nx, ny] = p[(i + 1) % p.length]!;
    return sum + (x * ny - nx * y) / 2;
  }, 0);

const lengths = (n: { minLength: number; maxLength: number }) =>
  fc
    .array(fc.double({ min: 1, max: 5000, noNaN: true }), n)
    .filter((all) => 2 * Math.max(...all) < all.reduce((sum, l) => sum + l, 0) * 0.998);

test('whatever the lengths, the outline has them, in their order, clockwise, and reads back', () => {
  fc.assert(
    fc.property(lengths({ minLength: 3, maxLength: 14 }), (all) => {
      const doc = made(all);
      const longest = Math.max(...all);
      byLetter(doc.edges).forEach((edge, i) => {
        expect(edge.id).toBe(`e${i}`);
        expect(Math.abs(edgeLength(doc, edge) - all[i]!)).toBeLessThan(1e-8 * longest);
      });
      // Counter-clockwise as every outline is, so its letters run clockwise.
      expect(areaOf(outlineOf(doc).path.map(({ a }) => a))).toBeGreaterThan(0);
      expect([...doc.edges].reverse().map(({ letter }) => letter)).toEqual(
        all.map((_, i) => letterAt(i)),
      );
      expect(readPattern(JSON.parse(JSON.stringify(doc)))).toEqual({ ok: true, doc });
      expect(checkCard(doc).map(({ code }) => code)).toEqual(['outline-presumed']);
      expect(Math.min(...doc.corners.map(({ x }) => x))).toBeCloseTo(0, 9);
    }),
    { numRuns: 500 },
  );
});

test('its corners lie on one circle, and its area is what Heron and Brahmagupta give', () => {
  fc.assert(
    fc.property(lengths({ minLength: 3, maxLength: 4 }), (all) => {
      const s = all.reduce((sum, l) => sum + l, 0) / 2;
      // Heron for three sides; Brahmagupta for four on a circle, of which it is the case d = 0.
      const [a, b, c, d = 0] = all as [number, number, number, number?];
      const area = Math.sqrt((s - a) * (s - b) * (s - c) * (s - d));
      expect(areaOf(cornersOf(all)) / area).toBeCloseTo(1, 5);
    }),
    { numRuns: 500 },
  );
  fc.assert(
    fc.property(lengths({ minLength: 5, maxLength: 9 }), (all) => {
      const corners = cornersOf(all);
      // Ptolemy: of any four in order, the product of the diagonals is the sum of those of the sides.
      const [p, q, r, t] = [0, 1, 2, 4].map((i) => corners[i]!) as [Vec, Vec, Vec, Vec];
      const left = distance(p, r) * distance(q, t);
      const right = distance(p, q) * distance(r, t) + distance(q, r) * distance(p, t);
      expect(left / right).toBeCloseTo(1, 6);
    }),
    { numRuns: 300 },
  );
});

test('opposite sides alike are a rectangle, the longest level, the first on the left or on top', () => {
  for (const [a, b] of [
    [300, 800],
    [800, 300],
    [120, 120],
  ] as const) {
    const doc = made([a, b, a, b]);
    expect(areaOf(outlineOf(doc).path.map(({ a: corner }) => corner))).toBeCloseTo(a * b, 6);
    const height = Math.max(...doc.corners.map(({ y }) => y));
    expect(height).toBeCloseTo(Math.min(a, b), 6);
    const first = outlineOf(doc).path[doc.edges.findIndex(({ id }) => id === 'e0')]!;
    if (a < b) expect([first.a[0], first.b[0]].map(Math.round)).toEqual([0, 0]);
    if (a > b) expect([first.a[1], first.b[1]].map(Math.round)).toEqual([b, b]);
  }
  // A regular hexagon of 100: 3√3/2 · s².
  expect(areaOf(cornersOf([100, 100, 100, 100, 100, 100]))).toBeCloseTo(
    1.5 * Math.sqrt(3) * 1e4,
    4,
  );
});

test('what cannot go round is told by the letters it has', () => {
  const told = (all: number[]) => {
    const found = cardFromLengths(edgesOf(all), countingIds());
    return found.ok ? 'ok' : found.problems.map(({ code, about }) => [code, about]);
  };
  expect(told([400, 300])).toEqual([['lengths-few', []]]);
  expect(told([400, 0, 300])).toEqual([['lengths-none', ['B']]]);
  expect(told([100, 300, 200])).toEqual([['lengths-open', ['B']]]);
  expect(told([100, 299, 200])).toBe('ok');
});
