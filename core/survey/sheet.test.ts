import fc from 'fast-check';
import { spread } from '../measure/spread.arbitrary';
import { METALS, metalById } from '../metal/metals';
import { originalThickness } from './originalThickness';
import { COMMON_SHEETS_MM, stockCandidates, stepLimit } from './stockCandidates';

test('old sheet is told from paint and rust, in whatever order it was read', () => {
  const given = fc.tuple(
    spread(0.5, 3),
    fc.array(spread(-0.015, 0.015), { minLength: 4, maxLength: 12 }),
    // Paint adds, rust takes off, each by more than one sheet differs by.
    fc.array(spread(0.12, 0.5), { maxLength: 2 }),
    fc.array(spread(0.12, 0.4), { maxLength: 1 }),
  );
  fc.assert(
    fc.property(given, fc.integer(), ([t, noise, paint, rust], seed) => {
      const all = [
        ...noise.map((e) => t * (1 + e)),
        ...paint.map((p) => t * (1 + p) + 0.05),
        ...rust.map((r) => t * (1 - r) - 0.05),
      ];
      const shuffled = all
        .map((mm, i) => ({ mm, i, key: Math.sin(seed + i * 12.9898) }))
        .sort((a, b) => a.key - b.key);
      const found = originalThickness(shuffled.map(({ mm }) => mm))!;
      expect(Math.abs(found.thicknessMm - t)).toBeLessThan(0.015 * t + 1e-9);
      shuffled.forEach(({ i }, k) => {
        const what =
          i < noise.length ? 'sheet' : i < noise.length + paint.length ? 'thicker' : 'thinner';
        expect(found.readings[k]).toBe(what);
      });
      expect(found.told).toBe(true);
    }),
  );
});

test('what readings cannot tell is not told', () => {
  expect(originalThickness([])).toBeNull();
  expect(originalThickness([1])).toMatchObject({ thicknessMm: 1, told: false });
  expect(originalThickness([1, 1.01])).toMatchObject({ told: false });
  expect(originalThickness([0.8, 1.2, 1.6, 2])).toMatchObject({ told: false });
  // Two groups as large: paint on both faces is commoner than even rust.
  expect(originalThickness([1, 1.01, 1.4, 1.41])).toMatchObject({
    thicknessMm: expect.closeTo(1.005, 6),
    told: false,
  });
  // ± of a mean falls with the root of how many there are; a micrometer is no better than it is.
  expect(originalThickness([1, 1, 1, 1])!.uMm).toBeCloseTo(0.005, 9);
});

test('a structural piece is never offered anything thinner than the old can be', () => {
  fc.assert(
    fc.property(
      spread(0.5, 3.2),
      spread(0.001, 0.02),
      fc.boolean(),
      (thicknessMm, uMm, structural) => {
        const metal = metalById('dc01');
        const offered = COMMON_SHEETS_MM.map((t) => ({ metal, thicknessMm: t, name: '' }));
        const found = stockCandidates({ metal, thicknessMm, uMm }, structural, offered, 4);
        const apart = found.map((row) => Math.abs(row.thicknessMm - thicknessMm));
        expect(apart).toEqual([...apart].sort((a, b) => a - b));
        if (structural)
          for (const row of found)
            expect(row.thicknessMm).toBeGreaterThanOrEqual(thicknessMm - 2 * uMm);
        // What is left out comes no nearer, or is too thin.
        for (const t of COMMON_SHEETS_MM.filter((t) => found.every((row) => row.thicknessMm !== t)))
          expect(
            Math.abs(t - thicknessMm) >= Math.max(...apart, -Infinity) ||
              (structural && t < thicknessMm - 2 * uMm),
          ).toBe(true);
      },
    ),
  );
});

test('another sheet is as stiff as E·t³ and as heavy as its weight; the step is held to ISO 5817', () => {
  const old = { metal: metalById('dc01'), thicknessMm: 1, uMm: 0.01 };
  for (const metal of METALS) {
    const [row] = stockCandidates(old, false, [{ metal, thicknessMm: 1.2, name: '' }], 1);
    // A strip in bending: E·b·t³/12.
    const bending = (m: typeof metal, t: number) => (m.young.value * t ** 3) / 12;
    expect(row!.stiffer).toBeCloseTo(bending(metal, 1.2) / bending(old.metal, 1), 9);
    expect(row!.heavier).toBeCloseTo((1.2 * metal.weight.value) / old.metal.weight.value, 9);
    expect(row).toMatchObject({
      stepMm: expect.closeTo(0.2, 9),
      stepLimitMm: expect.closeTo(0.35, 9),
    });
  }
  // ISO 5817:2014, 507, quality C, from memory: 0.2 + 0.15 t to 3 mm, then 0.15 t, 4 at the most.
  expect([0.8, 2, 3, 10, 40].map(stepLimit).map((x) => Number(x.toFixed(3)))).toEqual([
    0.32, 0.5, 0.65, 1.5, 4,
  ]);
  // The same sheet on two lists is offered once.
  const twice = [1, 1.002].map((thicknessMm) => ({ metal: old.metal, thicknessMm, name: '' }));
  expect(stockCandidates(old, false, twice, 4)).toHaveLength(1);
});
