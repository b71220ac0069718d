import Flatten from '@flatten-js/core';
import fc from 'fast-check';
import { area, box, inside, perimeter, points, polygonArea, simplified } from './path';
import type { Segment } from './segment';
import {
  arcOf,
  bulgeOfRadius,
  bulgeThrough,
  carriersMeet,
  crossingsWithLine,
  directionAt,
  flattened,
  line,
  nearest,
  offsetRight,
  part,
  pointAt,
  reversed,
  segmentLength,
  segmentsCross,
  withEnds,
} from './segment';
import { spread } from './spread.arbitrary';
import type { Vec } from './vector';
import { along, cross, distance, dot, right, sub, turned, unit } from './vector';

/**
 * Checked against Flatten.js (@flatten-js/core, an independent plane-geometry library), which knows
 * nothing of bulges.
 */

const coordinate = spread(-200, 200);
const point = fc.tuple(coordinate, coordinate) as fc.Arbitrary<Vec>;
const apart = (a: Vec, b: Vec) => distance(a, b) > 1;
const arc: fc.Arbitrary<Segment> = fc
  .record({
    a: point,
    b: point,
    bulge: spread(0.02, 3),
    clockwise: fc.boolean(),
  })
  .filter(({ a, b }) => apart(a, b))
  .map(({ a, b, bulge, clockwise }) => ({ a, b, bulge: clockwise ? -bulge : bulge }));
const straight: fc.Arbitrary<Segment> = fc
  .tuple(point, point)
  .filter(([a, b]) => apart(a, b))
  .map(([a, b]) => line(a, b));
const segment = fc.oneof(arc, straight);
const share = spread(0, 1);

/**
 * The same segment made in the other library, an arc by its centre and angles through three points
 * of ours.
 */
function theirs(s: Segment): Flatten.Arc | Flatten.Segment {
  if (s.bulge === 0) return Flatten.segment(s.a[0], s.a[1], s.b[0], s.b[1]);
  // From its definition alone: bulge is the rise of the arc over half its chord (DXF reference,
  // group code 42).
  const half = distance(s.a, s.b) / 2;
  const rise = Math.abs(s.bulge) * half;
  const radius = (half * half + rise * rise) / (2 * rise);
  const middle: Vec = [(s.a[0] + s.b[0]) / 2, (s.a[1] + s.b[1]) / 2];
  const toLeft = turned(unit(sub(s.b, s.a)), Math.PI / 2);
  const centre = along(middle, toLeft, Math.sign(s.bulge) * (radius - rise));
  const angle = (p: Vec) => Math.atan2(p[1] - centre[1], p[0] - centre[0]);
  return Flatten.arc(
    Flatten.point(centre[0], centre[1]),
    radius,
    angle(s.a),
    angle(s.b),
    s.bulge > 0,
  );
}
const near = (p: Vec, q: { x: number; y: number }, within = 1e-6) =>
  expect(Math.hypot(p[0] - q.x, p[1] - q.y)).toBeLessThan(within);

test('length, points along, direction and box of a segment are those of the other library', () => {
  fc.assert(
    fc.property(segment, share, (s, t) => {
      const other = theirs(s);
      expect(segmentLength(s)).toBeCloseTo(other.length, 6);
      near(pointAt(s, t), other.pointAtLength(t * other.length)!);
      near(s.a, other.start);
      near(s.b, other.end);
      const [d0, d1] = [directionAt(s, 0), directionAt(s, 1)];
      const [t0, t1] = [other.tangentInStart(), other.tangentInEnd()];
      expect(cross(d0, [t0.x, t0.y])).toBeCloseTo(0, 6);
      expect(dot(d0, [t0.x, t0.y])).toBeCloseTo(1, 6);
      // Their tangent at the end looks back along the segment.
      expect(dot(d1, [t1.x, t1.y])).toBeCloseTo(-1, 6);
      const b = box([s]);
      expect([b.minX, b.minY, b.maxX, b.maxY]).toEqual(
        [other.box.xmin, other.box.ymin, other.box.xmax, other.box.ymax].map((v) =>
          expect.closeTo(v, 5),
        ),
      );
    }),
  );
});

test('the nearest place of a segment to a point, and how far off it is', () => {
  fc.assert(
    fc.property(segment, point, (s, p) => {
      const found = nearest(s, p);
      const [expected] = theirs(s).distanceTo(Flatten.point(p[0], p[1]));
      expect(found.distance).toBeCloseTo(expected, 6);
      expect(distance(pointAt(s, found.at), p)).toBeCloseTo(expected, 5);
    }),
  );
});

test('crossings with a line are where the other library finds them', () => {
  fc.assert(
    fc.property(segment, point, spread(0, Math.PI), (s, p, angle) => {
      const u: Vec = [Math.cos(angle), Math.sin(angle)];
      const ours = crossingsWithLine(s, p, u).map((t) => pointAt(s, t));
      const far = 2000;
      const reach = Flatten.segment(
        p[0] - far * u[0],
        p[1] - far * u[1],
        p[0] + far * u[0],
        p[1] + far * u[1],
      );
      const expected = reach.intersect(theirs(s));
      // A line that grazes an arc, or runs through an end of it, may fall on either side of the
      // other's tolerance.
      const { a, b } = s;
      const doubtful =
        [a, b].some((end) => Math.abs(cross(u, sub(end, p))) < 0.02) ||
        (s.bulge !== 0 &&
          Math.abs(Math.abs(cross(u, sub(arcOf(s).centre, p))) - arcOf(s).radius) < 1e-3) ||
        (s.bulge === 0 && Math.abs(cross(u, unit(sub(b, a)))) < 1e-3);
      fc.pre(!doubtful);
      expect(ours).toHaveLength(expected.length);
      for (const p of ours)
        expect(Math.min(...expected.map((e) => Math.hypot(e.x - p[0], e.y - p[1])))).toBeLessThan(
          1e-5,
        );
    }),
  );
});

test('two segments cross when the other library says so, away from shared ends and near touches', () => {
  fc.assert(
    fc.property(segment, segment, (s, r) => {
      const [ours, others] = [theirs(s), theirs(r)];
      const hits = ours.intersect(others);
      const ends = [s.a, s.b, r.a, r.b].map((p) => Flatten.point(p[0], p[1]));
      const touching = ends.some((end, i) => end.distanceTo(i < 2 ? others : ours)[0] < 0.2);
      // Arcs are flattened to 0.05 mm for this test; two that only graze are left out.
      const grazing = hits.length === 2 && hits[0]!.distanceTo(hits[1]!)[0] < 12;
      const close = hits.length === 0 && ours.distanceTo(others)[0] < 0.2;
      fc.pre(!touching && !grazing && !close);
      expect(segmentsCross(s, r)).toBe(hits.length > 0);
      expect(segmentsCross(r, s)).toBe(hits.length > 0);
    }),
  );
});

test('an outline of lines and arcs has the area, length and inside of the other library’s polygon', () => {
  // A star-shaped outline, its sides bowed a little, so that it never crosses itself.
  const outline = fc
    .array(
      fc.record({
        radius: spread(60, 100),
        bulge: spread(-0.15, 0.3).map((b) => (Math.abs(b) < 0.01 ? 0 : b)),
      }),
      { minLength: 5, maxLength: 12 },
    )
    .map((corners) => {
      const at = (i: number): Vec => {
        const a = (2 * Math.PI * (i % corners.length)) / corners.length;
        const r = corners[i % corners.length]!.radius;
        return [r * Math.cos(a), r * Math.sin(a)];
      };
      return corners.map(({ bulge }, i): Segment => ({ a: at(i), b: at(i + 1), bulge }));
    });
  fc.assert(
    fc.property(outline, point, (path, p) => {
      const polygon = new Flatten.Polygon();
      polygon.addFace(path.map(theirs));
      expect(area(path)).toBeCloseTo(polygon.area(), 5);
      expect(area(path.map(reversed).reverse())).toBeCloseTo(-polygon.area(), 5);
      expect(perimeter(path)).toBeCloseTo(
        path.map(theirs).reduce((sum, s) => sum + s.length, 0),
        6,
      );
      const flat = points(path, 0.001);
      expect(polygonArea(flat)).toBeCloseTo(polygon.area(), 0);
      if (Math.min(...path.map((s) => nearest(s, p).distance)) > 0.01) {
        expect(inside(p, flat)).toBe(polygon.contains(Flatten.point(p[0], p[1])));
      }
    }),
  );
});

test('a part of a segment lies on it, and its parts put together are the whole', () => {
  fc.assert(
    fc.property(segment, share, share, (s, t, u) => {
      const [from, to] = t < u ? [t, u] : [u, t];
      fc.pre(to - from > 1e-3 && from > 1e-3 && to < 1 - 1e-3);
      const pieces = [part(s, 0, from), part(s, from, to), part(s, to, 1)];
      expect(pieces.reduce((sum, piece) => sum + segmentLength(piece), 0)).toBeCloseTo(
        segmentLength(s),
        6,
      );
      const middle = pointAt(pieces[1]!, 0.5);
      expect(distance(middle, pointAt(s, (from + to) / 2))).toBeLessThan(1e-6);
      expect(distance(pointAt(reversed(s), 1 - t), pointAt(s, t))).toBeLessThan(1e-6);
    }),
  );
});

test('an offset keeps its distance all along, and flattening keeps within its tolerance', () => {
  fc.assert(
    fc.property(segment, spread(0.5, 10), share, (s, by, t) => {
      fc.pre(s.bulge === 0 || arcOf(s).radius > by + 1);
      const moved = offsetRight(s, by);
      expect(
        distance(pointAt(moved, t), along(pointAt(s, t), right(directionAt(s, t)), by)),
      ).toBeLessThan(1e-6);
      const chain = [...flattened(s, 0.05), s.b];
      const p = pointAt(s, t);
      const off = Math.min(
        ...chain.slice(1).map((q, i) => nearest(line(chain[i]!, q), p).distance),
      );
      expect(off).toBeLessThan(0.05 + 1e-9);
    }),
  );
});

test('an arc through three points passes through all three; an arc of a radius has it', () => {
  fc.assert(
    fc.property(point, point, point, (a, via, b) => {
      fc.pre(
        apart(a, b) &&
          apart(a, via) &&
          apart(via, b) &&
          Math.abs(cross(sub(via, a), sub(b, a))) > 50,
      );
      const s = { a, b, bulge: bulgeThrough(a, via, b) };
      expect(nearest(s, via).distance).toBeLessThan(1e-5);
      // It turns the way the three points do.
      expect(Math.sign(s.bulge)).toBe(Math.sign(cross(sub(via, a), sub(b, via))));
    }),
  );
  fc.assert(
    fc.property(point, point, spread(1, 4), (a, b, times) => {
      fc.pre(apart(a, b));
      const radius = (distance(a, b) / 2) * times;
      const bulge = bulgeOfRadius(a, b, radius, 1)!;
      expect(arcOf({ a, b, bulge }).radius).toBeCloseTo(radius, 5);
    }),
  );
  expect(bulgeOfRadius([0, 0], [10, 0], 4, 1)).toBeNull();
  expect(bulgeThrough([0, 0], [5, 0], [10, 0])).toBe(0);
});

test('carriers meet where both lie, and ends moved along a circle stay on it', () => {
  fc.assert(
    fc.property(segment, segment, point, (s, r, hint) => {
      const p = carriersMeet(s, r, hint);
      if (!p) return;
      const off = (t: Segment) =>
        t.bulge === 0
          ? Math.abs(cross(unit(sub(t.b, t.a)), sub(p, t.a)))
          : Math.abs(distance(p, arcOf(t).centre) - arcOf(t).radius);
      // Nearly parallel carriers meet far away, where a digit is worth more.
      const scale = 1 + distance(p, s.a);
      expect(off(s) / scale).toBeLessThan(1e-5);
      expect(off(r) / scale).toBeLessThan(1e-5);
    }),
  );
  fc.assert(
    fc.property(arc, share, share, (s, t, u) => {
      // Ends are moved by mitres: a little, and always by less than half a turn.
      fc.pre(Math.abs(t - u) > 0.5);
      const cut = withEnds(s, pointAt(s, Math.min(t, u)), pointAt(s, Math.max(t, u)));
      expect(segmentLength(cut)).toBeCloseTo(segmentLength(s) * Math.abs(t - u), 5);
    }),
  );
});

test('an outline is made simpler without changing it', () => {
  const path = [
    line([0, 0], [4, 0]),
    line([4, 0], [10, 0]),
    line([10, 0], [10, 0]),
    line([10, 0], [10, 5]),
    line([10, 5], [0, 5]),
    line([0, 5], [0, 2]),
    line([0, 2], [0, 0]),
  ];
  const simple = simplified(path);
  expect(simple).toHaveLength(4);
  expect(area(simple)).toBeCloseTo(area(path), 12);
  simple.forEach((s, i) => expect(s.b).toEqual(simple[(i + 1) % 4]!.a));
});
