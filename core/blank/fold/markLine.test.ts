import fc from 'fast-check';
import { labelsOfBlank, layersOfBlank } from '../../sheet/layers';
import { outlineOf } from '../../card/outline';
import { inside } from '../../measure/path';
import { nearest } from '../../measure/segment';
import { spread } from '../../measure/spread.arbitrary';
import type { Vec } from '../../measure/vector';
import { distance, mix } from '../../measure/vector';
import { cardOf, cardTree, given } from './cardTree.arbitrary';
import { develop } from './develop';

const place = fc.tuple(spread(-60, 60), spread(-60, 60));

test('a line marked across a card lies on the blank where its places lie, without a break but where a fold lets metal in', () => {
  fc.assert(
    fc.property(cardTree, place, place, (t, a, b) => {
      fc.pre(distance(a, b) > 5);
      const { doc, sheet, practice } = given(cardOf(t));
      const marked = {
        ...doc,
        marks: [
          {
            id: 'm',
            name: 'waist',
            from: [...a] as [number, number],
            to: [...b] as [number, number],
          },
        ],
      };
      const found = develop(marked, sheet, practice);
      if (!found.ok) return;
      const { lines, fromCard } = found.development;
      const parts = lines.filter(({ role }) => role === 'mark').map(({ path }) => path);
      const path = parts.flat();
      for (let k = 0; k <= 60; k++) {
        const on = mix(a, b, k / 60) as Vec;
        if (!inside(on, outlineOf(doc).polygon())) continue;
        const p = fromCard(on);
        expect(Math.min(...path.map((s) => nearest(s, p).distance))).toBeLessThan(1e-4);
      }
      for (const part of parts)
        part.forEach((s, i) => i > 0 && expect(s.a).toEqual(part[i - 1]!.b));
      expect(path.length).toBeLessThan(7 * 6 + 2);
      expect(layersOfBlank(found.development).scribe).toEqual(expect.arrayContaining(path));
      if (path.length > 0)
        expect(labelsOfBlank(found.development, () => '')).toContainEqual(
          expect.objectContaining({ text: 'waist' }),
        );
    }),
    { numRuns: 60 },
  );
});
