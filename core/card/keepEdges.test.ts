import fc from 'fast-check';
import { cardFromLengths } from './fromLengths';
import { emptyPattern } from './emptyPattern';
import { keptEdges, likelyPairs } from './keepEdges';
import { countingIds } from './kinds';
import { outlineFromPoints } from './legs';
import { byLetter, edgeLength, letterAt, outlineOf, patternParts } from './outline';
import type { PatternDoc } from './pattern';
import { readPattern } from './read';

const named = (lengthsMm: readonly number[]): PatternDoc => {
  const made = cardFromLengths(
    lengthsMm.map((lengthMm, i) => ({
      ...{ id: `n${i}`, letter: letterAt(i), lengthMm },
      joint: { kind: 'butt' as const, trimMm: i },
    })),
    countingIds('c'),
  );
  if (!made.ok) throw new Error('not round');
  return made.doc;
};
/** The same outline drawn afresh, begun at another corner. */
function drawnFrom(doc: PatternDoc, begin: number): PatternDoc {
  const { path } = outlineOf(doc);
  const points = path.map((_, i) => path[(i + begin) % path.length]!.a);
  const built = outlineFromPoints(points);
  if (!built.ok) throw new Error('not closed');
  return { ...emptyPattern(), ...patternParts(built.path, countingIds('d')) };
}
const lengths = fc
  .array(fc.integer({ min: 50, max: 900 }), { minLength: 3, maxLength: 9 })
  .filter((all) => 2.1 * Math.max(...all) < all.reduce((sum, l) => sum + l, 0));

test('a card drawn to the lengths that were named has its edges back, wherever it was begun', () => {
  fc.assert(
    fc.property(lengths, fc.nat({ max: 8 }), (all, begin) => {
      const before = named(all);
      const drawn = drawnFrom(before, begin % all.length);
      const kept = keptEdges(drawn, before, likelyPairs(before, drawn));
      const told = (doc: PatternDoc) =>
        byLetter(doc.edges).map((edge) => [edge.id, edge.letter, edge.joint]);
      expect(told(kept)).toEqual(told(before));
      byLetter(kept.edges).forEach((edge, i) =>
        expect(edgeLength(kept, edge)).toBeCloseTo(all[i]!, 6),
      );
      expect(readPattern(JSON.parse(JSON.stringify(kept)))).toEqual({ ok: true, doc: kept });
      expect(kept.source).toBeUndefined();
    }),
    { numRuns: 300 },
  );
});

test('however edges are paired, none is lost, each stands once, and letters are apart', () => {
  fc.assert(
    fc.property(lengths, lengths, fc.array(fc.nat({ max: 20 })), (all, others, to) => {
      const before = named(all);
      const drawn = drawnFrom(named(others), 0);
      const pairs = new Map(
        before.edges.map((edge, i) => [
          edge.id,
          drawn.edges[(to[i] ?? i) % drawn.edges.length]!.id,
        ]),
      );
      for (const paired of [pairs, likelyPairs(before, drawn)]) {
        const kept = keptEdges(drawn, before, paired);
        const ids = kept.edges.flatMap(({ id, was = [] }) => [id, ...was.map((one) => one.id)]);
        expect(new Set(ids).size).toBe(ids.length);
        for (const { id } of before.edges) expect(ids).toContain(id);
        expect(kept.edges).toHaveLength(others.length);
        const letters = kept.edges.map(({ letter }) => letter);
        expect(new Set(letters).size).toBe(letters.length);
        expect(letters).not.toContain('');
        expect(readPattern(JSON.parse(JSON.stringify(kept))).ok).toBe(true);
      }
    }),
    { numRuns: 300 },
  );
});
