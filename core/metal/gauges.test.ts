import { nearestGauges, thicknessOfGauge } from './gauges';
import type { GaugeSystem } from './gauges';

// Published gauge tables, inches to the printed places. Manufacturers' Standard Gauge and
// galvanized sheet gauge: American steel makers' tables (ASTM A480/A653 appendices). Imperial
// Standard Wire Gauge: British Standard table. Brown & Sharpe: ASTM B258. All as carried in
// docs/formulas.md.
const TABLE: Record<GaugeSystem, Record<number, number>> = {
  msg: { 10: 0.1345, 12: 0.1046, 14: 0.0747, 16: 0.0598, 18: 0.0478, 19: 0.0418, 20: 0.0359, 22: 0.0299, 24: 0.0239, 26: 0.0179, 28: 0.0149, 30: 0.012 },
  gsg: { 16: 0.0635, 18: 0.0516, 20: 0.0396, 22: 0.0336, 24: 0.0276 },
  swg: { 14: 0.08, 16: 0.064, 17: 0.056, 18: 0.048, 19: 0.04, 20: 0.036, 21: 0.032, 22: 0.028, 23: 0.024, 24: 0.022, 26: 0.018 },
  bs: { 14: 0.0641, 16: 0.0508, 18: 0.0403, 20: 0.032, 22: 0.0253 },
}; // prettier-ignore

const rows = (Object.keys(TABLE) as GaugeSystem[]).flatMap((system) =>
  Object.entries(TABLE[system]).map(([gauge, inches]) => [system, Number(gauge), inches] as const),
);

test.each(rows)('%s %d gauge is %d in', (system, gauge, inches) => {
  const found = thicknessOfGauge(system, gauge);
  expect(found).toMatchObject({ ok: true });
  if (found.ok) {
    expect(found.thicknessIn).toBeCloseTo(inches, 10);
    expect(found.thicknessMm).toBeCloseTo(inches * 25.4, 9);
  }
});

test('every number of every system names itself when its own thickness is measured', () => {
  for (const [system, gauge] of rows) {
    const own = thicknessOfGauge(system, gauge);
    if (!own.ok) throw new Error('listed gauge refused');
    const near = nearestGauges(own.thicknessMm);
    if (!near.ok) throw new Error('positive thickness refused');
    expect(near.nearest.find((n) => n.system === system)).toMatchObject({ gauge, differenceMm: 0 });
  }
});

test('numbers and readings that cannot be are refused with their figures', () => {
  expect(thicknessOfGauge('msg', 99)).toMatchObject({
    ok: false,
    problems: [{ code: 'gauge-unknown' }],
  });
  expect(thicknessOfGauge('msg', 20.5)).toMatchObject({ ok: false });
  expect(nearestGauges(0)).toMatchObject({
    ok: false,
    problems: [{ code: 'thickness-not-positive' }],
  });
  expect(nearestGauges(Number.NaN)).toMatchObject({ ok: false });
});
