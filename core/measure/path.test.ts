import fc from 'fast-check';
import type { Path } from './path';
import {
  area,
  box,
  distanceToPolygon,
  inside,
  perimeter,
  points,
  polygonArea,
  polygonCentre,
} from './path';
import type { Segment } from './segment';
import { pointAt } from './segment';
import { spread } from './spread.arbitrary';
import { subtracted } from './subtract';
import type { Vec } from './vector';

/**
 * Outlines seen from a middle, so that none crosses itself: corners on rays, sides straight or a
 * little bowed.
 */
const outlines: fc.Arbitrary<Segment[]> = fc
  .array(
    fc.record({ far: spread(60, 200), bulge: fc.oneof(fc.constant(0), spread(-0.12, 0.25)) }),
    { minLength: 4, maxLength: 10 },
  )
  .map((corners) => {
    const at = corners.map(({ far }, i): Vec => {
      const turn = (2 * Math.PI * i) / corners.length;
      return [far * Math.cos(turn), far * Math.sin(turn)];
    });
    return at.map((a, i) => ({ a, b: at[(i + 1) % at.length]!, bulge: corners[i]!.bulge }));
  });

const circle = ([x, y]: Vec, r: number): Segment[] => [
  { a: [x + r, y], b: [x - r, y], bulge: 1 },
  { a: [x - r, y], b: [x + r, y], bulge: 1 },
];
const slot = ([x, y]: Vec, long: number, wide: number): Segment[] =>
  (
    [
      [x - long, y - wide],
      [x + long, y - wide],
      [x + long, y + wide],
      [x - long, y + wide],
    ] as Vec[]
  ).map((a, i, all) => ({ a, b: all[(i + 1) % 4]!, bulge: 0 }));

/** Very many places of the arcs of a path; of its lines only where they begin. */
const fine = (path: Path): Vec[] =>
  path.flatMap((s) => {
    const n = s.bulge === 0 ? 1 : 120;
    return Array.from({ length: n }, (_, i) => pointAt(s, i / n));
  });

test('area, length and box of lines and arcs are those of a polygon with very many corners', () => {
  fc.assert(
    fc.property(outlines, (path) => {
      const polygon = fine(path);
      expect(Math.abs(area(path) / polygonArea(polygon) - 1)).toBeLessThan(1e-4);
      const long = polygon.reduce(
        (sum, p, i) =>
          sum +
          Math.hypot(
            p[0] - polygon[(i + 1) % polygon.length]![0],
            p[1] - polygon[(i + 1) % polygon.length]![1],
          ),
        0,
      );
      expect(Math.abs(perimeter(path) / long - 1)).toBeLessThan(1e-4);
      const { minX, minY, maxX, maxY } = box(path);
      for (const [low, high, axis] of [
        [minX, maxX, 0],
        [minY, maxY, 1],
      ] as const) {
        const along = polygon.map((p) => p[axis]);
        expect(Math.min(...along)).toBeGreaterThanOrEqual(low - 1e-9);
        expect(Math.max(...along)).toBeLessThanOrEqual(high + 1e-9);
        expect(Math.min(...along) - low).toBeLessThan(0.05);
        expect(high - Math.max(...along)).toBeLessThan(0.05);
      }
      // Run the other way it is as much less than nothing.
      const back = [...path].reverse().map(({ a, b, bulge }) => ({ a: b, b: a, bulge: -bulge }));
      expect(area(back)).toBeCloseTo(-area(path), 6);
      // As few points as keep within a tolerance lie on it.
      for (const p of points(path, 0.05)) expect(distanceToPolygon(p, polygon)).toBeLessThan(0.02);
    }),
  );
});

test('a point is inside where a walk round turns about it once; the middle of a polygon is where it balances', () => {
  fc.assert(
    fc.property(outlines, spread(-220, 220), spread(-220, 220), (path, x, y) => {
      const polygon = fine(path);
      const p: Vec = [x, y];
      if (distanceToPolygon(p, polygon) < 0.5) return;
      let turns = 0;
      polygon.forEach((a, i) => {
        const b = polygon[(i + 1) % polygon.length]!;
        turns += Math.atan2(
          (a[0] - x) * (b[1] - y) - (a[1] - y) * (b[0] - x),
          (a[0] - x) * (b[0] - x) + (a[1] - y) * (b[1] - y),
        );
      });
      expect(inside(p, polygon)).toBe(Math.round(turns / (2 * Math.PI)) === 1);
      // The moments of it about its middle are nothing: by triangles fanned out from a point that
      // is elsewhere.
      const [cx, cy] = polygonCentre(polygon);
      let [mx, my] = [0, 0];
      polygon.forEach((a, i) => {
        const b = polygon[(i + 1) % polygon.length]!;
        const twice = (a[0] - x) * (b[1] - y) - (a[1] - y) * (b[0] - x);
        mx += twice * ((a[0] + b[0] + x) / 3 - cx);
        my += twice * ((a[1] + b[1] + y) / 3 - cy);
      });
      expect(Math.hypot(mx, my) / (2 * polygonArea(polygon))).toBeLessThan(1e-6);
    }),
  );
});

test('what is left of an outline less drilled holes and sawn slots holds every point it should and none it should not', () => {
  const tools = fc.array(
    fc.oneof(
      fc
        .record({ at: fc.tuple(spread(-180, 180), spread(-180, 180)), r: spread(3, 60) })
        .map(({ at, r }) => circle(at, r)),
      fc
        .record({
          at: fc.tuple(spread(-180, 180), spread(-180, 180)),
          long: spread(4, 90),
          wide: spread(2, 20),
        })
        .map(({ at, long, wide }) => slot(at, long, wide)),
    ),
    { maxLength: 5 },
  );
  fc.assert(
    fc.property(
      outlines,
      tools,
      fc.array(fc.tuple(spread(-220, 220), spread(-220, 220)), { minLength: 60, maxLength: 60 }),
      (path, cut, probes) => {
        const carried = path.map((segment) => ({ segment }));
        const left = subtracted(carried, cut, (segment) => ({ segment }));
        expect(left).not.toBeNull();
        const loops = left!.map(({ pieces }) => fine(pieces.map(({ segment }) => segment)));
        const wholes = [fine(path), ...cut.map(fine)];
        for (const p of probes) {
          if (wholes.some((polygon) => distanceToPolygon(p, polygon) < 0.6)) continue;
          const wanted =
            inside(p, wholes[0]!) && !wholes.slice(1).some((polygon) => inside(p, polygon));
          // Loops within loops are holes: an odd number of them is metal.
          expect([p, loops.filter((loop) => inside(p, loop)).length % 2 === 1]).toEqual([
            p,
            wanted,
          ]);
        }
        const most = left!.map(({ areaMm2 }) => Math.abs(areaMm2));
        expect(most).toEqual([...most].sort((a, b) => b - a));
        // In another order it comes out the same.
        const again = subtracted(carried, [...cut].reverse(), (segment) => ({ segment }))!;
        const sum = (all: typeof again) =>
          all.reduce((total, { pieces }) => total + area(pieces.map(({ segment }) => segment)), 0);
        expect(sum(again)).toBeCloseTo(sum(left!), 4);
      },
    ),
  );
});
