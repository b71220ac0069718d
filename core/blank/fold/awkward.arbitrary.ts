import fc from 'fast-check';
import { emptyPattern } from '../../card/emptyPattern';
import { CONVENTIONS, countingIds } from '../../card/kinds';
import { patternParts } from '../../card/outline';
import type { Bead, Flange, Joint, PatternDoc } from '../../card/pattern';
import { area } from '../../measure/path';
import type { Segment } from '../../measure/segment';
import { spread } from '../../measure/spread.arbitrary';
import type { Vec } from '../../measure/vector';
import type { Practice, SheetMetal } from './practice';

/**
 * Cards as awkward as they come: concave outlines on a grid (so that places coincide) or on rays,
 * sides bowed into arcs, folds between any two places and often from one corner or in the middle of
 * an edge, every joint, every relief, no radius among the radii, holes anywhere.
 */
export type Awkward = { doc: PatternDoc; sheet: SheetMetal; practice: Practice };

const joint: fc.Arbitrary<Joint> = fc.oneof(
  { weight: 3, arbitrary: fc.constant<Joint>({ kind: 'free', trimMm: 0 }) },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constantFrom('free', 'butt', 'backed-butt'),
      trimMm: spread(0, 25),
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({ kind: fc.constant('lap' as const), widthMm: spread(0, 20) }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant('joggle' as const),
      widthMm: spread(4, 20),
      depthMm: spread(0, 2),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant('hem' as const),
      widthMm: spread(6, 12),
      gapMm: fc.constantFrom(0, 1),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant('plug-flange' as const),
      widthMm: spread(8, 20),
      turnDeg: fc.constantFrom(0, 45, 90),
    }),
  },
);

/**
 * Outlines that come up at a bench: a plate, an L, a tab on a base, a notch, and rays of any
 * length.
 */
const SHAPES: Vec[][] = [
  [
    [0, 0],
    [100, 0],
    [100, 50],
    [0, 50],
  ],
  [
    [0, 0],
    [100, 0],
    [100, 40],
    [60, 40],
    [60, 100],
    [0, 100],
  ],
  [
    [0, 0],
    [100, 0],
    [100, 60],
    [70, 60],
    [70, 100],
    [30, 100],
    [30, 60],
    [0, 60],
  ],
  [
    [0, 0],
    [120, 0],
    [120, 80],
    [80, 80],
    [80, 40],
    [40, 40],
    [40, 80],
    [0, 80],
  ],
  [
    [0, 0],
    [90, 10],
    [110, 70],
    [50, 50],
    [10, 90],
  ],
];
const rays: fc.Arbitrary<Vec[]> = fc
  .array(spread(25, 90), { minLength: 4, maxLength: 9 })
  .map((list) =>
    list.map((r, i): Vec => {
      const a = (2 * Math.PI * i) / list.length;
      return [r * Math.cos(a), r * Math.sin(a)];
    }),
  );

const flange: fc.Arbitrary<Flange | undefined> = fc.option(
  fc.record({
    card: fc.constantFrom('fold', 'fold', 'free'),
    widthMm: spread(6, 18),
    endWidthMm: fc.option(spread(6, 18)),
    between: fc.option(
      fc.tuple(spread(6, 18), spread(6, 18)).map(([a, b]): [number, number][] => [
        [0.3, a],
        [0.7, b],
      ]),
      { nil: undefined, freq: 2 },
    ),
    turnDeg: fc.oneof(fc.constantFrom(90, 45, 180), spread(5, 120)),
    toward: fc.constantFrom('face', 'back'),
    radiusMm: fc.constantFrom(null, 0, 2),
    how: fc.constantFrom('tipped', 'tipped', 'pulled', 'notched', 'lip'),
    landMm: spread(5, 15),
  }),
  { nil: undefined, freq: 3 },
);

const section: fc.Arbitrary<Bead['section']> = fc.oneof(
  fc.record({
    kind: fc.constant('arc' as const),
    widthMm: spread(6, 14),
    heightMm: spread(0.5, 3),
  }),
  fc.record({
    kind: fc.constant('flat-topped' as const),
    widthMm: spread(8, 14),
    topMm: spread(2, 7),
    heightMm: spread(0.5, 4),
  }),
  fc.record({ kind: fc.constant('v' as const), widthMm: spread(4, 14), heightMm: spread(0.5, 4) }),
  fc.record({
    kind: fc.constant('step' as const),
    depthMm: spread(0.5, 4),
    radiusMm: fc.constantFrom(null, 0, 2),
  }),
);
const spot = fc.tuple(spread(-20, 120), spread(-20, 120));
/** Along one of the edges, or between any two places. */
const bead = fc.record({
  edge: fc.nat(30),
  along: fc.option(
    fc.record({
      inMm: spread(2, 60),
      startMm: fc.oneof(fc.constant(0), spread(0, 30)),
      endMm: fc.oneof(fc.constant(0), spread(0, 30)),
    }),
  ),
  between: fc.record({ from: spot, to: spot, bulge: fc.oneof(fc.constant(0), spread(-0.5, 0.5)) }),
  section,
  toward: fc.constantFrom('face' as const, 'back' as const),
  drawsIn: fc.oneof(fc.constantFrom(null, 0, 1), spread(0, 1)),
  atFolds: fc.constantFrom(null, 'packed' as const, 'stopped' as const, 'parted' as const),
});

const place = fc.record({
  side: fc.nat(30),
  at: fc.oneof(fc.constantFrom(0, 0, 1, 0.5, 0.25), spread(0, 1)),
});

export const awkwardCard: fc.Arbitrary<Awkward> = fc
  .record({
    outline: fc.oneof(fc.constantFrom(...SHAPES), rays),
    bulges: fc.array(
      fc.oneof(
        { weight: 4, arbitrary: fc.constant(0) },
        { weight: 1, arbitrary: spread(-0.4, 0.6) },
      ),
      { minLength: 9, maxLength: 9 },
    ),
    joints: fc.array(joint, { minLength: 9, maxLength: 9 }),
    folds: fc.array(
      fc.record({
        from: place,
        to: place,
        angleDeg: fc.oneof(fc.constantFrom(90, 45, 180), spread(5, 180)),
        toward: fc.constantFrom('face' as const, 'back' as const),
        radiusMm: fc.oneof(fc.constantFrom(null, 0), spread(0, 4)),
        convention: fc.constantFrom(...CONVENTIONS),
      }),
      { minLength: 0, maxLength: 4 },
    ),
    flanges: fc.array(flange, { minLength: 9, maxLength: 9 }),
    beads: fc.array(bead, { maxLength: 3 }),
    holes: fc.array(
      fc.record({ x: spread(-10, 110), y: spread(-10, 110), diameterMm: spread(2, 12) }),
      { maxLength: 2 },
    ),
    thicknessMm: spread(0.5, 2),
    k: fc.option(fc.constantFrom(0, 0.44)),
    relief: fc.constantFrom('round' as const, 'square' as const, 'none' as const),
    brakeLine: fc.constantFrom('tangent' as const, 'centre' as const, 'radius-in' as const),
  })
  .map((card): Awkward => {
    const corners = card.outline;
    let path = corners.map((p, i): Segment => ({
      a: p,
      b: corners[(i + 1) % corners.length]!,
      bulge: card.bulges[i % 9]!,
    }));
    if (area(path) <= 0) path = path.map((s) => ({ ...s, bulge: 0 }));
    const parts = patternParts(path, countingIds());
    const sideAt = (n: number) => parts.sides[n % parts.sides.length]!.id;
    const doc: PatternDoc = {
      ...emptyPattern(),
      ...parts,
      edges: parts.edges.map((edge, i) => ({
        ...edge,
        joint: card.joints[i % 9]!,
        flange: card.flanges[i % 9],
      })),
      beads: card.beads.map(({ edge, along, between, ...rest }, i) => ({
        ...rest,
        id: `b${i}`,
        path: along
          ? { kind: 'along' as const, edge: parts.edges[edge % parts.edges.length]!.id, ...along }
          : { kind: 'between' as const, ...between },
        acrossRadiusMm: null,
        acrossOn: null,
        meets: null,
      })),
      folds: card.folds.map(({ from, to, ...bend }, i) => ({
        ...bend,
        id: `f${i}`,
        path: {
          kind: 'between' as const,
          from: { side: sideAt(from.side), share: from.at },
          to: { side: sideAt(to.side), share: to.at },
        },
      })),
      holes: card.holes.map((hole, i) => ({ ...hole, id: `h${i}` })),
    };
    return {
      doc,
      sheet: {
        thicknessMm: card.thicknessMm,
        rule: card.k === null ? { kind: 'din6935' } : { kind: 'k', k: card.k },
        usualRadiusMm: card.thicknessMm,
        leastRadiusMm: 0,
        temper: 'half',
        weight: 7.85,
      },
      practice: { relief: card.relief, brakeLine: card.brakeLine, shortestFlangeMm: 6 },
    };
  });
