import { ROUNDING_MM } from './tolerance';

/**
 * A length that changes evenly from place to place: mm at rising shares of the way, the first 0 and
 * the last 1.
 */
export type Ramp = readonly (readonly [share: number, mm: number])[];

export const ramp = (startMm: number, endMm: number, between: Ramp = []): Ramp => [
  [0, startMm],
  ...between,
  [1, endMm],
];

export const even = (mm: number): Ramp => ramp(mm, mm);

/**
 * How long it is at a share of the way, and how much longer it gets from there on for the whole
 * way.
 */
function along(of: Ramp, share: number): { mm: number; slope: number } {
  const beyond = of.findIndex(([at]) => at > share);
  const i = beyond < 0 ? of.length - 1 : Math.max(1, beyond);
  const [[from, a], [to, b]] = [of[i - 1]!, of[i]!];
  const slope = to > from ? (b - a) / (to - from) : 0;
  return { mm: a + slope * (share - from), slope };
}

export const rampAt = (of: Ramp, share: number): number => along(of, share).mm;
export const slopeAt = (of: Ramp, share: number): number => along(of, share).slope;

export const leastOfRamp = (of: Ramp): number => Math.min(...of.map(([, mm]) => mm));
export const mostOfRamp = (of: Ramp): number => Math.max(...of.map(([, mm]) => mm));
/** How long it is on the whole. */
export const meanOf = (of: Ramp): number =>
  of
    .slice(1)
    .reduce((sum, [share, mm], i) => sum + ((share - of[i]![0]) * (mm + of[i]![1])) / 2, 0);
export const isEven = (of: Ramp): boolean =>
  of.every(([, mm]) => Math.abs(mm - of[0]![1]) < ROUNDING_MM);

/** Each of its lengths made another. */
export const ramped = (of: Ramp, to: (mm: number, share: number) => number): Ramp =>
  of.map(([share, mm]) => [share, to(mm, share)] as const);

/** The same gone from its other end. */
export const rampBack = (of: Ramp): Ramp =>
  of.map(([share, mm]) => [1 - share, mm] as const).reverse();

/** What lies of it between two shares, as a ramp of its own. */
export function rampPart(of: Ramp, from: number, to: number): Ramp {
  const inner = of.filter(([share]) => share > from && share < to);
  return ramp(
    rampAt(of, from),
    rampAt(of, to),
    inner.map(([share, mm]) => [(share - from) / (to - from), mm] as const),
  );
}
