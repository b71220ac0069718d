import fc from 'fast-check';
import { spread } from '../measure/spread.arbitrary';
import { differ } from './moved';
import { quantile, weighOptions } from './options';
import type { Option } from './options';
import { putBack } from './putBack';
import { twistOf } from './twist';

const apart = (a: readonly number[], b: readonly number[]) =>
  Math.hypot(...a.map((x, k) => x - b[k]!));
const got = <T extends { ok: boolean }>(found: T): Extract<T, { ok: true }> => {
  if (!found.ok) throw new Error(JSON.stringify(found));
  return found as Extract<T, { ok: true }>;
};

test('two readings differ when they are further apart than both can be out', () => {
  expect(differ(1000, 1, 1002.8, 1)).toBe(false);
  expect(differ(1000, 1, 1002.9, 1)).toBe(true);
  expect(differ(4.1, 0.05, 4, 0)).toBe(false);
  expect(differ(4.2, 0.05, 4, 0)).toBe(true);
});

describe('twist', () => {
  const six = ([a, b, c, d]: readonly number[][]) => ({
    ab: apart(a!, b!),
    bc: apart(b!, c!),
    cd: apart(c!, d!),
    da: apart(d!, a!),
    ac: apart(a!, c!),
    bd: apart(b!, d!),
  });
  const corner = (x: number, y: number) =>
    fc.tuple(spread(x - 150, x + 150), spread(y - 150, y + 150));
  const opening = fc.tuple(corner(0, 0), corner(1200, 0), corner(1200, 900), corner(0, 900));

  test('any four points give their own height back', () => {
    fc.assert(
      fc.property(opening, spread(5, 200), ([a, b, c, d], height) => {
        const found = got(
          twistOf(
            six([
              [...a, 0],
              [...b, 0],
              [...c, 0],
              [...d, height],
            ]),
            1,
          ),
        );
        expect(found.outOfPlaneMm).toBeCloseTo(height, 6);
      }),
    );
  });

  test('the ± is what the height changes by when each tape is out by its own', () => {
    fc.assert(
      fc.property(opening, spread(80, 200), ([a, b, c, d], height) => {
        const tapes = six([
          [...a, 0],
          [...b, 0],
          [...c, 0],
          [...d, height],
        ]);
        const found = got(twistOf(tapes, 0.01));
        const changes = (Object.keys(tapes) as (keyof typeof tapes)[]).map(
          (name) =>
            (got(twistOf({ ...tapes, [name]: tapes[name] + 0.01 }, 0.01)).outOfPlaneMm -
              got(twistOf({ ...tapes, [name]: tapes[name] - 0.01 }, 0.01)).outOfPlaneMm) /
            2,
        );
        expect(found.uMm / Math.hypot(...changes)).toBeCloseTo(1, 3);
      }),
    );
  });

  test('near flat the tapes cannot show it, and say so; a large one they can', () => {
    const flat = six([
      [0, 0],
      [1200, 0],
      [1200, 900],
      [0, 900],
    ]);
    expect(got(twistOf(flat, 1))).toMatchObject({
      outOfPlaneMm: expect.closeTo(0, 3),
      visible: false,
    });
    // A diagonal a millimetre short of flat: no four points have such distances, and none is made
    // up.
    expect(got(twistOf({ ...flat, bd: flat.bd + 1 }, 1))).toMatchObject({
      outOfPlaneMm: 0,
      visible: false,
    });
    expect(
      got(
        twistOf(
          six([
            [0, 0, 0],
            [1200, 0, 0],
            [1200, 900, 0],
            [0, 900, 150],
          ]),
          1,
        ),
      ).visible,
    ).toBe(true);
    expect(twistOf({ ...flat, ac: 2200 }, 1)).toMatchObject({
      ok: false,
      problems: [{ code: 'twist-no-triangle', about: ['ab', 'bc', 'ac'] }],
    });
    expect(twistOf({ ...flat, ab: 0 }, 1)).toMatchObject({
      ok: false,
      problems: [{ code: 'twist-tape-form', about: ['ab'] }],
    });
  });
});

describe('putting back', () => {
  const stays = (name: string, ...at: number[]) => ({ name, at, lost: false });

  test('two tapes at right angles, good to 1 and 2: half-axes 1 and 2', () => {
    const points = [
      stays('A', 1000, 0),
      stays('B', 0, 1000),
      { name: 'L', at: [0, 0], lost: true },
    ];
    const tapes = [
      { from: 'L', to: 'A', uMm: 1 },
      { from: 'B', to: 'L', uMm: 2 },
    ];
    const [lost] = got(putBack(2, points, tapes)).lost;
    expect(lost).toMatchObject({ name: 'L', uMm: expect.closeTo(2, 9), bestNext: null });
    expect(lost!.ellipse).toMatchObject({
      aMm: expect.closeTo(2, 9),
      bMm: expect.closeTo(1, 9),
      angleDeg: expect.closeTo(90, 6),
    });
  });

  test('what the next measure promises is what it gives, and no other gives more', () => {
    const place = fc.tuple(spread(-900, 900), spread(-900, 900));
    fc.assert(
      fc.property(fc.array(place, { minLength: 4, maxLength: 7 }), place, (others, at) => {
        const points = [
          ...others.map((p, i) => stays(`S${i}`, ...p)),
          { name: 'L', at: [...at], lost: true },
        ];
        const read = ['S0', 'S1'].map((to) => ({ from: 'L', to, uMm: 1.5 }));
        const lost = got(putBack(2, points, read)).lost[0]!;
        const after = others.slice(2).map((_, i) => ({
          to: `S${i + 2}`,
          uMm: got(putBack(2, points, [...read, { from: 'L', to: `S${i + 2}`, uMm: 1 }])).lost[0]!
            .uMm!,
        }));
        const best = after.reduce((a, b) => (b.uMm < a.uMm ? b : a));
        if (lost.bestNext)
          expect(lost.bestNext).toEqual({ to: best.to, uMm: expect.closeTo(best.uMm, 9) });
        else expect(best.uMm).toBeGreaterThanOrEqual(lost.uMm! * 0.99);
      }),
      { numRuns: 60 },
    );
  });

  test('one tape places nothing; two lost points that hang on each other are placed together', () => {
    const points = [
      stays('A', 0, 0),
      stays('B', 1000, 0),
      stays('C', 0, 800),
      { name: 'K', at: [500, 400], lost: true },
      { name: 'L', at: [700, 300], lost: true },
    ];
    const tape = (from: string, to: string) => ({ from, to, uMm: 1 });
    const one = got(putBack(2, points, [tape('K', 'A')])).lost;
    expect(one[0]).toMatchObject({
      uMm: null,
      ellipse: null,
      bestNext: { to: expect.any(String) },
    });
    expect(one[1]).toMatchObject({ uMm: null, bestNext: null });
    const both = got(
      putBack(2, points, [tape('K', 'A'), tape('K', 'B'), tape('L', 'K'), tape('L', 'C')]),
    ).lost;
    expect(both.every((p) => p.uMm! > 0)).toBe(true);
    // A neighbour that hangs loose itself takes nothing away from one that does not.
    const loose = got(putBack(2, points, [tape('K', 'A'), tape('K', 'B'), tape('L', 'K')])).lost;
    expect(loose.map((p) => p.uMm === null)).toEqual([false, true]);
  });
});

describe('options', () => {
  const option = (
    name: string,
    hours: [number, number, number],
    material = 0,
    price = 0,
  ): Option => ({ name, hours, material, price });
  const guess = fc
    .tuple(spread(0, 10), spread(0, 10), spread(0, 10))
    .map(([a, b, c]): [number, number, number] => [a, a + b, a + b + c]);

  test('quantiles of a triangle in closed form: half the area lies on either side', () => {
    // A right triangle from 0 to 1 with its mode at 0: F(x) = 1 − (1 − x)².
    expect(quantile({ a: 0, m: 0, b: 1 }, 0.75)).toBeCloseTo(0.5, 12);
    expect(quantile({ a: 0, m: 1, b: 1 }, 0.25)).toBeCloseTo(0.5, 12);
    expect(quantile({ a: 2, m: 4, b: 6 }, 0.5)).toBeCloseTo(4, 12);
    expect(quantile({ a: 3, m: 3, b: 3 }, 0.1)).toBe(3);
    const found = got(weighOptions(45, [option('patch', [4, 6, 11], 20)])).options[0]!;
    expect(found).toMatchObject({
      mean: expect.closeTo(45 * 7 + 20, 9),
      chanceCheapest: expect.closeTo(1, 12),
      evenAtHours: null,
    });
    expect(found.p10).toBeCloseTo(45 * (4 + Math.sqrt(0.1 * 7 * 2)) + 20, 9);
    expect(found.p90).toBeCloseTo(45 * (11 - Math.sqrt(0.1 * 7 * 5)) + 20, 9);
  });

  test('chances add up to one, are those that drawing many times gives, and do not hang on the order', () => {
    fc.assert(
      fc.property(fc.array(guess, { minLength: 2, maxLength: 4 }), (guesses) => {
        const all = guesses.map((hours, i) => option(`${i}`, hours));
        const chances = got(weighOptions(10, all)).options.map((o) => o.chanceCheapest);
        expect(chances.reduce((a, b) => a + b)).toBeCloseTo(1, 9);
        const turned = got(weighOptions(10, [...all].reverse())).options.map(
          (o) => o.chanceCheapest,
        );
        expect(turned.reverse()).toEqual(chances.map((c) => expect.closeTo(c, 12) as number));
        // Evenly through all quantiles of all of them at once, in steps that never meet (golden
        // ratios).
        const won = chances.map(() => 0);
        for (let k = 0; k < 4000; k++) {
          const drawn = guesses.map(([a, m, b], i) =>
            quantile({ a, m, b }, (k * STEPS[i]! + 0.5) % 1),
          );
          won[drawn.indexOf(Math.min(...drawn))]!++;
        }
        for (const [i, chance] of chances.entries())
          expect(Math.abs(won[i]! / 4000 - chance)).toBeLessThan(0.02);
      }),
      { numRuns: 40 },
    );
  });
  const STEPS = [0.6180339887498949, 0.7548776662466927, 0.8191725133961644, 0.8566748838545029];

  test('what is sure, what is equal, and where it tips', () => {
    const found = got(
      weighOptions(50, [option('buy', [0, 0, 0], 0, 300), option('make', [4, 6, 8])]),
    ).options;
    // Made for under 300 in half of all cases; even at six hours.
    expect(found.map((o) => o.chanceCheapest)).toEqual([
      expect.closeTo(0.5, 12),
      expect.closeTo(0.5, 12),
    ]);
    expect(found[1]!.evenAtHours).toBeCloseTo(6, 12);
    const equal = got(
      weighOptions(0, [option('a', [1, 2, 3], 7), option('b', [1, 2, 3], 7)]),
    ).options;
    expect(equal).toMatchObject([
      { chanceCheapest: 0.5, evenAtHours: null },
      { chanceCheapest: 0.5 },
    ]);
    expect(weighOptions(50, [])).toMatchObject({
      ok: false,
      problems: [{ code: 'options-empty' }],
    });
    expect(weighOptions(50, [option('a', [3, 2, 4])])).toMatchObject({
      ok: false,
      problems: [{ code: 'option-hours', about: ['a'] }],
    });
    expect(weighOptions(-1, [option('a', [1, 2, 4])])).toMatchObject({
      ok: false,
      problems: [{ code: 'option-money' }],
    });
  });
});
