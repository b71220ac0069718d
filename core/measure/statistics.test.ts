import fc from 'fast-check';
import { axesOf, ellipseOf } from './ellipse';
import { weightedMean } from './mean';
import { spread } from './spread.arbitrary';
import { cholesky, eigen, inverse, solved } from '../solve/symmetric';

const symmetric = fc.integer({ min: 1, max: 9 }).chain((n) =>
  fc.array(spread(-5, 5), { minLength: n * n, maxLength: n * n }).map((given) => {
    const a = new Float64Array(n * n);
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) a[i * n + j] = (given[i * n + j]! + given[j * n + i]!) / 2;
    return { a, n };
  }),
);
const times = (a: Float64Array, n: number, x: ArrayLike<number>): number[] =>
  Array.from({ length: n }, (_, i) =>
    Array.from({ length: n }, (_, j) => a[i * n + j]! * x[j]!).reduce((s, v) => s + v, 0),
  );
const dot = (x: ArrayLike<number>, y: ArrayLike<number>): number =>
  Array.from(x).reduce((sum, v, i) => sum + v * y[i]!, 0);

test('eigenvectors are turned by nothing, stand square on each other, and belong to values that fall', () => {
  fc.assert(
    fc.property(symmetric, ({ a, n }) => {
      const { values, vectors } = eigen(a, n);
      expect(values).toEqual([...values].sort((x, y) => y - x));
      vectors.forEach((v, k) => {
        times(a, n, v).forEach((x, i) => expect(x).toBeCloseTo(values[k]! * v[i]!, 8));
        vectors.forEach((w, l) => expect(dot(v, w)).toBeCloseTo(k === l ? 1 : 0, 9));
      });
      // Their sum is the trace, the sum of their squares that of all entries.
      expect(values.reduce((s, x) => s + x, 0)).toBeCloseTo(
        Array.from({ length: n }, (_, i) => a[i * n + i]!).reduce((s, x) => s + x, 0),
        8,
      );
      expect(values.reduce((s, x) => s + x * x, 0)).toBeCloseTo(dot(a, a), 6);
    }),
  );
});

test('a positive system is solved and inverted; one that is not positive is refused', () => {
  fc.assert(
    fc.property(
      symmetric,
      fc.array(spread(-9, 9), { minLength: 9, maxLength: 9 }),
      ({ a, n }, b) => {
        const { values } = eigen(a, n);
        // Made positive by as much as it lacks.
        const m = Float64Array.from(a);
        for (let i = 0; i < n; i++) m[i * n + i]! += 1 - Math.min(0, values[n - 1]!);
        const l = cholesky(m, n)!;
        times(m, n, solved(l, n, b.slice(0, n))).forEach((x, i) => expect(x).toBeCloseTo(b[i]!, 8));
        const back = inverse(l, n);
        for (let j = 0; j < n; j++)
          times(m, n, back.subarray(j * n, j * n + n)).forEach((x, i) =>
            expect(x).toBeCloseTo(i === j ? 1 : 0, 8),
          );
        if (values[n - 1]! < -1e-6) expect(cholesky(a, n)).toBeNull();
      },
    ),
  );
});

test('the ellipse of a covariance has its axes, and gives it back', () => {
  fc.assert(
    fc.property(spread(0.01, 20), spread(0.01, 20), spread(-89, 90), (one, other, turn) => {
      const [a, b] = [Math.max(one, other), Math.min(one, other)];
      const [c, s] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
      const [xx, xy, yy] = [
        a * a * c * c + b * b * s * s,
        (a * a - b * b) * c * s,
        a * a * s * s + b * b * c * c,
      ];
      const found = ellipseOf(xx, xy, yy);
      expect(found.aMm).toBeCloseTo(a, 6);
      expect(found.bMm).toBeCloseTo(b, 5);
      const [long, short] = axesOf(Float64Array.from([xx, xy, xy, yy]), 2);
      expect(found.aMm).toBeCloseTo(long!, 6);
      expect(found.bMm).toBeCloseTo(short!, 5);
      expect(found.angleDeg).toBeGreaterThan(-90);
      expect(found.angleDeg).toBeLessThanOrEqual(90);
      // Of what is nearly round the way its length runs means nothing.
      if (a - b > 0.01)
        expect(Math.abs(Math.sin(((found.angleDeg - turn) * Math.PI) / 180))).toBeLessThan(1e-3);
    }),
  );
  expect(ellipseOf(4, 0, 4)).toEqual({ aMm: 2, bMm: 2, angleDeg: 0 });
});

const readings = fc.array(fc.record({ value: spread(-50, 50), u: spread(0.05, 3) }), {
  minLength: 1,
  maxLength: 9,
});

test('a weighted mean is the least of weighted squares, whatever order it is read in, and never surer than its readings agree', () => {
  fc.assert(
    fc.property(readings, spread(0.1, 10), spread(-100, 100), (all, by, off) => {
      const mean = weightedMean(all)!;
      const cost = (at: number) =>
        all.reduce((sum, { value, u }) => sum + ((value - at) / u) ** 2, 0);
      for (const step of [-1e-3, 1e-3])
        expect(cost(mean.value + step)).toBeGreaterThanOrEqual(cost(mean.value) - 1e-9);
      expect(weightedMean([...all].reverse())!.value).toBeCloseTo(mean.value, 9);
      // In other units and from another nought it is the same.
      const other = weightedMean(
        all.map(({ value, u }) => ({ value: value * by + off, u: u * by })),
      )!;
      expect(other.value).toBeCloseTo(mean.value * by + off, 6);
      expect(other.u).toBeCloseTo(mean.u * by, 6);
      expect(mean.u).toBeGreaterThanOrEqual(
        1 / Math.sqrt(all.reduce((sum, { u }) => sum + 1 / u ** 2, 0)) - 1e-12,
      );
      // One that says nothing changes nothing but how far they scatter.
      expect(weightedMean([...all, { value: 1000, u: 1e9 }])!.value).toBeCloseTo(mean.value, 6);
    }),
  );
  expect(weightedMean([])).toBeNull();
  // Nine readings alike are three times as sure as one.
  expect(weightedMean(Array.from({ length: 9 }, () => ({ value: 7, u: 0.3 })))).toEqual({
    value: expect.closeTo(7, 9),
    u: expect.closeTo(0.1, 9),
  });
});
