import type { Result } from '../measure/result';
import { failure } from '../measure/result';

/**
 * One way of going about it: hours at best, likely, at worst; what the material and what is bought
 * cost, in money.
 */
export type Option = {
  name: string;
  hours: readonly [best: number, likely: number, worst: number];
  material: number;
  price: number;
};

export type Weighed = {
  name: string;
  mean: number;
  p10: number;
  p50: number;
  p90: number;
  /**
   * 0 to 1, together 1: how likely it comes out cheapest; options that cost exactly the same share
   * it.
   */
  chanceCheapest: number;
  /**
   * Hours (mean) at which it costs as much as the cheapest of the others does on average: under
   * that it wins. Below nothing where it loses at no hours at all; null where hours cost nothing or
   * there is no other.
   */
  evenAtHours: number | null;
};

/**
 * A triangular spread of money: at least `a`, most likely `m`, at most `b`; all one for what is
 * sure.
 */
type Triangle = { a: number; m: number; b: number };

/**
 * What each option costs, as a range, and how likely it is the cheapest. Hours are triangular
 * (three guesses), the options independent of each other. No chance is drawn: between the corners
 * of the triangles a density is a straight line and the rest are parabolas, so that Gauss's rule
 * with as many points as there are options is exact.
 *
 * `rate` is money per hour. Problems: `options-empty`, `option-hours` (about: its name; hours that
 * do not rise or are below nothing), `option-money` (about: its name or `rate`).
 */
export function weighOptions(
  rate: number,
  options: readonly Option[],
): Result<{ options: Weighed[] }> {
  if (options.length === 0) return failure({ code: 'options-empty' });
  if (!(rate >= 0) || !Number.isFinite(rate))
    return failure({ code: 'option-money', about: ['rate'] });
  for (const { name, hours, material, price } of options) {
    const [a, m, b] = hours;
    if (!(a >= 0 && m >= a && b >= m) || !Number.isFinite(b))
      return failure({ code: 'option-hours', about: [name] });
    if (!(material >= 0 && price >= 0) || !Number.isFinite(material + price))
      return failure({ code: 'option-money', about: [name] });
  }
  const costs = options.map(({ hours, material, price }): Triangle => {
    const [a, m, b] = hours.map((h) => rate * h + material + price);
    return { a: a!, m: m!, b: b! };
  });
  const mean = costs.map(({ a, m, b }) => (a + m + b) / 3);
  const chances = cheapest(costs);
  return {
    ok: true,
    options: options.map(({ name, material, price }, i): Weighed => {
      const others = mean.filter((_, j) => j !== i);
      return {
        name,
        mean: mean[i]!,
        p10: quantile(costs[i]!, 0.1),
        p50: quantile(costs[i]!, 0.5),
        p90: quantile(costs[i]!, 0.9),
        chanceCheapest: chances[i]!,
        evenAtHours:
          rate > 0 && others.length > 0 ? (Math.min(...others) - material - price) / rate : null,
      };
    }),
  };
}

/** What a triangular figure stays under with chance `p` (0 to 1). */
export function quantile({ a, m, b }: Triangle, p: number): number {
  if (!(b > a)) return a;
  return p <= (m - a) / (b - a)
    ? a + Math.sqrt(p * (b - a) * (m - a))
    : b - Math.sqrt((1 - p) * (b - a) * (b - m));
}

const isSure = ({ a, b }: Triangle) => !(b > a);

/** How dense a triangular figure lies at x. */
function density({ a, m, b }: Triangle, x: number): number {
  if (x < a || x > b) return 0;
  if (x < m) return (2 * (x - a)) / ((b - a) * (m - a));
  return m < b ? (2 * (b - x)) / ((b - a) * (b - m)) : 2 / (b - a);
}

/** The chance that a figure comes out above x; what is sure comes out above what is below it. */
function above(t: Triangle, x: number): number {
  if (isSure(t)) return x < t.a ? 1 : 0;
  const { a, m, b } = t;
  if (x <= a) return 1;
  if (x >= b) return 0;
  return x < m ? 1 - (x - a) ** 2 / ((b - a) * (m - a)) : (b - x) ** 2 / ((b - a) * (b - m));
}

function cheapest(costs: readonly Triangle[]): number[] {
  const { nodes, weights } = gauss(costs.length + 1);
  const corners = [...new Set(costs.flatMap(({ a, m, b }) => [a, m, b]))].sort((x, y) => x - y);
  return costs.map((own, i) => {
    const others = costs.filter((_, j) => j !== i);
    if (isSure(own)) {
      const equal = others.filter((other) => isSure(other) && other.a === own.a).length;
      const rest = others.filter((other) => !(isSure(other) && other.a === own.a));
      return rest.reduce((chance, other) => chance * above(other, own.a), 1) / (equal + 1);
    }
    let chance = 0;
    for (let k = 0; k + 1 < corners.length; k++) {
      const [from, to] = [corners[k]!, corners[k + 1]!];
      nodes.forEach((node, n) => {
        const x = from + ((to - from) * (node + 1)) / 2;
        const here = others.reduce((product, other) => product * above(other, x), density(own, x));
        chance += ((weights[n]! * (to - from)) / 2) * here;
      });
    }
    return chance;
  });
}

/**
 * Nodes and weights of Gauss's and Legendre's rule on (−1, 1): exact for polynomials up to degree
 * 2n − 1.
 */
function gauss(n: number): { nodes: number[]; weights: number[] } {
  const nodes: number[] = [];
  const weights: number[] = [];
  for (let i = 0; i < n; i++) {
    let x = Math.cos((Math.PI * (i + 0.75)) / (n + 0.5));
    let slope = 1;
    for (let turn = 0; turn < 100; turn++) {
      let [before, now] = [1, x];
      for (let k = 2; k <= n; k++)
        [before, now] = [now, ((2 * k - 1) * x * now - (k - 1) * before) / k];
      slope = (n * (x * now - before)) / (x * x - 1);
      const step = now / slope;
      x -= step;
      if (Math.abs(step) < 1e-15) break;
    }
    nodes.push(x);
    weights.push(2 / ((1 - x * x) * slope * slope));
  }
  return { nodes, weights };
}
