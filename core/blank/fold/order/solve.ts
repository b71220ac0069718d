import type { Brake } from '../../../machine/brake';
import type { Problem, Result } from '../../../measure/result';
import { failure } from '../../../measure/result';
import type { Development } from '../developed';
import type { Clamped } from './pose';
import { SIDES } from './pose';
import { cardinality, bitSetOf } from './bitSet';
import { anyOrderBackward, backwardSearch, reachability } from './backwardSearch';
import type { SearchProblem, Transitions, FoldStep } from './searchProblem';
import { sameFingers, turnings } from './searchProblem';
import type { GuidedProblem, SearchResult, SearchNode } from './forwardSearch';
import { aStarSearch, costOf, turningLowerBound, stepsTo } from './forwardSearch';
import type { Hit } from './inTheWay';
import type { Step } from './passage';
import { stepper } from './foldStep';

/** One fold as it is made. */
export type OrderStep = {
  /** Index of the fold. */
  fold: number;
  clamped: Clamped;
  faceUp: boolean;
  turnDeg: number;
  fingersMm: number[] | null;
  /**
   * Where each finger begins along the line, from where the line begins at the left of the one who
   * folds, mm.
   */
  fingersAtMm: number[] | null;
  /** How far it is taken on the machine, degrees. */
  angleDeg: number;
};

/**
 * A fold that is closed by hand over a bar, when the machine has done all it does: from `fromDeg`
 * to `toDeg` degrees.
 */
export type Closing = { fold: number; fromDeg: number; toDeg: number };

/**
 * The folds on the machine in their order, then those by hand. `exact`: no other order is better.
 */
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
  /**
   * Ids of edges that are turned over (flanges, hems, lips) when all folds are made; all others are
   * when the folding begins.
   */
  turnedAfter?: readonly string[];
  /**
   * A fold that is left for the last, because a gap is adjusted with it; where no order ends with it
   * one is found that does not.
   */
  last?: number | null;
  /** Long folds early instead of late, where nothing else tells two orders apart. */
  longFirst?: boolean;
};

/** Maximum number of folds that are put in order exactly, however long it takes. */
const MAX_EXACT_FOLDS = 14;
/** Maximum number of steps of a search from the end, before one from the beginning is taken. */
const MAX_BACKWARD_STEPS = 10_000;
/**
 * Maximum number of steps weighed from the beginning, which of many folds is fewer ways: each of
 * them can go on with every fold that is left.
 */
const MAX_FORWARD_STEPS = 600_000;
/**
 * Where nothing is exact: maximum number of steps looked at for any order; there may be a better
 * one.
 */
const MAX_ANY_ORDER_STEPS = 100_000;
/** Maximum number of steps looked at to say which folds are in the way. */
const MAX_DIAGNOSIS_STEPS = 10_000;
/** More folds than these are not put in order. */
const MAX_FOLDS = 30;
/**
 * An order in which a machine makes all folds of a piece: of those that are possible with the
 * fewest turnings of the piece, then the fewest changes of fingers, then long folds late. Its steps
 * are those that are left.
 *
 * Problems: `machine-figures`; `too-many-folds`; `order-not-found` (numbers: foldsLeft; none was
 * found among those that were followed); `no-order` (about: the ids of folds that never can be
 * made, or all that were left; numbers: how many were left when most were made).
 */
export function foldOrder(
  development: Development,
  brake: Brake,
  settled: Settled = {},
): Result<FoldOrder> | { ok: false; problems: Problem[]; furthest: Furthest | null } {
  const asked = searchProblemOf(development, brake, settled);
  if (!asked.ok) return asked;
  const { problem, anglesDeg } = asked;
  const ending = endingWithFold(problem, settled.last ?? null);
  const found = (ending && made(solved(ending))) ?? solved(problem);
  if (found.made) {
    const steps = stepsOf(found.made, problem.transitions, anglesDeg);
    const after = closings(development, anglesDeg, settled.byHand ?? []);
    return { ok: true, steps, after, exact: found.exact, ...handling(steps) };
  }
  const { reached, most, whole } = reachability(problem, MAX_DIAGNOSIS_STEPS);
  const without = (bits: number) =>
    development.folds.flatMap(({ id }, i) => (~bits & problem.goal & (1 << i) ? [id] : []));
  const [never, left] = [without(reached), without(most)];
  const numbers = { foldsLeft: left.length };
  if (!found.exact) return failure({ code: 'order-not-found', about: left, numbers });
  const refused = failure({
    code: 'no-order',
    about: whole && never.length > 0 ? never : left,
    numbers,
  });
  return { ...refused, furthest: furthestOf(problem, most, anglesDeg, whole) };
}

/**
 * Where the order that comes farthest stands: the folds that are made, the next that is nearest to
 * being made, and what it hits. `leftMost`: in no order are fewer folds left; null where not all
 * were followed.
 */
export type Furthest = { made: number[]; step: OrderStep; hit: Hit; leftMost: number | null };

function furthestOf(
  { count, goal, transitions }: SearchProblem,
  most: number,
  anglesDeg: readonly number[],
  whole: boolean,
): Furthest | null {
  const folds = Array.from({ length: count }, (_, fold) => fold);
  const tried = folds
    .filter((fold) => goal & ~most & (1 << fold))
    .flatMap((fold) =>
      SIDES.flatMap((side) => {
        const found = transitions.step(fold, side, most);
        return found.ok ? [] : [{ fold, side, hit: found.hit }];
      }),
    );
  const nearest = tried.reduce<(typeof tried)[number] | null>(
    (least, one) => (least && least.hit.depthMm <= one.hit.depthMm ? least : one),
    null,
  );
  if (!nearest) return null;
  const { fold, side, hit } = nearest;
  return {
    made: folds.filter((one) => most & (1 << one)),
    step: blockedStep(fold, side, transitions.poses, anglesDeg),
    hit,
    leftMost: whole ? cardinality(goal & ~most) : null,
  };
}

/** A step that cannot be made, as it would be held. */
const blockedStep = (
  fold: number,
  clamped: Clamped,
  poses: Transitions['poses'],
  anglesDeg: readonly number[],
): OrderStep => {
  const { faceUp, turnDeg } = poses[fold]![clamped];
  return {
    fold,
    clamped,
    faceUp,
    turnDeg,
    fingersMm: null,
    fingersAtMm: null,
    angleDeg: anglesDeg[fold]!,
  };
};

/**
 * Whether a machine can make all folds of a piece in any order that is found; why not is not asked.
 * With more folds made by hand (`also`, by index) it is asked again without looking at a step twice.
 */
export function foldability(
  development: Development,
  brake: Brake,
  settled: Settled = {},
): (also?: readonly number[]) => boolean {
  const asked = searchProblemOf(development, brake, settled);
  if (!asked.ok) return () => false;
  const { problem } = asked;
  return (also = []) => {
    const goal = problem.goal & ~bitSetOf(also);
    return solved({ ...problem, goal, start: problem.start & goal }).made !== null;
  };
}

function searchProblemOf(
  development: Development,
  brake: Brake,
  settled: Settled,
): Result<{ problem: SearchProblem; anglesDeg: readonly number[] }> {
  const { folds } = development;
  const {
    anglesDeg = folds.map(({ bend }) => bend.angleDeg),
    byHand = [],
    made = [],
    longFirst = false,
  } = settled;
  const machine = stepper(development, brake, anglesDeg, settled.turnedAfter);
  if (!machine.ok) return machine;
  const count = folds.length;
  if (count > MAX_FOLDS)
    return failure({ code: 'too-many-folds', numbers: { folds: count, most: MAX_FOLDS } });
  const transitions = memoized({
    poses: machine.poses,
    long: lengthsOf(machine.poses, longFirst),
    step: machine.step,
  });
  const goal = (2 ** count - 1) & ~bitSetOf(byHand);
  return {
    ok: true,
    problem: { count, goal, start: bitSetOf(made) & goal, transitions },
    anglesDeg,
  };
}

const made = (found: SearchResult): SearchResult | null => (found.made ? found : null);

/** The same folding where one fold is made after all others; null where that is not asked. */
function endingWithFold(problem: SearchProblem, last: number | null): SearchProblem | null {
  const { goal, start, transitions } = problem;
  if (last === null || !(goal & ~start & (1 << last))) return null;
  const step: Transitions['step'] = (fold, side, made) =>
    fold === last && (made | (1 << fold)) !== goal
      ? { ok: false, hit: { of: 'piece', depthMm: 0 } }
      : transitions.step(fold, side, made);
  return { ...problem, transitions: { ...transitions, step } };
}

/**
 * From the end, where few steps can be the last; else from the beginning, where most can be the
 * first.
 */
function solved(problem: SearchProblem): SearchResult {
  const back = backwardSearch(problem, MAX_BACKWARD_STEPS);
  if (back !== 'over') return exactResult(back);
  const asked: GuidedProblem = {
    ...problem,
    lowerBound: turningLowerBound(problem.transitions.poses, problem.goal),
  };
  const weighed = aStarSearch(asked, MAX_FORWARD_STEPS / problem.count ** 2);
  if (weighed.made || weighed.exact) return weighed;
  return problem.count <= MAX_EXACT_FOLDS
    ? exactResult(backwardSearch(problem))
    : { made: anyOrderBackward(problem, MAX_ANY_ORDER_STEPS), exact: false };
}
const exactResult = (found: ReturnType<typeof backwardSearch>): SearchResult => ({
  made: Array.isArray(found) ? found : null,
  exact: true,
});

/** The transitions with each step looked at once. */
function memoized({ step, ...rest }: Transitions): Transitions {
  const looked = new Map<number, Map<number, Step>>();
  const once: Transitions['step'] = (fold, side, made) => {
    const line = 2 * fold + SIDES.indexOf(side);
    let row = looked.get(line);
    if (!row) looked.set(line, (row = new Map()));
    let found = row.get(made);
    if (!found) row.set(made, (found = step(fold, side, made)));
    return found;
  };
  return { ...rest, step: once };
}

/**
 * How long each fold is, mm; as if it were the shorter the longer, where long ones are to come
 * first.
 */
const lengthsOf = (poses: Transitions['poses'], longFirst: boolean): number[] =>
  poses.map(({ base }) => (longFirst ? -1 : 1) * (base.line[1] - base.line[0]));

/** What is left to be closed by hand. */
const closings = (
  { folds }: Development,
  anglesDeg: readonly number[],
  byHand: readonly number[],
): Closing[] =>
  folds.flatMap(({ bend }, fold) => {
    const fromDeg = byHand.includes(fold) ? 0 : anglesDeg[fold]!;
    return fromDeg < bend.angleDeg ? [{ fold, fromDeg, toDeg: bend.angleDeg }] : [];
  });

/** The steps of a way as they are done. */
const stepsOf = (
  made: readonly FoldStep[],
  { poses, step }: Transitions,
  anglesDeg: readonly number[],
): OrderStep[] =>
  made.map(({ fold, side, made: before }) => {
    const { faceUp, turnDeg, line } = poses[fold]![side];
    const { fingersMm, fingersAtMm } = step(fold, side, before) as Extract<Step, { ok: true }>;
    return {
      fold,
      clamped: side,
      faceUp,
      turnDeg,
      fingersMm,
      fingersAtMm: fingersAtMm?.map((at) => at - line[0]) ?? null,
      angleDeg: anglesDeg[fold]!,
    };
  });

function handling(steps: readonly OrderStep[]): Pick<FoldOrder, 'turnings' | 'fingerChanges'> {
  const pairs = steps.slice(1).map((step, i) => [steps[i]!, step] as const);
  return {
    turnings: pairs.reduce((sum, [a, b]) => sum + turnings(a, b), 0),
    fingerChanges: pairs.filter(([a, b]) => !sameFingers(a.fingersMm, b.fingersMm)).length,
  };
}

/** The first step of an order that cannot be made, as it comes nearest to being made. */
export type Stuck = { at: number; fold: number; hit: Hit; step: OrderStep };

/**
 * Whether folds can be made in a given order, each held by whichever side lets it be made, with the
 * least turning. Those that are made already are passed over.
 *
 * Problems: `machine-figures`; `too-many-folds`; `order-unreadable`; `hits` (about: the fold's id;
 * numbers: depthMm) with what it hits in `stuck`.
 */
export function checkedOrder(
  development: Development,
  brake: Brake,
  order: readonly number[],
  settled: Settled = {},
): Result<FoldOrder> | { ok: false; problems: Problem[]; stuck: Stuck } {
  const { folds } = development;
  if (folds.length > MAX_FOLDS)
    return failure({ code: 'too-many-folds', numbers: { folds: folds.length, most: MAX_FOLDS } });
  const {
    anglesDeg = folds.map(({ bend }) => bend.angleDeg),
    byHand = [],
    made: before = [],
  } = settled;
  const machine = stepper(development, brake, anglesDeg, settled.turnedAfter);
  if (!machine.ok) return machine;
  const { step, poses } = machine;
  if ([...order].sort((a, b) => a - b).join() !== folds.map((_, i) => i).join())
    return failure({ code: 'order-unreadable' });
  const transitions: Transitions = {
    poses,
    long: lengthsOf(poses, settled.longFirst ?? false),
    step,
  };
  const onMachine = order.filter((fold) => !byHand.includes(fold));
  let ways: SearchNode[] = [
    {
      made: bitSetOf(before) & bitSetOf(onMachine),
      fold: -1,
      side: 'base',
      cost: 0,
      estimate: 0,
      parent: null,
    },
  ];
  for (const [at, fold] of onMachine.entries()) {
    const { made } = ways[0]!;
    if (made & (1 << fold)) continue;
    const tried = SIDES.map((side) => ({ side, found: step(fold, side, made) }));
    const next = tried.flatMap(({ side, found }): SearchNode[] => {
      if (!found.ok) return [];
      const from = ways.map((way) => ({
        way,
        cost: way.cost + costOf(way, { fold, side, found }, transitions),
      }));
      const { way, cost } = from.reduce((best, one) => (one.cost < best.cost ? one : best));
      return [{ made: made | (1 << fold), fold, side, cost, estimate: cost, parent: way }];
    });
    if (next.length === 0) {
      // Of the two ways to hold it, the one that is less in the way.
      const hits = tried.flatMap(({ side, found }) => (found.ok ? [] : [{ side, hit: found.hit }]));
      const { side, hit } = hits.reduce((least, one) =>
        one.hit.depthMm < least.hit.depthMm ? one : least,
      );
      const problem: Problem = {
        code: 'hits',
        about: [folds[fold]!.id],
        numbers: { depthMm: hit.depthMm },
      };
      const nearest = blockedStep(fold, side, poses, anglesDeg);
      return { ok: false, problems: [problem], stuck: { at, fold, hit, step: nearest } };
    }
    ways = next;
  }
  const best = ways.reduce((least, way) => (way.cost < least.cost ? way : least));
  const steps = stepsOf(stepsTo(best), transitions, anglesDeg);
  return {
    ok: true,
    steps,
    after: closings(development, anglesDeg, byHand),
    exact: true,
    ...handling(steps),
  };
}
