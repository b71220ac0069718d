import { useEffect, useRef, useState } from 'react';
import type { Remedy } from '#core/blank/fold/order/remedies';
import type { FoldOrder, Stuck } from '#core/blank/fold/order/solve';
import type { Problem } from '#core/measure/result';
import type { OrderAnswer, OrderAsked, Shown } from './ordering';

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
  const count = useRef(0);
  const key = JSON.stringify(asked);
  useEffect(() => {
    if (key === 'null') return;
    const ask = ++count.current;
    const worker = new Worker(new URL('./order.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<OrderAnswer>) =>
      setAnswered((was) => {
        if (data.what === 'order')
          return { ask: key, ordered: { state: 'found', order: data.order } };
        if (data.what === 'none')
          return {
            ask: key,
            ordered: {
              state: 'none',
              problems: data.problems,
              stuck: data.stuck,
              shown: data.shown,
              remedies: null,
            },
          };
        if (was?.ask !== key || was.ordered.state !== 'none') return was;
        return { ask: key, ordered: { ...was.ordered, remedies: data.remedies } };
      });
    worker.postMessage({ ...(JSON.parse(key) as Omit<OrderAsked, 'ask'>), ask });
    return () => worker.terminate();
  }, [key]);
  return answered?.ask === key ? answered.ordered : { state: 'looking' };
}
