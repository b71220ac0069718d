import fc from 'fast-check';
import { spread } from '../../measure/spread.arbitrary';
import type { Rule } from './allowance';
import { bendAllowance, measuredOutside, setbackFactor } from './allowance';
import { combinedK, kFromStrip, ruleFromStrips } from './testBend';

const bend = (
  thicknessMm: number,
  radiusMm: number,
  angleDeg: number,
  rule: Rule = { kind: 'din6935' },
) => {
  const found = bendAllowance({ thicknessMm, radiusMm, angleDeg }, rule);
  if (!found.ok) throw new Error(found.problems[0]!.code);
  return found;
};

describe('DIN 6935', () => {
  // DIN 6935 formula evaluated; v = −BD, opening angle β = 180 − A (docs/formulas.md, from memory).
  test.each([
    [1, 1, 90, -1.9187],
    [1, 1.6, 90, -2.0961],
    [2, 4, 90, -4.4594],
    [1, 1, 60, -1.2249],
    [1, 1, 120, -0.92186],
    [1, 1, 150, -0.37803],
  ])('T %d R %d opened to %d°: v %d', (t, r, beta, v) => {
    const digits = Math.abs(v) < 1 ? 5 : 4;
    expect(-bend(t, r, 180 - beta).deductionMm).toBeCloseTo(v, digits);
  });

  // DIN 6935 supplement, table at 90°, printed to 0.1 mm.
  test.each([
    [1, 1, 1.9],
    [1, 1.6, 2.1],
    [1, 2.5, 2.4],
    [1, 4, 3.0],
    [1, 6, 3.8],
    [1, 10, 5.5],
    [1.5, 1.6, 2.9],
    [1.5, 2.5, 3.2],
    [1.5, 4, 3.7],
    [1.5, 6, 4.5],
    [2, 2.5, 4.0],
    [2, 4, 4.5],
    [2, 6, 5.2],
  ])('table: T %d R %d square takes %d mm off', (t, r, printed) => {
    expect(Math.abs(bend(t, r, 90).deductionMm - printed)).toBeLessThanOrEqual(0.05 + 1e-9);
  });

  test('opened past 165° nothing is taken off', () => {
    expect(bend(1, 2, 14.9).deductionMm).toBeCloseTo(0, 12);
    expect(bend(1, 2, 15).deductionMm).not.toBeCloseTo(0, 3);
  });

  test('worked example of a German technical-school table book: legs 25, 20, 15, T 2, R 4 → flat 51', () => {
    const v = Math.round(bend(2, 4, 90).deductionMm * 10) / 10;
    expect(v).toBe(4.5);
    expect(25 + 20 + 15 - 2 * v).toBe(51);
  });
});

describe("Machinery's Handbook and FAA", () => {
  test.each([
    ['soft', 0.55, 0.35],
    ['half', 0.64, 0.407],
    ['hard', 0.71, 0.452],
  ] as const)('%s: a square bend is %d·T + π/2·R long, K %d', (temper, c, k) => {
    const found = bend(1.2, 2, 90, { kind: 'machinery', temper });
    expect(found.allowanceMm).toBeCloseTo(c * 1.2 + (Math.PI / 2) * 2, 10);
    expect(found.k).toBeCloseTo(k, 3);
  });

  test('FAA-H-8083 worked example: R .250, T .051 in, square, K ½ → .4327 in', () => {
    // 2π·0.2755/4 = 0.43275…: the handbook prints it cut off, not rounded, so within one unit of
    // the last place.
    expect(
      Math.abs(bend(0.051, 0.25, 90, { kind: 'k', k: 0.5 }).allowanceMm - 0.4327),
    ).toBeLessThan(1e-4);
  });

  test('FAA AC 43.13-1B coefficients', () => {
    expect(bend(0.04, 0.16, 90, { kind: 'faa' }).allowanceMm).toBeCloseTo(0.27907, 5);
    expect(bend(0.04, 0.125, 45, { kind: 'faa' }).allowanceMm).toBeCloseTo(0.11208, 5);
  });

  test.each([
    [30, 0.26795],
    [60, 0.57735],
    [120, 1.7321],
  ])('setback factor of %d° as tabled: %d', (angle, printed) =>
    expect(setbackFactor(angle)).toBeCloseTo(printed, 4),
  );

  test('past square the legs are measured to the tangent, as DIN 6935 does, not to the sharp', () => {
    expect(bend(1, 2, 120).outsideSetbackMm).toBe(3);
    expect(bend(1, 2, 180).deductionMm).toBeCloseTo(6 - bend(1, 2, 180).allowanceMm, 12);
  });

  test('FAA channel 1.00 / 2.00 / 1.25, T .040, R .16: flats .80, 1.60, 1.05', () => {
    const s = bend(0.04, 0.16, 90, { kind: 'faa' }).outsideSetbackMm;
    expect([1 - s, 2 - 2 * s, 1.25 - s]).toEqual(
      [0.8, 1.6, 1.05].map((flat) => expect.closeTo(flat, 10)),
    );
  });
});

const anyBend = fc.record({
  thicknessMm: spread(0.4, 3),
  radiusMm: spread(0, 20),
  angleDeg: spread(1, 90),
});

test('a strip folded from any K gives that K back', () => {
  fc.assert(
    fc.property(anyBend, spread(0, 0.5), (b, k) => {
      const found = bend(b.thicknessMm, b.radiusMm, b.angleDeg, { kind: 'k', k });
      const legAMm = 40;
      const legBMm = 60;
      const strip = kFromStrip({
        ...b,
        legAMm,
        legBMm,
        flatMm: 100 - found.deductionMm,
        readingMm: 0.05,
      });
      expect(strip.ok && strip.k).toBeCloseTo(k, 8);
    }),
  );
});

test('strips are weighed by their certainty, and together are surer than the best', () => {
  const both = combinedK([
    { k: 0.4, uK: 0.02 },
    { k: 0.44, uK: 0.04 },
  ]);
  expect(both).toMatchObject({
    ok: true,
    k: expect.closeTo(0.408, 10),
    uK: expect.closeTo(0.04 / Math.sqrt(5), 10),
  });
  expect(combinedK([])).toMatchObject({ ok: false });
});

test('what cannot be bent is refused by name', () => {
  const code = (b: Parameters<typeof bendAllowance>[0], rule: Rule = { kind: 'din6935' }) => {
    const r = bendAllowance(b, rule);
    return r.ok ? 'ok' : r.problems[0]!.code;
  };
  expect(code({ thicknessMm: 0, radiusMm: 1, angleDeg: 90 })).toBe('thickness-not-positive');
  expect(code({ thicknessMm: 1, radiusMm: -1, angleDeg: 90 })).toBe('radius-negative');
  expect(code({ thicknessMm: 1, radiusMm: 1, angleDeg: 181 })).toBe('angle-out-of-range');
  expect(code({ thicknessMm: 1, radiusMm: 1, angleDeg: Number.NaN })).toBe('angle-out-of-range');
  expect(code({ thicknessMm: 1, radiusMm: 1, angleDeg: 90 }, { kind: 'k', k: 2 })).toBe(
    'k-out-of-range',
  );
});

test('below the radii DIN 6935 is made for the allowance has no jump, and ends at the sharp bend of the handbook', () => {
  // Machinery's Handbook, soft steel: a square bend of no radius is 0.64·T long.
  expect(bend(1, 0, 90).allowanceMm).toBeCloseTo(0.64, 9);
  fc.assert(
    fc.property(spread(0.4, 3), spread(0, 1), spread(15, 180), (t, ratio, a) => {
      const [here, on] = [bend(t, ratio * t, a).allowanceMm, bend(t, (ratio + 1e-4) * t, a)];
      expect(on.allowanceMm - here).toBeGreaterThan(0);
      expect(on.allowanceMm - here).toBeLessThan(1e-3 * t);
    }),
  );
  // From half the thickness on it is the standard's.
  expect(bend(1, 0.5, 90).k).toBeCloseTo((0.65 + 0.5 * Math.log10(0.5)) / 2, 9);
});

test('what DIN 6935 does not take off flat bends is a matter of legs measured outside: the metal goes on by the formula', () => {
  const [flat, next] = [bend(2, 2, 14.999), bend(2, 2, 15.001)];
  expect(flat.deductionMm).toBe(0);
  expect(flat.allowanceMm).toBeCloseTo(next.allowanceMm, 3);
  expect(measuredOutside(flat, { thicknessMm: 2, radiusMm: 2, angleDeg: 14.999 })).toMatchObject({
    allowanceMm: expect.closeTo(2 * flat.outsideSetbackMm, 9),
  });
});

test('a measured K is carried to other radii along the standard’s shape, and is the less sure the farther', () => {
  const strip = (radiusMm: number, k: number) => ({
    thicknessMm: 1,
    radiusMm,
    angleDeg: 90,
    flatMm: 100 - 2 * (radiusMm + 1) + (Math.PI / 2) * (radiusMm + k),
    legAMm: 40,
    legBMm: 60,
    readingMm: 0.02,
  });
  // A shop whose metal runs 0.02 above the standard at every radius.
  const standard = (r: number) => bend(1, r, 90).k;
  const rule = ruleFromStrips([1.6, 3].map((r) => strip(r, standard(r) + 0.02)))!;
  const at = (r: number) => bend(1, r, 90, rule);
  for (const r of [1.6, 2, 3, 6, 10])
    expect(at(r).k).toBeCloseTo(Math.min(1, standard(r) + 0.02), 6);
  expect(at(2)).toMatchObject({ beyondTested: false });
  expect(at(10)).toMatchObject({ beyondTested: true });
  expect(at(2).uncertaintyMm).toBeCloseTo(at(3).uncertaintyMm!, 9);
  expect(at(6).uncertaintyMm).toBeGreaterThan(at(3).uncertaintyMm!);
  expect(at(10).uncertaintyMm).toBeGreaterThan(2 * at(3).uncertaintyMm!);
  // Legs and length that would ask for a K below nothing do not belong together.
  expect(kFromStrip(strip(1.6, -0.05))).toMatchObject({
    problems: [{ code: 'strip-not-credible' }],
  });
  expect(ruleFromStrips([strip(1.6, -0.05)])).toBeNull();
});
