import type { Development } from '#core/blank/fold/developed';
import type { Folding } from '#core/blank/fold/folding';
import type { Closing, OrderStep, Settled } from '#core/blank/fold/order/solve';
import type { Shop } from '#core/blank/shopSchema';

/**
 * What is done of a piece at a time: a fold on the machine (`step` null: made before the order was
 * asked for), or one closed by hand.
 */
export type FoldRow = { fold: number; fromDeg: number; toDeg: number; done: boolean } & (
  { by: 'machine'; step: OrderStep | null } | { by: 'hand' }
);

/** Folds by their ids as indices, those that are no more left out. */
const indices = ({ folds }: Pick<Development, 'folds'>, ids: readonly string[]): number[] =>
  ids.map((id) => folds.findIndex((fold) => fold.id === id)).filter((fold) => fold >= 0);

/** The machine a piece is folded on, its fingers as far apart as they may stand for it. */
export function brakeFor(
  { brakes }: Pick<Shop, 'brakes'>,
  { brake, uncoveredMm }: Pick<Folding, 'brake' | 'uncoveredMm'>,
): Shop['brakes'][number] | null {
  const found = brakes.find(({ id }) => id === brake) ?? brakes[0];
  if (!found) return null;
  return uncoveredMm === null ? found : { ...found, fingerGapMm: uncoveredMm };
}

/** What of a piece's folding is settled, as the search for an order takes it. */
export function settledBy(
  development: Pick<Development, 'folds'>,
  folding: Folding,
  longFirst: boolean,
  last: string | null = null,
): Required<Settled> {
  const open = new Map(folding.leftOpen.map(({ fold, deg }) => [fold, deg]));
  return {
    anglesDeg: development.folds.map(({ id, bend }) =>
      Math.min(bend.angleDeg, open.get(id) ?? bend.angleDeg),
    ),
    byHand: indices(development, folding.byHand),
    made: [...new Set(indices(development, folding.made))],
    longFirst,
    turnedAfter: folding.turnedAfter,
    last: last === null ? null : (indices(development, [last])[0] ?? null),
  };
}

/**
 * An order of one's own as indices; null where none is typed, or folds have come since that it does
 * not name.
 */
export function ownOrder(
  development: Pick<Development, 'folds'>,
  { order }: Folding,
): number[] | null {
  return order && indices(development, order.folds);
}

/** Whether the folds that are made are those with which an order begins. */
export const beginsWith = (steps: readonly OrderStep[], made: readonly number[]): boolean =>
  steps.slice(0, made.length).every(({ fold }) => made.includes(fold));

/**
 * All that is done of a piece, in its order: folds that were made before the order was asked for
 * come first.
 */
export function foldRows(
  development: Pick<Development, 'folds'>,
  folding: Folding,
  order: { steps: readonly OrderStep[]; after: readonly Closing[] },
): FoldRow[] {
  const { anglesDeg, made } = settledBy(development, folding, false);
  const listed = new Set(order.steps.map(({ fold }) => fold));
  const before = made
    .filter((fold) => !listed.has(fold))
    .map((fold): FoldRow => ({
      fold,
      by: 'machine',
      step: null,
      fromDeg: 0,
      toDeg: anglesDeg[fold]!,
      done: true,
    }));
  const steps = order.steps.map((step): FoldRow => ({
    fold: step.fold,
    by: 'machine',
    step,
    fromDeg: 0,
    toDeg: step.angleDeg,
    done: made.includes(step.fold),
  }));
  const closed = indices(development, folding.closed);
  const after = order.after.map((closing): FoldRow => ({
    ...closing,
    by: 'hand',
    done: closed.includes(closing.fold),
  }));
  return [...before, ...steps, ...after];
}

/** The angle of every fold, degrees, after `count` rows: 2.5 is two and half of the third. */
export function anglesAt(count: number, rows: readonly FoldRow[], done: number): number[] {
  const angles = Array.from({ length: count }, () => 0);
  rows.forEach(({ fold, fromDeg, toDeg }, i) => {
    if (done > i) angles[fold] = fromDeg + (toDeg - fromDeg) * Math.min(1, done - i);
  });
  return angles;
}
