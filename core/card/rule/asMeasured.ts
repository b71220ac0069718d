import { along, cross, dot, size } from './equations';
import type { Places, Rule } from './rules';
import { equationsOf, sideOf } from './rules';

/**
 * How far something is from what it is meant to be: degrees between directions, mm between places
 * or lengths.
 */
export type AsMeasured = {
  rule: number;
  offDeg?: number;
  offMm?: number;
  overMm?: number;
  leastMm?: number;
  mostMm?: number;
};

/** How far what was measured is from each rule. */
export function asMeasured(rules: readonly Rule[], places: Places, x: Float64Array): AsMeasured[] {
  const side = sideOf(places);
  const equations = equationsOf(rules, places, x);
  const worst = (rule: number) =>
    equations
      .filter((one) => one.rule === rule)
      .reduce((most, { of }) => Math.max(most, Math.abs(of(x).off)), 0);
  const angle = (i: number, j: number, square: boolean) => {
    const [u, v] = [along(x, side(i)), along(x, side(j))];
    const off = (Math.atan2(Math.abs(cross(u, v)), Math.abs(dot(u, v))) * 180) / Math.PI;
    return square ? 90 - off : off;
  };
  return rules.map((rule, number): AsMeasured => {
    switch (rule.kind) {
      case 'parallel':
      case 'square':
      case 'width': {
        const [first, ...others] = rule.sides;
        const offDeg = Math.max(
          ...others.map((other) => angle(first!, other, rule.kind === 'square')),
          0,
        );
        const overMm = Math.min(...rule.sides.map((i) => size(along(x, side(i)))));
        const told = {
          rule: number,
          offDeg,
          offMm: Math.sin((offDeg * Math.PI) / 180) * overMm,
          overMm,
        };
        if (rule.kind !== 'width') return told;
        // Of a width how far the middle of the one lies off the line of the other, beside what is
        // asked.
        const apart = Math.abs(equations.filter((one) => one.rule === number)[1]!.of(x).off);
        return { ...told, offMm: apart };
      }
      case 'circle': {
        const on = rule.holes.map((i) => i + places.points);
        const steps = on.map((from, k) => size(along(x, { from, to: on[(k + 1) % on.length]! })));
        return {
          rule: number,
          offMm: worst(number),
          leastMm: Math.min(...steps),
          mostMm: Math.max(...steps),
        };
      }
      case 'pitch': {
        const steps = rule.holes
          .slice(1)
          .map((b, k) =>
            size(along(x, { from: rule.holes[k]! + places.points, to: b + places.points })),
          );
        return {
          rule: number,
          offMm: worst(number),
          leastMm: Math.min(...steps),
          mostMm: Math.max(...steps),
        };
      }
      default:
        return { rule: number, offMm: worst(number) };
    }
  });
}
