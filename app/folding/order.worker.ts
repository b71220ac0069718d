import { develop } from '#core/blank/fold/develop';
import { remediesFor } from '#core/blank/fold/order/remedies';
import { checkedOrder, foldOrder } from '#core/blank/fold/order/solve';
import type { Furthest, Stuck } from '#core/blank/fold/order/solve';
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
  const refused: { ok: false; stuck?: Stuck; furthest?: Furthest | null } = answer;
  const { stuck = null, furthest = null } = refused;
  const before = (order ?? []).filter(
    (fold) => !settled.byHand?.includes(fold) && !settled.made?.includes(fold),
  );
  const made = stuck
    ? [...(settled.made ?? []), ...before.slice(0, before.indexOf(stuck.fold))]
    : [];
  // Where there is no order, what hits is drawn where the order that comes farthest ends.
  const shown = stuck ? { step: stuck.step, made, hit: stuck.hit } : furthest;
  say({ ask, what: 'none', problems: answer.problems, stuck, shown });
  // Where another order goes, that is what frees it.
  if (order && foldOrder(development, brake, settled).ok) return;
  say({
    ask,
    what: 'remedies',
    remedies: remediesFor(development, brake, settled, furthest?.leftMost),
  });
};
