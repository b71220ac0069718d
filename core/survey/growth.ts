import type { Finding, Look } from './references';

/**
 * The area of a line drawn round something on a picture, in pixels; null where there is no such
 * line.
 */
export type OutlineArea = (outline: NonNullable<Look['outline']>) => number | null;

/** Looks in the order of their dates; of two at one moment as they were written down. */
export const inTime = (looks: readonly Look[]): Look[] =>
  [...looks].sort((a, b) => a.at.localeCompare(b.at));

/**
 * How many times as large (by area) something is at a later look as at an earlier one: by length ×
 * width where both were measured, by lines drawn on the same picture else; null where they cannot
 * be compared.
 */
export function timesAsLarge(earlier: Look, later: Look, areaOf: OutlineArea): number | null {
  const measured = ({ lengthMm, widthMm }: Look) =>
    lengthMm && widthMm ? lengthMm * widthMm : null;
  const [a, b] = [measured(earlier), measured(later)];
  if (a !== null && b !== null) return b / a;
  if (!earlier.outline || earlier.outline.picture !== later.outline?.picture) return null;
  const [c, d] = [areaOf(earlier.outline), areaOf(later.outline)];
  return c && d ? d / c : null;
}

/**
 * How a finding grew from the first look that can be compared with the last one to that; null
 * before there are two.
 */
export function growthOf({ looks }: Pick<Finding, 'looks'>, areaOf: OutlineArea): number | null {
  const all = inTime(looks);
  const last = all.pop();
  for (const earlier of all) {
    const times = timesAsLarge(earlier, last!, areaOf);
    if (times !== null) return times;
  }
  return null;
}

/**
 * By how much findings grow between first sight and cut open: of each that was cut open its last
 * look then against its first of all, the geometric mean of them; null where there is none yet.
 */
export function growthToCutOpen(
  findings: readonly Pick<Finding, 'looks'>[],
  areaOf: OutlineArea,
): { times: number; of: number } | null {
  const grown = findings.flatMap(({ looks }) => {
    const all = inTime(looks);
    const cut = all.map(({ how }) => how).lastIndexOf('cut');
    return growthOf({ looks: all.slice(0, cut + 1) }, areaOf) ?? [];
  });
  if (grown.length === 0) return null;
  const mean = grown.reduce((sum, times) => sum + Math.log(times), 0) / grown.length;
  return { times: Math.exp(mean), of: grown.length };
}
