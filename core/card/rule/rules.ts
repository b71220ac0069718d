import type { Vec } from '../../measure/vector';

/**
 * What parts of an outline are meant to be. Side i runs from point i to the next, the last to the first; points and holes by
 * their numbers, from 0.
 */
export type Rule =
  /** Sides that run in one direction. */
  | { kind: 'parallel'; sides: readonly number[] }
  /** Two sides at a right angle. */
  | { kind: 'square'; sides: readonly [number, number] }
  /** Sides that lie on one straight line. */
  | { kind: 'straight'; sides: readonly number[] }
  | { kind: 'equal-length'; sides: readonly number[] }
  /** A side so long, mm. */
  | { kind: 'length'; side: number; mm: number }
  /** Two sides parallel and so far apart, mm. */
  | { kind: 'width'; sides: readonly [number, number]; mm: number }
  /** Points on one circle, in order along it. */
  | { kind: 'arc'; points: readonly number[] }
  /** Holes in line at equal pitch, in order. */
  | { kind: 'pitch'; holes: readonly number[] }
  /** Places on one straight line. Places are points by their numbers, then holes on from there. */
  | { kind: 'in-line'; places: readonly number[] }
  /** Places at one height. */
  | { kind: 'level'; places: readonly number[] }
  /** Places that lie in pairs, each with the next, as mirrored about one line. */
  | { kind: 'symmetric'; places: readonly number[] }
  /** Holes on one circle at equal pitch all round, in order. */
  | { kind: 'circle'; holes: readonly number[] }
  /** Four holes at the corners of a rectangle, in order round it. */
  | { kind: 'rectangle'; holes: readonly [number, number, number, number] }
  /** Points that stay where they are. */
  | { kind: 'hold'; points: readonly number[] };

/** How far something is from what it is meant to be: degrees between directions, mm between places or lengths. */
export type AsMeasured = { rule: number; offDeg?: number; offMm?: number; overMm?: number; leastMm?: number; mostMm?: number }; // prettier-ignore

/** The places that are ruled: points first, then holes, x and y of each in turn. */
export type Places = { points: number; holes: number };

/** One equation that a rule stands for: how far it is from being met (mm) and what it changes by with each figure it hangs on. */
export type Equation = { rule: number; of: (x: Float64Array) => { off: number; by: Map<number, number> } };

const at = (x: Float64Array, i: number): Vec => [x[2 * i]!, x[2 * i + 1]!];

/** Adds to a derivative. */
function put(by: Map<number, number>, i: number, [dx, dy]: Vec, times = 1): void {
  by.set(2 * i, (by.get(2 * i) ?? 0) + dx * times);
  by.set(2 * i + 1, (by.get(2 * i + 1) ?? 0) + dy * times);
}

type Side = { from: number; to: number };
const along = (x: Float64Array, { from, to }: Side): Vec => {
  const [a, b] = [at(x, from), at(x, to)];
  return [b[0] - a[0], b[1] - a[1]];
};
const size = ([x, y]: Vec) => Math.hypot(x, y);
const cross = (u: Vec, v: Vec) => u[0] * v[1] - u[1] * v[0];
const dot = (u: Vec, v: Vec) => u[0] * v[0] + u[1] * v[1];
const times = ([x, y]: Vec, k: number): Vec => [x * k, y * k];

/** The sine (parallel) or cosine (square) between two sides, over a length that makes millimetres of it. */
function between(a: Side, b: Side, square: boolean, over: number): Equation['of'] {
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
function longer(a: Side, b: Side | null, mm: number): Equation['of'] {
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

/** How far places lie to the left of the line from one place to another, together with weights that sum to 1, less `mm`. */
function offLine(line: Side, places: readonly { place: number; weight: number }[], mm: number): Equation['of'] {
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
    const change: Vec = [w[1] / length - (out * u[0]) / length ** 2, -w[0] / length - (out * u[1]) / length ** 2];
    put(by, line.to, change);
    put(by, line.from, change, -1);
    return { off: out - mm, by };
  };
}

/** Whether a fourth place lies on the circle of three: its power there, over a constant that makes millimetres of it. */
function onCircle(three: readonly [number, number, number], fourth: number, over: number): Equation['of'] {
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

/** How far the middle of one pair of places lies off the line that another pair is mirrored about. */
function offMiddle(first: Side, other: Side): Equation['of'] {
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
    const change: Vec = [w[0] / length - (off * u[0]) / length ** 2, w[1] / length - (off * u[1]) / length ** 2];
    put(by, first.to, change);
    put(by, first.from, change, -1);
    return { off, by };
  };
}

/** A straight sum of figures, less a constant. */
const sum = (parts: readonly (readonly [figure: number, weight: number])[], less: number): Equation['of'] => {
  const by = new Map(parts);
  return (x) => ({ off: parts.reduce((all, [i, weight]) => all + weight * x[i]!, -less), by });
};

const sideOf =
  (points: number) =>
  (i: number): Side => ({ from: i, to: (i + 1) % points });

/** The equations that rules stand for, of an outline as it was measured (`x`). */
export function equationsOf(rules: readonly Rule[], { points }: Places, x: Float64Array): Equation[] {
  const side = sideOf(points);
  const length = (i: number) => Math.max(size(along(x, side(i))), 1e-9);
  return rules.flatMap((rule, number): Equation[] => {
    const all = (of: Equation['of'][]) => of.map((one) => ({ rule: number, of: one }));
    switch (rule.kind) {
      case 'parallel':
        return all(rule.sides.slice(1).map((b) => between(side(rule.sides[0]!), side(b), false, Math.sqrt(length(rule.sides[0]!) * length(b))))); // prettier-ignore
      case 'square': {
        const [a, b] = rule.sides;
        return all([between(side(a), side(b), true, Math.sqrt(length(a) * length(b)))]);
      }
      case 'straight': {
        const corners = [...new Set(rule.sides.flatMap((i) => [side(i).from, side(i).to]))];
        const line = farthestApart(corners, x);
        return all(corners.filter((i) => i !== line.from && i !== line.to).map((i) => offLine(line, [{ place: i, weight: 1 }], 0))); // prettier-ignore
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
            return [0, 1].map((axis) => sum([[2 * a + axis, 1], [2 * b + axis, -2], [2 * third + axis, 1]], 0)); // prettier-ignore
          }),
        );
      case 'in-line': {
        const line = farthestApart(rule.places, x);
        return all(rule.places.filter((i) => i !== line.from && i !== line.to).map((i) => offLine(line, [{ place: i, weight: 1 }], 0))); // prettier-ignore
      }
      case 'level':
        return all(rule.places.slice(1).map((i) => sum([[2 * rule.places[0]! + 1, -1], [2 * i + 1, 1]], 0))); // prettier-ignore
      case 'symmetric': {
        const [first, ...others] = pairsOf(rule.places);
        return all(others.flatMap((pair) => [between(first!, pair, false, Math.sqrt(size(along(x, first!)) * size(along(x, pair)))), offMiddle(first!, pair)])); // prettier-ignore
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
        const opposite = [0, 1].map((axis) => sum([[2 * a + axis, 1], [2 * b + axis, -1], [2 * c + axis, 1], [2 * d + axis, -1]], 0)); // prettier-ignore
        return all([...opposite, longer({ from: a, to: c }, { from: b, to: d }, 0)]);
      }
      case 'hold':
        return all(rule.points.flatMap((i) => [0, 1].map((axis) => sum([[2 * i + axis, 1]], x[2 * i + axis]!))));
    }
  });
}

/** Places two by two. */
const pairsOf = (places: readonly number[]): Side[] =>
  Array.from({ length: Math.floor(places.length / 2) }, (_, k) => ({ from: places[2 * k]!, to: places[2 * k + 1]! }));

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

/** What makes the power of a place at the circle of three about its distance from it: twice their area times twice its radius. */
function circleScale([a, b, c]: readonly [Vec, Vec, Vec]): number {
  const [u, v]: [Vec, Vec] = [[b[0] - a[0], b[1] - a[1]], [c[0] - a[0], c[1] - a[1]]]; // prettier-ignore
  const area = Math.abs(cross(u, v));
  const [p, q, r] = [size(u), size(v), Math.hypot(c[0] - b[0], c[1] - b[1])];
  // R = pqr / (2 · twice the area); of three in a line the circle is a line, and the product of the sides serves.
  return Math.max(p * q * r, 1e-9, area * Math.max(p, q, r));
}

/** How far what was measured is from each rule. */
export function asMeasured(rules: readonly Rule[], places: Places, x: Float64Array): AsMeasured[] {
  const side = sideOf(places.points);
  const equations = equationsOf(rules, places, x);
  const worst = (rule: number) =>
    equations.filter((one) => one.rule === rule).reduce((most, { of }) => Math.max(most, Math.abs(of(x).off)), 0);
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
        const offDeg = Math.max(...others.map((other) => angle(first!, other, rule.kind === 'square')), 0);
        const overMm = Math.min(...rule.sides.map((i) => size(along(x, side(i)))));
        const told = { rule: number, offDeg, offMm: Math.sin((offDeg * Math.PI) / 180) * overMm, overMm };
        if (rule.kind !== 'width') return told;
        // Of a width how far the middle of the one lies off the line of the other, beside what is asked.
        const apart = Math.abs(equations.filter((one) => one.rule === number)[1]!.of(x).off);
        return { ...told, offMm: apart };
      }
      case 'circle': {
        const on = rule.holes.map((i) => i + places.points);
        const steps = on.map((from, k) => size(along(x, { from, to: on[(k + 1) % on.length]! })));
        return { rule: number, offMm: worst(number), leastMm: Math.min(...steps), mostMm: Math.max(...steps) };
      }
      case 'pitch': {
        const steps = rule.holes.slice(1).map((b, k) => size(along(x, { from: rule.holes[k]! + places.points, to: b + places.points }))); // prettier-ignore
        return { rule: number, offMm: worst(number), leastMm: Math.min(...steps), mostMm: Math.max(...steps) };
      }
      default:
        return { rule: number, offMm: worst(number) };
    }
  });
}
