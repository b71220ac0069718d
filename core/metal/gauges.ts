import { MM_PER_INCH } from '../measure/length';
import type { Result } from '../measure/result';
import { failure } from '../measure/result';

/**
 * A gauge system: the same number is a different sheet in each. `msg` Manufacturers' Standard Gauge
 * (uncoated steel), `gsg` galvanized sheet gauge, `swg` Imperial Standard Wire Gauge, `bs` Brown &
 * Sharpe / American Wire Gauge (aluminium, copper, brass).
 */
export const GAUGE_SYSTEMS = ['msg', 'gsg', 'swg', 'bs'] as const;
export type GaugeSystem = (typeof GAUGE_SYSTEMS)[number];

export const SYSTEM_NAMES: Record<GaugeSystem, string> = {
  msg: "Manufacturers' Standard (steel)",
  gsg: 'Galvanized sheet',
  swg: 'Imperial Standard Wire (SWG)',
  bs: 'Brown & Sharpe (aluminium)',
};

/**
 * Weight per square foot in ounces that defines each Manufacturers' Standard Gauge number (from
 * memory, with the multiples of the old sheet gauge it continues).
 */
const MSG_OUNCES: Record<number, number> = {
  3: 160, 4: 150, 5: 140, 6: 130, 7: 120, 8: 110, 9: 100, 10: 90, 11: 80, 12: 70, 13: 60, 14: 50, 15: 45, 16: 40, 17: 36,
  18: 32, 19: 28, 20: 24, 21: 22, 22: 20, 23: 18, 24: 16, 25: 14, 26: 12, 27: 11, 28: 10, 29: 9, 30: 8,
}; // prettier-ignore

/** Zinc that the galvanized gauge counts on top of the base sheet: 2.5 oz/ft². */
const ZINC_OUNCES = 2.5;

/**
 * lb/ft² per inch that the steel gauges reckon with: a convention of the gauge, not the density of
 * steel.
 */
const GAUGE_WEIGHT = 41.82;

/**
 * Imperial Standard Wire Gauge in inches (British Weights and Measures order of 1883; from memory).
 */
const SWG_INCHES: Record<number, number> = {
  7: 0.176, 8: 0.16, 9: 0.144, 10: 0.128, 11: 0.116, 12: 0.104, 13: 0.092, 14: 0.08, 15: 0.072, 16: 0.064, 17: 0.056,
  18: 0.048, 19: 0.04, 20: 0.036, 21: 0.032, 22: 0.028, 23: 0.024, 24: 0.022, 25: 0.02, 26: 0.018, 27: 0.0164, 28: 0.0148,
  29: 0.0136, 30: 0.0124,
}; // prettier-ignore

const range = (from: number, to: number): number[] =>
  Array.from({ length: to - from + 1 }, (_, i) => from + i);

/** The gauge numbers each system is listed for here. */
export const GAUGE_NUMBERS: Record<GaugeSystem, number[]> = {
  msg: range(3, 30),
  gsg: range(8, 30),
  swg: range(7, 30),
  bs: range(6, 30),
};

const rounded = (inches: number): number => Math.round(inches * 1e4) / 1e4;

function inchesOf(system: GaugeSystem, gauge: number): number {
  switch (system) {
    case 'msg':
      return rounded(MSG_OUNCES[gauge]! / 16 / GAUGE_WEIGHT);
    case 'gsg':
      return rounded((MSG_OUNCES[gauge]! + ZINC_OUNCES) / 16 / GAUGE_WEIGHT);
    case 'swg':
      return SWG_INCHES[gauge]!;
    case 'bs':
      return rounded(0.005 * 92 ** ((36 - gauge) / 39));
  }
}

/**
 * The thickness that a gauge number names, as published: inches to four places, and the same in
 * millimetres.
 *
 * Problems: `gauge-unknown` (numbers: gauge, lowest, highest) when the system does not list the
 * number.
 */
export function thicknessOfGauge(
  system: GaugeSystem,
  gauge: number,
): Result<{ thicknessMm: number; thicknessIn: number }> {
  const known = GAUGE_NUMBERS[system];
  if (!known.includes(gauge)) {
    return failure({
      code: 'gauge-unknown',
      numbers: { gauge, lowest: known[0]!, highest: known[known.length - 1]! },
    });
  }
  const thicknessIn = inchesOf(system, gauge);
  return { ok: true, thicknessIn, thicknessMm: thicknessIn * MM_PER_INCH };
}

export type NearGauge = {
  system: GaugeSystem;
  gauge: number;
  thicknessMm: number;
  differenceMm: number;
};

/**
 * The nearest gauge in each system to a micrometer reading in millimetres; `differenceMm` is the
 * reading less the gauge (positive when the sheet is thicker than its name).
 *
 * Problems: `thickness-not-positive`.
 */
export function nearestGauges(thicknessMm: number): Result<{ nearest: NearGauge[] }> {
  if (!(thicknessMm > 0))
    return failure({ code: 'thickness-not-positive', numbers: { thicknessMm } });
  const nearest = GAUGE_SYSTEMS.map((system) => {
    const all = GAUGE_NUMBERS[system].map((gauge) => {
      const mm = inchesOf(system, gauge) * MM_PER_INCH;
      return { system, gauge, thicknessMm: mm, differenceMm: thicknessMm - mm };
    });
    return all.reduce((best, one) =>
      Math.abs(one.differenceMm) < Math.abs(best.differenceMm) ? one : best,
    );
  });
  return { ok: true, nearest };
}
