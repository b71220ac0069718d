import fc from 'fast-check';

/**
 * Figures evenly spread over a range, for property tests: fast-check's own doubles crowd round
 * zero.
 */
export const spread = (min: number, max: number): fc.Arbitrary<number> =>
  fc.integer({ min: 0, max: 1e6 }).map((i) => min + ((max - min) * i) / 1e6);
