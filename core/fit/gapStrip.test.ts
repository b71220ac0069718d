import fc from 'fast-check';
import { polygonArea } from '../measure/path';
import { spread } from '../measure/spread.arbitrary';
import type { GapReading } from './gapStrip';
import { LEAST_STRIP_MM, gapStrip } from './gapStrip';

const readings = fc
  .array(fc.record({ step: spread(1, 200), gapMm: spread(-1, 25) }), {
    minLength: 2,
    maxLength: 12,
  })
  .map((all): GapReading[] => {
    let atMm = 0;
    return all.map(({ step, gapMm }) => ({ atMm: (atMm += step), gapMm }));
  });

test('the strip fills what the readings and the cuts leave but for the welds, and is nowhere too narrow', () => {
  fc.assert(
    fc.property(
      readings,
      fc.tuple(spread(0, 20), spread(0, 20)),
      spread(0, 2),
      (given, cut, weldGapMm) => {
        const found = gapStrip(given, cut, LEAST_STRIP_MM, weldGapMm);
        if (!found.ok) throw new Error(found.problems[0]!.code);
        const { outline, widthsMm, cutBackMm } = found;
        expect(Math.min(...widthsMm)).toBeGreaterThan(LEAST_STRIP_MM - 1e-9);
        const [own, other] = cutBackMm.map((mm, i) => mm - cut[i]!);
        expect(own).toBeCloseTo(other!, 9);
        given.forEach(({ gapMm }, i) =>
          expect(widthsMm[i]! + 2 * weldGapMm).toBeCloseTo(gapMm + cutBackMm[0] + cutBackMm[1], 9),
        );
        // Cut back no further than it takes.
        if (own! > 1e-9) expect(Math.min(...widthsMm)).toBeCloseTo(LEAST_STRIP_MM, 9);
        const byTrapezoids = given
          .slice(1)
          .reduce(
            (sum, { atMm }, i) =>
              sum + ((atMm - given[i]!.atMm) * (widthsMm[i]! + widthsMm[i + 1]!)) / 2,
            0,
          );
        expect(polygonArea(outline)).toBeCloseTo(byTrapezoids, 6);
      },
    ),
  );
});

test('what cannot be a strip is told', () => {
  const code = (given: GapReading[], cut: [number, number] = [0, 0]) => {
    const found = gapStrip(given, cut);
    return found.ok ? 'made' : found.problems[0]!.code;
  };
  const two = [
    { atMm: 0, gapMm: 6 },
    { atMm: 100, gapMm: 9 },
  ];
  expect(code(two)).toBe('made');
  expect(code(two.slice(1))).toBe('strip-readings');
  expect(code([...two].reverse())).toBe('strip-readings');
  expect(code([two[0]!, { atMm: 100, gapMm: Number.NaN }])).toBe('strip-readings');
  expect(code(two, [-1, 0])).toBe('strip-cut-back');
});
