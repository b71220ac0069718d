import { bitsIn } from './bits';
import type { Folding, Made } from './handling';
import { CHANGING, TURNING, turnings } from './handling';
import { SIDES } from './pose';

/**
 * A step that leads to the end, what all after it costs at the least, and the step that comes next
 * then.
 */
type Ahead = Made & { set: number; cost: number; then: Ahead | null };

/**
 * The cheapest way to make all folds, worked back from the finished piece (Bellman 1957; by sets as
 * Held and Karp 1962): the piece is hardest to get into the machine when most of it is folded, so
 * from the end few ways lead back. What a step costs to the end follows from the steps that can
 * come after it. Exact, and so is the answer that there is none.
 *
 * @param looks how many steps may be looked at; `over`: it takes more
 */
export function fromTheEnd(
  { n, all, from, known: { poses, long, step } }: Folding,
  looks = Infinity,
): Made[] | 'none' | 'over' {
  const turned = (a: Made, b: Made) =>
    TURNING * turnings(poses[a.fold]![a.side], poses[b.fold]![b.side]);
  // Every longer fold that is made already comes too early.
  const longer = long.map((mm) =>
    long.reduce((sum, other, i) => (other > mm + 1e-6 ? sum | (1 << i) : sum), 0),
  );
  const tooEarly = ({ fold, made }: Made) => bitsIn(made & longer[fold]!);
  let left = looks;
  // Sets of made folds from which the end can be reached, with the steps that lead there; from one
  // count of folds to the next lower.
  let level = new Map<number, Ahead[]>([[all, []]]);
  for (let count = bitsIn(all & ~from); count > 0; count--) {
    const lower = new Map<number, Ahead[]>();
    for (const [made, next] of level)
      for (let fold = 0; fold < n; fold++) {
        const before = made & ~(1 << fold);
        if (before === made || from & (1 << fold)) continue;
        for (const side of SIDES) {
          if (left-- <= 0) return 'over';
          const found = step(fold, side, before);
          if (!found.ok) continue;
          const one: Ahead = {
            fold,
            side,
            made: before,
            set: found.set,
            cost: made === all ? 0 : Infinity,
            then: null,
          };
          for (const then of next) {
            const cost =
              turned(one, then) +
              (one.set === then.set ? 0 : CHANGING) +
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
    .get(from)
    ?.reduce<Ahead | null>(
      (best, one) => (best && best.cost + tooEarly(best) <= one.cost + tooEarly(one) ? best : one),
      null,
    );
  return level.has(from) ? wayFrom(first ?? null) : 'none';
}

/** A way from its first step on. */
function wayFrom<One extends Made & { then: One | null }>(first: One | null): Made[] {
  const way: Made[] = [];
  for (let one = first; one; one = one.then)
    way.push({ fold: one.fold, side: one.side, made: one.made });
  return way;
}

/**
 * How far the folding gets where no way leads to the end: the folds that can be made at all and the
 * most that are made together, as bits. `whole`: all that can be reached was looked at.
 */
export function howFar(
  { n, all, from, known: { step } }: Folding,
  looks: number,
): { reached: number; most: number; whole: boolean } {
  const seen = new Set([from]);
  const open = [from];
  let [reached, most, left] = [from, from, looks];
  for (let made = open.pop(); made !== undefined; made = open.pop()) {
    if (bitsIn(made) > bitsIn(most)) most = made;
    // More than all but one there are not, and all of them can be made somewhere.
    if (reached === all && bitsIn(all & ~most) === 1) break;
    for (let fold = 0; fold < n; fold++) {
      const next: number = made | (1 << fold);
      if (next === made || !(all & (1 << fold)) || (seen.has(next) && reached & (1 << fold)))
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
export function anyFromTheEnd(
  { n, all, from, known: { poses, step } }: Folding,
  looks: number,
): Made[] | null {
  type Back = Made & { set: number; then: Back | null };
  const turned = (a: Made, b: Back | null) =>
    b ? turnings(poses[a.fold]![a.side], poses[b.fold]![b.side]) : 0;
  const seen = new Set([all]);
  let left = looks;
  const open: { made: number; then: Back | null }[] = [{ made: all, then: null }];
  for (let at = open.pop(); at; at = open.pop()) {
    const { made, then } = at;
    if (made === from) return wayFrom(then);
    const steps: Back[] = [];
    for (let fold = 0; fold < n; fold++) {
      const before = made & ~(1 << fold);
      if (before === made || from & (1 << fold) || seen.has(before)) continue;
      for (const side of SIDES) {
        if (left-- <= 0) return null;
        const found = step(fold, side, before);
        if (found.ok) steps.push({ fold, side, made: before, set: found.set, then });
      }
    }
    const handling = (one: Back) =>
      turned(one, then) * TURNING + (then && one.set !== then.set ? CHANGING : 0);
    // The least handling last: it is taken up next.
    for (const one of steps.sort((a, b) => handling(b) - handling(a))) {
      seen.add(one.made);
      open.push({ made: one.made, then: one });
    }
  }
  return null;
}
