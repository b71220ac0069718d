import { METALS, METAL_IDS, metalById, minRadiusFromReduction, usualRadius } from './metals';

test('EN 10130:2006 drawing grades carry the figures of the standard (from memory)', () => {
  const printed = [
    ['dc01', 280, 28, undefined, undefined],
    ['dc03', 240, 34, 1.3, undefined],
    ['dc04', 210, 38, 1.6, 0.18],
    ['dc05', 180, 40, 1.9, 0.2],
    ['dc06', 170, 41, 2.1, 0.22],
  ] as const;
  for (const [id, re, a80, r90, n90] of printed) {
    const metal = metalById(id);
    expect([
      metal.yield.value,
      metal.elongation.value,
      metal.anisotropy?.value,
      metal.hardening?.value,
    ]).toEqual([re, a80, r90, n90]);
  }
});

test.each([
  [50, 0],
  [40, 0.25],
  [20, 1.5],
  [10, 4],
])('Kalpakjian & Schmid: %d %% reduction of area bends to %d T', (r, inT) =>
  expect(minRadiusFromReduction(r)).toBeCloseTo(inT, 12),
);

test('every metal is listed once, says where each figure is from, and can be bent at its usual radius', () => {
  expect(METALS.map((metal) => metal.id)).toEqual([...METAL_IDS]);
  for (const metal of METALS) {
    for (const figure of [
      metal.weight,
      metal.yield,
      metal.young,
      metal.elongation,
      metal.minRadius,
    ]) {
      expect(figure.source.length).toBeGreaterThan(3);
    }
    expect(usualRadius(metal, 1)).toBeGreaterThanOrEqual(metal.minRadius.value);
  }
});
