import fc from 'fast-check';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import { after, homographyThrough, inverted, mapped } from './homography';
import { leastSquares } from '../solve/leastSquares';
import { logLikelihood, mixtureOf, squaredDistance } from './mixture';
import { brightAt, brightness, colourAt, shrunk } from './picture';
import { grown, means, regionsOf } from './regions';
import { picturing, toMm } from './straighten';

const masks = fc
  .tuple(
    fc.integer({ min: 1, max: 24 }),
    fc.integer({ min: 1, max: 18 }),
    spread(0.2, 0.8),
    fc.integer(),
  )
  .map(([width, height, share, seed]) => {
    const mask = Uint8Array.from({ length: width * height }, (_, i) =>
      Math.abs(Math.sin(seed + i * 12.9898) * 43758.5453) % 1 < share ? 1 : 0,
    );
    return { mask, width, height };
  });

test('regions hang together by their sides, each pixel in one, as naming them over and over finds them', () => {
  fc.assert(
    fc.property(masks, fc.integer({ min: 1, max: 6 }), ({ mask, width, height }, least) => {
      // Every set pixel takes the least name of its neighbours until nothing changes.
      const name = Array.from(mask, (on, i) => (on ? i : -1));
      for (let changed = true; changed;) {
        changed = false;
        name.forEach((mine, i) => {
          if (mine < 0) return;
          const [x, y] = [i % width, Math.floor(i / width)];
          for (const [dx, dy] of [
            [1, 0],
            [-1, 0],
            [0, 1],
            [0, -1],
          ] as const) {
            if (x + dx < 0 || y + dy < 0 || x + dx >= width || y + dy >= height) continue;
            const other = name[i + dx + dy * width]!;
            if (other >= 0 && other < name[i]!) [name[i], changed] = [other, true];
          }
        });
      }
      const wanted = new Map<number, number[]>();
      name.forEach((mine, i) => mine >= 0 && wanted.set(mine, [...(wanted.get(mine) ?? []), i]));
      const found = regionsOf(mask, width, height, least);
      const sets = [...wanted]
        .sort(([a], [b]) => a - b)
        .map(([, pixels]) => pixels)
        .filter((pixels) => pixels.length >= least);
      expect(found.map(({ pixels }) => [...pixels].sort((a, b) => a - b))).toEqual(sets);
      found.forEach(({ pixels, x0, y0, x1, y1 }) => {
        const [xs, ys] = [
          [...pixels].map((i) => i % width),
          [...pixels].map((i) => Math.floor(i / width)),
        ];
        expect([x0, x1, y0, y1]).toEqual([
          Math.min(...xs),
          Math.max(...xs),
          Math.min(...ys),
          Math.max(...ys),
        ]);
      });
    }),
  );
});

test('means and grown masks are those that looking round every pixel gives', () => {
  fc.assert(
    fc.property(masks, fc.integer({ min: 0, max: 4 }), ({ mask, width, height }, reach) => {
      const round = (i: number): number[] => {
        const [x, y] = [i % width, Math.floor(i / width)];
        const found: number[] = [];
        for (let v = Math.max(0, y - reach); v <= Math.min(height - 1, y + reach); v++)
          for (let u = Math.max(0, x - reach); u <= Math.min(width - 1, x + reach); u++)
            found.push(mask[v * width + u]!);
        return found;
      };
      const whole = (2 * reach + 1) ** 2;
      means(mask, width, height, reach).forEach((value, i) =>
        expect(value).toBeCloseTo(round(i).reduce((s, x) => s + x, 0) / round(i).length, 5),
      );
      if (reach === 0) return;
      expect([...grown(mask, width, height, reach)]).toEqual(
        Array.from(mask, (_, i) => (round(i).some((x) => x === 1) ? 1 : 0)),
      );
      // Beyond the picture nothing is set: what touches its rim is eaten away from there too.
      expect([...grown(mask, width, height, -reach)]).toEqual(
        Array.from(mask, (_, i) =>
          round(i).length === whole && round(i).every((x) => x === 1) ? 1 : 0,
        ),
      );
    }),
  );
});

test('between pixels a picture goes over evenly, at its rim it stays, and shrunk it is as bright', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 4, max: 30 }),
      fc.integer({ min: 4, max: 30 }),
      spread(0, 3),
      spread(0, 3),
      spread(-2, 40),
      spread(-2, 40),
      fc.oneof(fc.constantFrom(1, 2, 3), spread(1, 3.7)),
      (width, height, dx, dy, u, v, by) => {
        const at = (x: number, y: number) => Math.round(20 + dx * x + dy * y);
        const data = new Uint8ClampedArray(4 * width * height);
        for (let y = 0; y < height; y++)
          for (let x = 0; x < width; x++)
            data.set([at(x, y), at(x, y), at(x, y), 255], 4 * (y * width + x));
        const picture = { width, height, data };
        const [x, y] = [
          Math.min(width - 1, Math.max(0, u - 0.5)),
          Math.min(height - 1, Math.max(0, v - 0.5)),
        ];
        // Each pixel is rounded to a whole figure.
        expect(Math.abs(brightAt(picture, u, v) - (20 + dx * x + dy * y))).toBeLessThan(1.01);
        const colour = new Float64Array(4);
        colourAt(picture, u, v, colour, 1);
        for (const c of [1, 2, 3])
          expect(Math.abs(colour[c]! - brightAt(picture, u, v))).toBeLessThan(1.01);
        // Each square's mean, every pixel by how much of it lies there.
        const small = shrunk(picture, by);
        expect([small.width, small.height]).toEqual([
          Math.floor(width / by),
          Math.floor(height / by),
        ]);
        const shared = (pixel: number, square: number) =>
          Math.max(0, Math.min(pixel + 1, (square + 1) * by) - Math.max(pixel, square * by));
        brightness(small).data.forEach((value, i) => {
          let sum = 0;
          for (let q = 0; q < height; q++)
            for (let p = 0; p < width; p++)
              sum += at(p, q) * shared(p, i % small.width) * shared(q, Math.floor(i / small.width));
          expect(Math.abs(value - sum / by ** 2)).toBeLessThan(1.01);
        });
      },
    ),
  );
});

const corner = (x: number, y: number) => fc.tuple(spread(x - 30, x + 30), spread(y - 30, y + 30));
const squares = fc.tuple(corner(0, 0), corner(200, 0), corner(200, 150), corner(0, 150));

test('four places taken to four others are taken there; there and back is where one was', () => {
  fc.assert(
    fc.property(squares, squares, spread(20, 180), spread(20, 130), (from, to, x, y) => {
      const there = homographyThrough(from, to)!;
      from.forEach((p, i) => expect(distance(mapped(there, p), to[i]!)).toBeLessThan(1e-6));
      const back = inverted(there)!;
      const p: Vec = [x, y];
      expect(distance(mapped(back, mapped(there, p)), p)).toBeLessThan(1e-6);
      expect(distance(mapped(after(back, there), p), p)).toBeLessThan(1e-6);
      // A straight line stays one: three places in line stay in line.
      const [a, b, c] = [p, [x + 10, y + 7] as Vec, [x + 20, y + 14] as Vec].map((one) =>
        mapped(there, one),
      ) as [Vec, Vec, Vec];
      expect(
        Math.abs((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])) /
          (distance(a, b) * distance(a, c)),
      ).toBeLessThan(1e-7);
    }),
  );
  expect(
    homographyThrough(
      [
        [0, 0],
        [1, 0],
        [2, 0],
        [3, 0],
      ],
      [
        [0, 0],
        [1, 0],
        [2, 0],
        [3, 0],
      ],
    ),
  ).toBeNull();
});

test('from the picture to the bench and back is the same pixel, through any lens that bends a little', () => {
  fc.assert(
    fc.property(
      squares,
      spread(-0.12, 0.12),
      spread(-0.04, 0.04),
      spread(0, 4000),
      spread(0, 3000),
      (to, k1, k2, u, v) => {
        const size = { width: 4000, height: 3000 };
        const plane = homographyThrough(
          [
            [-0.8, -0.6],
            [0.8, -0.6],
            [0.8, 0.6],
            [-0.8, 0.6],
          ],
          to,
        )!;
        const view = { ...size, toMm: plane, k1, k2 };
        const p: Vec = [u, v];
        expect(distance(picturing(view)(toMm(view, p)), p)).toBeLessThan(0.01);
      },
    ),
  );
});

test('the least of squares is the line of the normal equations, and the bottom of a bent valley', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(spread(-10, 10), spread(-10, 10)), { minLength: 3, maxLength: 20 }),
      (pairs) => {
        const n = pairs.length;
        const [mx, my] = [0, 1].map((k) => pairs.reduce((sum, pair) => sum + pair[k]!, 0) / n) as [
          number,
          number,
        ];
        const sxx = pairs.reduce((sum, [x]) => sum + (x - mx) ** 2, 0);
        if (sxx < 1) return;
        const slope = pairs.reduce((sum, [x, y]) => sum + (x - mx) * (y - my), 0) / sxx;
        const found = leastSquares(
          [0, 0],
          ([a, b], into) => pairs.forEach(([x, y], i) => (into[i] = a! * x + b! - y)),
          n,
          [1e-3, 1e-3],
        );
        expect(found.x[0]).toBeCloseTo(slope, 5);
        expect(found.x[1]).toBeCloseTo(my - slope * mx, 5);
        // (JᵀJ)⁻¹ of a line is known.
        expect(found.covariance![0]).toBeCloseTo(1 / sxx, 6);
        expect(found.covariance![3]).toBeCloseTo(1 / n + (mx * mx) / sxx, 5);
      },
    ),
  );
  // Rosenbrock's function as residuals (Moré, Garbow & Hillstrom 1981, problem 1).
  const valley = leastSquares(
    [-1.2, 1],
    ([x, y], into) => into.set([10 * (y! - x! * x!), 1 - x!]),
    2,
    [1e-5, 1e-5],
    200,
  );
  expect(valley.x[0]).toBeCloseTo(1, 5);
  expect(valley.x[1]).toBeCloseTo(1, 5);
});

test('a mixture of two colours that are far apart knows each, whatever order its samples come in', () => {
  const colour = fc.tuple(spread(20, 230), spread(20, 230), spread(20, 230));
  fc.assert(
    fc.property(colour, colour, spread(0.2, 0.8), fc.integer(), (one, other, share, seed) => {
      if (Math.hypot(...one.map((x, c) => x - other[c]!)) < 90) return;
      const noise = (i: number) => 6 * Math.sin(seed + i * 78.233);
      const samples = Array.from({ length: 200 }, (_, i) =>
        (i < 200 * share ? one : other).map((x, c) => x + noise(3 * i + c)),
      );
      const found = mixtureOf(Float64Array.from(samples.flat()), 2)!;
      for (const [x, y, z] of [one, other]) expect(squaredDistance(found, x, y, z)).toBeLessThan(4);
      const far = one.map((x) => (x + 127) % 255) as [number, number, number];
      if (Math.min(...[one, other].map((of) => Math.hypot(...of.map((x, c) => x - far[c]!)))) > 60)
        expect(squaredDistance(found, ...far)).toBeGreaterThan(9);
      const turned = mixtureOf(Float64Array.from([...samples].reverse().flat()), 2)!;
      expect(logLikelihood(turned, ...one)).toBeCloseTo(logLikelihood(found, ...one), 3);
    }),
  );
  expect(mixtureOf(new Float64Array(27), 2)).toBeNull();
});

test('what lies among a few strays of a kind stays strange to it', () => {
  const colour = fc.tuple(spread(60, 200), spread(-20, 20), spread(-20, 20));
  fc.assert(
    fc.property(
      colour,
      spread(30, 90),
      fc.integer(),
      fc.integer({ min: 2, max: 4 }),
      ([x, y, z], far, seed, strays) => {
        const noise = (i: number) => 4 * Math.sin(seed + i * 78.233);
        const plain = Array.from({ length: 600 }, (_, i) => [
          x + noise(3 * i),
          y + noise(3 * i + 1),
          z + noise(3 * i + 2),
        ]);
        // As light goes over into shade: one here and one there, from the kind's own brightness to
        // far below.
        const between = Array.from({ length: strays }, (_, k) => [
          x - (2 * far * (k + 1)) / (strays + 1),
          y,
          z,
        ]);
        const found = mixtureOf(Float64Array.from([...plain, ...between].flat()), 5)!;
        expect(squaredDistance(found, x, y, z)).toBeLessThan(3);
        const off = between.map(([b]) => Math.abs(b! - (x - far)));
        // Right at one of them nothing can be said.
        if (Math.min(...off) > 12)
          expect(squaredDistance(found, x - far, y, z)).toBeGreaterThan(10);
      },
    ),
  );
});
