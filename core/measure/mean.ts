/** A figure and its standard uncertainty, in one unit. */
export type Sure = { value: number; u: number };

/**
 * Several readings of one figure as one: the mean weighted by 1/u². Its own u is that of the
 * readings, or what they scatter by if that is more. Null for none.
 */
export function weightedMean(all: readonly Sure[]): Sure | null {
  if (all.length === 0) return null;
  const weight = all.reduce((sum, { u }) => sum + 1 / u ** 2, 0);
  const value = all.reduce((sum, one) => sum + one.value / one.u ** 2, 0) / weight;
  const chi =
    all.reduce((sum, one) => sum + ((one.value - value) / one.u) ** 2, 0) /
    Math.max(1, all.length - 1);
  return { value, u: Math.sqrt(Math.max(1, chi) / weight) };
}
