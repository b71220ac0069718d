import type { Vec } from '../measure/vector';
import { add, sub, turned } from '../measure/vector';

/**
 * The scale frame: what is laid round a card so that a photograph of it can be measured. At each
 * corner a black angle, as if of bar with square windows cut in it: by how many and where, the four
 * are told apart, also when one lies askew; along the sides straight bars between them. Everything
 * is made of upright rectangles. Black may lie on black: what is black is all of them together.
 */

export const PAPERS = {
  a4: [210, 297],
  a3: [297, 420],
  letter: [215.9, 279.4],
  tabloid: [279.4, 431.8],
} as const satisfies Record<string, readonly [number, number]>;
export type Paper = keyof typeof PAPERS;

/**
 * How much larger than on A4 the marks are. Not in proportion to the paper: A3 has the shape of A4,
 * and a picture of the one must not pass for the other.
 */
const SIZES: Record<Paper, number> = { a4: 1, a3: 1.15, letter: 0.9, tabloid: 1.2 };

/** The corners in the order in which they go round, counter-clockwise from the lower left. */
export const CORNERS = ['one', 'two', 'three', 'four'] as const;
export type Corner = 0 | 1 | 2 | 3;

/**
 * An angle as it is on A4: how long its arms are and how wide, measured on the outside, and its
 * windows, mm.
 */
export const ARM = 40;
export const ARM_WIDE = 12;
const WINDOW = 5;
/** Where windows can be: in the middle of the corner, and two in each arm. */
export const WINDOW_PLACES: readonly Vec[] = [
  [6, 6],
  [20, 6],
  [33, 6],
  [6, 20],
  [6, 33],
];
/** Which of them each angle has: one, two, three and four. */
export const WINDOWS: readonly (readonly boolean[])[] = [
  [true, false, false, false, false],
  [false, false, true, false, true],
  [true, false, true, false, true],
  [false, true, true, true, true],
];

/** White left at the rim of the paper, where a printer prints nothing. */
export const RIM = 6;
export const BAR_WIDE = 5;
/** White between an angle and the bar that goes on from it. */
const GAP = 4;
/** White between the marks and a black middle. */
const MIDDLE_OFF = 4;
/** How much larger than on A4 an angle is on a loose card. */
export const LOOSE_SIZE = 2;
/** A loose card, and how far from its rim the corner of the angle is. */
const LOOSE_CARD = 100;
const LOOSE_RIM = 10;

type Rectangle = readonly [x0: number, y0: number, x1: number, y1: number];
const asPolygon = ([x0, y0, x1, y1]: Rectangle): Vec[] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];

/** The outline of an angle of the size of A4, its outer corner at 0, its arms along +x and +y. */
const ANGLE: readonly Vec[] = [
  [0, 0],
  [ARM, 0],
  [ARM, ARM_WIDE],
  [ARM_WIDE, ARM_WIDE],
  [ARM_WIDE, ARM],
  [0, ARM],
];

/**
 * The rectangles that an angle is made of: two strips along each arm, and what stands between its
 * windows.
 */
function angleOf(corner: Corner): Vec[][] {
  const has = WINDOWS[corner]!;
  const half = WINDOW / 2;
  const armOf = (windows: number[]): Rectangle[] => {
    const cuts = windows.flatMap((x) => [x - half, x + half]);
    const walls = [0, ...cuts, ARM];
    const middle = ARM_WIDE / 2;
    const blocks = walls.flatMap((from, i): Rectangle[] =>
      i % 2 === 0 ? [[from, 0, walls[i + 1]!, ARM_WIDE]] : [],
    );
    return [[0, 0, ARM, middle - half], [0, middle + half, ARM, ARM_WIDE], ...blocks];
  };
  const [c, ...arms] = WINDOW_PLACES.map((_, i) => has[i]!);
  const corners = c ? [WINDOW_PLACES[0]![0]] : [];
  const alongX = armOf([...corners, ...[20, 33].filter((_, i) => arms[i])]);
  const alongY = armOf([...corners, ...[20, 33].filter((_, i) => arms[2 + i])]);
  // Where the arms lie on each other neither may fill the corner's window of the other: they have
  // the same there.
  return [
    ...alongX.map(asPolygon),
    ...alongY.map(([x0, y0, x1, y1]) => asPolygon([y0, x0, y1, x1])),
  ];
}

/**
 * Where an angle stands: its outer corner, how far it is turned, radians counter-clockwise, and its
 * size (1 as on A4).
 */
export type Standing = { at: Vec; turn: number; size: number };

/** From an angle's own mm to those where it stands. */
export const stood = ({ at, turn, size }: Standing, p: Vec): Vec =>
  add(at, turned([p[0] * size, p[1] * size], turn));

/** A straight edge between black and white: black lies to its left. */
export type MarkEdge = { a: Vec; b: Vec };

/** The six edges of an angle. */
export const edgesOf = (standing: Standing): MarkEdge[] =>
  ANGLE.map((a, i) => ({
    a: stood(standing, a),
    b: stood(standing, ANGLE[(i + 1) % ANGLE.length]!),
  }));

export type ScaleFrame = {
  widthMm: number;
  heightMm: number;
  /** How the four angles stand on the paper. */
  angles: Standing[];
  /** All straight edges that can be measured to. */
  edges: MarkEdge[];
  /** What is black, polygons counter-clockwise, mm, y up, the paper's lower left corner at 0. */
  black: Vec[][];
  /** Inside here nothing is printed (or all is black): where a card goes. */
  inside: Vec[];
};

/**
 * The scale frame on a paper standing upright.
 *
 * @param paper its name
 * @param middle `dark` to have the middle black, so that a white card stands out from it
 */
export function scaleFrame(paper: Paper, middle: 'white' | 'dark' = 'white'): ScaleFrame {
  const [w, h] = PAPERS[paper];
  const size = SIZES[paper];
  const places: Vec[] = [
    [RIM, RIM],
    [w - RIM, RIM],
    [w - RIM, h - RIM],
    [RIM, h - RIM],
  ];
  const angles = places.map((at, i): Standing => ({ at, turn: (i * Math.PI) / 2, size }));
  const off = RIM + (ARM + GAP) * size;
  const thick = BAR_WIDE * size;
  const bars: Vec[][] = [
    [off, RIM, w - off, RIM + thick],
    [w - RIM - thick, off, w - RIM, h - off],
    [off, h - RIM - thick, w - off, h - RIM],
    [RIM, off, RIM + thick, h - off],
  ].map((r) => asPolygon(r as unknown as Rectangle));
  const inset = RIM + ARM_WIDE * size + MIDDLE_OFF;
  const inside = asPolygon([inset, inset, w - inset, h - inset]);
  const rightAngled = (p: Vec): Vec => [round(p[0]), round(p[1])];
  return {
    widthMm: w,
    heightMm: h,
    angles,
    edges: [
      ...angles.flatMap(edgesOf),
      ...bars.flatMap((bar) => bar.map((a, i) => ({ a, b: bar[(i + 1) % 4]! }))),
    ],
    black: [
      ...angles.flatMap((standing, i) =>
        angleOf(i as Corner).map((p) => p.map((q) => rightAngled(stood(standing, q)))),
      ),
      ...bars,
      ...(middle === 'dark' ? [inside] : []),
    ],
    inside,
  };
}

/** Turning by right angles leaves dust in the sixteenth place. */
const round = (x: number): number => Math.round(x * 1e9) / 1e9;

/** One loose corner card: its paper, what is black on it, and the corner that a tape is held to. */
export type CornerCard = {
  name: (typeof CORNERS)[number];
  widthMm: number;
  heightMm: number;
  black: Vec[][];
  corner: Vec;
};

/** The four loose corner cards, each with 0 at the lower left of its own paper. */
export const cornerCards = (): CornerCard[] =>
  CORNERS.map((name, i) => ({
    name,
    widthMm: LOOSE_CARD,
    heightMm: LOOSE_CARD,
    black: angleOf(i as Corner).map((p) =>
      p.map((q) => stood({ at: [LOOSE_RIM, LOOSE_RIM], turn: 0, size: LOOSE_SIZE }, q)),
    ),
    corner: [LOOSE_RIM, LOOSE_RIM],
  }));

/** The paper of a loose card whose angle stands so. */
export const loosePaper = (standing: Standing): Vec[] =>
  asPolygon([0, 0, LOOSE_CARD, LOOSE_CARD]).map((p) =>
    add(standing.at, turned(sub(p, [LOOSE_RIM, LOOSE_RIM]), standing.turn)),
  );
