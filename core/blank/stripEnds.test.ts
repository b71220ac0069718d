import fc from 'fast-check';
import { radians } from '../measure/angle';
import { spread } from '../measure/spread.arbitrary';
import type { StripTurn } from './stripEnds';
import { stripProfile, touchingCut } from './stripEnds';

type Vec3 = [number, number, number];
const combine = (...terms: [number, Vec3][]): Vec3 =>
  terms.reduce<Vec3>(
    (sum, [k, v]) => [sum[0] + k * v[0], sum[1] + k * v[1], sum[2] + k * v[2]],
    [0, 0, 0],
  );
const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const UP: Vec3 = [0, 0, 1];

test('two strips turned up at a corner: neither end reaches into the sheet of the other, and one of their inner edges touches', () => {
  fc.assert(
    fc.property(
      spread(20, 130),
      spread(20, 130),
      spread(20, 150),
      spread(0.5, 2),
      spread(0.5, 3),
      (first, second, turnDeg, thicknessMm, deductionMm) => {
        const psi = radians(turnDeg);
        const turn = (angleDeg: number): StripTurn => ({
          thicknessMm,
          angleDeg,
          deductionMm,
          toward: 'face',
        });
        // The first edge runs along x to the corner at the origin, outward of it is −y; the second
        // leaves it turned by psi.
        const edges = [
          { angleDeg: first, back: [-1, 0, 0] as Vec3, out: [0, -1, 0] as Vec3 },
          {
            angleDeg: second,
            back: [Math.cos(psi), Math.sin(psi), 0] as Vec3,
            out: [Math.sin(psi), -Math.cos(psi), 0] as Vec3,
          },
        ].map((edge) => {
          const a = radians(edge.angleDeg);
          return {
            ...edge,
            rise: combine([Math.cos(a), edge.out], [Math.sin(a), UP]),
            inward: combine([-Math.sin(a), edge.out], [Math.cos(a), UP]),
          };
        });
        const cuts = [
          touchingCut(turn(first), turn(second), psi),
          touchingCut(turn(second), turn(first), psi),
        ];
        let nearest = Infinity;
        edges.forEach((edge, i) => {
          const other = edges[1 - i]!;
          for (const out of [0, 5, 12, 30])
            for (const deep of [0, thicknessMm]) {
              const { insetMm, lean } = cuts[i]!;
              const p = combine(
                [insetMm + lean * out, edge.back],
                [out + deductionMm, edge.rise],
                [deep, edge.inward],
              );
              // How far inside the inner face of the other.
              const clear = dot(p, other.inward) - thicknessMm;
              // A sheet's end cut square: its outer edge may stand in the corner's own opening.
              if (deep === 0) continue;
              nearest = Math.min(nearest, clear);
              expect(clear).toBeGreaterThan(-1e-9);
            }
        });
        // Both lean in: one of their inner edges is as near as can be.
        if (first >= 90 && second >= 90) expect(Math.abs(nearest)).toBeLessThan(1e-9);
      },
    ),
  );
  // Square corner, square flanges: one thickness in, and square.
  const square: StripTurn = { thicknessMm: 1.2, angleDeg: 90, deductionMm: 2, toward: 'face' };
  expect(touchingCut(square, square, Math.PI / 2)).toEqual({
    insetMm: expect.closeTo(1.2, 9) as number,
    lean: 0,
  });
});

test('what is left of a strip is the least of its width and its two ends', () => {
  const end = fc.option(
    fc.record({ insetMm: spread(0, 40), lean: fc.oneof(fc.constant(0), spread(0.05, 3)) }),
    { nil: null },
  );
  fc.assert(
    fc.property(
      spread(50, 300),
      spread(5, 60),
      spread(5, 60),
      end,
      end,
      (long, a, b, start, to) => {
        const adds = [
          [0, a],
          [1, b],
        ] as const;
        const found = stripProfile(long, adds, start, to);
        // By stepping, nothing of how it is found.
        const width = (s: number) => {
          const [x, y] = [s - (start?.insetMm ?? 0), long - (to?.insetMm ?? 0) - s];
          if (x < 0 || y < 0) return 0;
          return Math.min(
            a + ((b - a) * s) / long,
            start && start.lean > 0 ? x / start.lean : Infinity,
            to && to.lean > 0 ? y / to.lean : Infinity,
          );
        };
        const area = found
          .slice(1)
          .reduce((sum, [s, mm], i) => sum + ((s - found[i]![0]) * (mm + found[i]![1])) / 2, 0);
        const steps = 4000;
        let expected = 0;
        for (let k = 0; k < steps; k++)
          expected += (width(((k + 0.5) * long) / steps) * long) / steps;
        // Where it ends square a step is half in.
        expect(Math.abs(area - expected)).toBeLessThan(0.02 * long);
        expect(found.every(([s], i) => i === 0 || s > found[i - 1]![0])).toBe(true);
      },
    ),
  );
});
