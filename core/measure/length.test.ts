import fc from 'fast-check';
import { formatLength, inchFraction, parseLength } from './length';

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
  ])('%s in millimetres', (text, expected) => expect(mm(text)).toBeCloseTo(expected, 9));

  test('bare numbers follow the unit in use; signs change what stands there', () => {
    expect(mm('32', 'in')).toBeCloseTo(812.8, 9);
    expect(mm('32/2', 'in')).toBeCloseTo(406.4, 9);
    expect(mm('+3', 'mm', 100)).toBe(103);
    expect(mm('-1/16', 'in', 25.4)).toBeCloseTo(23.8125, 9);
  });

  test.each(['', 'abc', '1/0"', '12 13', '4//2', '812/0', "2' x"])('%p is refused, not guessed', (text) =>
    expect(mm(text)).toMatch(/^length-/),
  );

  test('a fraction that is shown reads back to the same fraction', () => {
    fc.assert(
      fc.property(fc.integer({ min: -6400, max: 6400 }), (thirtySeconds) => {
        const value = (thirtySeconds / 32) * 25.4;
        expect(mm(inchFraction(value), 'in')).toBeCloseTo(value, 9);
      }),
    );
  });

  test('figures keep their sign only when they have a size', () => {
    expect(formatLength(-0.01, 'mm')).toBe('0.0 mm');
    expect(formatLength(811.2125, 'in')).toBe('31 15/16 in');
    expect(formatLength(-0.2, 'in')).toBe('0 in');
  });
});
