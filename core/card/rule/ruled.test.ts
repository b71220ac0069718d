import fc from 'fast-check';
import { spread } from '../../measure/spread.arbitrary';
import type { Vec } from '../../measure/vector';
import { ruled } from './ruled';
import type { Rule } from './rules';

const done = (points: readonly Vec[], rules: readonly Rule[], holes: readonly Vec[] = []) => {
  const found = ruled(points, holes, rules);
  if (!found.ok) throw new Error(JSON.stringify(found.problems));
  return found;
};
const side = (points: readonly (readonly number[])[], i: number): Vec => {
  const [a, b] = [points[i]!, points[(i + 1) % points.length]!];
  return [b[0]! - a[0]!, b[1]! - a[1]!];
};
const cross = (u: Vec, v: Vec) => u[0] * v[1] - u[1] * v[0];
const dot = (u: Vec, v: Vec) => u[0] * v[0] + u[1] * v[1];
const size = (u: Vec) => Math.hypot(u[0], u[1]);

/** A rough plate: corners a little off a rectangle with two of its sides broken in the middle. */
const rough = fc
  .array(fc.tuple(spread(-12, 12), spread(-12, 12)), { minLength: 6, maxLength: 6 })
  .map((off) =>
    [
      [0, 0],
      [260, 0],
      [520, 0],
      [520, 300],
      [260, 300],
      [0, 300],
    ].map(([x, y], i): Vec => [x! + off[i]![0], y! + off[i]![1]]),
  );

const minus = (p: Vec, q: Vec): Vec => [p[0] - q[0], p[1] - q[1]];
const placed = (
  points: readonly (readonly number[])[],
  holes: readonly (readonly number[])[],
  places: readonly number[],
) =>
  places.map((i) => (i < points.length ? points[i]! : holes[i - points.length]!) as unknown as Vec);

/** How far rules are from being met, told by the plainest formulas there are. */
function offBy(
  points: readonly (readonly number[])[],
  holes: readonly (readonly number[])[],
  rule: Rule,
): number {
  switch (rule.kind) {
    case 'parallel':
      return (
        Math.max(
          ...rule.sides.map((i) => {
            const [u, v] = [side(points, rule.sides[0]!), side(points, i)];
            return Math.abs(cross(u, v)) / size(u) / size(v);
          }),
        ) * 500
      );
    case 'square': {
      const [u, v] = rule.sides.map((i) => side(points, i)) as [Vec, Vec];
      return (Math.abs(dot(u, v)) / size(u) / size(v)) * 500;
    }
    case 'straight':
      return (
        Math.max(
          ...rule.sides.map((i) => {
            const [u, v] = [side(points, rule.sides[0]!), side(points, i)];
            return Math.abs(cross(u, v)) / size(u) / size(v);
          }),
        ) * 500
      );
    case 'equal-length':
      return Math.max(
        ...rule.sides.map((i) =>
          Math.abs(size(side(points, i)) - size(side(points, rule.sides[0]!))),
        ),
      );
    case 'length':
      return Math.abs(size(side(points, rule.side)) - rule.mm);
    case 'width': {
      const [a, b] = rule.sides;
      const u = side(points, a);
      const out = [b, (b + 1) % points.length].map(
        (i) =>
          cross(u, [points[i]![0]! - points[a]![0]!, points[i]![1]! - points[a]![1]!]) / size(u),
      );
      return Math.max(...out.map((one) => Math.abs(Math.abs(one) - rule.mm)));
    }
    case 'arc': {
      // The circle of the first three by Cramer's rule, and how far the others lie off it.
      const [a, b, c] = rule.points.map((i) => points[i]!);
      const [d, e] = [
        [b![0]! - a![0]!, b![1]! - a![1]!],
        [c![0]! - a![0]!, c![1]! - a![1]!],
      ] as [Vec, Vec];
      const k = 2 * cross(d, e);
      const centre = [
        a![0]! + (e[1] * dot(d, d) - d[1] * dot(e, e)) / k,
        a![1]! + (d[0] * dot(e, e) - e[0] * dot(d, d)) / k,
      ];
      const radius = Math.hypot(a![0]! - centre[0]!, a![1]! - centre[1]!);
      return Math.max(
        ...rule.points.map((i) =>
          Math.abs(Math.hypot(points[i]![0]! - centre[0]!, points[i]![1]! - centre[1]!) - radius),
        ),
      );
    }
    case 'pitch': {
      const at = rule.holes.map((i) => holes[i]!);
      const n = at.length - 1;
      return Math.max(
        ...at.map((p, i) =>
          Math.hypot(
            p[0]! - at[0]![0]! - ((at[n]![0]! - at[0]![0]!) * i) / n,
            p[1]! - at[0]![1]! - ((at[n]![1]! - at[0]![1]!) * i) / n,
          ),
        ),
      );
    }
    case 'in-line': {
      const at = placed(points, holes, rule.places);
      // The area of every three of them.
      return (
        Math.max(
          ...at.map((p, i) =>
            Math.abs(cross(minus(at[(i + 1) % at.length]!, p), minus(at[(i + 2) % at.length]!, p))),
          ),
        ) / 300
      );
    }
    case 'level': {
      const ys = placed(points, holes, rule.places).map(([, y]) => y);
      return Math.max(...ys) - Math.min(...ys);
    }
    case 'symmetric': {
      const at = placed(points, holes, rule.places);
      // Mirrored about the bisector of the first pair each lies on its partner.
      const [a, b] = [at[0]!, at[1]!];
      const [u, m]: [Vec, Vec] = [minus(b, a), [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]];
      const mirrored = (p: Vec): Vec => {
        const k = (2 * dot(minus(p, m), u)) / dot(u, u);
        return [p[0] - k * u[0], p[1] - k * u[1]];
      };
      return Math.max(
        ...at.map((p, i) => (i % 2 === 0 ? size(minus(mirrored(p), at[i + 1]!)) : 0)),
      );
    }
    case 'circle': {
      const at = rule.holes.map((i) => holes[i]! as unknown as Vec);
      // A regular polygon: turned about its middle by one share of the round, each comes to lie on
      // the next.
      const middle: Vec = [
        at.reduce((sum, [x]) => sum + x, 0) / at.length,
        at.reduce((sum, [, y]) => sum + y, 0) / at.length,
      ];
      const turn = (2 * Math.PI) / at.length;
      const turned = ([x, y]: Vec, sign: number): Vec => [
        middle[0] + Math.cos(turn) * (x - middle[0]) - sign * Math.sin(turn) * (y - middle[1]),
        middle[1] + sign * Math.sin(turn) * (x - middle[0]) + Math.cos(turn) * (y - middle[1]),
      ];
      const off = (sign: number) =>
        Math.max(...at.map((p, i) => size(minus(turned(p, sign), at[(i + 1) % at.length]!))));
      return Math.min(off(1), off(-1));
    }
    case 'rectangle': {
      const [a, b, c, d] = rule.holes.map((i) => holes[i]! as unknown as Vec) as [
        Vec,
        Vec,
        Vec,
        Vec,
      ];
      const corner = (p: Vec, q: Vec, r: Vec) =>
        Math.abs(dot(minus(p, q), minus(r, q))) / size(minus(p, q));
      return Math.max(corner(a, b, c), corner(b, c, d), corner(c, d, a), corner(d, a, b));
    }
    case 'on':
    case 'share':
    case 'hold':
      return 0;
  }
}

const HOLES: Vec[] = [
  [60, 60],
  [118, 63],
  [181, 58],
  [240, 61],
  [300, 150],
  [360, 152],
  [362, 211],
  [299, 208],
];
const SETS: Rule[][] = [
  [{ kind: 'parallel', sides: [0, 3] }],
  [
    { kind: 'straight', sides: [0, 1] },
    { kind: 'square', sides: [1, 2] },
  ],
  [
    { kind: 'straight', sides: [0, 1] },
    { kind: 'straight', sides: [3, 4] },
    { kind: 'width', sides: [0, 3], mm: 305 },
    { kind: 'square', sides: [0, 5] },
    { kind: 'parallel', sides: [2, 5] },
  ],
  [
    { kind: 'equal-length', sides: [0, 1, 3, 4] },
    { kind: 'length', side: 2, mm: 290 },
  ],
  [
    { kind: 'pitch', holes: [0, 1, 2, 3] },
    { kind: 'hold', points: [0, 1] },
    { kind: 'parallel', sides: [0, 3] },
  ],
  [
    { kind: 'in-line', places: [0, 1, 2] },
    { kind: 'level', places: [3, 4, 5, 6] },
  ],
  [
    { kind: 'symmetric', places: [0, 2, 5, 3, 6, 9, 7, 8] },
    { kind: 'length', side: 2, mm: 290 },
  ],
  [
    { kind: 'circle', holes: [4, 5, 6, 7] },
    { kind: 'in-line', places: [0, 1, 2] },
  ],
  [
    { kind: 'rectangle', holes: [4, 5, 6, 7] },
    { kind: 'level', places: [10, 11] },
  ],
  // The same said twice, and a third time by way of others.
  [
    { kind: 'parallel', sides: [0, 3] },
    { kind: 'parallel', sides: [3, 0] },
    { kind: 'straight', sides: [0, 1] },
    { kind: 'straight', sides: [3, 4] },
    { kind: 'parallel', sides: [1, 4] },
  ],
];

test('every rule is met, and nothing near that meets them has moved less', () => {
  fc.assert(
    fc.property(
      rough,
      fc.constantFrom(...SETS),
      fc.infiniteStream(spread(-1, 1)),
      (points, rules, chance) => {
        const found = done(points, rules, HOLES);
        for (const rule of rules) expect(offBy(found.points, found.holes, rule)).toBeLessThan(1e-6);
        const cost = (p: readonly (readonly number[])[], h: readonly (readonly number[])[]) =>
          [...p, ...h].reduce(
            (sum, q, i) =>
              sum +
              (q[0]! - [...points, ...HOLES][i]![0]) ** 2 +
              (q[1]! - [...points, ...HOLES][i]![1]) ** 2,
            0,
          );
        const least = cost(found.points, found.holes);
        // Shaken by a little and ruled again it meets them elsewhere: no such place is nearer to
        // what was measured.
        const shaken = <P extends readonly number[]>(all: readonly P[]) =>
          all.map((p, i): Vec =>
            rules.some((r) => r.kind === 'hold' && r.points.includes(i)) && all.length === 6
              ? [p[0]!, p[1]!]
              : [p[0]! + chance.next().value!, p[1]! + chance.next().value!],
          );
        const elsewhere = done(shaken(found.points), rules, shaken(found.holes));
        expect(cost(elsewhere.points, elsewhere.holes)).toBeGreaterThan(least - 1e-7);
      },
    ),
    { numRuns: 80 },
  );
});

test('two sides made parallel turn about their middles, by small angles in inverse proportion to the squares of their lengths', () => {
  fc.assert(
    fc.property(spread(200, 900), spread(200, 900), spread(0.001, 0.01), (long, other, lean) => {
      const points: Vec[] = [
        [0, 0],
        [long, 0],
        [long, 400],
        [long - other * Math.cos(lean), 400 - other * Math.sin(lean)],
      ];
      const found = done(points, [{ kind: 'parallel', sides: [0, 2] }]);
      const turn = (i: number) => {
        const [u, v] = [side(points, i), side(found.points, i)];
        return Math.atan2(cross(u, v), dot(u, v));
      };
      expect(turn(0) * long ** 2 + turn(2) * other ** 2).toBeLessThan(
        1e-3 * Math.abs(turn(0)) * long ** 2,
      );
      expect(turn(0) - turn(2)).toBeCloseTo(lean, 6);
      for (const i of [0, 2]) {
        const middle = (all: readonly (readonly number[])[], k: 0 | 1) =>
          (all[i]![k]! + all[i + 1]![k]!) / 2;
        for (const k of [0, 1] as const)
          expect(middle(found.points, k)).toBeCloseTo(middle(points, k), 5);
      }
      expect(found.asMeasured[0]).toMatchObject({
        offDeg: expect.closeTo((lean * 180) / Math.PI, 6),
        overMm: expect.closeTo(Math.min(long, other), 6),
      });
    }),
  );
});

test('corners meant to lie on one arc come to lie on one, moved as little as a circle laid through them would', () => {
  const radius = 400;
  const on = Array.from({ length: 7 }, (_, i): Vec => [
    radius * Math.cos(0.25 * i),
    radius * Math.sin(0.25 * i),
  ]);
  fc.assert(
    fc.property(fc.array(spread(-3, 3), { minLength: 7, maxLength: 7 }), (out) => {
      const points = [
        ...on.map(([x, y], i): Vec => [x * (1 + out[i]! / radius), y * (1 + out[i]! / radius)]),
        [-50, -50] as Vec,
      ];
      const rule: Rule = { kind: 'arc', points: [0, 1, 2, 3, 4, 5, 6] };
      const found = done(points, [rule]);
      expect(offBy(found.points, [], rule)).toBeLessThan(1e-5);
      expect(found.points[7]).toEqual([-50, -50]);
      expect(found.movedMm).toBeLessThan(2 * Math.max(...out.map(Math.abs)) + 1e-9);
    }),
    { numRuns: 50 },
  );
});

test('rules that contradict each other are named, with nothing moved; rules that only say the same are not', () => {
  const square: Vec[] = [
    [0, 0],
    [300, 0],
    [300, 200],
    [0, 200],
  ];
  const refused = (...rules: Rule[]) => {
    const found = ruled(square, [], rules);
    return found.ok ? 'met' : { [found.problems[0]!.code]: found.problems[0]!.about };
  };
  expect(
    refused({ kind: 'length', side: 0, mm: 300 }, { kind: 'length', side: 0, mm: 301 }),
  ).toEqual({ 'rules-contradict': ['0', '1'] });
  expect(
    refused(
      { kind: 'square', sides: [0, 1] },
      { kind: 'length', side: 3, mm: 190 },
      { kind: 'hold', points: [0, 1] },
      { kind: 'length', side: 0, mm: 310 },
    ),
  ).toEqual({ 'rules-contradict': ['2', '3'] });
  // All four sides square to each other leave the fourth no choice.
  expect(
    refused(
      { kind: 'square', sides: [0, 1] },
      { kind: 'square', sides: [1, 2] },
      { kind: 'square', sides: [2, 3] },
      { kind: 'square', sides: [3, 0] },
      { kind: 'parallel', sides: [0, 2] },
    ),
  ).toBe('met');
  expect(refused({ kind: 'parallel', sides: [0] })).toEqual({ 'rule-unreadable': ['0'] });
  expect(refused({ kind: 'hold', points: [0] }, { kind: 'length', side: 9, mm: 5 })).toEqual({
    'rule-unreadable': ['1'],
  });
  expect(done(square, [])).toMatchObject({ points: square, movedMm: 0 });
});

test('rules that a made figure fulfils are never refused, and met with no more movement than to that figure', () => {
  const sides = fc.constantFrom<[number, number]>([0, 1], [1, 2], [2, 3], [3, 0]);
  const opposite = fc.constantFrom<[number, number]>([0, 2], [1, 3], [2, 0], [3, 1]);
  const facts = (wide: number, high: number) => {
    const lengthOf = (i: number) => (i % 2 === 0 ? wide : high);
    const fact: fc.Arbitrary<Rule> = fc.oneof(
      sides.map((of): Rule => ({ kind: 'square', sides: of })),
      opposite.map((of): Rule => ({ kind: 'parallel', sides: of })),
      opposite.map((of): Rule => ({ kind: 'equal-length', sides: of })),
      opposite.map((of): Rule => ({ kind: 'width', sides: of, mm: lengthOf(of[0] + 1) })),
      fc.nat(3).map((side): Rule => ({ kind: 'length', side, mm: lengthOf(side) })),
    );
    return fc.array(fact, { minLength: 2, maxLength: 6 });
  };
  const plate = fc
    .tuple(spread(120, 700), spread(120, 700), spread(-3, 3))
    .chain(([wide, high, turn]) =>
      fc.record({
        made: fc.constant(
          [
            [0, 0],
            [wide, 0],
            [wide, high],
            [0, high],
          ].map(([x, y]): Vec => [
            x! * Math.cos(turn) - y! * Math.sin(turn),
            x! * Math.sin(turn) + y! * Math.cos(turn),
          ]),
        ),
        rules: facts(wide, high),
        off: fc.array(fc.tuple(spread(-4, 4), spread(-4, 4)), { minLength: 4, maxLength: 4 }),
      }),
    );
  fc.assert(
    fc.property(plate, ({ made, rules, off }) => {
      const rough = made.map(([x, y], i): Vec => [x + off[i]![0], y + off[i]![1]]);
      const found = done(rough, rules);
      for (const rule of rules) expect(offBy(found.points, [], rule)).toBeLessThan(1e-3);
      const cost = (at: readonly (readonly number[])[]) =>
        at.reduce(
          (sum, q, i) => sum + (q[0]! - rough[i]![0]) ** 2 + (q[1]! - rough[i]![1]) ** 2,
          0,
        );
      expect(cost(found.points)).toBeLessThan(cost(made) + 0.05);
    }),
    { numRuns: 400 },
  );
});

test('a plate with one square corner, two parallel sides and two equal ones becomes a rectangle', () => {
  const points: Vec[] = [
    [3, -3],
    [398, 0],
    [396, 250],
    [-2, 253],
  ];
  const rules: Rule[] = [
    { kind: 'square', sides: [3, 0] },
    { kind: 'parallel', sides: [3, 1] },
    { kind: 'equal-length', sides: [2, 0] },
  ];
  const found = done(points, rules);
  for (const corner of [0, 1, 2, 3])
    expect(
      offBy(found.points, [], { kind: 'square', sides: [corner, (corner + 1) % 4] }),
    ).toBeLessThan(1e-3);
  // The nearest rectangle, by the rules that are independent.
  const plain = done(points, [
    { kind: 'square', sides: [3, 0] },
    { kind: 'parallel', sides: [3, 1] },
    { kind: 'parallel', sides: [2, 0] },
  ]);
  found.points.forEach((p, i) => expect(size(minus(p, plain.points[i]!))).toBeLessThan(0.02));
});
