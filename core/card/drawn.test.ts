import fc from 'fast-check';
import { CubicBezierCurve, Vector2 } from 'three';
import { area } from '../measure/path';
import type { Segment } from '../measure/segment';
import { nearest, reversed } from '../measure/segment';
import { splinePoints } from '../measure/spline';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import { spread } from '../measure/spread.arbitrary';
import { arcRun, circleRun, curveThrough, edgesOf, layersOf, mended } from './drawn';

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

test('lines drawn twice and lines of no length change nothing but what is told of them', () => {
  const corners = fc.array(fc.tuple(spread(40, 200), fc.constant(0)), {
    minLength: 4,
    maxLength: 9,
  });
  fc.assert(
    fc.property(
      corners,
      fc.array(fc.tuple(fc.nat(100), fc.boolean()), { maxLength: 6 }),
      fc.array(fc.nat(100), { maxLength: 4 }),
      fc.boolean(),
      (radii, again, dots, asRun) => {
        const n = radii.length;
        const at = radii.map(([r], i): Vec => {
          const angle = (2 * Math.PI * i) / n;
          return [r * Math.cos(angle), r * Math.sin(angle)];
        });
        const sides = at.map((a, i): Segment => ({
          a,
          b: at[(i + 1) % n]!,
          bulge: i % 3 ? 0 : 0.2,
        }));
        const clean = asRun
          ? [{ layer: '0', run: sides }]
          : sides.map((side) => ({ layer: '0', run: [side] }));
        const doubled = again.map(([i, back]) => {
          const side = sides[i % n]!;
          return { layer: '0', run: [back ? reversed(side) : side] };
        });
        const empty = dots.map((i) => {
          const p = at[i % n]!;
          return { layer: '0', run: [{ a: p, b: p, bulge: 0 }] };
        });
        const found = mended([...clean, ...empty, ...doubled]);
        expect([found.empty, found.doubled]).toEqual([dots.length, again.length]);
        const [outline] = layersOf(found.drawn);
        expect(outline!.open).toEqual([]);
        expect(outline!.loops.map(({ path }) => area(path))).toEqual([
          expect.closeTo(Math.abs(area(sides)), 6),
        ]);
        // The same line on another layer is another line.
        expect(mended([...clean, { layer: '1', run: [sides[0]!] }]).doubled).toBe(0);
      },
    ),
    { numRuns: 80 },
  );
});

test('a curve that was drawn as one is one edge from corner to corner, wherever the loop begins', () => {
  fc.assert(
    fc.property(spread(20, 120), spread(-60, 60), fc.nat(8), (rise, lean, turn) => {
      const control: Vec[] = [
        [200, 0],
        [200 + lean, rise],
        [-lean, rise * 1.4],
        [0, 0],
      ];
      const spline = curveThrough(
        splinePoints({ degree: 3, knots: [0, 0, 0, 0, 1, 1, 1, 1], control }, 2),
        0.1,
      );
      const straight = (
        [
          [0, 0],
          [0, -80],
          [200, -80],
          [200, 0],
        ] as Vec[]
      ).flatMap((a, i, all): Segment[] => (all[i + 1] ? [{ a, b: all[i + 1]!, bulge: 0 }] : []));
      const drawn = [
        { layer: '0', run: spline, curve: spline.map(() => true) },
        ...straight.map((side) => ({ layer: '0', run: [side] })),
      ];
      const { path } = layersOf(drawn)[0]!.loops[0]!;
      const k = turn % path.length;
      const begun = [...path.slice(k), ...path.slice(0, k)];
      const edges = edgesOf(begun, drawn);
      expect(edges.flat().sort((a, b) => a - b)).toEqual(begun.map((_, i) => i));
      expect(edges.map(({ length }) => length).sort((a, b) => a - b)).toEqual(
        [1, 1, 1, spline.length].sort((a, b) => a - b),
      );
    }),
    { numRuns: 60 },
  );
});
