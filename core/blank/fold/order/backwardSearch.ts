import { cardinality } from './bitSet';
import type { SearchProblem, FoldStep } from './searchProblem';
import { FINGER_CHANGE_COST, TURNING_COST, turnings } from './searchProblem';
import { SIDES } from './pose';

/**
 * A step that leads to the end, what all after it costs at the least, and the step that comes next
 * then.
 */
type Ahead = FoldStep & { set: number; cost: number; then: Ahead | null };

/**
 * The cheapest way to make all folds, worked back from the finished piece (Bellman 1957; by sets as
 * Held and Karp 1962): the piece is hardest to get into the machine when most of it is folded, so
 * from the end few ways lead back. What a step costs to the end follows from the steps that can
 * come after it. Exact, and so is the answer that there is none.
 *
 * @param looks how many steps may be looked at; `over`: it takes more
 */
export function backwardSearch(
  { count, goal, start, transitions: { poses, long, step } }: SearchProblem,
  looks = Infinity,
): FoldStep[] | 'none' | 'over' {
  const turned = (a: FoldStep, b: FoldStep) =>
    TURNING_COST * turnings(poses[a.fold]![a.side], poses[b.fold]![b.side]);
  // Every longer fold that is made already comes too early.
  const longer = long.map((mm) =>
    long.reduce((sum, other, i) => (other > mm + 1e-6 ? sum | (1 << i) : sum), 0),
  );
  const tooEarly = ({ fold, made }: FoldStep) => cardinality(made & longer[fold]!);
  let left = looks;
  // Sets of made folds from which the end can be reached, with the steps that lead there; from one
  // count of folds to the next lower.
  let level = new Map<number, Ahead[]>([[goal, []]]);
  for (let folded = cardinality(goal & ~start); folded > 0; folded--) {
    const lower = new Map<number, Ahead[]>();
    for (const [made, next] of level)
      for (let fold = 0; fold < count; fold++) {
        const before = made & ~(1 << fold);
        if (before === made || start & (1 << fold)) continue;
        for (const side of SIDES) {
          if (left-- <= 0) return 'over';
          const found = step(fold, side, before);
          if (!found.ok) continue;
          const one: Ahead = {
            fold,
            side,
            made: before,
            set: found.set,
            cost: made === goal ? 0 : Infinity,
            then: null,
          };
          for (const then of next) {
            const cost =
              turned(one, then) +
              (one.set === then.set ? 0 : FINGER_CHANGE_COST) +
              tooEarly(then) +
              then.cost;
            if (cost < one.cost) [one.cost, one.then] = [cost, then];
          }
          const known = lower.get(before);
          if (known) known.push(one);
          else lower.set(before, [one]);
        }
      }
    level = lower;
  }
  const first = level
    .get(start)
    ?.reduce<Ahead | null>(
      (best, one) => (best && best.cost + tooEarly(best) <= one.cost + tooEarly(one) ? best : one),
      null,
    );
  return level.has(start) ? wayFrom(first ?? null) : 'none';
}

/** A way from its first step on. */
function wayFrom<One extends FoldStep & { then: One | null }>(first: One | null): FoldStep[] {
  const way: FoldStep[] = [];
  for (let one = first; one; one = one.then)
    way.push({ fold: one.fold, side: one.side, made: one.made });
  return way;
}

/**
 * How far the folding gets where no way leads to the end: the folds that can be made at all and the
 * most that are made together, as bits. `whole`: all that can be reached was looked at.
 */
export function reachability(
  { count, goal, start, transitions: { step } }: SearchProblem,
  looks: number,
): { reached: number; most: number; whole: boolean } {
  const seen = new Set([start]);
  const open = [start];
  let [reached, most, left] = [start, start, looks];
  for (let made = open.pop(); made !== undefined; made = open.pop()) {
    if (cardinality(made) > cardinality(most)) most = made;
    // More than all but one there are not, and all of them can be made somewhere.
    if (reached === goal && cardinality(goal & ~most) === 1) break;
    for (let fold = 0; fold < count; fold++) {
      const next: number = made | (1 << fold);
      if (next === made || !(goal & (1 << fold)) || (seen.has(next) && reached & (1 << fold)))
        continue;
      if (left <= 0) return { reached, most, whole: false };
      left -= SIDES.length;
      if (!SIDES.some((side) => step(fold, side, made).ok)) continue;
      reached |= 1 << fold;
      if (seen.has(next)) continue;
      seen.add(next);
      open.push(next);
    }
  }
  return { reached, most, whole: true };
}

/**
 * Any way to make all folds, worked back from the finished piece with the least turning at each
 * step, going on from what was passed by where one leads nowhere. Null where none is found within
 * the limit of looks.
 */
export function anyOrderBackward(
  { count, goal, start, transitions: { poses, step } }: SearchProblem,
  looks: number,
): FoldStep[] | null {
  type Back = FoldStep & { set: number; then: Back | null };
  const turned = (a: FoldStep, b: Back | null) =>
    b ? turnings(poses[a.fold]![a.side], poses[b.fold]![b.side]) : 0;
  const seen = new Set([goal]);
  let left = looks;
  const open: { made: number; then: Back | null }[] = [{ made: goal, then: null }];
  for (let at = open.pop(); at; at = open.pop()) {
    const { made, then } = at;
    if (made === start) return wayFrom(then);
    const steps: Back[] = [];
    for (let fold = 0; fold < count; fold++) {
      const before = made & ~(1 << fold);
      if (before === made || start & (1 << fold) || seen.has(before)) continue;
      for (const side of SIDES) {
        if (left-- <= 0) return null;
        const found = step(fold, side, before);
        if (found.ok) steps.push({ fold, side, made: before, set: found.set, then });
      }
    }
    const handling = (one: Back) =>
      turned(one, then) * TURNING_COST + (then && one.set !== then.set ? FINGER_CHANGE_COST : 0);
    // The least handling last: it is taken up next.
    for (const one of steps.sort((a, b) => handling(b) - handling(a))) {
      seen.add(one.made);
      open.push({ made: one.made, then: one });
    }
  }
  return null;
}
