import fc from 'fast-check';
import { arcsThrough, worst } from './arcFit';
import type { Segment } from './segment';
import { arcOf, directionAt, pointAt, segmentLength } from './segment';
import { spread } from './spread.arbitrary';
import type { Vec } from './vector';
import { cross, distance, dot } from './vector';

const fit = (points: readonly Vec[], tolerance: number) => {
  const found = arcsThrough(points, tolerance);
  if (!found.ok) throw new Error(JSON.stringify(found.problems));
  return found;
};
const sampled = (s: Segment, n: number): Vec[] =>
  Array.from({ length: n + 1 }, (_, i) => pointAt(s, i / n));
const kinkDeg = (s: Segment, r: Segment) => {
  const [u, v] = [directionAt(s, 1), directionAt(r, 0)];
  return (Math.abs(Math.atan2(cross(u, v), dot(u, v))) * 180) / Math.PI;
};
const place = fc.tuple(spread(-500, 500), spread(-500, 500));

/**
 * What has to hold of any fit: it starts and ends where the points do, hangs together, and passes
 * within the tolerance.
 */
function holds(points: readonly Vec[], tolerance: number): ReturnType<typeof fit> {
  const found = fit(points, tolerance);
  const { arcs, worstMm } = found;
  expect(arcs[0]!.a).toEqual(points[0]);
  expect(arcs[arcs.length - 1]!.b).toEqual(points[points.length - 1]);
  arcs.slice(1).forEach((arc, i) => expect(distance(arcs[i]!.b, arc.a)).toBeLessThan(1e-9));
  expect(worstMm).toBeLessThanOrEqual(tolerance * (1 + 1e-9));
  expect(worst(points, arcs)).toBe(worstMm);
  return found;
}

test('points on one arc are one arc again, on one line one line', () => {
  const bulge = spread(-0.95, 0.95).filter((b) => Math.abs(b) > 0.02);
  fc.assert(
    fc.property(place, place, bulge, fc.integer({ min: 2, max: 60 }), (a, b, k, n) => {
      if (distance(a, b) < 20) return;
      const arc = { a, b, bulge: k };
      const { arcs } = holds(sampled(arc, n), 0.05);
      expect(arcs).toHaveLength(1);
      // As near as a share of the tolerance: three points and more say no more.
      expect(worst(sampled(arc, 40), arcs)).toBeLessThan(0.05);
      expect(arcs[0]!.bulge * k).toBeGreaterThan(0);
      expect(holds(sampled({ a, b, bulge: 0 }, n), 0.05).arcs).toMatchObject([{ a, bulge: 0 }]);
    }),
    { numRuns: 40 },
  );
});

test('any points at all: within the tolerance, in order, and never more runs than there are points', () => {
  fc.assert(
    fc.property(
      fc.array(place, { minLength: 2, maxLength: 40 }),
      spread(0.05, 40),
      (points, tolerance) => {
        const apart = points.filter((p, i) => i === 0 || distance(p, points[i - 1]!) > 0);
        if (apart.length < 2) return;
        const { arcs } = holds(apart, tolerance);
        expect(arcs.length).toBeLessThanOrEqual(2 * apart.length);
      },
    ),
  );
});

/** A smooth road of lines and arcs, each going on as the last one ended. */
const road = fc
  .array(fc.record({ radius: spread(60, 900), turn: spread(-1.2, 1.2), straight: fc.boolean() }), {
    minLength: 1,
    maxLength: 5,
  })
  .map((parts) => {
    let [at, heading]: [Vec, number] = [[0, 0], 0.3];
    return parts.map(({ radius, turn, straight }): Segment => {
      const angle = straight || Math.abs(turn) < 0.2 ? 0 : turn;
      const chord = angle === 0 ? radius : Math.abs(2 * radius * Math.sin(angle / 2));
      const toward = heading + angle / 2;
      const a = at;
      at = [a[0] + chord * Math.cos(toward), a[1] + chord * Math.sin(toward)];
      heading += angle;
      return { a, b: at, bulge: Math.tan(angle / 4) };
    });
  });

test('a smooth road comes back smooth, of about as many arcs as it was made of', () => {
  fc.assert(
    fc.property(road, (parts) => {
      const points = parts.flatMap((s, i) =>
        sampled(s, Math.max(6, Math.ceil(segmentLength(s) / 12))).slice(i === 0 ? 0 : 1),
      );
      const { arcs } = holds(points, 0.2);
      expect(arcs.length).toBeLessThanOrEqual(4 * parts.length + 1);
      arcs.slice(1).forEach((arc, i) => expect(kinkDeg(arcs[i]!, arc)).toBeLessThan(1));
      // Between the points as well, and not only at them.
      const between = parts.flatMap((s) => sampled(s, 200));
      expect(worst(between, arcs)).toBeLessThan(0.45);
    }),
    { numRuns: 25 },
  );
});

test('a corner stays a corner, however the points before and after it run', () => {
  const corner: Vec[] = [
    ...sampled({ a: [0, 0], b: [200, 0], bulge: 0 }, 20),
    ...sampled({ a: [200, 0], b: [200, 150], bulge: 0.1 }, 20).slice(1),
  ];
  const { arcs } = holds(corner, 0.1);
  expect(arcs).toHaveLength(2);
  expect(arcs[0]!.b).toEqual([200, 0]);
  expect(arcOf(arcs[1]!).radius).toBeCloseTo(
    arcOf({ a: [200, 0], b: [200, 150], bulge: 0.1 }).radius,
    0,
  );
});

test('thousands of points are fitted as well, and what cannot be is said', () => {
  const circle = Array.from({ length: 3000 }, (_, i): Vec => [
    300 * Math.cos(i / 600),
    300 * Math.sin(i / 600),
  ]);
  expect(holds(circle, 0.05).arcs.length).toBeLessThanOrEqual(3);
  expect(arcsThrough([[0, 0]], 0.1)).toMatchObject({
    ok: false,
    problems: [{ code: 'fit-too-few' }],
  });
  expect(
    arcsThrough(
      [
        [0, 0],
        [0, 0],
      ],
      0.1,
    ),
  ).toMatchObject({ ok: false, problems: [{ code: 'fit-too-few' }] });
  expect(
    arcsThrough(
      [
        [0, 0],
        [1, 0],
      ],
      0,
    ),
  ).toMatchObject({ ok: false, problems: [{ code: 'fit-tolerance' }] });
});
