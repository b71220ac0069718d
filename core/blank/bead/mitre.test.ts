import fc from 'fast-check';
import { spread } from '../../measure/spread.arbitrary';
import type { Segment } from '../../measure/segment';
import { arcOf, line } from '../../measure/segment';
import type { Vec } from '../../measure/vector';
import { distance } from '../../measure/vector';
import type { BlankBead } from '../blank';
import { endsAlong, mitreLines, mitresOf } from './mitre';

const bead = (id: string, run: Segment[], flatMm: number): BlankBead => ({
  id,
  runs: [run],
  toward: 'face',
  size: { widthMm: flatMm, heightMm: 3, developedMm: flatMm, takeUpMm: 0 },
  flatMm,
  drawsIn: 1,
  by: 'usual',
  addsMm: 0,
  stretch: 0,
});
const at = (deg: number, r: number): Vec => [
  r * Math.cos((deg * Math.PI) / 180),
  r * Math.sin((deg * Math.PI) / 180),
];

test('beads of one width meet on the line that halves their corner, as long as the width over the cosine of half the turn; either may be drawn either way', () => {
  fc.assert(
    fc.property(
      spread(-180, 180),
      fc.oneof(spread(15, 140), spread(-140, -15)),
      spread(6, 30),
      fc.boolean(),
      fc.boolean(),
      spread(-1, 1),
      (way, turn, wide, first, second, off) => {
        const a = line(at(way + 180, 200), [0, 0]);
        const b = line(at(way + turn, off), at(way + turn, 200));
        const back = (s: Segment, is: boolean) => (is ? line(s.b, s.a) : s);
        const found = mitresOf([
          bead('a', [back(a, first)], wide),
          bead('b', [back(b, second)], wide),
        ]);
        expect(found).toHaveLength(1);
        const [{ turnDeg, line: mitre, at: corner }] = found as [(typeof found)[number]];
        expect(turnDeg).toBeCloseTo(turn, 6);
        expect(Math.hypot(...corner)).toBeLessThan(1e-6);
        expect(distance(...mitre!)).toBeCloseTo(wide / Math.cos((turn * Math.PI) / 360), 6);
        // Along the bisector: square to it nothing.
        const half = at(way + turn / 2, 1);
        expect(
          (mitre![1][0] - mitre![0][0]) * half[0] + (mitre![1][1] - mitre![0][1]) * half[1],
        ).toBeCloseTo(0, 6);
      },
    ),
  );
});

test('of unlike widths and round a curve each end of the mitre lies on a crease of both', () => {
  fc.assert(
    fc.property(spread(60, 300), spread(8, 20), spread(8, 20), (radius, one, other) => {
      // A quarter of a circle up to a corner, and a straight one away from it at an angle.
      const arc: Segment = { a: [radius, 0], b: [0, radius], bulge: Math.tan(Math.PI / 8) };
      const straight = line([0, radius], [-120, radius - 90]);
      const mitre = mitresOf([bead('a', [arc], one), bead('b', [straight], other)])[0]!.line;
      for (const [p, side] of [
        [mitre![0], -1],
        [mitre![1], 1],
      ] as const) {
        expect(Math.hypot(...p)).toBeCloseTo(arcOf(arc).radius + (side * one) / 2, 6);
        // Right of the way along the straight one by half its width.
        expect(((p[0] - 0) * -90 - (p[1] - radius) * -120) / 150).toBeCloseTo(
          (side * other) / 2,
          6,
        );
      }
    }),
  );
});

test('one that runs straight on has no mitre, one that ends along another is told, and beads apart are let be', () => {
  const [a, b] = [
    bead('a', [line([0, 0], [100, 0])], 12),
    bead('b', [line([100, 0], [200, 1])], 12),
  ];
  expect(mitresOf([a, b])).toMatchObject([{ beads: ['a', 'b'], line: null }]);
  const into = bead('c', [line([50, 80], [50, 2])], 12);
  expect(mitresOf([a, into])).toEqual([]);
  // A mitre is scribed only where both are of one section and the same way up.
  const up = bead('u', [line([100, 0], [100, 90])], 12);
  expect(mitreLines([a, up], ['a', 'u'])).toMatchObject([
    { role: 'mark', name: 'mitre of beads 1 and 2' },
  ]);
  expect(mitreLines([a, { ...up, toward: 'back' }], ['a', 'u'])).toEqual([]);
  expect(mitreLines([a, { ...up, size: { ...up.size, heightMm: 2 } }], ['a', 'u'])).toEqual([]);
  expect([endsAlong(into, a), endsAlong(a, into), endsAlong(a, b)]).toEqual([true, false, false]);
  expect(mitresOf([a, bead('d', [line([0, 40], [100, 40])], 12)])).toEqual([]);
});
