import type { Vec } from '../../measure/vector';

/**
 * The equations that rules about places are made of: how far each is from being met, mm, and its
 * derivatives.
 */

/**
 * One equation that a rule stands for: how far it is from being met (mm) and what it changes by
 * with each figure it hangs on.
 */
export type Equation = {
  rule: number;
  of: (x: Float64Array) => { off: number; by: Map<number, number> };
};

export const at = (x: Float64Array, i: number): Vec => [x[2 * i]!, x[2 * i + 1]!];

/** Adds to a derivative. */
function put(by: Map<number, number>, i: number, [dx, dy]: Vec, times = 1): void {
  by.set(2 * i, (by.get(2 * i) ?? 0) + dx * times);
  by.set(2 * i + 1, (by.get(2 * i + 1) ?? 0) + dy * times);
}

/** A straight line from one place to another, by their numbers. */
export type Side = { from: number; to: number };
export const along = (x: Float64Array, { from, to }: Side): Vec => {
  const [a, b] = [at(x, from), at(x, to)];
  return [b[0] - a[0], b[1] - a[1]];
};
export const size = ([x, y]: Vec) => Math.hypot(x, y);
export const cross = (u: Vec, v: Vec) => u[0] * v[1] - u[1] * v[0];
export const dot = (u: Vec, v: Vec) => u[0] * v[0] + u[1] * v[1];
const times = ([x, y]: Vec, k: number): Vec => [x * k, y * k];

/**
 * The sine (parallel) or cosine (square) between two sides, over a length that makes millimetres of
 * it.
 */
export function between(a: Side, b: Side, square: boolean, over: number): Equation['of'] {
  return (x) => {
    const [u, v] = [along(x, a), along(x, b)];
    const [p, q] = [size(u), size(v)];
    const off = ((square ? dot(u, v) : cross(u, v)) / (p * q)) * over;
    // d(u × v) = du × v + u × dv, d(u · v) likewise; the lengths below the line give the rest.
    const du = square ? v : ([v[1], -v[0]] as Vec);
    const dv = square ? u : ([-u[1], u[0]] as Vec);
    const by = new Map<number, number>();
    for (const [side, d, w, length] of [
      [a, du, u, p],
      [b, dv, v, q],
    ] as const) {
      const change: Vec = [
        (d[0] * over) / (p * q) - (off * w[0]) / length ** 2,
        (d[1] * over) / (p * q) - (off * w[1]) / length ** 2,
      ];
      put(by, side.to, change);
      put(by, side.from, change, -1);
    }
    return { off, by };
  };
}

/** The length of a side less that of another, or less a given one. */
export function longer(a: Side, b: Side | null, mm: number): Equation['of'] {
  return (x) => {
    const by = new Map<number, number>();
    let off = -mm;
    for (const [side, sign] of [[a, 1] as const, ...(b ? [[b, -1] as const] : [])]) {
      const u = along(x, side);
      const length = size(u);
      off += sign * length;
      put(by, side.to, times(u, sign / length));
      put(by, side.from, times(u, -sign / length));
    }
    return { off, by };
  };
}

/**
 * How far places lie to the left of the line from one place to another, together with weights that
 * sum to 1, less `mm`.
 */
export function offLine(
  line: Side,
  places: readonly { place: number; weight: number }[],
  mm: number,
): Equation['of'] {
  return (x) => {
    const u = along(x, line);
    const length = size(u);
    const a = at(x, line.from);
    let w: Vec = [0, 0];
    for (const { place, weight } of places) {
      const p = at(x, place);
      w = [w[0] + weight * (p[0] - a[0]), w[1] + weight * (p[1] - a[1])];
    }
    const out = cross(u, w) / length;
    const by = new Map<number, number>();
    const normal: Vec = [-u[1] / length, u[0] / length];
    for (const { place, weight } of places) put(by, place, normal, weight);
    put(by, line.from, normal, -1);
    const change: Vec = [
      w[1] / length - (out * u[0]) / length ** 2,
      -w[0] / length - (out * u[1]) / length ** 2,
    ];
    put(by, line.to, change);
    put(by, line.from, change, -1);
    return { off: out - mm, by };
  };
}

/**
 * Whether a fourth place lies on the circle of three: its power there, over a constant that makes
 * millimetres of it.
 */
export function onCircle(
  three: readonly [number, number, number],
  fourth: number,
  over: number,
): Equation['of'] {
  return (x) => {
    const p = at(x, fourth);
    const [a, b, c] = three.map((i): Vec => {
      const q = at(x, i);
      return [q[0] - p[0], q[1] - p[1]];
    }) as [Vec, Vec, Vec];
    const [aa, bb, cc] = [dot(a, a), dot(b, b), dot(c, c)];
    const [bc, ca, ab] = [cross(b, c), cross(c, a), cross(a, b)];
    // The determinant of rows (x, y, x² + y²).
    const off = (aa * bc + bb * ca + cc * ab) / over;
    const by = new Map<number, number>();
    const by1 = (u: Vec, v: Vec, uu: number, vv: number, own: Vec, minor: number): Vec => [
      (2 * own[0] * minor + vv * u[1] - uu * v[1]) / over,
      (2 * own[1] * minor - vv * u[0] + uu * v[0]) / over,
    ];
    const changes: [number, Vec][] = [
      [three[0], by1(b, c, bb, cc, a, bc)],
      [three[1], by1(c, a, cc, aa, b, ca)],
      [three[2], by1(a, b, aa, bb, c, ab)],
    ];
    for (const [i, change] of changes) {
      put(by, i, change);
      put(by, fourth, change, -1);
    }
    return { off, by };
  };
}

/**
 * A place that goes along with a side as it turns and grows: along it and to the left, as shares of
 * its length.
 */
export function atShare(
  place: number,
  { from, to }: Side,
  [u, v]: Vec,
): [Equation['of'], Equation['of']] {
  const x = [
    [2 * place, -1],
    [2 * from, 1 - u],
    [2 * to, u],
    [2 * from + 1, v],
    [2 * to + 1, -v],
  ] as const;
  const y = [
    [2 * place + 1, -1],
    [2 * from + 1, 1 - u],
    [2 * to + 1, u],
    [2 * from, -v],
    [2 * to, v],
  ] as const;
  return [sum(x, 0), sum(y, 0)];
}

/**
 * How far the middle of one pair of places lies off the line that another pair is mirrored about.
 */
export function offMiddle(first: Side, other: Side): Equation['of'] {
  return (x) => {
    const u = along(x, first);
    const length = size(u);
    const middle = ({ from, to }: Side): Vec => {
      const [a, b] = [at(x, from), at(x, to)];
      return [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
    };
    const [m, n] = [middle(first), middle(other)];
    const w: Vec = [n[0] - m[0], n[1] - m[1]];
    const off = dot(w, u) / length;
    const by = new Map<number, number>();
    const way = times(u, 1 / length);
    for (const place of [other.from, other.to]) put(by, place, way, 0.5);
    for (const place of [first.from, first.to]) put(by, place, way, -0.5);
    const change: Vec = [
      w[0] / length - (off * u[0]) / length ** 2,
      w[1] / length - (off * u[1]) / length ** 2,
    ];
    put(by, first.to, change);
    put(by, first.from, change, -1);
    return { off, by };
  };
}

/** A straight sum of figures, less a constant. */
export const sum = (
  parts: readonly (readonly [figure: number, weight: number])[],
  less: number,
): Equation['of'] => {
  const by = new Map(parts);
  return (x) => ({ off: parts.reduce((all, [i, weight]) => all + weight * x[i]!, -less), by });
};

/**
 * What makes the power of a place at the circle of three about its distance from it: twice their
 * area times twice its radius.
 */
export function circleScale([a, b, c]: readonly [Vec, Vec, Vec]): number {
  const [u, v]: [Vec, Vec] = [
    [b[0] - a[0], b[1] - a[1]],
    [c[0] - a[0], c[1] - a[1]],
  ];
  const area = Math.abs(cross(u, v));
  const [p, q, r] = [size(u), size(v), Math.hypot(c[0] - b[0], c[1] - b[1])];
  // R = pqr / (2 · twice the area); of three in a line the circle is a line, and the product of the
  // sides serves.
  return Math.max(p * q * r, 1e-9, area * Math.max(p, q, r));
}
