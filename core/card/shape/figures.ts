import { arcsThrough } from '../../measure/arcFit';
import type { Path } from '../../measure/path';
import { area, closedPath } from '../../measure/path';
import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import type { Segment } from '../../measure/segment';
import { line, reversed } from '../../measure/segment';
import type { Vec } from '../../measure/vector';
import { emptyPattern } from '../emptyPattern';
import type { NewId } from '../kinds';
import { lettered, patternParts } from '../outline';
import type { PatternDoc } from '../pattern';
import { frustum, squareToRound } from './cone';
import { leaningCone } from './leaning';
import type { RolledSheet } from './rolledSheet';
import { elbow, tubeCut, tubeNotch } from './tube';

/**
 * What a shop makes again and again without a template, by its figures: of each its figures with a
 * usual value, in mm, or in degrees where the name ends so. Bent ones are measured over their
 * outsides, as they will be.
 */
export const SHAPES = {
  disc: { diameterMm: 60 },
  ring: { outsideMm: 90, insideMm: 50 },
  strip: { longMm: 300, wideMm: 40 },
  'washer-plate': { longMm: 60, wideMm: 60, holeMm: 11 },
  gusset: { longMm: 120, highMm: 90, bluntMm: 15 },
  angle: { longMm: 300, firstMm: 40, secondMm: 30, turnedDeg: 90 },
  channel: { longMm: 300, webMm: 60, flangeMm: 25 },
  hat: { longMm: 300, topMm: 50, wallMm: 30, brimMm: 20 },
  tray: { longMm: 300, wideMm: 200, highMm: 40 },
  box: { longMm: 300, wideMm: 200, highMm: 80, lidMm: 201, flapMm: 25 },
  frustum: { lowerMm: 120, upperMm: 70, heightMm: 80 },
  'leaning-cone': { lowerMm: 120, upperMm: 70, heightMm: 80, offsetMm: 30 },
  'elbow-end': { tubeMm: 60, radiusMm: 90, bendDeg: 90, pieces: 4 },
  'elbow-middle': { tubeMm: 60, radiusMm: 90, bendDeg: 90, pieces: 4 },
  'square-to-round': { wideMm: 120, deepMm: 120, roundMm: 80, heightMm: 100 },
  'tube-notch': { tubeMm: 42.4, wallMm: 2, ontoMm: 48.3, angleDeg: 90, offsetMm: 0, paperMm: 30 },
  'tube-cut': { tubeMm: 42.4, angleDeg: 45, paperMm: 30 },
} as const satisfies Record<string, Record<string, number>>;
export type ShapeKind = keyof typeof SHAPES;

/** Shapes that are rolled from sheet, with what they are unless it is said: of sheet, or a wrap. */
export const ROLLED: Partial<Record<ShapeKind, 'sheet' | 'wrap'>> = {
  frustum: 'sheet',
  'leaning-cone': 'sheet',
  'elbow-end': 'sheet',
  'elbow-middle': 'sheet',
  'square-to-round': 'sheet',
  'tube-notch': 'wrap',
  'tube-cut': 'wrap',
};
export type Figures<K extends ShapeKind = ShapeKind> = { [F in keyof (typeof SHAPES)[K]]: number };

/**
 * A shape before it is a card: its outline counter-clockwise, which sides make one edge, holes, and
 * folds straight across.
 */
export type Shaped = {
  path: Path;
  /** How many sides in a row make one edge, all together as many as there are; null: each one. */
  runs: number[] | null;
  holes: { x: number; y: number; diameterMm: number }[];
  folds: { from: Vec; to: Vec; angleDeg: number; toward: 'face' | 'back' }[];
  /** Lines to scribe, with what is done along them. */
  marks: { from: Vec; to: Vec; name: string }[];
};

/** Number of flat parts to each quarter of a round end. */
const ROUND_PARTS = 6;
/** A paper wrap is drawn as exactly as this, mm. */
const WRAP_MM = 0.05;

/**
 * A shape by its figures; one that is rolled (`ROLLED`) is developed on the middle of `sheet`, or as
 * typed without.
 *
 * Problems: `shape-figures` (about: the figures that are not above 0, or leave nothing of another),
 * those of `tubeNotch`, `tubeCut`, `elbow`, `leaningCone` and `frustum`.
 */
export function shaped(
  kind: ShapeKind,
  given: Record<string, number>,
  sheet: RolledSheet | null = null,
): Result<Shaped> {
  const usual: Record<string, number> = SHAPES[kind];
  const figures = { ...usual, ...given };
  // An offset can go either way, and a cone has no upper end.
  const free = ['offsetMm', 'upperMm'];
  const bad = Object.keys(usual).filter(
    (name) =>
      !Number.isFinite(figures[name]) ||
      (!free.includes(name) && !(figures[name]! > 0)) ||
      figures[name]! > 20_000,
  );
  if (bad.length > 0) return failure({ code: 'shape-figures', about: bad });
  const of = <K extends ShapeKind>(_: K) => figures as unknown as Figures<K>;
  const not = (...about: string[]) => failure({ code: 'shape-figures', about });
  switch (kind) {
    case 'disc': {
      return flat(circle(of(kind).diameterMm), { runs: [4] });
    }
    case 'ring': {
      const { outsideMm, insideMm } = of(kind);
      if (insideMm >= outsideMm) return not('insideMm');
      return flat(circle(outsideMm), { runs: [4], holes: [{ x: 0, y: 0, diameterMm: insideMm }] });
    }
    case 'strip':
      return flat(rectangle(of(kind).longMm, of(kind).wideMm));
    case 'washer-plate': {
      const { longMm, wideMm, holeMm } = of(kind);
      if (holeMm >= Math.min(longMm, wideMm)) return not('holeMm');
      return flat(rectangle(longMm, wideMm), {
        holes: [{ x: longMm / 2, y: wideMm / 2, diameterMm: holeMm }],
      });
    }
    case 'gusset': {
      const { longMm, highMm, bluntMm } = of(kind);
      if (bluntMm >= Math.min(longMm, highMm)) return not('bluntMm');
      return flat(
        closedPath([
          [0, 0],
          [longMm, 0],
          [longMm, bluntMm],
          [bluntMm, highMm],
          [0, highMm],
        ]),
      );
    }
    case 'angle': {
      const { longMm, firstMm, secondMm, turnedDeg } = of(kind);
      if (turnedDeg > 170) return not('turnedDeg');
      return bent(longMm, [firstMm, secondMm], [{ angleDeg: turnedDeg, toward: 'face' }]);
    }
    case 'channel': {
      const { longMm, webMm, flangeMm } = of(kind);
      return bent(longMm, [flangeMm, webMm, flangeMm], [UP, UP]);
    }
    case 'hat': {
      const { longMm, topMm, wallMm, brimMm } = of(kind);
      return bent(longMm, [brimMm, wallMm, topMm, wallMm, brimMm], [DOWN, UP, UP, DOWN]);
    }
    case 'tray': {
      const { longMm: l, wideMm: w, highMm: h } = of(kind);
      const path = closedPath([
        [0, 0],
        [0, -h],
        [l, -h],
        [l, 0],
        [l + h, 0],
        [l + h, w],
        [l, w],
        [l, w + h],
        [0, w + h],
        [0, w],
        [-h, w],
        [-h, 0],
      ]);
      const folds: [Vec, Vec][] = [
        [
          [0, 0],
          [l, 0],
        ],
        [
          [l, 0],
          [l, w],
        ],
        [
          [l, w],
          [0, w],
        ],
        [
          [0, w],
          [0, 0],
        ],
      ];
      return flat(path, { folds: folds.map(([from, to]) => ({ from, to, ...UP })) });
    }
    case 'box': {
      const { longMm: l, wideMm: w, highMm: h, lidMm, flapMm } = of(kind);
      const top = w + h + lidMm + flapMm;
      const path = closedPath([
        [0, 0],
        [0, -h],
        [l, -h],
        [l, 0],
        [l + h, 0],
        [l + h, w],
        [l, w],
        [l, top],
        [0, top],
        [0, w],
        [-h, w],
        [-h, 0],
      ]);
      const across = (y: number): [Vec, Vec] => [
        [l, y],
        [0, y],
      ];
      const folds: [Vec, Vec][] = [
        [
          [0, 0],
          [l, 0],
        ],
        [
          [l, 0],
          [l, w],
        ],
        across(w),
        [
          [0, w],
          [0, 0],
        ],
        across(w + h),
        across(w + h + lidMm),
      ];
      return flat(path, { folds: folds.map(([from, to]) => ({ from, to, ...UP })) });
    }
    case 'leaning-cone': {
      const found = leaningCone({ ...of(kind), sheet });
      return found.ok ? rolled(found.lower, found.upper) : found;
    }
    case 'elbow-end':
    case 'elbow-middle': {
      const found = elbow({ ...of(kind), sheet });
      if (!found.ok) return found;
      const cut = found.end.map(([along, height]): Vec => [along, height]);
      const base =
        kind === 'elbow-end'
          ? [cut[0]!, cut[cut.length - 1]!].map(([x]): Vec => [x, 0])
          : cut.map(([x, y]): Vec => [x, -y]);
      return rolled(base, cut);
    }
    case 'frustum': {
      const { lowerMm, upperMm, heightMm } = of(kind);
      const found = frustum(lowerMm, upperMm, heightMm, sheet);
      if (!found.ok) return found;
      const at = found.outline;
      const path = at.map(({ x, y, bulge }, i): Segment => {
        const next = at[(i + 1) % at.length]!;
        return { a: [x, y], b: [next.x, next.y], bulge };
      });
      return flat(path, { runs: upperMm > 0 && lowerMm > 0 ? [2, 1, 2, 1] : [2, 1, 1] });
    }
    case 'square-to-round': {
      const found = squareToRound({ ...of(kind), parts: ROUND_PARTS, sheet });
      if (!found.ok) return found;
      const marks = found.bends.map(([from, to], i) => {
        const deg = found.bendDeg[i]!;
        return {
          from,
          to,
          name: `bend ${Math.abs(deg).toFixed(1)}° ${deg < 0 ? 'toward you' : 'away'}`,
        };
      });
      return flat(closedPath(found.outline), {
        runs: [1, 1, 1, 1, 1, 1, 4 * ROUND_PARTS, 1],
        marks,
      });
    }
    case 'tube-notch': {
      const figuresOf = of(kind);
      const found = tubeNotch({ ...figuresOf, sheet });
      return found.ok ? wrapped(found.square, figuresOf.paperMm) : found;
    }
    case 'tube-cut': {
      const { tubeMm, angleDeg, paperMm } = of(kind);
      const found = tubeCut(tubeMm, angleDeg, sheet);
      return found.ok ? wrapped(found.wrap, paperMm) : found;
    }
  }
}

const UP = { angleDeg: 90, toward: 'face' } as const;
const DOWN = { angleDeg: 90, toward: 'back' } as const;

const flat = (path: Path, more: Partial<Shaped> = {}): Result<Shaped> => ({
  ok: true,
  path,
  runs: null,
  holes: [],
  folds: [],
  marks: [],
  ...more,
});

const rectangle = (long: number, wide: number): Path =>
  closedPath([
    [0, 0],
    [long, 0],
    [long, wide],
    [0, wide],
  ]);

/** A circle about the origin, from its right, in quarters. */
function circle(diameter: number): Path {
  const r = diameter / 2;
  const at: Vec[] = [
    [r, 0],
    [0, r],
    [-r, 0],
    [0, -r],
  ];
  return at.map((a, i) => ({ a, b: at[(i + 1) % 4]!, bulge: Math.tan(Math.PI / 8) }));
}

/**
 * A strip with folds along it between parts of the given widths, mm: as measured over the outsides,
 * so that a card creased there lay outside.
 */
function bent(
  long: number,
  widths: readonly number[],
  folds: readonly Pick<Shaped['folds'][number], 'angleDeg' | 'toward'>[],
): Result<Shaped> {
  let y = 0;
  const across = folds.map((fold, i) => {
    y += widths[i]!;
    return { from: [0, y] as Vec, to: [long, y] as Vec, ...fold };
  });
  const wide = widths.reduce((sum, width) => sum + width, 0);
  return flat(rectangle(long, wide), { folds: across });
}

/** A wrap as a piece of paper: its cut on top, the least paper below where most is cut off. */
function wrapped(wrap: readonly (readonly [number, number])[], paper: number): Result<Shaped> {
  const deepest = Math.max(...wrap.map(([, height]) => height));
  const cut = arcsThrough(
    wrap.map(([along, height]): Vec => [along, paper + deepest - height]),
    WRAP_MM,
  );
  if (!cut.ok) return cut;
  const [first, last] = [cut.arcs[0]!.a, cut.arcs[cut.arcs.length - 1]!.b];
  const top = [...cut.arcs].reverse().map(reversed);
  const path = [line([0, 0], [last[0], 0]), line([last[0], 0], last), ...top, line(first, [0, 0])];
  return flat(path, { runs: [1, 1, top.length, 1] });
}

/**
 * What is rolled up: between two rims from the seam round to the seam, each as lines and arcs and
 * one edge.
 */
function rolled(lower: readonly Vec[], upper: readonly Vec[]): Result<Shaped> {
  const [below, above] = [arcsThrough(lower, WRAP_MM), arcsThrough(upper, WRAP_MM)];
  if (!below.ok) return below;
  if (!above.ok) return above;
  const [from, to] = [lower[lower.length - 1]!, upper[upper.length - 1]!];
  const around = [
    ...below.arcs,
    line(from, to),
    ...[...above.arcs].reverse().map(reversed),
    line(upper[0]!, lower[0]!),
  ];
  const runs = [below.arcs.length, 1, above.arcs.length, 1];
  if (area(around) > 0) return flat(around, { runs });
  return flat(around.map(reversed).reverse(), { runs: runs.reverse() });
}

/** A shape as an ordinary card. */
export function cardOfShape({ path, runs, holes, folds, marks }: Shaped, newId: NewId): PatternDoc {
  const parts = patternParts(path, newId);
  let at = 0;
  const edges = runs?.map((count) => {
    const sides = parts.sides.slice(at, at + count).map(({ id }) => id);
    at += count;
    return { ...parts.edges[at - count]!, sides };
  });
  // A fold runs from where it meets the outline: at a corner, or a distance along a side.
  const spot = ([x, y]: Vec) => {
    const i = path.findIndex(({ a, b }) => {
      const [long, before] = [Math.hypot(b[0] - a[0], b[1] - a[1]), Math.hypot(x - a[0], y - a[1])];
      return Math.abs(before + Math.hypot(b[0] - x, b[1] - y) - long) < 1e-6;
    });
    const { a, b } = path[i]!;
    return {
      side: parts.sides[i]!.id,
      share: Math.hypot(x - a[0], y - a[1]) / Math.hypot(b[0] - a[0], b[1] - a[1]),
    };
  };
  return {
    ...emptyPattern(),
    ...parts,
    edges: edges ? lettered(edges) : parts.edges,
    holes: holes.map((hole) => ({ id: newId(), ...hole })),
    marks: marks.map(({ from, to, name }) => ({ id: newId(), name, from: [...from], to: [...to] })),
    folds: folds.map(({ from, to, angleDeg, toward }) => ({
      id: newId(),
      path: { kind: 'between', from: spot(from), to: spot(to) },
      angleDeg,
      toward,
      radiusMm: null,
      convention: 'outside-sharp',
    })),
  };
}
