import type { Equation } from './equations';

/**
 * The point nearest to a start that meets a set of equations: equality-constrained least squares.
 * Lengths in mm; all equations are scaled to mm, so that their derivatives are about 1.
 */

/** An equation is met when its residual is at most this, mm. */
const MET_MM = 1e-9;
/** Iterations of the undamped method. */
const MAX_ITERATIONS = 80;
/** The undamped method is trusted alone where it converges within this number of iterations. */
const QUICK_ITERATIONS = 12;
/** Damping of JJᵀ, relative to derivatives of 1: first, last, and the factor between levels. */
const DAMPING = { first: 1, last: 1e-12, factor: 0.1 };
/** Gauss–Newton steps at each level of damping. */
const STEPS_PER_LEVEL = 4;
/** Steps that restore feasibility at the last level; at a double root each halves the distance. */
const MAX_RESTORING_STEPS = 60;
/** One rule depends on another where its gradient holds that one's by more than this share. */
const DEPENDS = 1e-6;
/** A row of J is dependent on those before it when this share of its square is left, or less. */
const DEPENDENT = 1e-12;

/** The equations at a place: how far each is off, what it changes by, and the farthest. */
export type State = {
  off: Float64Array;
  by: Map<number, number>[];
  rules: number[];
  worst: number;
};

function stateAt(equations: readonly Equation[], x: Float64Array): State {
  const all = equations.map(({ of }) => of(x));
  const off = Float64Array.from(all, (one) => one.off);
  const worst = off.reduce(
    (most, one) => (Number.isFinite(one) ? Math.max(most, Math.abs(one)) : Infinity),
    0,
  );
  return { off, by: all.map((one) => one.by), rules: equations.map(({ rule }) => rule), worst };
}

/**
 * `start` moved as little as can be (least sum of squares, mm²) so that all equations hold; `state`
 * says how well they do there.
 *
 * Gauss–Newton with Lagrange multipliers converges in a few steps where the gradients of the
 * equations are independent. Where they are not at the solution (redundant and tangential
 * equations: a residual with a double root) its multipliers grow without bound; then the damped
 * method, Levenberg–Marquardt with the damping lowered level by level (Nocedal & Wright, Numerical
 * Optimization, 10.3 and 17.1), finds it, and what is left is restored along the gradients.
 */
export function leastMovement(
  equations: readonly Equation[],
  start: Float64Array,
): { x: Float64Array; state: State } {
  const plain = undamped(equations, start);
  if (plain.iterations <= QUICK_ITERATIONS && plain.state.worst < MET_MM) return plain;
  const soft = damped(equations, start);
  const met = (found: { state: State }) => found.state.worst <= MET_MM;
  if (met(plain) && met(soft))
    return movement(plain.x, start) <= movement(soft.x, start) ? plain : soft;
  if (met(plain)) return plain;
  // A worst of NaN or infinity loses against any figure.
  return plain.state.worst < soft.state.worst && !(soft.state.worst < TANGENTIAL_MM) ? plain : soft;
}

/** Residual, mm, under which the damped method has found a (tangential) solution. */
const TANGENTIAL_MM = 1e-6;

type Found = { x: Float64Array; state: State; iterations: number };

function undamped(equations: readonly Equation[], start: Float64Array): Found {
  let x = Float64Array.from(start);
  let state = stateAt(equations, x);
  for (let iterations = 1; iterations <= MAX_ITERATIONS; iterations++) {
    const step = nextStep(state, x, start);
    const size = Math.max(...step.map(Math.abs), 0);
    // A step that makes it much worse is shortened: far from the solution a straight step can miss.
    let share = 1;
    let next = stateAt(equations, moved(x, step, share));
    while (share > 1 / 64 && !(next.worst <= 2 * state.worst + size))
      next = stateAt(equations, moved(x, step, (share /= 2)));
    x = moved(x, step, share);
    state = next;
    if (size < MET_MM && state.worst < MET_MM) return { x, state, iterations };
  }
  return { x, state, iterations: MAX_ITERATIONS };
}

/** Minimum of |x − start|² + |g(x)|²/δ for falling damping δ, then g(x) = 0 by least-norm steps. */
function damped(equations: readonly Equation[], start: Float64Array): Found {
  let x = Float64Array.from(start);
  let state = stateAt(equations, x);
  let iterations = 0;
  const objective = (at: Float64Array, { off }: State, damping: number) =>
    movement(at, start) + off.reduce((sum, one) => sum + one * one, 0) / damping;
  for (
    let damping = DAMPING.first;
    damping >= DAMPING.last * (1 - 1e-9);
    damping *= DAMPING.factor
  ) {
    for (let k = 0; k < STEPS_PER_LEVEL; k++, iterations++) {
      const step = dampedStep(state, x, start, damping);
      const before = objective(x, state, damping);
      let share = 1;
      let next = moved(x, step, share);
      let there = stateAt(equations, next);
      while (share > 1e-3 && !(objective(next, there, damping) <= before)) {
        next = moved(x, step, (share /= 2));
        there = stateAt(equations, next);
      }
      if (!(objective(next, there, damping) <= before)) break;
      [x, state] = [next, there];
    }
  }
  for (let k = 0; k < MAX_RESTORING_STEPS && state.worst > MET_MM; k++, iterations++) {
    const next = moved(x, dampedStep(state, x, x, DAMPING.last), 1);
    const there = stateAt(equations, next);
    if (!(there.worst < state.worst)) break;
    [x, state] = [next, there];
  }
  return { x, state, iterations };
}

/** Sum of the squared movements of all figures, mm². */
function movement(x: Float64Array, start: Float64Array): number {
  let sum = 0;
  for (let k = 0; k < x.length; k++) sum += (x[k]! - start[k]!) ** 2;
  return sum;
}

const moved = (
  x: Float64Array,
  step: readonly number[],
  share: number,
): Float64Array<ArrayBuffer> =>
  x.map((figure, i) => figure + share * step[i]!) as Float64Array<ArrayBuffer>;

/** x₀ + Jᵀλ − x with (JJᵀ + δI)λ = −g − J(x₀ − x): a Levenberg–Marquardt step in dual form. */
function dampedStep(
  { off, by }: State,
  x: Float64Array,
  start: Float64Array,
  damping: number,
): number[] {
  const right = rightSide(off, by, x, start);
  const lower: number[][] = [];
  by.forEach((row, i) => {
    const own: number[] = [];
    for (let j = 0; j <= i; j++) {
      const other = j < i ? lower[j]! : own;
      let sum = dotOf(row, by[j]!) + (j < i ? 0 : damping);
      for (let k = 0; k < j; k++) sum -= own[k]! * other[k]!;
      // Rounding may leave less than the damping on the diagonal.
      own.push(j < i ? sum / other[j]! : Math.sqrt(Math.max(sum, damping)));
    }
    lower.push(own);
  });
  const factors = solved(right, lower);
  const step = Array.from(start, (figure, k) => figure - x[k]!);
  by.forEach((row, i) => {
    for (const [k, d] of row) step[k]! += d * factors[i]!;
  });
  return step;
}

/** −g − J(x₀ − x), mm. */
const rightSide = (
  off: Float64Array,
  by: readonly Map<number, number>[],
  x: Float64Array,
  start: Float64Array,
): number[] =>
  by.map((row, i) => {
    let sum = -off[i]!;
    for (const [k, d] of row) sum -= d * (start[k]! - x[k]!);
    return sum;
  });

/**
 * The step to the place nearest to where all began that meets the rules as they run here: x₀ + Jᵀλ
 * − x with JJᵀλ = −g − J(x₀ − x).
 */
function nextStep({ off, by }: State, x: Float64Array, start: Float64Array): number[] {
  const right = rightSide(off, by, x, start);
  const { order, lower } = independent(by);
  const factors = solved(
    order.map((row) => right[row]!),
    lower,
  );
  const step = Array.from(start, (figure, k) => figure - x[k]!);
  order.forEach((row, i) => {
    for (const [k, d] of by[row]!) step[k]! += d * factors[i]!;
  });
  return step;
}

/** What solves L·Lᵀ·f = right: forward and back through the triangle. */
function solved(right: readonly number[], lower: readonly (readonly number[])[]): number[] {
  const y: number[] = [];
  right.forEach((given, i) => {
    let sum = given;
    for (let j = 0; j < i; j++) sum -= lower[i]![j]! * y[j]!;
    y.push(sum / lower[i]![i]!);
  });
  for (let i = y.length - 1; i >= 0; i--) {
    for (let j = i + 1; j < y.length; j++) y[i]! -= lower[j]![i]! * y[j]!;
    y[i]! /= lower[i]![i]!;
  }
  return y;
}

/**
 * Rows that say something of their own, the strongest first, and the triangle of Cholesky of JJᵀ
 * over them.
 */
function independent(by: readonly Map<number, number>[]): { order: number[]; lower: number[][] } {
  const product = (a: number, b: number) => dotOf(by[a]!, by[b]!);
  const whole = by.map((_, i) => product(i, i));
  const left = [...whole];
  const parts: number[][] = by.map(() => []);
  const order: number[] = [];
  for (;;) {
    let next = -1;
    for (let i = 0; i < by.length; i++)
      if (
        !order.includes(i) &&
        left[i]! > DEPENDENT * whole[i]! &&
        (next < 0 || left[i]! > left[next]!)
      )
        next = i;
    if (next < 0) break;
    const pivot = Math.sqrt(left[next]!);
    for (let i = 0; i < by.length; i++) {
      if (order.includes(i) || i === next) continue;
      let sum = product(i, next);
      for (let j = 0; j < order.length; j++) sum -= parts[i]![j]! * parts[next]![j]!;
      parts[i]!.push(sum / pivot);
      left[i]! -= (sum / pivot) ** 2;
    }
    parts[next]!.push(pivot);
    order.push(next);
  }
  return { order, lower: order.map((row) => parts[row]!) };
}

/**
 * The rules that cannot all be met: that of the equation farthest off, and those of which what it
 * says is made up.
 */
export function contradicting({ off, by, rules }: State): number[] {
  let worst = 0;
  off.forEach((one, i) => {
    if (!(Math.abs(one) <= Math.abs(off[worst]!))) worst = i;
  });
  const others = by.map((_, i) => i).filter((i) => i !== worst);
  const rows = others.map((i) => by[i]!);
  const { order, lower } = independent(rows);
  const shares = solved(
    order.map((k) => dotOf(by[worst]!, rows[k]!)),
    lower,
  );
  const leant = order.flatMap((k, i) =>
    Math.abs(shares[i]!) > DEPENDS ? [rules[others[k]!]!] : [],
  );
  return [...new Set([rules[worst]!, ...leant])].sort((a, b) => a - b);
}

const dotOf = (a: ReadonlyMap<number, number>, b: ReadonlyMap<number, number>): number => {
  let sum = 0;
  for (const [k, d] of a) sum += d * (b.get(k) ?? 0);
  return sum;
};
