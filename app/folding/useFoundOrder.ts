import type { Development } from '#core/blank/fold/developed';
import { useOrdering } from './useOrdering';

/** Where there is one fold there is one order. */
const FEWEST = 2;

/**
 * The folds of a piece in the order the machine makes them, by id; those that are closed by hand
 * after them. Undefined while it is looked for and where there is none.
 */
export function useFoundOrder(development: Development): string[] | undefined {
  const { folds } = development;
  const { ordered } = useOrdering(development, folds.length >= FEWEST);
  if (ordered.state !== 'found') return undefined;
  const { steps, after } = ordered.order;
  return [...new Set([...steps, ...after].map(({ fold }) => folds[fold]!.id))];
}
