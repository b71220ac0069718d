import type { Brake } from '../../../machine/brake';
import type { Problem, Result } from '../../../measure/result';
import { failure } from '../../../measure/result';
import type { Development } from '../developed';
import type { Clamped, Pose } from './pose';
import type { Hit, Step } from './step';
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
/** Turning the piece counts before changing fingers, and that before which fold comes last. */
const [TURNING, CHANGING] = [1e6, 1e3];
const SIDES: readonly Clamped[] = ['base', 'far'];

/** A way to have made some of the folds, the cheapest to end with this step; `all`: with the least that the rest must cost. */
type Way = { made: number; fold: number; side: Clamped; cost: number; all: number; before: Way | null };

/**
 * An order in which a machine makes all folds of a piece: of those that are possible with the fewest turnings of the piece,
 * then the fewest changes of fingers, then long folds late. `exact`: no other order is better.
 *
 * Problems: `machine-figures`; `too-many-folds`; `order-not-found` (numbers: foldsLeft; none was found among those that were
 * followed); `no-order` (about: the ids of folds that never can be made, or all that were left; numbers:
 * how many were left when most were made).
 *
 * @param anglesDeg how far each fold is taken on the machine; left out, all the way
 */
export function foldOrder(
  development: Development,
  brake: Brake,
  anglesDeg: readonly number[] = development.folds.map(({ bend }) => bend.angleDeg),
): Result<FoldOrder> {
  const { folds } = development;
  const machine = stepper(development, brake, anglesDeg);
  if (!machine.ok) return machine;
  const { step, poses } = machine;
  const n = folds.length;
  if (n > MOST_FOLDS) return failure({ code: 'too-many-folds', numbers: { folds: n, most: MOST_FOLDS } });
  const known: Known = { poses, long: poses.map(({ base }) => base.line[1] - base.line[0]), step };
  const all = 2 ** n - 1;
  const least = leastTurnings(poses, all);
  const asked = { n, all, known, least };
  const weighed = cheapest(asked, WEIGHED, false);
  const found = weighed.way || weighed.exact ? weighed : cheapest(asked, FOLLOWED, true);
  if (!found.way) {
    const never = folds.flatMap(({ id }, i) => (found.reached & (1 << i) ? [] : [id]));
    const left = folds.flatMap(({ id }, i) => (found.most & (1 << i) ? [] : [id]));
    if (!found.exact) return failure({ code: 'order-not-found', about: left, numbers: { foldsLeft: left.length } });
    return failure({ code: 'no-order', about: never.length > 0 ? never : left, numbers: { foldsLeft: left.length } });
  }
  const best = found.way;
  const ways: Way[] = [];
  for (let way: Way | null = best; way && way.fold >= 0; way = way.before) ways.unshift(way);
  const steps = ways.map(({ fold, side, before }): OrderStep => {
    const { faceUp, turnDeg } = poses[fold]![side];
    const found = step(fold, side, before!.made) as Extract<Step, { ok: true }>;
    return { fold, clamped: side, faceUp, turnDeg, fingersMm: found.fingersMm, angleDeg: anglesDeg[fold]! };
  });
  return { ok: true, steps, exact: found.exact, ...handling(steps) };
}

type Asked = { n: number; all: number; known: Known; least: (way: Way) => number };

/**
 * The cheapest way to make all folds: always the one is followed that can be cheapest in the end, and of alike ones that in
 * which most is made (A*, Hart, Nilsson and Raphael); `deep`: the one in which most is made, and of those the cheapest.
 * Given up after so many: then it is not `exact`.
 */
function cheapest({ n, all, known, least }: Asked, limit: number, deep: boolean) {
  const queue = new Queue(deep);
  const costs = new Map<string, number>();
  queue.push({ made: 0, fold: -1, side: 'base', cost: 0, all: 0, before: null });
  let [reached, most, mostCount, followed] = [0, 0, 0, 0];
  for (let way = queue.pop(); way; way = queue.pop()) {
    if (way.made === all) return { way, exact: !deep, reached, most };
    if ((costs.get(keyOf(way, known)) ?? Infinity) < way.cost) continue;
    if (++followed > limit) return { way: null, exact: false, reached, most };
    const count = bitsIn(way.made);
    if (count > mostCount) [most, mostCount] = [way.made, count];
    for (let fold = 0; fold < n; fold++) {
      if (way.made & (1 << fold)) continue;
      for (const side of SIDES) {
        const found = known.step(fold, side, way.made);
        if (!found.ok) continue;
        reached |= 1 << fold;
        const cost = way.cost + costOf(way, { fold, side, found }, known);
        const next: Way = { made: way.made | (1 << fold), fold, side, cost, all: cost, before: way };
        const at = keyOf(next, known);
        if ((costs.get(at) ?? Infinity) <= cost) continue;
        costs.set(at, cost);
        next.all = cost + least(next);
        queue.push(next);
      }
    }
  }
  return { way: null, exact: true, reached, most };
}

/** What matters of a way for what comes after: what is made, how the piece lies, and which fingers are set. */
function keyOf({ made, fold, side }: Way, { poses, step }: Known): string {
  if (fold < 0) return '';
  const { faceUp, turnDeg } = poses[fold]![side];
  const set = step(fold, side, made & ~(1 << fold)) as Extract<Step, { ok: true }>;
  return `${made} ${faceUp ? 1 : 0} ${turnDeg.toFixed(2)} ${set.fingersMm?.join() ?? ''}`;
}
const bitsIn = (bits: number): number => {
  let count = 0;
  for (let left = bits; left !== 0; left &= left - 1) count++;
  return count;
};

/**
 * The fewest turnings that what is left must take: one for every way of lying, up or down and along the same lines, that is
 * wanted and is not the one it lies in.
 */
function leastTurnings(poses: readonly Record<Clamped, Pose>[], all: number): (way: Way) => number {
  const classes: { faceUp: boolean; turnDeg: number }[] = [];
  const classOf = poses.map(({ base }) => {
    const turnDeg = base.turnDeg % 180;
    const known = classes.findIndex((one) => one.faceUp === base.faceUp && Math.abs(((one.turnDeg - turnDeg + 270) % 180) - 90) < 0.01); // prettier-ignore
    return known >= 0 ? known : classes.push({ faceUp: base.faceUp, turnDeg }) - 1;
  });
  return ({ made, fold }) => {
    let wanted = 0;
    classOf.forEach((one, i) => {
      if (all & ~made & (1 << i)) wanted |= 1 << one;
    });
    return TURNING * (bitsIn(wanted) - (fold < 0 ? (wanted ? 1 : 0) : wanted & (1 << classOf[fold]!) ? 1 : 0));
  };
}

/** A heap of ways: the cheapest, or the deepest, first. */
class Queue {
  private readonly ways: Way[] = [];
  private readonly before: (a: Way, b: Way) => boolean;
  constructor(deep: boolean) {
    this.before = deep ? deeper : cheaper;
  }
  push(way: Way): void {
    const { ways } = this;
    let i = ways.push(way) - 1;
    for (let up = (i - 1) >> 1; i > 0 && this.before(way, ways[up]!); up = (i - 1) >> 1) {
      ways[i] = ways[up]!;
      i = up;
    }
    ways[i] = way;
  }
  pop(): Way | undefined {
    const { ways } = this;
    const [first] = ways;
    const last = ways.pop();
    if (!last || ways.length === 0) return first;
    let i = 0;
    for (let down = 1; down < ways.length; down = 2 * i + 1) {
      if (down + 1 < ways.length && this.before(ways[down + 1]!, ways[down]!)) down++;
      if (!this.before(ways[down]!, last)) break;
      ways[i] = ways[down]!;
      i = down;
    }
    ways[i] = last;
    return first;
  }
}
const cheaper = (a: Way, b: Way): boolean => a.all < b.all || (a.all === b.all && bitsIn(a.made) > bitsIn(b.made));
function deeper(a: Way, b: Way): boolean {
  const [m, n] = [bitsIn(a.made), bitsIn(b.made)];
  return m > n || (m === n && a.all < b.all);
}

type Known = { poses: Record<Clamped, Pose>[]; long: number[]; step: (fold: number, side: Clamped, made: number) => Step }; // prettier-ignore

function costOf(way: Way, { fold, side, found }: { fold: number; side: Clamped; found: Extract<Step, { ok: true }> }, { poses, long, step }: Known): number {
  let cost = 0;
  // Every longer fold that is made already comes too early.
  for (let i = 0; i < long.length; i++) if (way.made & (1 << i) && long[i]! > long[fold]! + 1e-6) cost += 1;
  if (way.fold < 0) return cost;
  const [was, is] = [poses[way.fold]![way.side], poses[fold]![side]];
  const before = step(way.fold, way.side, way.made & ~(1 << way.fold)) as Extract<Step, { ok: true }>;
  return cost + TURNING * turnings(was, is) + CHANGING * (alike(before.fingersMm, found.fingersMm) ? 0 : 1);
} // prettier-ignore

/** Turned over, and turned round: each counts one. */
const turnings = (a: Pick<Pose, 'faceUp' | 'turnDeg'>, b: Pick<Pose, 'faceUp' | 'turnDeg'>): number => {
  const round = Math.abs(((a.turnDeg - b.turnDeg + 540) % 360) - 180);
  return (a.faceUp === b.faceUp ? 0 : 1) + (round < 0.01 ? 0 : 1);
};

const alike = (a: readonly number[] | null, b: readonly number[] | null): boolean =>
  (a ?? []).join() === (b ?? []).join();

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
 * Problems: `machine-figures`; `order-unreadable`; `hits` (about: the fold's id; numbers: depthMm) with what it hits in
 * `stuck`.
 */
export function checkedOrder(
  development: Development,
  brake: Brake,
  order: readonly number[],
): Result<FoldOrder> | { ok: false; problems: Problem[]; stuck: Stuck } {
  const { folds } = development;
  const machine = stepper(development, brake, folds.map(({ bend }) => bend.angleDeg)); // prettier-ignore
  if (!machine.ok) return machine;
  const { step, poses } = machine;
  if ([...order].sort((a, b) => a - b).join() !== folds.map((_, i) => i).join())
    return failure({ code: 'order-unreadable' });
  const long = poses.map(({ base }) => base.line[1] - base.line[0]);
  let ways: Way[] = [{ made: 0, fold: -1, side: 'base', cost: 0, all: 0, before: null }];
  for (const [at, fold] of order.entries()) {
    const { made } = ways[0]!;
    const tried = SIDES.map((side) => ({ side, found: step(fold, side, made) }));
    const next = tried.flatMap(({ side, found }): Way[] => {
      if (!found.ok) return [];
      const from = ways.map((way) => ({ way, cost: way.cost + costOf(way, { fold, side, found }, { poses, long, step }) })); // prettier-ignore
      const { way, cost } = from.reduce((best, one) => (one.cost < best.cost ? one : best));
      return [{ made: made | (1 << fold), fold, side, cost, all: cost, before: way }];
    });
    if (next.length === 0) {
      // Of the two ways to hold it, the one that is less in the way.
      const hits = tried.flatMap(({ side, found }) => (found.ok ? [] : [{ side, hit: found.hit }]));
      const { side, hit } = hits.reduce((least, one) => (one.hit.depthMm < least.hit.depthMm ? one : least));
      const { faceUp, turnDeg } = poses[fold]![side];
      const angleDeg = folds[fold]!.bend.angleDeg;
      const problem: Problem = {
        code: 'hits',
        about: [folds[fold]!.id],
        numbers: { depthMm: hit.depthMm },
      } as Problem;
      return {
        ok: false,
        problems: [problem],
        stuck: { at, fold, hit, step: { fold, clamped: side, faceUp, turnDeg, fingersMm: null, angleDeg } },
      };
    }
    ways = next;
  }
  const found: Way[] = [];
  const best = ways.reduce((least, way) => (way.cost < least.cost ? way : least));
  for (let way: Way | null = best; way && way.fold >= 0; way = way.before) found.unshift(way);
  const steps = found.map(({ fold, side, before }): OrderStep => {
    const { faceUp, turnDeg } = poses[fold]![side];
    const { fingersMm } = step(fold, side, before!.made) as Extract<Step, { ok: true }>;
    return { fold, clamped: side, faceUp, turnDeg, fingersMm, angleDeg: folds[fold]!.bend.angleDeg };
  });
  return { ok: true, steps, exact: true, ...handling(steps) };
}
