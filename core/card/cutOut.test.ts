import fc from 'fast-check';
import { spread } from '../measure/spread.arbitrary';
import { line } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { cutOutOf } from './cutOut';
import { holePolygon } from './holeForm';

/** Within a tenth of a degree, directions `every` degrees apart being one. */
const alike = (a: number, b: number, every: number) =>
  Math.abs(((((a - b) % every) + 1.5 * every) % every) - every / 2);

test('a slot, a square or a round hole drawn anywhere as bits, some of them off a little, is told for what it is', () => {
  const form = fc.constantFrom('round', 'slot', 'square');
  fc.assert(
    fc.property(
      form,
      spread(5, 60),
      spread(1.3, 6),
      spread(-179, 179),
      spread(-900, 900),
      fc.array(spread(-0.08, 0.08), { minLength: 7, maxLength: 7 }),
      (kind, d, times, turnDeg, x, off) => {
        const shape =
          kind === 'slot'
            ? ({ kind, longMm: d * times, turnDeg } as const)
            : kind === 'square'
              ? ({ kind, turnDeg } as const)
              : undefined;
        const hole = { diameterMm: d, form: shape };
        const around = holePolygon([x, -x / 3], hole, 0.05).map(([px, py], i): Vec => [
          px + off[i % 7]!,
          py + off[(i + 3) % 7]!,
        ]);
        const found = cutOutOf(
          around.map((a, i) => line(a, around[(i + 1) % around.length]!)),
          0.4,
        )!;
        expect(found.form?.kind ?? 'round').toBe(kind);
        expect(Math.abs(found.diameterMm - d)).toBeLessThan(0.35);
        expect(Math.hypot(found.at[0] - x, found.at[1] + x / 3)).toBeLessThan(0.25);
        if (found.form?.kind === 'slot')
          expect(Math.abs(found.form.longMm - d * times)).toBeLessThan(0.5);
        if (found.form)
          expect(alike(found.form.turnDeg, turnDeg, kind === 'slot' ? 180 : 90)).toBeLessThan(3);
      },
    ),
  );
});

test('what is none of them is not made one', () => {
  const around = (all: Vec[]) => all.map((a, i) => line(a, all[(i + 1) % all.length]!));
  expect(
    cutOutOf(
      around([
        [0, 0],
        [40, 0],
        [40, 20],
        [0, 20],
      ]),
      0.5,
    ),
  ).toBeNull();
  expect(
    cutOutOf(
      around([
        [0, 0],
        [40, 0],
        [0, 40],
      ]),
      0.5,
    ),
  ).toBeNull();
  expect(
    cutOutOf(
      around([
        [0, 0],
        [0, 40],
        [40, 0],
      ]),
      0.5,
    ),
  ).toBeNull();
});
