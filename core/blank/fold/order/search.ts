import { bitsIn } from './bits';
import type { Folding, Known, Made } from './handling';
import { CHANGING, TURNING, turnings } from './handling';
import type { Clamped, Pose } from './pose';
import { SIDES } from './pose';
import type { Step } from './passage';

/** The search for the cheapest way to make all folds of a piece. */

/**
 * A way to have made some of the folds, the cheapest to end with this step; `all`: with the least
 * that the rest must cost.
 */
export type Way = {
  made: number;
  fold: number;
  side: Clamped;
  cost: number;
  all: number;
  before: Way | null;
};

/** What is searched, and the least that the rest of a way must cost. */
export type Asked = Folding & { least: (way: Way) => number };
/**
 * What a search came to: the steps from the first, null where it was given up or there are none;
 * whether nothing else is better, or possible.
 */
export type Found = { made: Made[] | null; exact: boolean };

/**
 * The cheapest way to make all folds: always the one is followed that can be cheapest in the end,
 * and of alike ones that in which most is made (A*, Hart, Nilsson and Raphael 1968). Given up after
 * `limit` of them: then it is not `exact`.
 */
export function cheapest({ n, all, from, known, least }: Asked, limit: number): Found {
  const queue: Way[] = [{ made: from, fold: -1, side: 'base', cost: 0, all: 0, before: null }];
  const costs = new Map<string, number>();
  let followed = 0;
  for (let way = taken(queue); way; way = taken(queue)) {
    if (way.made === all) return { made: stepsTo(way), exact: true };
    if ((costs.get(keyOf(way, known)) ?? Infinity) < way.cost) continue;
    if (++followed > limit) return { made: null, exact: false };
    for (let fold = 0; fold < n; fold++) {
      if (way.made & (1 << fold) || !(all & (1 << fold))) continue;
      for (const side of SIDES) {
        const found = known.step(fold, side, way.made);
        if (!found.ok) continue;
        const cost = way.cost + costOf(way, { fold, side, found }, known);
        const next: Way = {
          made: way.made | (1 << fold),
          fold,
          side,
          cost,
          all: cost,
          before: way,
        };
        const at = keyOf(next, known);
        if ((costs.get(at) ?? Infinity) <= cost) continue;
        costs.set(at, cost);
        next.all = cost + least(next);
        put(queue, next);
      }
    }
  }
  return { made: null, exact: true };
}

/**
 * What matters of a way for what comes after: what is made, how the piece lies, and which fingers
 * are set.
 */
function keyOf({ made, fold, side }: Way, { poses, step }: Known): string {
  if (fold < 0) return '';
  const { faceUp, turnDeg } = poses[fold]![side];
  const set = step(fold, side, made & ~(1 << fold)) as Extract<Step, { ok: true }>;
  return `${made} ${faceUp ? 1 : 0} ${turnDeg.toFixed(2)} ${set.set}`;
}

/** A way from its first step. */
export function stepsTo(last: Way): Made[] {
  const steps: Made[] = [];
  for (let way = last; way.before; way = way.before)
    steps.unshift({ fold: way.fold, side: way.side, made: way.before.made });
  return steps;
}

/**
 * The fewest turnings that what is left must take: one for every way of lying, up or down and along
 * the same lines, that is wanted and is not the one it lies in.
 */
export function leastTurnings(
  poses: readonly Record<Clamped, Pose>[],
  all: number,
): (way: Way) => number {
  const classes: { faceUp: boolean; turnDeg: number }[] = [];
  const classOf = poses.map(({ base }) => {
    const turnDeg = base.turnDeg % 180;
    const known = classes.findIndex(
      (one) =>
        one.faceUp === base.faceUp && Math.abs(((one.turnDeg - turnDeg + 270) % 180) - 90) < 0.01,
    );
    return known >= 0 ? known : classes.push({ faceUp: base.faceUp, turnDeg }) - 1;
  });
  return ({ made, fold }) => {
    let wanted = 0;
    classOf.forEach((one, i) => {
      if (all & ~made & (1 << i)) wanted |= 1 << one;
    });
    return (
      TURNING *
      (bitsIn(wanted) - (fold < 0 ? (wanted ? 1 : 0) : wanted & (1 << classOf[fold]!) ? 1 : 0))
    );
  };
}

/** Puts a way into a heap. */
function put(ways: Way[], way: Way): void {
  let i = ways.push(way) - 1;
  for (let up = (i - 1) >> 1; i > 0 && cheaper(way, ways[up]!); up = (i - 1) >> 1) {
    ways[i] = ways[up]!;
    i = up;
  }
  ways[i] = way;
}

/** Takes the first out of a heap. */
function taken(ways: Way[]): Way | undefined {
  const [first] = ways;
  const last = ways.pop();
  if (!last || ways.length === 0) return first;
  let i = 0;
  for (let down = 1; down < ways.length; down = 2 * i + 1) {
    if (down + 1 < ways.length && cheaper(ways[down + 1]!, ways[down]!)) down++;
    if (!cheaper(ways[down]!, last)) break;
    ways[i] = ways[down]!;
    i = down;
  }
  ways[i] = last;
  return first;
}

const cheaper = (a: Way, b: Way): boolean =>
  a.all < b.all || (a.all === b.all && bitsIn(a.made) > bitsIn(b.made));
/** What a step costs after those before it. */
export function costOf(
  way: Way,
  { fold, side, found }: { fold: number; side: Clamped; found: Extract<Step, { ok: true }> },
  { poses, long, step }: Known,
): number {
  let cost = 0;
  // Every longer fold that is made already comes too early.
  for (let i = 0; i < long.length; i++)
    if (way.made & (1 << i) && long[i]! > long[fold]! + 1e-6) cost += 1;
  if (way.fold < 0) return cost;
  const [was, is] = [poses[way.fold]![way.side], poses[fold]![side]];
  const before = step(way.fold, way.side, way.made & ~(1 << way.fold)) as Extract<
    Step,
    { ok: true }
  >;
  return cost + TURNING * turnings(was, is) + CHANGING * (before.set === found.set ? 0 : 1);
}
