import type { Vec } from '../../measure/vector';
import type { Equation, Side } from './equations';
import {
  along,
  at,
  atShare,
  between,
  circleScale,
  longer,
  offLine,
  offMiddle,
  onCircle,
  size,
  sum,
} from './equations';

/**
 * What parts of an outline are meant to be. Side i runs from point i to the next, the last to the
 * first; lines across the card (folds) are counted as sides on from there. Points and holes by
 * their numbers, from 0; the ends of lines are places on from the holes, two for each.
 */
export type Rule =
  /** Sides that run in one direction. */
  | { kind: 'parallel'; sides: readonly number[] }
  /** Two sides at a right angle. */
  | { kind: 'square'; sides: readonly [number, number] }
  /** Sides that lie on one straight line. */
  | { kind: 'straight'; sides: readonly number[] }
  | { kind: 'equal-length'; sides: readonly number[] }
  /** A side of length `mm`. */
  | { kind: 'length'; side: number; mm: number }
  /** Two sides parallel and `mm` apart. */
  | { kind: 'width'; sides: readonly [number, number]; mm: number }
  /** Points on one circle, in order along it. */
  | { kind: 'arc'; points: readonly number[] }
  /** Holes in line at equal pitch, in order. */
  | { kind: 'pitch'; holes: readonly number[] }
  /**
   * Places on one straight line. Places are points by their numbers, then holes on from there, then
   * ends of lines.
   */
  | { kind: 'in-line'; places: readonly number[] }
  /** Places at one height. */
  | { kind: 'level'; places: readonly number[] }
  /** Places that lie in pairs, each with the next, as mirrored about one line. */
  | { kind: 'symmetric'; places: readonly number[] }
  /** Holes on one circle at equal pitch all round, in order. */
  | { kind: 'circle'; holes: readonly number[] }
  /** Four holes at the corners of a rectangle, in order round it. */
  | { kind: 'rectangle'; holes: readonly [number, number, number, number] }
  /** A place that lies on the line of a side. */
  | { kind: 'on'; place: number; side: number }
  /** A place along a side and to the left of it, as shares of the side's length. */
  | { kind: 'share'; place: number; side: number; of: Vec }
  /** Places that stay where they are. */
  | { kind: 'hold'; points: readonly number[] };

/**
 * How many places are ruled: points first, then holes, then the ends of lines, x and y of each in
 * turn.
 */
export type Places = { points: number; holes: number; lines: number };

/** The places between which a side or line runs. */
export const sideOf =
  ({ points, holes }: Places) =>
  (i: number): Side => {
    if (i < points) return { from: i, to: (i + 1) % points };
    const from = points + holes + 2 * (i - points);
    return { from, to: from + 1 };
  };

/** The equations that rules stand for, of an outline as it was measured (`x`). */
export function equationsOf(rules: readonly Rule[], places: Places, x: Float64Array): Equation[] {
  const { points } = places;
  const side = sideOf(places);
  const length = (i: number) => Math.max(size(along(x, side(i))), 1e-9);
  return rules.flatMap((rule, number): Equation[] => {
    const all = (of: Equation['of'][]) => of.map((one) => ({ rule: number, of: one }));
    switch (rule.kind) {
      case 'parallel':
        return all(
          rule.sides
            .slice(1)
            .map((b) =>
              between(
                side(rule.sides[0]!),
                side(b),
                false,
                Math.sqrt(length(rule.sides[0]!) * length(b)),
              ),
            ),
        );
      case 'square': {
        const [a, b] = rule.sides;
        return all([between(side(a), side(b), true, Math.sqrt(length(a) * length(b)))]);
      }
      case 'straight': {
        const corners = [...new Set(rule.sides.flatMap((i) => [side(i).from, side(i).to]))];
        const line = farthestApart(corners, x);
        return all(
          corners
            .filter((i) => i !== line.from && i !== line.to)
            .map((i) => offLine(line, [{ place: i, weight: 1 }], 0)),
        );
      }
      case 'equal-length':
        return all(rule.sides.slice(1).map((b) => longer(side(rule.sides[0]!), side(b), 0)));
      case 'length':
        return all([longer(side(rule.side), null, rule.mm)]);
      case 'width': {
        const [a, b] = rule.sides.map(side) as [Side, Side];
        const middle = [
          { place: b.from, weight: 0.5 },
          { place: b.to, weight: 0.5 },
        ];
        const left = offLine(a, middle, 0)(x).off >= 0;
        return all([
          between(a, b, false, Math.sqrt(length(rule.sides[0]) * length(rule.sides[1]))),
          offLine(a, middle, left ? rule.mm : -rule.mm),
        ]);
      }
      case 'arc': {
        const on = rule.points;
        const three = [on[0]!, on[Math.floor((on.length - 1) / 2)]!, on[on.length - 1]!] as const;
        const over = circleScale(three.map((i) => at(x, i)) as [Vec, Vec, Vec]);
        return all(on.filter((i) => !three.includes(i)).map((i) => onCircle(three, i, over)));
      }
      case 'pitch':
        return all(
          rule.holes.slice(2).flatMap((c, k) => {
            const [a, b] = [rule.holes[k]! + points, rule.holes[k + 1]! + points];
            const third = c + points;
            return [0, 1].map((axis) =>
              sum(
                [
                  [2 * a + axis, 1],
                  [2 * b + axis, -2],
                  [2 * third + axis, 1],
                ],
                0,
              ),
            );
          }),
        );
      case 'in-line': {
        const line = farthestApart(rule.places, x);
        return all(
          rule.places
            .filter((i) => i !== line.from && i !== line.to)
            .map((i) => offLine(line, [{ place: i, weight: 1 }], 0)),
        );
      }
      case 'level':
        return all(
          rule.places.slice(1).map((i) =>
            sum(
              [
                [2 * rule.places[0]! + 1, -1],
                [2 * i + 1, 1],
              ],
              0,
            ),
          ),
        );
      case 'symmetric': {
        const [first, ...others] = pairsOf(rule.places);
        return all(
          others.flatMap((pair) => [
            between(first!, pair, false, Math.sqrt(size(along(x, first!)) * size(along(x, pair)))),
            offMiddle(first!, pair),
          ]),
        );
      }
      case 'circle': {
        const on = rule.holes.map((i) => i + points);
        const chords = on.map((from, k): Side => ({ from, to: on[(k + 1) % on.length]! }));
        const three = [on[0]!, on[1]!, on[2]!] as const;
        const over = circleScale(three.map((i) => at(x, i)) as [Vec, Vec, Vec]);
        return all([
          ...chords.slice(1).map((chord) => longer(chords[0]!, chord, 0)),
          ...on.slice(3).map((i) => onCircle(three, i, over)),
        ]);
      }
      case 'rectangle': {
        const [a, b, c, d] = rule.holes.map((i) => i + points) as [number, number, number, number];
        const opposite = [0, 1].map((axis) =>
          sum(
            [
              [2 * a + axis, 1],
              [2 * b + axis, -1],
              [2 * c + axis, 1],
              [2 * d + axis, -1],
            ],
            0,
          ),
        );
        return all([...opposite, longer({ from: a, to: c }, { from: b, to: d }, 0)]);
      }
      case 'on':
        return all([offLine(side(rule.side), [{ place: rule.place, weight: 1 }], 0)]);
      case 'share':
        return all(atShare(rule.place, side(rule.side), rule.of));
      case 'hold':
        return all(
          rule.points.flatMap((i) =>
            [0, 1].map((axis) => sum([[2 * i + axis, 1]], x[2 * i + axis]!)),
          ),
        );
    }
  });
}

/** Places two by two. */
const pairsOf = (places: readonly number[]): Side[] =>
  Array.from({ length: Math.floor(places.length / 2) }, (_, k) => ({
    from: places[2 * k]!,
    to: places[2 * k + 1]!,
  }));

/** Of some places the two that lie farthest apart: what a line through all of them is laid by. */
function farthestApart(places: readonly number[], x: Float64Array): Side {
  let best: Side & { far: number } = { from: places[0]!, to: places[1] ?? places[0]!, far: -1 };
  places.forEach((from, k) => {
    for (const to of places.slice(k + 1)) {
      const far = size(along(x, { from, to }));
      if (far > best.far) best = { from, to, far };
    }
  });
  return best;
}
