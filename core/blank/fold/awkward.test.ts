import fc from 'fast-check';
import type { CardConvention } from '../../card/kinds';
import { mirrored } from '../../card/mirror';
import type { Joint } from '../../card/pattern';
import { toDxf } from '../../format/dxf';
import type { Vec } from '../../measure/vector';
import { layersOfBlank } from '../../sheet/layers';
import { scribeTable } from '../scribe';
import type { Awkward } from './awkward.arbitrary';
import { awkwardCard } from './awkward.arbitrary';
import { develop } from './develop';
import { PlainCardSchema, fromPlain } from './plain';
import type { Practice } from './practice';

const blankOf = ({ doc, sheet, practice }: Awkward) => develop(doc, sheet, practice);
/** What is compared of two blanks, or why there is none. */
const summary = (found: ReturnType<typeof blankOf>) =>
  found.ok
    ? [
        found.development.size.areaMm2,
        found.development.size.widthMm,
        found.development.size.heightMm,
      ]
        .map((n) => n.toFixed(6))
        .join(' ')
    : 'none';

const reordered = (card: Awkward): Awkward => ({
  ...card,
  doc: { ...card.doc, folds: [...card.doc.folds].reverse() },
});
const turnedRound = (card: Awkward): Awkward => ({
  ...card,
  doc: {
    ...card.doc,
    folds: card.doc.folds.map((f) =>
      f.path.kind === 'between'
        ? { ...f, path: { ...f.path, from: f.path.to, to: f.path.from } }
        : f,
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
          const marks =
            row.from.kind === 'parallel'
              ? [row.from]
              : row.from.kind === 'marks'
                ? row.from.marks
                : [];
          for (const mark of marks) expect(letters).toContain(mark.letter);
        }
      }),
      { numRuns: 400 },
    );
  });
});

/** A card by points and fold lines, 1 mm sheet. */
const plate = (
  outline: Vec[],
  folds: [Vec, Vec, number?, CardConvention?][],
  relief: Practice['relief'],
  joints: Record<string, Joint> = {},
): Awkward => {
  const read = fromPlain(
    PlainCardSchema.parse({
      thicknessMm: 1,
      rule: { kind: 'din6935' },
      outline,
      folds: folds.map(([from, to, angleDeg = 90, made = 'outside-sharp']) => ({
        from,
        to,
        angleDeg,
        made,
        radiusMm: 1,
      })),
      relief,
    }),
  );
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  const { doc, sheet, practice } = read;
  const edges = doc.edges.map((edge) => ({ ...edge, joint: joints[edge.letter] ?? edge.joint }));
  return { doc: { ...doc, edges }, sheet, practice };
};
const L: Vec[] = [
  [0, 0],
  [100, 0],
  [100, 40],
  [60, 40],
  [60, 100],
  [0, 100],
];
const strip: Vec[] = [
  [0, 0],
  [100, 0],
  [100, 50],
  [0, 50],
];

describe('cards that once went wrong', () => {
  test('two folds that meet at a hollow corner have a blank, with a slot for each of the two slits', () => {
    const found = blankOf(
      plate(
        L,
        [
          [
            [100, 30],
            [60, 40],
          ],
          [
            [50, 100],
            [60, 40],
          ],
        ],
        'round',
      ),
    );
    if (!found.ok) throw new Error(JSON.stringify(found.problems));
    expect(found.development.reliefs).toHaveLength(2);
    expect(found.development.outline.some((p) => p.kind === 'relief')).toBe(true);
  });

  test.each([
    [
      'an L whose folds come near each other at the rim',
      plate(
        L,
        [
          [
            [80, 40],
            [50, 0],
          ],
          [
            [76, 40],
            [0, 0],
          ],
        ],
        'round',
      ),
    ],
    [
      'three folds from one place on a trimmed edge',
      plate(
        strip,
        [
          [
            [0, 10],
            [50, 0],
          ],
          [[50, 0], [0, 30], 90, 'inside-sharp'],
          [[50, 0], [100, 50], 45],
        ],
        'square',
        { D: { kind: 'free', trimMm: 22 } },
      ),
    ],
  ])('%s: the same blank in any order and turned over', (_, card) => {
    const { folds } = card.doc;
    const orders = folds.map((__, i) => [...folds.slice(i), ...folds.slice(0, i)]);
    const said = summary(blankOf(card));
    for (const order of [...orders, [...folds].reverse()]) {
      const other = { ...card, doc: { ...card.doc, folds: order } };
      expect(summary(blankOf(other))).toBe(said);
      expect(summary(blankOf(turnedOver(other)))).toBe(said);
    }
  });

  test('a slanted fold between two laps is scribed from edges that are there', () => {
    const lap: Joint = { kind: 'lap', widthMm: 12 };
    const found = blankOf(
      plate(
        strip,
        [
          [
            [100, 0],
            [0, 50],
          ],
        ],
        'round',
        { A: lap, D: lap },
      ),
    );
    if (!found.ok) throw new Error('no blank');
    for (const { from } of scribeTable(found.development).lines) {
      if (from.kind === 'marks')
        for (const m of from.marks) expect([m.letter, m.next].join('')).toMatch(/^[A-D]{2}$/);
    }
  });
});
