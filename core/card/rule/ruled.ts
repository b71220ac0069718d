import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import type { Vec } from '../../measure/vector';
import type { AsMeasured } from './asMeasured';
import { asMeasured } from './asMeasured';
import { contradicting, leastMovement } from './leastMovement';
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

/**
 * Bench tolerance, mm: rules that are off by more than this where all are met as well as they can
 * be contradict each other.
 */
const CONTRADICTS_MM = 1e-3;

/**
 * An outline, its holes and lines across it as measured, moved as little as can be so that every
 * rule is met: the least sum of the squares of all movements. Rules that say the same as others are no
 * fault, nor are rules that only touch (a plate with one square corner, two parallel sides and two
 * equal ones can only be a rectangle).
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
  const { x, state } = leastMovement(equations, start);
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
