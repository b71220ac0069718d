import fc from 'fast-check';
import { mirrored } from '../../card/mirror';
import { layersOfBlank } from '../../sheet/layers';
import { toDxf } from '../../format/dxf';
import type { Awkward } from './awkward.arbitrary';
import { awkwardCard } from './awkward.arbitrary';
import { develop } from './develop';
import { scribeTable } from '../scribe';

const blankOf = ({ doc, sheet, practice }: Awkward) => develop(doc, sheet, practice);
/** What is compared of two blanks, or why there is none. */
const summary = (found: ReturnType<typeof blankOf>) =>
  found.ok
    ? [found.development.size.areaMm2, found.development.size.widthMm, found.development.size.heightMm].map((n) => n.toFixed(6)).join(' ')
    : 'none'; // prettier-ignore

const reordered = (card: Awkward): Awkward => ({
  ...card,
  doc: { ...card.doc, folds: [...card.doc.folds].reverse() },
});
const turnedRound = (card: Awkward): Awkward => ({
  ...card,
  doc: {
    ...card.doc,
    folds: card.doc.folds.map((f) =>
      f.path.kind === 'between' ? { ...f, path: { ...f.path, from: f.path.to, to: f.path.from } } : f,
    ),
  },
});
const turnedOver = (card: Awkward): Awkward => ({ ...card, doc: mirrored(card.doc) });

describe('cards as awkward as they come', () => {
  let made = 0;
  test('the order of the folds, the way each was drawn, and turning the card over change nothing', () => {
    fc.assert(
      fc.property(awkwardCard, (card) => {
        const found = blankOf(card);
        if (found.ok) made++;
        for (const other of [reordered(card), turnedRound(card), turnedOver(card)]) {
          expect(summary(blankOf(other))).toBe(summary(found));
        }
      }),
      { numRuns: 400 },
    );
    // Enough of them have a blank for the rest to mean something.
    expect(made).toBeGreaterThan(100);
  });

  test('every figure of a blank is a figure, and every line is measured from something that is there', () => {
    fc.assert(
      fc.property(awkwardCard, (card) => {
        const found = blankOf(card);
        if (!found.ok) {
          for (const p of found.problems) expect(p.severity).toBe('stop');
          return;
        }
        const { development } = found;
        expect(toDxf(layersOfBlank(development))).not.toMatch(/NaN|Infinity/);
        const letters = new Set(development.edges.map((e) => e.letter));
        for (const row of scribeTable(development).lines) {
          const marks = row.from.kind === 'parallel' ? [row.from] : row.from.kind === 'marks' ? row.from.marks : [];
          for (const mark of marks) expect(letters).toContain(mark.letter);
        }
      }),
      { numRuns: 400 },
    );
  });
});
