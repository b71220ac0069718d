import fc from 'fast-check';
import type { Unit } from './length';
import {
  formatField,
  formatLength,
  LENGTH_UNITS,
  formatThin,
  formatWeight,
  inchFraction,
  toInches,
  usualLength,
} from './length';
import { spread } from './spread.arbitrary';
import { parseLength } from './writtenLength';

const mm = (text: string, unit: 'mm' | 'in' = 'mm', current?: number) => {
  const r = parseLength(text, unit, current);
  return r.ok ? r.mm : r.problems[0]!.code;
};

describe('lengths as people write them', () => {
  // 1 in = 25.4 mm exactly (International yard and pound agreement, 1959).
  test.each([
    ['812', 812],
    ['812.5', 812.5],
    ['812,5', 812.5],
    ['81.2cm', 812],
    ['0.812 m', 812],
    ['32"', 812.8],
    ['31 15/16', 811.2125],
    ["2' 8", 812.8],
    ['2\'8 1/2"', 825.5],
    ['2 ft 8 in', 812.8],
    ['1-5/8', 41.275],
    ['3/16', 4.7625],
    ['3/16"', 4.7625],
    ['812/2', 406],
    ['406*2', 812],
    ['812-1.5', 810.5],
    ['10+1/2"', 22.7],
    ['-3', -3],
    // A sum of terms: × and ÷ bind first, a mixed number is one term, brackets are allowed.
    ['1000-890/2', 555],
    ['8 1/4 + 1/2', 222.25],
    ['3/4 + 1/2', 31.75],
    ['8 1/4 - 1/16', 207.9625],
    ['(300+12)*2', 624],
    ['100 - (20 - 5)', 85],
    ['2 x 25 + 1', 51],
    ['3×(25mm)', 75],
    ['812/2 mm', 406],
    ['812/2/2', 203],
    ['31 15/16 / 2', 405.60625],
    ['10 + 1cm', 20],
    // Feet and inches, joined by a dash or not; a dash with room round it takes away.
    ['5\'-8"', 1727.2],
    ['2\'-8 1/2"', 825.5],
    ["5' - 8", 1516],
    ["2'", 609.6],
    ['2 * 5\'-8"', 3454.4],
    // What is printed and what a telephone types.
    ['1½', 38.1],
    ['⅝', 15.875],
    ['−3', -3],
    ['36 thou', 0.9144],
    // One rule for fractions: below two, over a division of the rule, they are inches.
    ['15/16', 23.8125],
    ['17/16', 26.9875],
    ['1/2 mm', 0.5],
    // Commas.
    ['1,5', 1.5],
    ['0,125', 0.125],
    ['1,234.5', 1234.5],
    ['1.234,5', 1234.5],
    ['1,234,567', 1234567],
  ])('%s in millimetres', (text, expected) => expect(mm(text)).toBeCloseTo(expected, 9));

  test('bare numbers follow the unit in use; signs change what stands there', () => {
    expect(mm('32', 'in')).toBeCloseTo(812.8, 9);
    expect(mm('32/2', 'in')).toBeCloseTo(406.4, 9);
    expect(mm('+3', 'mm', 100)).toBe(103);
    expect(mm('-1/16', 'in', 25.4)).toBeCloseTo(23.8125, 9);
  });

  test.each([
    '',
    'abc',
    '1/0"',
    '12 13',
    '4//2',
    '812/0',
    "2' x",
    '1,2,3',
    '(3',
    '3)',
    '5"*2"',
    '3+',
    '1..2',
    '1e999',
    '1 2/3',
  ])('%p is refused, not guessed', (text) => expect(mm(text)).toMatch(/^length-/));

  test('a fraction that is shown reads back to the same fraction', () => {
    fc.assert(
      fc.property(fc.integer({ min: -6400, max: 6400 }), (thirtySeconds) => {
        const value = (thirtySeconds / 32) * 25.4;
        expect(mm(inchFraction(value), 'in')).toBeCloseTo(value, 9);
      }),
    );
  });

  test('sums with bare numbers follow the unit in use', () => {
    expect(mm('8 1/4 + 1/2', 'in')).toBe(222.25);
    expect(mm('8 + 1/4', 'in')).toBe(209.55);
    expect(mm('33/16', 'in')).toBeCloseTo(52.3875, 9);
  });

  test.each([
    ['1,234', [1.234, 1234]],
    ['10 + 1,500', [1.5, 1500]],
    ['33/16', [52.3875, 2.0625]],
    ['3 x 1/2', [38.1, 1.5]],
    ['1/2 x 3', [38.1, 1.5]],
    ['½ × 3', [38.1, 1.5]],
  ])('%s is asked about, with both readings', (text, readings) => {
    const read = parseLength(text, 'mm');
    expect(read).toMatchObject({
      ok: false,
      problems: [{ code: expect.stringMatching(/ambiguous$/) }],
    });
    expect(!read.ok && Object.values(read.problems[0]!.numbers!)).toEqual(readings);
  });

  test('one grammar for fractions: of an inch by themselves, a share of a length, a division where they are large', () => {
    expect(mm('1/2', 'mm')).toBe(12.7);
    expect(mm('3/2', 'mm')).toBe(1.5);
    expect(mm('4/2', 'mm')).toBe(2);
    for (const one of ['1÷2', '1 : 2']) expect(mm(one, 'mm')).toBe(0.5);
    for (const one of ['300 mm x 1/2', '1/2 x 300 mm', '300 mm / 2'])
      expect(mm(one, 'mm')).toBe(150);
    for (const one of ['3 x 1/2', '1/2 x 3', '1 1/2', '3/2']) expect(mm(one, 'in')).toBe(38.1);
    for (const one of ['3 x 1 1/2', '1 1/2 x 3', '4 1/2"']) expect(mm(one, 'mm')).toBe(114.3);
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 40 }),
        fc.constantFrom('1/2', '3/4', '5/8', '7/16', '33/64'),
        fc.constantFrom<'mm' | 'in'>('mm', 'in'),
        (times, fraction, unit) =>
          expect(parseLength(`${times} x ${fraction}`, unit)).toEqual(
            parseLength(`${fraction} x ${times}`, unit),
          ),
      ),
    );
  });

  test('what stands in a field is read back, in every unit, to half of the last figure shown; what is told is one figure', () => {
    const units = fc.constantFrom<Unit>(...LENGTH_UNITS);
    fc.assert(
      fc.property(spread(-2000, 2000), units, fc.constantFrom(1, 2, 3), (value, unit, digits) => {
        const half =
          unit === 'mm'
            ? 0.5 * 10 ** -digits
            : unit === 'inDecimal'
              ? 0.5 * 10 ** -(digits + 2) * 25.4
              : 0.5e-3 * 25.4;
        const as = unit === 'mm' ? 'mm' : 'in';
        const back = mm(formatField(value, unit, digits), as);
        expect(Math.abs(Number(back) - value)).toBeLessThan(half + 1e-6);
        // Shown it may be rounded to the shop's fraction; never is it a sum.
        const told = formatLength(value, unit, 1, false);
        const part = { mm: 0.05, in: 25.4 / 128, in32: 25.4 / 64, inDecimal: 0.5e-3 * 25.4 }[unit];
        expect(Math.abs(Number(mm(told, as)) - value)).toBeLessThan(part + 1e-6);
        expect(formatLength(value, unit, digits)).not.toMatch(/[\d)][+\u2212]/);
      }),
    );
    fc.assert(
      fc.property(spread(-20, 20), units, (value, unit) => {
        const back = mm(formatThin(value, unit), unit === 'mm' ? 'mm' : 'in');
        expect(Math.abs(Number(back) - value)).toBeLessThan(0.5e-3 * 25.4 + 1e-6);
      }),
    );
  });

  test('a sum of written terms is the sum of what each says', () => {
    const term = fc.oneof(
      fc.integer({ min: 1, max: 999 }).map((n) => [`${n}`, n] as const),
      fc
        .tuple(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 1, max: 15 }))
        .map(([whole, n]) => [`${whole} ${n}/16`, (whole + n / 16) * 25.4] as const),
      fc.integer({ min: 1, max: 7 }).map((n) => [`${n}/8"`, (n / 8) * 25.4] as const),
      fc
        .tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 11 }))
        .map(([feet, n]) => [`${feet}'-${n}"`, (feet * 12 + n) * 25.4] as const),
      fc
        .tuple(fc.integer({ min: 2, max: 90 }), fc.integer({ min: 2, max: 9 }))
        .map(([n, by]) => [`${n}*${by}`, n * by] as const),
      fc
        .tuple(fc.integer({ min: 300, max: 999 }), fc.constantFrom(2, 4, 5))
        .map(([n, by]) => [`${n}/${by}`, n / by] as const),
    );
    const signs = fc.constantFrom([' + ', 1], [' - ', -1], ['+', 1]) as fc.Arbitrary<
      [string, number]
    >;
    fc.assert(
      fc.property(
        term,
        fc.array(fc.tuple(signs, term), { maxLength: 5 }),
        ([text, value], more) => {
          const written = more.reduce<string>(
            (all, [[sign], [next]]) => `${all}${sign}${next}`,
            text,
          );
          const sum = more.reduce<number>((all, [[, sign], [, next]]) => all + sign * next, value);
          expect(mm(written)).toBeCloseTo(sum, 6);
          expect(mm(`(${written})*2`)).toBeCloseTo(2 * sum, 6);
        },
      ),
    );
  });

  test('nothing that is typed is thrown back as anything but a figure or a refusal', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom(...'0123456789./,+-*()\'"½ mcinft−x÷'), maxLength: 14 }),
        (text) => {
          const read = parseLength(text, 'mm', 10);
          if (read.ok) expect(Number.isFinite(read.mm)).toBe(true);
          else expect(read.problems[0]!.code).toMatch(/^length-/);
        },
      ),
    );
  });

  test('thin things in thousandths, lengths to a 64th with the decimal beside where rounding matters, weights in pounds', () => {
    expect(formatThin(1, 'in')).toBe('.039 in');
    expect(formatThin(0.6, 'in')).toBe('.024 in');
    expect(formatThin(0.1, 'in', false)).toBe('.004');
    expect(formatLength(21.4, 'in', 2)).toBe('27/32 (0.843) in');
    expect(formatLength(21.4, 'in')).toBe('27/32 in');
    expect(formatLength(20, 'in32')).toBe('25/32 in');
    expect(formatLength(9.525, 'in')).toBe('3/8 in');
    expect(formatWeight(0.6336, 'in')).toBe('1.40 lb');
  });

  test('figures keep their sign only when they have a size', () => {
    expect(formatLength(-0.01, 'mm')).toBe('0.0 mm');
    expect(formatLength(811.2125, 'in')).toBe('31 15/16 in');
    expect(formatLength(-0.02, 'in')).toBe('0 in');
    expect(formatLength(-3, 'mm')).toBe('−3.0 mm');
  });
});

test('a usual length is one a rule is marked with, near the one in millimetres, and longer is never shorter', () => {
  // Common practice: lips, laps and holes are chosen in eighths and sixteenths.
  const chosen = [3, 8, 10, 12, 15, 20, 25, 50].map((mm) =>
    formatLength(usualLength(mm, 'in'), 'in'),
  );
  expect(chosen).toEqual(
    ['1/8', '5/16', '3/8', '1/2', '5/8', '3/4', '1', '2'].map((inches) => `${inches} in`),
  );
  fc.assert(
    fc.property(spread(1, 500), spread(1, 500), (a, b) => {
      expect(usualLength(a, 'mm')).toBe(a);
      const inches = toInches(usualLength(a, 'in32'));
      expect(inches * 32).toBeCloseTo(Math.round(inches * 32), 9);
      expect(Math.abs(usualLength(a, 'in') - a)).toBeLessThan(Math.max(0.8, 25.4 / 16 + 1e-9));
      if (a <= b) expect(usualLength(a, 'in')).toBeLessThanOrEqual(usualLength(b, 'in') + 1e-9);
    }),
  );
});
