import fc from 'fast-check';
import { CubicBezierCurve, Vector2 } from 'three';
import { area } from '../measure/path';
import type { Segment } from '../measure/segment';
import { nearest, reversed } from '../measure/segment';
import { splinePoints } from '../measure/spline';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import { arcRun, circleRun, curveThrough, layersOf } from './drawn';

const place = fc.tuple(fc.integer({ min: -300, max: 300 }), fc.integer({ min: -300, max: 300 }));

test('a cubic of one span is three’s Bézier curve, and its arcs keep within the tolerance of it', () => {
  fc.assert(
    fc.property(place, place, place, place, (a, b, c, d) => {
      fc.pre([a, b, c].every((p, i) => distance(p, [b, c, d][i]!) > 20));
      const curve = new CubicBezierCurve(
        ...([a, b, c, d].map(([x, y]) => new Vector2(x, y)) as [
          Vector2,
          Vector2,
          Vector2,
          Vector2,
        ]),
      );
      const points = splinePoints(
        { degree: 3, knots: [0, 0, 0, 0, 1, 1, 1, 1], control: [a, b, c, d] },
        4,
      );
      points.forEach((p, i) => {
        const { x, y } = curve.getPoint(i / (points.length - 1));
        expect(distance(p, [x, y])).toBeLessThan(1e-9);
      });
      const arcs = curveThrough(points, 0.2);
      const off = points.map((p) => Math.min(...arcs.map((s) => nearest(s, p).distance)));
      expect(Math.max(...off)).toBeLessThan(0.2 + 1e-9);
    }),
    { numRuns: 60 },
  );
});

test('a circle as a rational spline is round (Piegl & Tiller, The NURBS Book, 7.5)', () => {
  const w = Math.SQRT1_2;
  const control: Vec[] = [
    [50, 0],
    [50, 50],
    [0, 50],
    [-50, 50],
    [-50, 0],
    [-50, -50],
    [0, -50],
    [50, -50],
    [50, 0],
  ];
  const points = splinePoints(
    {
      degree: 2,
      knots: [0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4],
      control,
      weights: [1, w, 1, w, 1, w, 1, w, 1],
    },
    3,
  );
  for (const p of points) expect(distance(p, [0, 0])).toBeCloseTo(50, 9);
  expect(splinePoints({ degree: 3, knots: [0, 1], control }, 1)).toEqual([]);
});

/**
 * A comb-like outline with arcs, cut up, shuffled, some pieces drawn the other way, ends a slip
 * apart.
 */
const outline: Segment[] = [
  { a: [0, 0], b: [200, 0], bulge: 0 },
  { a: [200, 0], b: [200, 80], bulge: 0.3 },
  { a: [200, 80], b: [120, 60], bulge: -0.2 },
  { a: [120, 60], b: [90, 140], bulge: 0 },
  { a: [90, 140], b: [0, 120], bulge: 0 },
  { a: [0, 120], b: [0, 0], bulge: 0.1 },
];

test('however an outline was drawn, it is one loop, beside its holes', () => {
  fc.assert(
    fc.property(
      fc.shuffledSubarray([0, 1, 2, 3, 4, 5], { minLength: 6 }),
      fc.array(fc.boolean(), { minLength: 6, maxLength: 6 }),
      fc.integer({ min: 0, max: 1000 }),
      (order, back, slip) => {
        const pieces = order.map((k, i) => {
          const s = outline[k]!;
          const by = (Math.sin(slip + 7 * k) * 0.01) as number;
          const shaken: Segment = { ...s, a: [s.a[0] + by, s.a[1]] };
          return { layer: 'CUT', run: [back[i] ? reversed(shaken) : shaken] };
        });
        const [cut, holes] = layersOf([
          ...pieces,
          { layer: 'HOLES', run: circleRun([60, 50], 8) },
          { layer: 'CUT', run: [{ a: [300, 0], b: [310, 0], bulge: 0 }] },
        ]);
        expect(cut!.loops).toHaveLength(1);
        expect(cut!.open).toHaveLength(1);
        expect(cut!.loops[0]!.path).toHaveLength(6);
        expect(area(cut!.loops[0]!.path)).toBeGreaterThan(0);
        expect(Math.abs(area(cut!.loops[0]!.path) - area(outline))).toBeLessThan(20);
        expect(holes!.loops[0]!.hole!.diameterMm).toBeCloseTo(16, 9);
      },
    ),
    { numRuns: 80 },
  );
});

test('arcs of more than half a circle come as two', () => {
  const run = arcRun([10, 20], 5, 0.5, 0.5 - 0.1);
  expect(run).toHaveLength(2);
  for (const { a, b } of run)
    for (const p of [a, b]) expect(distance(p, [10, 20])).toBeCloseTo(5, 9);
});
