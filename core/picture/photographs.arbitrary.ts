import type { Segment } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import { BLACK, GRAY, MANILA, WHITE } from './cardScene.arbitrary';
import { svgBox, svgPath, svgPolygons } from './photographed.arbitrary';
import type { Scene, Shot } from './photographed.arbitrary';
import { cornerCards } from './scaleFrame';

/**
 * Photographs of cards whose outline is known: on a frame printed on A4, and between four loose
 * corner cards. The tests look at some of them, `./patrone bench` at all.
 */

export const SHOT: Shot = {
  width: 1800,
  height: 1350,
  tiltDeg: 3,
  aroundDeg: 40,
  rollDeg: 92,
  noise: 3,
  fades: 0.2,
};
/** Card's colour, bench, the middle of the frame, and how it is looked at. */
export const ON_A4: readonly (readonly [
  name: string,
  card: string,
  bench: Scene['bench'],
  middle: 'white' | 'dark' | 'cut out',
  shot: Partial<Shot>,
])[] = [
  ['manila on the frame, from nearly above', MANILA, 'wood', 'white', {}],
  [
    'manila, 35° off, a lens with a barrel',
    MANILA,
    'wood',
    'white',
    { tiltDeg: 35, aroundDeg: 200, barrel: 0.05, fades: 0.4 },
  ],
  [
    'gray, a shadow across, a lens with a cushion',
    GRAY,
    'wood',
    'white',
    { tiltDeg: 20, aroundDeg: 70, barrel: -0.05, shadow: 0.6 },
  ],
  [
    'white on the dark middle',
    'rgb(240,240,240)',
    'green',
    'dark',
    { tiltDeg: 25, aroundDeg: 300, fades: 0.4 },
  ],
  [
    'white on a wooden bench, the middle cut out',
    'rgb(240,240,238)',
    'wood',
    'cut out',
    { tiltDeg: 15, aroundDeg: 130 },
  ],
];

export const LARGE: Segment[] = [
  { a: [0, 0], b: [900, 10], bulge: 0 },
  { a: [900, 10], b: [880, 300], bulge: 0.05 },
  { a: [880, 300], b: [420, 340], bulge: 0 },
  { a: [420, 340], b: [400, 520], bulge: 0 },
  { a: [400, 520], b: [10, 500], bulge: -0.03 },
  { a: [10, 500], b: [0, 0], bulge: 0 },
];
/** Where the four loose corner cards lie on the bench, askew, and how each is turned. */
const STANDS: [Vec, number][] = [
  [[-40, -130], 0.1],
  [[1010, -90], 1.7],
  [[1000, 560], 3],
  [[-60, 640], 4.6],
];
export const LAID = cornerCards().map(({ widthMm: w, black, corner }, i) => {
  const [at, turn] = STANDS[i]!;
  const laid = `translate(${at.join(' ')}) rotate(${(turn * 180) / Math.PI}) translate(${-corner[0]} ${-corner[1]})`;
  return `<g transform="${laid}">${svgBox(0, 0, w, w, WHITE)}${svgPolygons(black, BLACK)}</g>`;
});
const NAMES = cornerCards().map(({ name }) => name);
export const TAPES = [
  [0, 1],
  [1, 2],
  [2, 3],
  [3, 0],
  [0, 2],
].map(([i, j]) => ({
  from: NAMES[i!]!,
  to: NAMES[j!]!,
  mm: distance(STANDS[i!]![0], STANDS[j!]![0]),
  uMm: 0.5,
}));
export const onBench = (card: string, bench: Scene['bench'], corners = LAID): Scene => ({
  box: [-250, -250, 1200, 850],
  bench,
  drawn: `${corners.join('')}<path d="${svgPath(LARGE)}" fill="${card}"/>`,
});
/** In its own mm card one lies at 0 and card two along +x. */
export const asLaid = ([x, y]: Vec): Vec => {
  const [one, two] = [STANDS[0]![0], STANDS[1]![0]];
  const turn = Math.atan2(two[1] - one[1], two[0] - one[0]);
  return [
    one[0] + x * Math.cos(turn) - y * Math.sin(turn),
    one[1] + x * Math.sin(turn) + y * Math.cos(turn),
  ];
};
export const ABOVE: Shot = {
  width: 2000,
  height: 1500,
  tiltDeg: 25,
  aroundDeg: 100,
  rollDeg: 10,
  barrel: 0.04,
  fades: 0.2,
  noise: 3,
};
export const SMALLER = { width: 1600, height: 1200 };
/** Somebody's head, soft at its rim; the corner of a shelf. */
const HEAD = (x: number, y: number) =>
  Math.max(0, Math.min(1, 0.5 + (0.2 - Math.hypot(x - 0.62, (y - 0.5) * 0.75)) / 0.012));
const SHELF = (x: number, y: number) => Number(x > 0.5 && y > 0.42);

type Between = readonly (readonly [
  name: string,
  card: string,
  bench: Scene['bench'],
  shadow: Shot['shadow'],
])[];
export const BETWEEN_CORNERS: Between = [
  ['in even light', 'rgb(235,235,235)', 'gray', undefined],
  ['manila, the edge of a roof across', MANILA, 'dark', 0.5],
  [
    'white, a post across',
    WHITE,
    'gray',
    (x, y) => Number(x + 0.2 * y > 0.5 && x + 0.2 * y < 0.64),
  ],
  ['white, a head above', WHITE, 'dark', HEAD],
];

/** The edge of a shadow passes for the card's own. */
export const DOUBTFUL: Between = [
  ['white in the shade of a shelf, as bright as the bench in the light', WHITE, 'gray', SHELF],
  ['gray in the shade of a head, on a dark bench', GRAY, 'dark', HEAD],
];
