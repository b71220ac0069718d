import type { Brake } from '../../../machine/brake';
import type { Problem, Result } from '../../../measure/result';
import { failure } from '../../../measure/result';
import type { Development } from '../developed';
import type { Clamped } from './pose';
import type { Known, Way } from './search';
import { SIDES, alike, cheapest, costOf, leastTurnings, turnings } from './search';
import type { Hit } from './inTheWay';
import type { Step } from './step';
import { stepper } from './step';

/** One fold as it is made. */
export type OrderStep = {
  /** Index of the fold. */
  fold: number;
  clamped: Clamped;
  faceUp: boolean;
  turnDeg: number;
  fingersMm: number[] | null;
  /** How far it is taken on the machine, degrees. */
  angleDeg: number;
};

export type FoldOrder = { steps: OrderStep[]; exact: boolean; turnings: number; fingerChanges: number };

/**
 * Of so many ways all is weighed; where there are more, ways that are far are followed first, so many at the most: what they
 * come to is an order, but there may be a better one.
 */
const WEIGHED = 5000;
const FOLLOWED = 12_000;
/** More folds than these are not put in order. */
const MOST_FOLDS = 30;
/**
 * An order in which a machine makes all folds of a piece: of those that are possible with the fewest turnings of the piece,
 * then the fewest changes of fingers, then long folds late. `exact`: no other order is better.
 *
 * Problems: `machine-figures`; `too-many-folds`; `order-not-found` (numbers: foldsLeft; none was found among those that were
 * followed); `no-order` (about: the ids of folds that never can be made, or all that were left; numbers:
 * how many were left when most were made).
 *
 * @param anglesDeg how far each fold is taken on the machine; left out, all the way
 * @param byHand folds that are not made on the machine, but after all others
 */
export function foldOrder(
  development: Development,
  brake: Brake,
  anglesDeg: readonly number[] = development.folds.map(({ bend }) => bend.angleDeg),
  byHand: readonly number[] = [],
): Result<FoldOrder> {
  const { folds } = development;
  const machine = stepper(development, brake, anglesDeg);
  if (!machine.ok) return machine;
  const { step, poses } = machine;
  const n = folds.length;
  if (n > MOST_FOLDS) return failure({ code: 'too-many-folds', numbers: { folds: n, most: MOST_FOLDS } });
  const known: Known = { poses, long: poses.map(({ base }) => base.line[1] - base.line[0]), step };
  const all = byHand.reduce((bits, fold) => bits & ~(1 << fold), 2 ** n - 1);
  const least = leastTurnings(poses, all);
  const asked = { n, all, known, least };
  const weighed = cheapest(asked, WEIGHED, false);
  const found = weighed.way || weighed.exact ? weighed : cheapest(asked, FOLLOWED, true);
  if (!found.way) {
    const never = folds.flatMap(({ id }, i) => (found.reached & (1 << i) || !(all & (1 << i)) ? [] : [id]));
    const left = folds.flatMap(({ id }, i) => (found.most & (1 << i) || !(all & (1 << i)) ? [] : [id]));
    if (!found.exact) return failure({ code: 'order-not-found', about: left, numbers: { foldsLeft: left.length } });
    return failure({ code: 'no-order', about: never.length > 0 ? never : left, numbers: { foldsLeft: left.length } });
  }
  const steps = stepsOf(found.way, known, anglesDeg);
  return { ok: true, steps, exact: found.exact, ...handling(steps) };
}

/** The steps of a way from its first. */
function stepsOf(last: Way, { poses, step }: Known, anglesDeg: readonly number[]): OrderStep[] {
  const steps: OrderStep[] = [];
  for (let way: Way | null = last; way && way.fold >= 0; way = way.before) {
    const { fold, side, before } = way;
    const { faceUp, turnDeg } = poses[fold]![side];
    const { fingersMm } = step(fold, side, before!.made) as Extract<Step, { ok: true }>;
    steps.unshift({ fold, clamped: side, faceUp, turnDeg, fingersMm, angleDeg: anglesDeg[fold]! });
  }
  return steps;
}

function handling(steps: readonly OrderStep[]): Pick<FoldOrder, 'turnings' | 'fingerChanges'> {
  const pairs = steps.slice(1).map((step, i) => [steps[i]!, step] as const);
  return {
    turnings: pairs.reduce((sum, [a, b]) => sum + turnings(a, b), 0),
    fingerChanges: pairs.filter(([a, b]) => !alike(a.fingersMm, b.fingersMm)).length,
  };
}

/** The first step of an order that cannot be made, as it comes nearest to being made. */
export type Stuck = { at: number; fold: number; hit: Hit; step: OrderStep };

/**
 * Whether folds can be made in a given order, each held by whichever side lets it be made, with the least turning.
 *
 * Problems: `machine-figures`; `too-many-folds`; `order-unreadable`; `hits` (about: the fold's id; numbers: depthMm) with what it hits in
 * `stuck`.
 */
export function checkedOrder(
  development: Development,
  brake: Brake,
  order: readonly number[],
): Result<FoldOrder> | { ok: false; problems: Problem[]; stuck: Stuck } {
  const { folds } = development;
  if (folds.length > MOST_FOLDS)
    return failure({ code: 'too-many-folds', numbers: { folds: folds.length, most: MOST_FOLDS } });
  const anglesDeg = folds.map(({ bend }) => bend.angleDeg);
  const machine = stepper(development, brake, anglesDeg);
  if (!machine.ok) return machine;
  const { step, poses } = machine;
  if ([...order].sort((a, b) => a - b).join() !== folds.map((_, i) => i).join())
    return failure({ code: 'order-unreadable' });
  const known: Known = { poses, long: poses.map(({ base }) => base.line[1] - base.line[0]), step };
  let ways: Way[] = [{ made: 0, fold: -1, side: 'base', cost: 0, all: 0, before: null }];
  for (const [at, fold] of order.entries()) {
    const { made } = ways[0]!;
    const tried = SIDES.map((side) => ({ side, found: step(fold, side, made) }));
    const next = tried.flatMap(({ side, found }): Way[] => {
      if (!found.ok) return [];
      const from = ways.map((way) => ({ way, cost: way.cost + costOf(way, { fold, side, found }, known) })); // prettier-ignore
      const { way, cost } = from.reduce((best, one) => (one.cost < best.cost ? one : best));
      return [{ made: made | (1 << fold), fold, side, cost, all: cost, before: way }];
    });
    if (next.length === 0) {
      // Of the two ways to hold it, the one that is less in the way.
      const hits = tried.flatMap(({ side, found }) => (found.ok ? [] : [{ side, hit: found.hit }]));
      const { side, hit } = hits.reduce((least, one) => (one.hit.depthMm < least.hit.depthMm ? one : least));
      const { faceUp, turnDeg } = poses[fold]![side];
      const problem: Problem = { code: 'hits', about: [folds[fold]!.id], numbers: { depthMm: hit.depthMm } };
      const nearest = { fold, clamped: side, faceUp, turnDeg, fingersMm: null, angleDeg: anglesDeg[fold]! };
      return { ok: false, problems: [problem], stuck: { at, fold, hit, step: nearest } };
    }
    ways = next;
  }
  const best = ways.reduce((least, way) => (way.cost < least.cost ? way : least));
  const steps = stepsOf(best, known, anglesDeg);
  return { ok: true, steps, exact: true, ...handling(steps) };
}
