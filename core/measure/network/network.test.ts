import fc from 'fast-check';
import { levenbergMarquardt } from 'ml-levenberg-marquardt';
import { spread } from '../spread.arbitrary';
import type { Adjustment, Dimension, Network, Tape } from './network';
import { adjustNetwork } from './network';

const solved = (network: Network): Adjustment => {
  const found = adjustNetwork(network);
  if (!found.ok) throw new Error(JSON.stringify(found.problems));
  return found;
};
const tape = (from: string, to: string, mm: number, uMm = 1): Tape => ({ from, to, mm, uMm });
const place = ({ points }: Adjustment, name: string) => points.find((p) => p.name === name)!.at;
const apart = (a: readonly number[], b: readonly number[]) =>
  Math.hypot(...a.map((x, k) => x - b[k]!));

/** Points scattered over a body of three metres, none nearer than 100 mm to another. */
const scattered = (dimension: Dimension, least: number, most: number) =>
  fc
    .array(fc.tuple(...Array.from({ length: dimension }, () => spread(-1500, 1500))), {
      minLength: least,
      maxLength: most,
    })
    .filter((all) => all.every((a, i) => all.every((b, j) => j >= i || apart(a, b) > 100)));

const nameOf = (i: number) => `P${i}`;
const allTapes = (places: readonly number[][], noise: (k: number) => number = () => 0): Tape[] => {
  let k = 0;
  return places.flatMap((a, i) =>
    places.slice(0, i).map((b, j) => tape(nameOf(j), nameOf(i), apart(a, b) + noise(k++))),
  );
};

test('on a line: 500.4 and 300.3 against 800.1 adjust to 500.2, 300.1, 800.3', () => {
  const found = solved({
    dimension: 1,
    points: [{ name: 'A' }, { name: 'B' }, { name: 'C' }],
    tapes: [tape('A', 'B', 500.4), tape('B', 'C', 300.3), tape('A', 'C', 800.1)],
  });
  expect(place(found, 'B')[0]).toBeCloseTo(500.2, 9);
  expect(place(found, 'C')[0]).toBeCloseTo(800.3, 9);
  expect(found).toMatchObject({ redundancy: 1, suspect: null });
});

// The braced quadrilateral has one tape too many: all are equally likely to be the wrong one.
test('a braced square with one diagonal wrong by 4', () => {
  const diagonal = 1000 * Math.SQRT2;
  const found = solved({
    dimension: 2,
    points: ['A', 'B', 'C', 'D'].map((name) => ({ name })),
    tapes: [
      ...[
        ['A', 'B'],
        ['B', 'C'],
        ['C', 'D'],
        ['D', 'A'],
      ].map(([a, b]) => tape(a!, b!, 1000)),
      tape('A', 'C', diagonal + 4),
      tape('B', 'D', diagonal),
    ],
  });
  const residuals = found.tapes.map((t) => t.residualMm);
  for (const side of residuals.slice(0, 4)) expect(side).toBeCloseTo(0.70761, 5);
  expect(residuals[4]).toBeCloseTo(-1.0021, 4);
  expect(residuals[5]).toBeCloseTo(-0.99929, 5);
  expect(found.redundancy).toBe(1);
  expect(found.suspect).toBeNull();
});

// Ghilani & Wolf, Adjustment Computations, trilateration example (from memory).
test('a station from three known points', () => {
  const found = solved({
    dimension: 2,
    points: [
      { name: 'A', at: [865.4, 4527.15] },
      { name: 'B', at: [2432.55, 2047.25] },
      { name: 'C', at: [2865.22, 27.15] },
      { name: 'U' },
    ],
    tapes: [tape('A', 'U', 6049), tape('B', 'U', 4736.83), tape('C', 'U', 5446.49)],
  });
  expect(place(found, 'U')[0]).toBeCloseTo(6861.317, 2);
  expect(place(found, 'U')[1]).toBeCloseTo(3727.819, 2);
});

test.each([1, 2, 3] as const)(
  'exact tapes give %i-dimensional points back, in the frame of the first ones',
  (dimension) => {
    fc.assert(
      fc.property(scattered(dimension, dimension + 2, 9), (places) => {
        const found = solved({
          dimension,
          points: places.map((_, i) => ({ name: nameOf(i) })),
          tapes: allTapes(places),
        });
        for (const [i, a] of places.entries())
          for (const [j, b] of places.slice(0, i).entries())
            expect(apart(found.points[i]!.at, found.points[j]!.at)).toBeCloseTo(apart(a, b), 6);
        expect(found.points[0]!.at.map((x) => x + 0)).toEqual(
          Array.from({ length: dimension }, () => 0),
        );
        // Each next one has a figure more, and that above nothing.
        for (let k = 1; k <= dimension; k++) {
          expect(found.points[k]!.at[k - 1]).toBeGreaterThan(0);
          for (const x of found.points[k]!.at.slice(k)) expect(x).toBeCloseTo(0, 9);
        }
        expect(found.suspect).toBeNull();
      }),
      { numRuns: 25 },
    );
  },
);

test('held points stay, and the others come back to where they were', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(2 as const, 3 as const),
      fc.integer({ min: 0, max: 4 }),
      fc.gen(),
      (dimension, extra, gen) => {
        const places = gen(() =>
          scattered(dimension, dimension + 2 + extra, dimension + 2 + extra),
        );
        const held = dimension + 1;
        const found = solved({
          dimension,
          points: places.map((at, i) => ({ name: nameOf(i), at: i < held ? at : null })),
          tapes: allTapes(places),
        });
        for (const [i, at] of places.entries())
          expect(apart(found.points[i]!.at, at)).toBeLessThan(1e-5);
        for (const point of found.points.slice(0, held))
          expect(point.uMm.every((u) => u === 0)).toBe(true);
      },
    ),
    { numRuns: 20 },
  );
});

test('with noise: the residuals of a general least-squares library, and one gross error named', () => {
  fc.assert(
    fc.property(
      scattered(2, 6, 8),
      fc.array(spread(-1, 1), { minLength: 28, maxLength: 28 }),
      fc.nat(),
      (places, noise, which) => {
        const tapes = allTapes(places, (k) => noise[k]!);
        const network: Network = {
          dimension: 2,
          points: places.map((at, i) => ({ name: nameOf(i), at: i < 2 ? at : null })),
          tapes,
        };
        const found = solved(network);
        const free = places.slice(2);
        const at = (figures: number[], i: number) =>
          i < 2 ? places[i]! : figures.slice(2 * (i - 2), 2 * (i - 2) + 2);
        const index = (name: string) => Number(name.slice(1));
        const fitted = levenbergMarquardt(
          { x: tapes.map((_, k) => k), y: tapes.map((t) => t.mm) },
          (figures: number[]) => (k: number) =>
            apart(at(figures, index(tapes[k]!.from)), at(figures, index(tapes[k]!.to))),
          {
            initialValues: free.flat(),
            gradientDifference: 1e-4,
            centralDifference: true,
            maxIterations: 8,
            errorTolerance: 0,
            damping: 1e-6,
          },
        );
        for (const [k, t] of tapes.entries()) {
          const other =
            apart(
              at(fitted.parameterValues, index(t.from)),
              at(fitted.parameterValues, index(t.to)),
            ) - t.mm;
          expect(found.tapes[k]!.residualMm).toBeCloseTo(other, 3);
        }
        // A tape misread by ten of its own, which the others check well, is the one that is named.
        const wrong = which % tapes.length;
        if (found.tapes[wrong]!.normalised === null) return;
        const misread = solved({
          ...network,
          tapes: tapes.map((t, k) => (k === wrong ? { ...t, mm: t.mm + 40 } : t)),
        });
        const share = (misread.tapes[wrong]!.residualMm - found.tapes[wrong]!.residualMm) / -40;
        if (share > 0.35)
          expect(misread.suspect).toEqual({ from: tapes[wrong]!.from, to: tapes[wrong]!.to });
      },
    ),
    { numRuns: 8 },
  );
}, 30_000);

test('the ± is what comes out when the tapes are read again and again', () => {
  const places = [
    [0, 0],
    [1400, 0],
    [900, 700],
    [200, 500],
  ];
  const points = places.map((at, i) => ({ name: nameOf(i), at: i < 2 ? at : null }));
  const exact = allTapes(places);
  const { ellipse, at } = solved({ dimension: 2, points, tapes: exact }).points[3]!;
  // A quick generator of its own and the sum of twelve: near enough to what chance does.
  let state = 7;
  const chance = () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
  const normal = () => Array.from({ length: 12 }, chance).reduce((sum, x) => sum + x, -6);
  const tries = Array.from({ length: 500 }, () =>
    place(
      solved({ dimension: 2, points, tapes: exact.map((t) => ({ ...t, mm: t.mm + normal() })) }),
      'P3',
    ),
  );
  const along = (angleDeg: number) => {
    const [c, s] = [Math.cos((angleDeg * Math.PI) / 180), Math.sin((angleDeg * Math.PI) / 180)];
    return Math.sqrt(
      tries.reduce((sum, p) => sum + ((p[0]! - at[0]!) * c + (p[1]! - at[1]!) * s) ** 2, 0) /
        tries.length,
    );
  };
  expect(Math.abs(along(ellipse!.angleDeg) / ellipse!.aMm - 1)).toBeLessThan(0.1);
  expect(Math.abs(along(ellipse!.angleDeg + 90) / ellipse!.bMm - 1)).toBeLessThan(0.1);
});

test('the order of points and tapes, and which way a tape is written, change nothing but the order', () => {
  fc.assert(
    fc.property(
      scattered(2, 5, 7),
      fc.array(spread(-1, 1), { minLength: 21, maxLength: 21 }),
      fc.nat(),
      (places, noise, turn) => {
        const tapes = allTapes(places, (k) => noise[k]!);
        const points = places.map((at, i) => ({ name: nameOf(i), at: i < 3 ? at : null }));
        const plain = solved({ dimension: 2, points, tapes });
        const k = turn % tapes.length;
        const turned = solved({
          dimension: 2,
          points: [...points].reverse(),
          tapes: [...tapes.slice(k), ...tapes.slice(0, k)].map(({ from, to, ...rest }) => ({
            from: to,
            to: from,
            ...rest,
          })),
        });
        for (const { name, at } of plain.points)
          expect(apart(place(turned, name), at)).toBeLessThan(1e-4);
        expect(turned.sigma0!).toBeCloseTo(plain.sigma0!, 6);
      },
    ),
    { numRuns: 20 },
  );
});

test('a sparse network that hangs together only as a whole is found', () => {
  // Two triangles tied by three bars: no point of the second can be placed by itself.
  const places = [
    [0, 0],
    [1000, 0],
    [400, 800],
    [1700, 200],
    [2100, 900],
    [1300, 1100],
  ];
  const pairs = [
    [0, 1],
    [1, 2],
    [0, 2],
    [3, 4],
    [4, 5],
    [3, 5],
    [1, 3],
    [2, 5],
    [0, 4],
    [2, 3],
  ];
  const found = solved({
    dimension: 2,
    points: places.map((_, i) => ({ name: nameOf(i) })),
    tapes: pairs.map(([a, b]) => tape(nameOf(a!), nameOf(b!), apart(places[a!]!, places[b!]!))),
  });
  for (const t of found.tapes) expect(t.residualMm).toBeCloseTo(0, 6);
});

test('what cannot be told is said', () => {
  const points = ['A', 'B', 'C', 'D'].map((name) => ({ name }));
  const triangle = [tape('A', 'B', 1000), tape('B', 'C', 800), tape('A', 'C', 700)];
  const problem = (network: Partial<Network>) => {
    const found = adjustNetwork({ dimension: 2, points, tapes: triangle, ...network });
    return found.ok ? 'ok' : found.problems[0]!;
  };
  expect(problem({})).toMatchObject({ code: 'undetermined', about: ['D'] });
  expect(problem({ tapes: [...triangle, tape('C', 'D', 300)] })).toMatchObject({
    code: 'undetermined',
    about: ['D'],
  });
  expect(problem({ points: [] })).toMatchObject({ code: 'network-empty' });
  expect(problem({ tapes: [tape('A', 'E', 1)] })).toMatchObject({
    code: 'network-point-unknown',
    about: ['E'],
  });
  expect(problem({ tapes: [tape('A', 'A', 1)] })).toMatchObject({ code: 'network-tape-loop' });
  expect(problem({ tapes: [tape('A', 'B', 0)] })).toMatchObject({ code: 'network-tape-form' });
  expect(problem({ points: [{ name: 'A', at: [1, 2, 3] }] })).toMatchObject({
    code: 'network-point-form',
  });
  // Measured from two points only, D could as well lie on the other side of the line between them.
  const hung = solved({
    dimension: 2,
    points,
    tapes: [...triangle, tape('A', 'D', 600), tape('B', 'D', 700)],
  });
  expect(hung).toMatchObject({ redundancy: 0, sigma0: null, suspect: null });
  expect(hung.points.map((p) => p.elsewhere !== null)).toEqual([false, false, false, true]);
  const { at, elsewhere } = hung.points[3]!;
  expect([elsewhere![0], elsewhere![1]! + at[1]!]).toEqual([
    expect.closeTo(at[0]!, 6),
    expect.closeTo(0, 6),
  ]);
});
