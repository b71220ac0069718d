import fc from 'fast-check';
import { facesOf } from '../../card/faces';
import { chordOf } from '../../card/foldPlace';
import { outlineOf } from '../../card/outline';
import { awkwardCard } from './awkward.arbitrary';
import { develop } from './develop';

/** Freezes a value and all in it, functions left alone: whoever then writes to it throws. */
function frozen<T>(value: T): T {
  if (
    typeof value !== 'object' ||
    value === null ||
    Object.isFrozen(value) ||
    ArrayBuffer.isView(value)
  )
    return value;
  Object.freeze(value);
  for (const inner of Object.values(value)) frozen(inner);
  return value;
}

const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value));

test('what is remembered of a card is never changed by who was given it: asked again, and of a copy, the same comes', () => {
  fc.assert(
    fc.property(awkwardCard, ({ doc, sheet, practice }) => {
      const asked = () => [
        outlineOf(doc).path,
        facesOf(doc),
        doc.folds.map((f) => chordOf(doc, f)),
        develop(doc, sheet, practice),
      ];
      frozen(doc);
      const first = plain(frozen(asked()));
      expect(plain(asked())).toEqual(first);
      // A copy is a card that nothing is remembered of.
      const copy = structuredClone(doc);
      expect(
        plain([
          outlineOf(copy).path,
          facesOf(copy),
          copy.folds.map((f) => chordOf(copy, f)),
          develop(copy, sheet, practice),
        ]),
      ).toEqual(first);
    }),
    { numRuns: 60 },
  );
});

test('a card that differs in one corner is another card, though its folds are the same objects', () => {
  fc.assert(
    fc.property(awkwardCard, ({ doc }) => {
      const before = doc.folds.map((f) => plain(chordOf(doc, f)));
      const [first, ...rest] = doc.corners;
      const moved = { ...doc, corners: [{ ...first!, x: first!.x - 7, y: first!.y - 3 }, ...rest] };
      const of = (card: typeof doc) => card.folds.map((f) => plain(chordOf(card, f)));
      expect(of(moved)).toEqual(of(structuredClone(moved)));
      expect(of(doc)).toEqual(before);
    }),
    { numRuns: 60 },
  );
});
