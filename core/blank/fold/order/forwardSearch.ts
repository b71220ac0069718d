import { cardinality } from './bitSet';
import type { SearchProblem, Transitions, FoldStep } from './searchProblem';
import { FINGER_CHANGE_COST, TURNING_COST, turnings } from './searchProblem';
import type { Clamped, Pose } from './pose';
import { SIDES } from './pose';
import type { Step } from './passage';

/**
 * The set of folds made and the step it was reached by, at the cheapest; `estimate`: `cost` and the
 * lower bound of what the rest costs.
 */
export type SearchNode = {
  made: number;
  fold: number;
  side: Clamped;
  cost: number;
  estimate: number;
  parent: SearchNode | null;
};

/** A problem with a lower bound of what remains from a node (admissible). */
export type GuidedProblem = SearchProblem & { lowerBound: (node: SearchNode) => number };
/**
 * The steps from the first, null where the search was given up or there are none; `exact`: nothing
 * else is better, or possible.
 */
export type SearchResult = { made: FoldStep[] | null; exact: boolean };

/**
 * The cheapest sequence that makes all folds: A* (Hart, Nilsson and Raphael 1968), of nodes with
 * equal estimates the one with the most folds made. Given up after `limit` nodes: then the result
 * is not `exact`.
 */
export function aStarSearch(
  { count, goal, start, transitions, lowerBound }: GuidedProblem,
  limit: number,
): SearchResult {
  const queue: SearchNode[] = [
    { made: start, fold: -1, side: 'base', cost: 0, estimate: 0, parent: null },
  ];
  const costs = new Map<string, number>();
  let followed = 0;
  for (let node = popped(queue); node; node = popped(queue)) {
    if (node.made === goal) return { made: stepsTo(node), exact: true };
    if ((costs.get(keyOf(node, transitions)) ?? Infinity) < node.cost) continue;
    if (++followed > limit) return { made: null, exact: false };
    for (let fold = 0; fold < count; fold++) {
      if (node.made & (1 << fold) || !(goal & (1 << fold))) continue;
      for (const side of SIDES) {
        const found = transitions.step(fold, side, node.made);
        if (!found.ok) continue;
        const cost = node.cost + costOf(node, { fold, side, found }, transitions);
        const next: SearchNode = {
          made: node.made | (1 << fold),
          fold,
          side,
          cost,
          estimate: cost,
          parent: node,
        };
        const at = keyOf(next, transitions);
        if ((costs.get(at) ?? Infinity) <= cost) continue;
        costs.set(at, cost);
        next.estimate = cost + lowerBound(next);
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
function keyOf({ made, fold, side }: SearchNode, { poses, step }: Transitions): string {
  if (fold < 0) return '';
  const { faceUp, turnDeg } = poses[fold]![side];
  const set = step(fold, side, made & ~(1 << fold)) as Extract<Step, { ok: true }>;
  return `${made} ${faceUp ? 1 : 0} ${turnDeg.toFixed(2)} ${set.set}`;
}

/** A way from its first step. */
export function stepsTo(last: SearchNode): FoldStep[] {
  const steps: FoldStep[] = [];
  for (let node = last; node.parent; node = node.parent)
    steps.unshift({ fold: node.fold, side: node.side, made: node.parent.made });
  return steps;
}

/**
 * The fewest turnings that what is left must take: one for every way of lying, up or down and along
 * the same lines, that is wanted and is not the one it lies in.
 */
export function turningLowerBound(
  poses: readonly Record<Clamped, Pose>[],
  goal: number,
): (node: SearchNode) => number {
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
      if (goal & ~made & (1 << i)) wanted |= 1 << one;
    });
    return (
      TURNING_COST *
      (cardinality(wanted) - (fold < 0 ? (wanted ? 1 : 0) : wanted & (1 << classOf[fold]!) ? 1 : 0))
    );
  };
}

/** Puts a way into a heap. */
function put(heap: SearchNode[], node: SearchNode): void {
  let i = heap.push(node) - 1;
  for (let up = (i - 1) >> 1; i > 0 && cheaper(node, heap[up]!); up = (i - 1) >> 1) {
    heap[i] = heap[up]!;
    i = up;
  }
  heap[i] = node;
}

/** Takes the first out of a heap. */
function popped(heap: SearchNode[]): SearchNode | undefined {
  const [first] = heap;
  const last = heap.pop();
  if (!last || heap.length === 0) return first;
  let i = 0;
  for (let down = 1; down < heap.length; down = 2 * i + 1) {
    if (down + 1 < heap.length && cheaper(heap[down + 1]!, heap[down]!)) down++;
    if (!cheaper(heap[down]!, last)) break;
    heap[i] = heap[down]!;
    i = down;
  }
  heap[i] = last;
  return first;
}

const cheaper = (a: SearchNode, b: SearchNode): boolean =>
  a.estimate < b.estimate ||
  (a.estimate === b.estimate && cardinality(a.made) > cardinality(b.made));
/** What a step costs after those before it. */
export function costOf(
  node: SearchNode,
  { fold, side, found }: { fold: number; side: Clamped; found: Extract<Step, { ok: true }> },
  { poses, long, step }: Transitions,
): number {
  let cost = 0;
  // Every longer fold that is made already comes too early.
  for (let i = 0; i < long.length; i++)
    if (node.made & (1 << i) && long[i]! > long[fold]! + 1e-6) cost += 1;
  if (node.fold < 0) return cost;
  const [was, is] = [poses[node.fold]![node.side], poses[fold]![side]];
  const before = step(node.fold, node.side, node.made & ~(1 << node.fold)) as Extract<
    Step,
    { ok: true }
  >;
  return (
    cost +
    TURNING_COST * turnings(was, is) +
    FINGER_CHANGE_COST * (before.set === found.set ? 0 : 1)
  );
}
