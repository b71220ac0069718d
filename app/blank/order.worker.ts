import { develop } from '#core/blank/fold/develop';
import { remediesFor } from '#core/blank/fold/order/remedies';
import { checkedOrder, foldOrder } from '#core/blank/fold/order/solve';
import type { Stuck } from '#core/blank/fold/order/solve';
import type { OrderAnswer, OrderAsked } from './ordering';

const say = (answer: OrderAnswer) => self.postMessage(answer);

self.onmessage = ({
  data: { ask, pattern, sheet, practice, brake, order, settled },
}: MessageEvent<OrderAsked>) => {
  const found = develop(pattern, sheet, practice);
  if (!found.ok)
    return say({ ask, what: 'none', problems: found.problems, stuck: null, shown: null });
  const { development } = found;
  const answer = order
    ? checkedOrder(development, brake, order, settled)
    : foldOrder(development, brake, settled);
  if (answer.ok) return say({ ask, what: 'order', order: answer });
  // Where there is no order, what hits is drawn in the order in which the folds are numbered.
  const inOrder = order ?? development.folds.map((_, i) => i);
  const stuck = stuckOf(order ? answer : checkedOrder(development, brake, inOrder, settled));
  const before = inOrder.filter(
    (fold) => !settled.byHand?.includes(fold) && !settled.made?.includes(fold),
  );
  const made = stuck
    ? [...(settled.made ?? []), ...before.slice(0, before.indexOf(stuck.fold))]
    : [];
  const shown = stuck && { step: stuck.step, made, hit: stuck.hit };
  say({ ask, what: 'none', problems: answer.problems, stuck: order ? stuck : null, shown });
  // Where another order goes, that is what frees it.
  if (order && foldOrder(development, brake, settled).ok) return;
  say({ ask, what: 'remedies', remedies: remediesFor(development, brake, settled) });
};

const stuckOf = (answer: object): Stuck | null =>
  'stuck' in answer ? (answer.stuck as Stuck) : null;
