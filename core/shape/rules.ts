import type { ShapeStep, StepKind } from './shapeStep';

/**
 * A rule of the working order: steps of one kind come before steps of another, always, or where
 * both are about the same thing; `turned-first` where the first is about an edge that is turned over
 * before the folds (as the machine's order takes it), `turned-last` where the other is about one that
 * is turned over after them. Data: the interface has a sentence for each by its id.
 */
export type OrderRule = {
  id: string;
  first: readonly StepKind[];
  then: readonly StepKind[];
  where: 'always' | 'same' | 'turned-first' | 'turned-last';
  source: string;
};

const PRACTICE = 'common practice';

export const ORDER_RULES: readonly OrderRule[] = [
  {
    id: 'test-first',
    first: ['test-bead', 'test-strip', 'test-bend'],
    then: ['rough', 'exact'],
    where: 'always',
    source: PRACTICE,
  },
  {
    id: 'cut-first',
    first: ['rough', 'exact'],
    then: [
      'holes',
      'flare',
      'bead',
      'raise',
      'smooth',
      'tip-start',
      'strain',
      'tip-home',
      'turn',
      'notch',
      'pack',
      'fold',
      'leave',
      'check',
      'trim',
    ],
    where: 'always',
    source: PRACTICE,
  },
  {
    id: 'flare-flat',
    first: ['holes', 'flare'],
    then: ['fold', 'tip-start', 'turn'],
    where: 'always',
    source: `${PRACTICE}: the punch wants flat sheet round it`,
  },
  {
    id: 'flare-after-hole',
    first: ['holes'],
    then: ['flare'],
    where: 'always',
    source: 'Romanovsky, Handbook of Cold Stamping: the first hole is made in the flat',
  },
  {
    id: 'bead-before-flange',
    first: ['bead'],
    then: ['tip-start', 'turn', 'fold'],
    where: 'always',
    source: `${PRACTICE}: what stands up keeps the sheet out of the roller`,
  },
  {
    id: 'bead-before-strain',
    first: ['bead'],
    then: ['strain'],
    where: 'always',
    source: `${PRACTICE}: a bead draws the edges in`,
  },
  {
    id: 'angle-before-pull',
    first: ['angle'],
    then: ['strain'],
    where: 'same',
    source: 'a straight angle is folded before it is pulled round',
  },
  {
    id: 'tip-before-strain',
    first: ['tip-start'],
    then: ['strain'],
    where: 'same',
    source: `${PRACTICE}: turned over a little, then worked, so that nothing buckles`,
  },
  {
    id: 'strain-before-home',
    first: ['strain', 'notch'],
    then: ['tip-home'],
    where: 'same',
    source: PRACTICE,
  },
  {
    id: 'strain-before-fold',
    first: ['strain'],
    then: ['fold', 'leave'],
    where: 'turned-first',
    source: `${PRACTICE}: jaws reach no edge that is folded in`,
  },
  {
    id: 'pack-before-fold',
    first: ['bead', 'pack'],
    then: ['fold'],
    where: 'same',
    source: `${PRACTICE}: a fold across an open bead crushes it`,
  },
  {
    id: 'tip-before-fold',
    first: ['tip-start', 'notch', 'tip-home', 'turn'],
    then: ['fold', 'leave'],
    where: 'turned-first',
    source: `${PRACTICE}: a folded piece does not lie on the stake`,
  },
  {
    id: 'fold-before-tip',
    first: ['fold'],
    then: ['tip-start', 'strain', 'notch', 'tip-home', 'turn'],
    where: 'turned-last',
    source: 'chosen for this edge: turned over first it would stand in the way of a fold',
  },
  {
    id: 'lip-after-fold',
    first: ['strain'],
    then: ['lip'],
    where: 'same',
    source: 'what is pulled round is welded on when it fits',
  },
  {
    id: 'raise-before-smooth',
    first: ['raise'],
    then: ['smooth'],
    where: 'always',
    source: PRACTICE,
  },
  {
    id: 'raise-before-gather',
    first: ['raise', 'smooth'],
    then: ['strain', 'tip-start', 'fold'],
    where: 'always',
    source: `${PRACTICE}: the rim is gathered to what the middle has become`,
  },
  {
    id: 'shape-before-check',
    first: ['raise', 'smooth', 'strain'],
    then: ['check'],
    where: 'always',
    source: PRACTICE,
  },
  {
    id: 'leave-last',
    first: ['fold', 'check'],
    then: ['leave'],
    where: 'always',
    source: `${PRACTICE}: the last fold adjusts the gap`,
  },
  {
    id: 'trim-last',
    first: ['bead', 'raise', 'smooth', 'strain', 'tip-home', 'turn', 'fold', 'flare'],
    then: ['trim'],
    where: 'always',
    source: `${PRACTICE}: trimmed when nothing draws in any more`,
  },
];

/** A rule that an order breaks: what should have come first, and what comes before it instead. */
export type BrokenRule = { rule: OrderRule; first: string; then: string };

const shares = (a: ShapeStep, b: ShapeStep): boolean => a.about.some((id) => b.about.includes(id));

/** Whether a rule says that one step comes before another. */
function says(
  { first, then, where }: OrderRule,
  a: ShapeStep,
  b: ShapeStep,
  turnedAfter: readonly string[],
): boolean {
  if (!first.includes(a.what) || !then.includes(b.what)) return false;
  const isLate = ({ about }: ShapeStep) => about.some((id) => turnedAfter.includes(id));
  switch (where) {
    case 'always':
      return true;
    case 'same':
      return shares(a, b);
    case 'turned-first':
      return !isLate(a);
    case 'turned-last':
      return isLate(b);
  }
}

/** The rules that an order breaks, each with the steps concerned, in the order of the steps. */
export function brokenRules(
  steps: readonly ShapeStep[],
  turnedAfter: readonly string[],
): BrokenRule[] {
  const found: BrokenRule[] = [];
  steps.forEach((early, i) => {
    for (const late of steps.slice(i + 1))
      for (const rule of ORDER_RULES)
        if (says(rule, late, early, turnedAfter))
          found.push({ rule, first: late.key, then: early.key });
  });
  return found;
}

/**
 * The steps in an order that keeps every rule, otherwise as they were given. Steps that wait for
 * each other stay as given.
 */
export function inOrder(steps: readonly ShapeStep[], turnedAfter: readonly string[]): ShapeStep[] {
  const waiting = steps.map((step) => ({
    step,
    for: new Set(
      steps
        .filter(
          (other) =>
            other !== step && ORDER_RULES.some((rule) => says(rule, other, step, turnedAfter)),
        )
        .map(({ key }) => key),
    ),
  }));
  const order: ShapeStep[] = [];
  while (waiting.length > 0) {
    const at = Math.max(
      0,
      waiting.findIndex((one) => one.for.size === 0),
    );
    const [next] = waiting.splice(at, 1);
    order.push(next!.step);
    for (const one of waiting) one.for.delete(next!.step.key);
  }
  return order;
}
