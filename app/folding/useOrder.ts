import { useMemo, useState } from 'react';
import type { Remedy } from '#core/blank/fold/order/remedies';
import type { FoldOrder, Stuck } from '#core/blank/fold/order/solve';
import type { Problem } from '#core/measure/result';
import { usePageWorker } from '../workers/pageWorker';
import type { OrderAnswer, OrderAsked, Shown } from './ordering';

const begun = () => new Worker(new URL('./order.worker.ts', import.meta.url), { type: 'module' });

export type Ordered =
  | { state: 'looking' }
  | { state: 'found'; order: FoldOrder }
  /** `remedies` null: still being tried. */
  | {
      state: 'none';
      problems: Problem[];
      stuck: Stuck | null;
      shown: Shown | null;
      remedies: Remedy[] | null;
    };

/**
 * The order in which a piece is folded, found in a worker; looked for anew when what it hangs on
 * changes; not for null.
 */
export function useOrder(asked: Omit<OrderAsked, 'ask'> | null): Ordered {
  const [answered, setAnswered] = useState<{ ask: string; ordered: Ordered } | null>(null);
  const key = JSON.stringify(asked);
  const question = useMemo(
    () =>
      key === 'null' ? null : { ...(JSON.parse(key) as Omit<OrderAsked, 'ask'>), ask: 1, key },
    [key],
  );
  usePageWorker<OrderAsked & { key: string }, OrderAnswer>(
    begun,
    question,
    (answer, { key: ask }) => setAnswered((was) => ({ ask, ordered: after(was, ask, answer) })),
    ({ key: ask }) => setAnswered({ ask, ordered: FAILED }),
  );
  return answered?.ask === key ? answered.ordered : { state: 'looking' };
}

const FAILED: Ordered = {
  state: 'none',
  problems: [{ code: 'worker-failed' }],
  stuck: null,
  shown: null,
  remedies: [],
};

/** What is known once an answer is there: what makes a way out comes after that there is none. */
function after(
  was: { ask: string; ordered: Ordered } | null,
  ask: string,
  answer: OrderAnswer,
): Ordered {
  if (answer.what === 'order') return { state: 'found', order: answer.order };
  if (answer.what === 'none') {
    const { problems, stuck, shown } = answer;
    return { state: 'none', problems, stuck, shown, remedies: null };
  }
  if (was?.ask !== ask) return { state: 'looking' };
  const { ordered } = was;
  return ordered.state === 'none' ? { ...ordered, remedies: answer.remedies } : ordered;
}
