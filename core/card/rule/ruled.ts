import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import type { Vec } from '../../measure/vector';
import type { AsMeasured } from './asMeasured';
import { asMeasured } from './asMeasured';
import type { Equation } from './equations';
import type { Places, Rule } from './rules';
import { equationsOf } from './rules';

export type Ruled = {
  points: [number, number][];
  holes: [number, number][];
  lines: [[number, number], [number, number]][];
  /** How far what moved most has moved, mm. */
  movedMm: number;
  asMeasured: AsMeasured[];
};

/** A rule is met when it is off by no more than this, mm. */
const MET_MM = 1e-9;
/**
 * A rule that is off by more than this where all are met as well as they can be contradicts others,
 * mm.
 */
const CONTRADICTS_MM = 1e-6;
/** As often as places are moved anew. */
const MOST_TURNS = 80;
/** One rule leans on another where what it says is made up of that by more than this share. */
const LEANS = 1e-6;
/** A rule that says no more than others do is known by what is left of it, as a share. */
const NOTHING_LEFT = 1e-12;

/**
 * An outline, its holes and lines across it as measured, moved as little as can be so that every
 * rule is met: the least sum of the squares of all movements (Gauss's and Newton's steps with a
 * multiplier for each rule). Rules that say the same as others are no fault.
 *
 * Problems: `rule-unreadable` (about: the number of a rule that names what is not there, or too
 * little), `rules-contradict` (about: the numbers of those that cannot all be met; numbers: by how
 * much, mm). Nothing is moved then.
 */
export function ruled(
  points: readonly Vec[],
  holes: readonly Vec[],
  rules: readonly Rule[],
  lines: readonly (readonly [Vec, Vec])[] = [],
): Result<Ruled> {
  const places = { points: points.length, holes: holes.length, lines: lines.length };
  const bad = rules.flatMap((rule, i) => (isWhole(rule, places) ? [] : [String(i)]));
  if (bad.length > 0) return failure({ code: 'rule-unreadable', about: bad });
  const start = Float64Array.from([...points, ...holes, ...lines.flat()].flat());
  const equations = equationsOf(rules, places, start);
  let x = Float64Array.from(start);
  let state = stateAt(equations, x);
  for (let turn = 0; turn < MOST_TURNS; turn++) {
    const step = nextStep(state, x, start);
    const size = Math.max(...step.map(Math.abs), 0);
    // A step that makes it much worse is gone in part: far from the rules a straight step can miss
    // them.
    let share = 1;
    let next = stateAt(equations, moved(x, step, share));
    while (share > 1 / 64 && !(next.worst <= 2 * state.worst + size))
      next = stateAt(equations, moved(x, step, (share /= 2)));
    x = moved(x, step, share);
    state = next;
    if (size < MET_MM && state.worst < MET_MM) break;
  }
  if (!(state.worst <= CONTRADICTS_MM)) {
    const about = contradicting(state).map(String);
    return failure({ code: 'rules-contradict', about, numbers: { offMm: state.worst } });
  }
  const pairs = (from: number, count: number) =>
    Array.from({ length: count }, (_, i): [number, number] => [
      x[2 * (from + i)]!,
      x[2 * (from + i) + 1]!,
    ]);
  let movedMm = 0;
  for (let i = 0; i < x.length; i += 2)
    movedMm = Math.max(movedMm, Math.hypot(x[i]! - start[i]!, x[i + 1]! - start[i + 1]!));
  return {
    ok: true,
    points: pairs(0, points.length),
    holes: pairs(points.length, holes.length),
    lines: lines.map((_, i) => {
      const [from, to] = pairs(points.length + holes.length + 2 * i, 2);
      return [from!, to!];
    }),
    movedMm,
    asMeasured: asMeasured(rules, places, start),
  };
}

/** Whether a rule names what is there, and enough of it. */
function isWhole(rule: Rule, { points, holes, lines }: Places): boolean {
  const [sides, places] = [points + lines, points + holes + 2 * lines];
  const there = (all: readonly number[], of: number, least: number) =>
    all.length >= least &&
    new Set(all).size === all.length &&
    all.every((i) => Number.isInteger(i) && i >= 0 && i < of);
  switch (rule.kind) {
    case 'parallel':
    case 'equal-length':
    case 'square':
      return there(rule.sides, sides, 2);
    case 'straight':
      return there(rule.sides, sides, 1);
    case 'length':
      return there([rule.side], sides, 1) && rule.mm > 0;
    case 'width':
      return there(rule.sides, sides, 2) && rule.mm > 0;
    case 'arc':
      return there(rule.points, points, 3);
    case 'pitch':
      return there(rule.holes, holes, 3);
    case 'in-line':
      return there(rule.places, places, 3);
    case 'level':
      return there(rule.places, places, 2);
    case 'symmetric':
      return there(rule.places, places, 4) && rule.places.length % 2 === 0;
    case 'circle':
      return there(rule.holes, holes, 3);
    case 'rectangle':
      return there(rule.holes, holes, 4);
    case 'on':
    case 'share':
      return there([rule.place], places, 1) && there([rule.side], sides, 1);
    case 'hold':
      return there(rule.points, places, 1);
  }
}

/** The equations at a place: how far each is off, what it changes by, and the farthest. */
type State = { off: Float64Array; by: Map<number, number>[]; rules: number[]; worst: number };

function stateAt(equations: readonly Equation[], x: Float64Array): State {
  const all = equations.map(({ of }) => of(x));
  const off = Float64Array.from(all, (one) => one.off);
  const worst = off.reduce(
    (most, one) => (Number.isFinite(one) ? Math.max(most, Math.abs(one)) : Infinity),
    0,
  );
  return { off, by: all.map((one) => one.by), rules: equations.map(({ rule }) => rule), worst };
}

const moved = (
  x: Float64Array,
  step: readonly number[],
  share: number,
): Float64Array<ArrayBuffer> =>
  x.map((figure, i) => figure + share * step[i]!) as Float64Array<ArrayBuffer>;

/**
 * The step to the place nearest to where all began that meets the rules as they run here: x₀ + Jᵀλ
 * − x with JJᵀλ = −g − J(x₀ − x).
 */
function nextStep({ off, by }: State, x: Float64Array, start: Float64Array): number[] {
  const right = by.map((row, i) => {
    let sum = -off[i]!;
    for (const [k, d] of row) sum -= d * (start[k]! - x[k]!);
    return sum;
  });
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
        left[i]! > NOTHING_LEFT * whole[i]! &&
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
function contradicting({ off, by, rules }: State): number[] {
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
  const leant = order.flatMap((k, i) => (Math.abs(shares[i]!) > LEANS ? [rules[others[k]!]!] : []));
  return [...new Set([rules[worst]!, ...leant])].sort((a, b) => a - b);
}

const dotOf = (a: ReadonlyMap<number, number>, b: ReadonlyMap<number, number>): number => {
  let sum = 0;
  for (const [k, d] of a) sum += d * (b.get(k) ?? 0);
  return sum;
};
