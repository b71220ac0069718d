import { sheetMetal } from '#core/blank/fold/practice';
import type { Development } from '#core/blank/fold/developed';
import type { Brake } from '#core/machine/brake';
import { foldLeftForGap } from '#core/shape/leaveFold';
import { useState } from 'react';
import { gapEdges } from '../piece/loaded/shapeSteps';
import { usePiece } from '../piece/pieceContext';
import type { FoldRow } from './foldRows';
import { beginsWith, brakeFor, foldRows, ownOrder, settledBy } from './foldRows';
import type { Shown } from './ordering';
import { useFolding } from './useFolding';
import type { Ordered } from './useOrder';
import { useOrder } from './useOrder';

export type Ordering = {
  saved: ReturnType<typeof useFolding>;
  ordered: Ordered;
  brake: (Brake & { id: string; name: string }) | null;
  /** All that is done of the piece, in its order; empty where there is no order. */
  rows: FoldRow[];
  /** The first row that is not done. */
  next: number;
  /** The row that is looked at: the next, where no other was chosen. */
  looked: number;
  look: (row: number | null) => void;
  /** What is drawn at the machine; of an order that is stuck the fold that hits. */
  shown: Shown | null;
};

/** The folding of a piece on a machine; an order is looked for only while it is `wanted`. */
export function useOrdering(development: Development, wanted: boolean): Ordering {
  const { pattern, meets, shop, metal, facts } = usePiece();
  const saved = useFolding();
  const folding = saved.draft;
  const [chosen, look] = useState<number | null>(null);
  const brake = brakeFor(shop, folding);
  const { brakeLine, relief, shortestFlangeMm } = shop;
  const left = foldLeftForGap(
    development,
    gapEdges(pattern, (edge) => meets(edge) !== ''),
    folding.order?.folds ?? [],
  );
  const settled = settledBy(development, folding, shop.longFolds === 'early', left?.fold ?? null);
  const order = ownOrder(development, folding);
  const asked =
    !wanted || !brake
      ? null
      : {
          pattern: { ...pattern, taken: null },
          sheet: sheetMetal(metal, facts.thicknessMm, shop),
          practice: { brakeLine, relief, shortestFlangeMm },
          brake,
          order,
          settled: { ...settled, made: [] as number[] },
        };
  const whole = useOrder(asked);
  // What is made need not be what this order begins with: then the rest is put in order.
  const { made } = settled;
  const follows =
    made.length === 0 || (whole.state === 'found' && beginsWith(whole.order.steps, made));
  const rest = useOrder(
    asked && whole.state !== 'looking' && !follows ? { ...asked, settled } : null,
  );
  const ordered = follows ? whole : rest;
  const rows = ordered.state === 'found' ? foldRows(development, folding, ordered.order) : [];
  const first = rows.findIndex(({ done }) => !done);
  const next = first < 0 ? rows.length : first;
  const looked = Math.max(0, Math.min(chosen ?? next, rows.length - 1));
  return { saved, ordered, brake, rows, next, looked, look, shown: shownOf(ordered, rows, looked) };
}

function shownOf(ordered: Ordered, rows: readonly FoldRow[], looked: number): Shown | null {
  if (ordered.state === 'none') return ordered.shown;
  // A fold by hand is drawn as the last on the machine left it.
  for (let at = looked; at >= 0; at--) {
    const row = rows[at];
    if (row?.by === 'machine' && row.step)
      return {
        step: row.step,
        made: rows.slice(0, at).flatMap(({ by, fold }) => (by === 'machine' ? [fold] : [])),
        hit: null,
      };
  }
  return null;
}
