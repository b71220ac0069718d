import type { Hit } from '#core/blank/fold/order/inTheWay';
import type { Remedy } from '#core/blank/fold/order/remedies';
import type { FoldOrder, OrderStep, Settled, Stuck } from '#core/blank/fold/order/solve';
import type { SheetMetal, Practice } from '#core/blank/fold/practice';
import type { PatternDoc } from '#core/card/pattern';
import type { Brake } from '#core/machine/brake';
import type { Problem } from '#core/measure/result';

/**
 * What is asked of the worker that looks for an order; with `order`, whether that one can be made.
 */
export type OrderAsked = {
  ask: number;
  pattern: PatternDoc;
  sheet: SheetMetal;
  practice: Practice;
  brake: Brake;
  order: number[] | null;
  settled: Settled;
};
/** A fold at the machine, and the folds that are made before it: to be drawn; with what it hits. */
export type Shown = { step: OrderStep; made: number[]; hit: Hit | null };
/**
 * What it answers, `ask` as it was asked. What would free a piece comes later, and can take longer.
 */
export type OrderAnswer =
  | { ask: number; what: 'order'; order: FoldOrder }
  | { ask: number; what: 'none'; problems: Problem[]; stuck: Stuck | null; shown: Shown | null }
  | { ask: number; what: 'remedies'; remedies: Remedy[] };
