import { sheetMetal } from '#core/blank/fold/practice';
import type { Brake } from '#core/machine/brake';
import { useDraft } from '../forms/useDraft';
import { usePiece } from '../piece/pieceContext';
import type { Shown } from './ordering';
import type { Ordered } from './useOrder';
import { useOrder } from './useOrder';

/** On which machine a piece is folded, an order of one's own (empty: one is found), and how many folds are made. */
export type OrderDraft = { brake: string; typed: string; at: number };

export type Ordering = {
  ordered: Ordered;
  draft: OrderDraft;
  set: (change: Partial<OrderDraft>) => void;
  brake: Brake | null;
  /** The fold that is next, and those that are made; of an order that is stuck the fold that hits. */
  shown: Shown | null;
};

/** The folding of a piece on a machine; looked for only while it is `wanted`. */
export function useOrdering(wanted: boolean): Ordering {
  const { id, pattern, shop, metal, facts } = usePiece();
  const { draft, set } = useDraft<OrderDraft>(`order ${id}`, { brake: shop.brakes[0]?.id ?? '', typed: '', at: 0 });
  const brake = shop.brakes.find((one) => one.id === draft.brake) ?? shop.brakes[0] ?? null;
  const { brakeLine, relief, shortestFlangeMm } = shop;
  const ordered = useOrder(
    wanted && brake
      ? {
          pattern: { ...pattern, taken: null },
          sheet: sheetMetal(metal, facts.thicknessMm, shop),
          practice: { brakeLine, relief, shortestFlangeMm },
          brake,
          order: orderOf(draft.typed),
        }
      : null,
  );
  return { ordered, draft: { ...draft, brake: brake?.id ?? '' }, set, brake, shown: shownOf(ordered, draft) };
}

/** Numbers of folds as they were typed, from 0; null where nothing was. */
const orderOf = (typed: string): number[] | null => {
  const numbers = typed.match(/\d+/g);
  return numbers ? numbers.slice(0, 400).map((one) => Number(one) - 1) : null;
};

function shownOf(ordered: Ordered, { at }: OrderDraft): Ordering['shown'] {
  if (ordered.state === 'found') {
    const { steps } = ordered.order;
    const now = Math.min(at, steps.length - 1);
    const step = steps[now];
    return step ? { step, made: steps.slice(0, now).map(({ fold }) => fold) } : null;
  }
  if (ordered.state === 'none') return ordered.shown;
  return null;
}
