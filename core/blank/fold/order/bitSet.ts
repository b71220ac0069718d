/** Sets of folds as the bits of a number. */

export const bitSetOf = (folds: readonly number[]): number =>
  folds.reduce((bits, fold) => bits | (1 << fold), 0);

export function cardinality(bits: number): number {
  let count = 0;
  for (let left = bits; left !== 0; left &= left - 1) count++;
  return count;
}
