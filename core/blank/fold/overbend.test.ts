import { METALS, metalById } from '../../metal/metals';
import { nextTry, overbendFor, yieldRange } from './overbend';
import type { Spring } from './overbend';

const BEND = { thicknessMm: 1, radiusMm: 2, angleDeg: 90 };
const reading = (
  foldedToDeg: number,
  cameBackToDeg: number,
  more: Partial<Spring> = {},
): Spring => ({
  metal: 'dc04',
  thicknessMm: 1,
  radiusMm: 2,
  foldedToDeg,
  cameBackToDeg,
  uDeg: 0.5,
  on: null,
  ...more,
});

test('by the figures of every metal: a range above what is wanted, its low end where the metal is softest', () => {
  for (const metal of METALS) {
    const found = overbendFor(BEND, metal, [])!;
    const [soft, hard] = yieldRange(metal);
    expect(soft).toBeLessThan(hard);
    expect(found).toMatchObject({ by: 'figures', uDeg: null });
    expect(90 < found.fromDeg && found.fromDeg < found.toDeg && found.toDeg < 97).toBe(true);
  }
  // The hardest DC04 the standard allows: the figure reckoned by hand.
  expect(overbendFor(BEND, metalById('dc04'), [])!.toDeg).toBeCloseTo(90.441, 3);
});

test('the shop’s own readings of such a bend come first; those of other sheet, and impossible ones, do not count', () => {
  const near = [reading(92, 88.5), reading(94, 90.2, { thicknessMm: 1.05, radiusMm: 2.3 })];
  const far = [
    reading(92, 80, { metal: 'ss304' }),
    reading(92, 80, { thicknessMm: 2 }),
    reading(92, 80, { radiusMm: 6 }),
    reading(92, 12),
  ];
  const found = overbendFor(BEND, metalById('dc04'), [...far, ...near])!;
  expect(found).toMatchObject({ by: 'readings', readings: 2 });
  expect((found.fromDeg + found.toDeg) / 2).toBeCloseTo(90 / ((88.5 / 92 + 90.2 / 94) / 2), 1);
  expect(overbendFor(BEND, metalById('dc04'), far)!.by).toBe('figures');
  expect(nextTry(90, near[0]!)).toBeCloseTo(93.56, 2);
  expect(nextTry(90, far[3]!)).toBeNull();
});
