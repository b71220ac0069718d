import fc from 'fast-check';
import { CONVENTIONS } from '../../card/kinds';
import { spread } from '../../measure/spread.arbitrary';
import { bendAllowance } from './allowance';
import { developed } from './cardTree.arbitrary';
import { setbackFor } from './develop';

/**
 * How much a fold changes the blank for each way the card was made: the four closed forms, A in
 * radians (exact geometry of a cylinder of inside radius R in sheet T whose neutral line lies at R
 * + K·T).
 */
const closedForm = (
  made: (typeof CONVENTIONS)[number],
  a: number,
  r: number,
  t: number,
  k: number,
): number => {
  const ba = a * (r + k * t);
  const sharp = (radius: number) => (a <= Math.PI / 2 ? radius * Math.tan(a / 2) : radius);
  switch (made) {
    case 'outside-sharp':
      return ba - 2 * sharp(r + t);
    case 'inside-sharp':
      return ba - 2 * sharp(r);
    case 'outside-rolled':
      return -a * t * (1 - k);
    case 'inside-rolled':
      return a * k * t;
  }
};
const bend = fc.record({
  angleDeg: spread(1, 180),
  radiusMm: spread(0, 8),
  thicknessMm: spread(0.4, 3),
  k: spread(0, 0.5),
});

test('each way of making the card moves what lies beyond the fold by its closed form', () => {
  fc.assert(
    fc.property(
      bend,
      fc.constantFrom(...CONVENTIONS),
      ({ angleDeg, radiusMm, thicknessMm, k }, made) => {
        const d = developed({
          thicknessMm,
          rule: { kind: 'k', k },
          outline: [
            [0, 0],
            [120, 0],
            [120, 20],
            [0, 20],
          ],
          folds: [{ from: [50, 0], to: [50, 20], angleDeg, radiusMm, made }],
          base: [20, 10],
        });
        const expected = closedForm(made, (angleDeg * Math.PI) / 180, radiusMm, thicknessMm, k);
        expect(d.folds[0]!.shiftMm).toBeCloseTo(expected, 9);
        expect(d.size.widthMm).toBeCloseTo(120 + expected, 9);
        expect(d.size.differenceMm).toBeCloseTo(Math.abs(expected), 9);
      },
    ),
  );
});

test('a card on the outside loses, one rolled on the inside gains; and the ways agree where they must', () => {
  fc.assert(
    fc.property(bend, ({ k, ...b }) => {
      const found = bendAllowance(b, { kind: 'k', k });
      if (!found.ok) throw new Error('refused');
      const shift = (made: (typeof CONVENTIONS)[number]) =>
        found.allowanceMm - 2 * setbackFor(made, b, found);
      // Past square the sharp is given up for the tangent, and a wide round bend may then be longer
      // than both setbacks.
      if (b.angleDeg <= 90) expect(shift('outside-sharp')).toBeLessThan(1e-9);
      expect(shift('outside-rolled')).toBeLessThan(1e-9);
      expect(shift('inside-rolled')).toBeGreaterThan(-1e-9);
      // Rolled round, a card on the outside and one on the inside differ by one thickness round the
      // turn.
      expect(shift('inside-rolled') - shift('outside-rolled')).toBeCloseTo(
        (b.angleDeg * Math.PI * b.thicknessMm) / 180,
        9,
      );
      // A gentle bend is creased and rolled alike: tan(x) and x part only in the third order.
      if (b.angleDeg < 5) {
        expect(Math.abs(shift('outside-sharp') - shift('outside-rolled'))).toBeLessThan(
          1e-4 * (b.radiusMm + b.thicknessMm),
        );
      }
    }),
  );
});

test('two folds one after the other add up, in whatever way each was made', () => {
  const way = fc.constantFrom(...CONVENTIONS);
  fc.assert(
    fc.property(bend, bend, way, way, (one, two, first, second) => {
      const thicknessMm = one.thicknessMm;
      const d = developed({
        thicknessMm,
        rule: { kind: 'k', k: one.k },
        outline: [
          [0, 0],
          [200, 0],
          [200, 20],
          [0, 20],
        ],
        folds: [
          {
            from: [60, 0],
            to: [60, 20],
            angleDeg: one.angleDeg,
            radiusMm: one.radiusMm,
            made: first,
          },
          {
            from: [140, 0],
            to: [140, 20],
            angleDeg: two.angleDeg,
            radiusMm: two.radiusMm,
            made: second,
          },
        ],
        base: [20, 10],
      });
      const rad = Math.PI / 180;
      const expected =
        closedForm(first, one.angleDeg * rad, one.radiusMm, thicknessMm, one.k) +
        closedForm(second, two.angleDeg * rad, two.radiusMm, thicknessMm, one.k);
      expect(d.size.widthMm).toBeCloseTo(200 + expected, 9);
    }),
  );
});
