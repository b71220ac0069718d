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
  /** Where each finger begins along the line, from where the line begins at the left of the one who folds, mm. */
  fingersAtMm: number[] | null;
  /** How far it is taken on the machine, degrees. */
  angleDeg: number;
};

/** A fold that is closed by hand over a bar, when the machine has done all it does: from so many degrees to so many. */
export type Closing = { fold: number; fromDeg: number; toDeg: number };

/** The folds on the machine in their order, then those by hand. `exact`: no other order is better. */
export type FoldOrder = {
  steps: OrderStep[];
  after: Closing[];
  exact: boolean;
  turnings: number;
  fingerChanges: number;
};

/** What of the folding is settled before an order is looked for. */
export type Settled = {
  /** How far each fold is taken on the machine; left out, all the way. */
  anglesDeg?: readonly number[];
  /** Folds that are not made on the machine, but after all others. */
  byHand?: readonly number[];
  /** Folds that are made already, as far as the machine takes them. */
  made?: readonly number[];
  /** Long folds early instead of late, where nothing else tells two orders apart. */
  longFirst?: boolean;
};

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
 * then the fewest changes of fingers, then long folds late. Its steps are those that are left.
 *
 * Problems: `machine-figures`; `too-many-folds`; `order-not-found` (numbers: foldsLeft; none was found among those that were
 * followed); `no-order` (about: the ids of folds that never can be made, or all that were left; numbers:
 * how many were left when most were made).
 */
export function foldOrder(development: Development, brake: Brake, settled: Settled = {}): Result<FoldOrder> {
  const { folds } = development;
  const { anglesDeg = folds.map(({ bend }) => bend.angleDeg), byHand = [], made = [], longFirst = false } = settled;
  const machine = stepper(development, brake, anglesDeg);
  if (!machine.ok) return machine;
  const { step, poses } = machine;
  const n = folds.length;
  if (n > MOST_FOLDS) return failure({ code: 'too-many-folds', numbers: { folds: n, most: MOST_FOLDS } });
  const known: Known = { poses, long: longOf(poses, longFirst), step };
  const all = byHand.reduce((bits, fold) => bits & ~(1 << fold), 2 ** n - 1);
  const from = bitsOf(made) & all;
  const least = leastTurnings(poses, all);
  const asked = { n, all, from, known, least };
  const weighed = cheapest(asked, WEIGHED, false);
  const found = weighed.way || weighed.exact ? weighed : cheapest(asked, FOLLOWED, true);
  if (!found.way) {
    const never = folds.flatMap(({ id }, i) => (found.reached & (1 << i) || !(all & (1 << i)) ? [] : [id]));
    const left = folds.flatMap(({ id }, i) => (found.most & (1 << i) || !(all & (1 << i)) ? [] : [id]));
    if (!found.exact) return failure({ code: 'order-not-found', about: left, numbers: { foldsLeft: left.length } });
    return failure({ code: 'no-order', about: never.length > 0 ? never : left, numbers: { foldsLeft: left.length } });
  }
  const steps = stepsOf(found.way, known, anglesDeg);
  const after = closings(development, anglesDeg, byHand);
  return { ok: true, steps, after, exact: found.exact, ...handling(steps) };
}

const bitsOf = (folds: readonly number[]): number => folds.reduce((bits, fold) => bits | (1 << fold), 0);

/** How long each fold is, mm; as if it were the shorter the longer, where long ones are to come first. */
const longOf = (poses: Known['poses'], longFirst: boolean): number[] =>
  poses.map(({ base }) => (longFirst ? -1 : 1) * (base.line[1] - base.line[0]));

/** What is left to be closed by hand. */
const closings = ({ folds }: Development, anglesDeg: readonly number[], byHand: readonly number[]): Closing[] =>
  folds.flatMap(({ bend }, fold) => {
    const fromDeg = byHand.includes(fold) ? 0 : anglesDeg[fold]!;
    return fromDeg < bend.angleDeg ? [{ fold, fromDeg, toDeg: bend.angleDeg }] : [];
  });

/** The steps of a way from its first. */
function stepsOf(last: Way, { poses, step }: Known, anglesDeg: readonly number[]): OrderStep[] {
  const steps: OrderStep[] = [];
  for (let way: Way | null = last; way && way.fold >= 0; way = way.before) {
    const { fold, side, before } = way;
    const { faceUp, turnDeg, line } = poses[fold]![side];
    const { fingersMm, fingersAtMm } = step(fold, side, before!.made) as Extract<Step, { ok: true }>;
    steps.unshift({
      fold,
      clamped: side,
      faceUp,
      turnDeg,
      fingersMm,
      fingersAtMm: fingersAtMm?.map((at) => at - line[0]) ?? null,
      angleDeg: anglesDeg[fold]!,
    });
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
 * Whether folds can be made in a given order, each held by whichever side lets it be made, with the least turning. Those
 * that are made already are passed over.
 *
 * Problems: `machine-figures`; `too-many-folds`; `order-unreadable`; `hits` (about: the fold's id; numbers: depthMm) with what it hits in
 * `stuck`.
 */
export function checkedOrder(
  development: Development,
  brake: Brake,
  order: readonly number[],
  settled: Settled = {},
): Result<FoldOrder> | { ok: false; problems: Problem[]; stuck: Stuck } {
  const { folds } = development;
  if (folds.length > MOST_FOLDS)
    return failure({ code: 'too-many-folds', numbers: { folds: folds.length, most: MOST_FOLDS } });
  const { anglesDeg = folds.map(({ bend }) => bend.angleDeg), byHand = [], made: before = [] } = settled;
  const machine = stepper(development, brake, anglesDeg);
  if (!machine.ok) return machine;
  const { step, poses } = machine;
  if ([...order].sort((a, b) => a - b).join() !== folds.map((_, i) => i).join())
    return failure({ code: 'order-unreadable' });
  const known: Known = { poses, long: longOf(poses, settled.longFirst ?? false), step };
  const onMachine = order.filter((fold) => !byHand.includes(fold));
  let ways: Way[] = [
    { made: bitsOf(before) & bitsOf(onMachine), fold: -1, side: 'base', cost: 0, all: 0, before: null },
  ];
  for (const [at, fold] of onMachine.entries()) {
    const { made } = ways[0]!;
    if (made & (1 << fold)) continue;
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
      const nearest = {
        fold,
        clamped: side,
        faceUp,
        turnDeg,
        fingersMm: null,
        fingersAtMm: null,
        angleDeg: anglesDeg[fold]!,
      };
      return { ok: false, problems: [problem], stuck: { at, fold, hit, step: nearest } };
    }
    ways = next;
  }
  const best = ways.reduce((least, way) => (way.cost < least.cost ? way : least));
  const steps = stepsOf(best, known, anglesDeg);
  return { ok: true, steps, after: closings(development, anglesDeg, byHand), exact: true, ...handling(steps) };
}
