import type { Segment } from '../measure/segment';
import { flattened, nearest } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { distance, mix } from '../measure/vector';
import {
  BLACK,
  CARD,
  GRAY,
  HOLES,
  LINE,
  MANILA,
  RING,
  WHITE,
  off,
  onPaper,
} from './cardScene.arbitrary';
import { lookThrough, photographed, svgBox, svgPath, svgPolygons } from './photographed.arbitrary';
import type { Scene, Shot } from './photographed.arbitrary';
import type { Picture } from './picture';
import { cornerCards, scaleFrame } from './scaleFrame';
import type { Traced } from './trace';
import { whole } from '../measure/whole';
import { trace } from './trace';

function traced(picture: Picture, scale: Parameters<typeof trace>[1]): Traced {
  const found = whole(trace(picture, scale));
  if (!found.ok) throw new Error(JSON.stringify(found));
  return found;
}

const SHOT: Shot = {
  width: 1800,
  height: 1350,
  tiltDeg: 3,
  aroundDeg: 40,
  rollDeg: 92,
  noise: 3,
  fades: 0.2,
};
test.each<[string, string, Scene['bench'], 'white' | 'dark' | 'cut out', Partial<Shot>]>([
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
])(
  'a card on A4: %s',
  async (_, card, bench, middle, shot) => {
    const found = traced(await photographed(onPaper(card, bench, middle), { ...SHOT, ...shot }), {
      kind: 'paper',
      paper: 'a4',
    });
    const { rms, worst } = off(found.outline, CARD);
    // The issue asks 0.3 and 0.8 of pictures of twelve megapixels; these have two and a half.
    expect(rms).toBeLessThan(0.1);
    expect(worst).toBeLessThan(0.4);
    expect(found.outline.length).toBeLessThanOrEqual(CARD.length + 1);
    expect(found.cutOff).toBe(false);
    expect(found.doubtful).toEqual([]);
    const wanted = [
      ...HOLES.map((hole) => ({ hole, seen: 'through' })),
      { hole: RING, seen: 'ring' },
    ];
    expect(found.holes).toHaveLength(wanted.length);
    for (const {
      hole: [x, y, d],
      seen,
    } of wanted) {
      const hole = found.holes.find((one) => distance([one.x, one.y], [x, y]) < 0.5);
      expect(hole).toMatchObject({ seen });
      expect(Math.abs(hole!.diameterMm - d)).toBeLessThan(0.4);
    }
    expect(found.lines).toHaveLength(1);
    for (const end of LINE)
      expect(Math.min(...found.lines[0]!.map((p) => distance(p, end)))).toBeLessThan(1.2);
  },
  90_000,
);

const LARGE: Segment[] = [
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
const LAID = cornerCards().map(({ widthMm: w, black, corner }, i) => {
  const [at, turn] = STANDS[i]!;
  const laid = `translate(${at.join(' ')}) rotate(${(turn * 180) / Math.PI}) translate(${-corner[0]} ${-corner[1]})`;
  return `<g transform="${laid}">${svgBox(0, 0, w, w, WHITE)}${svgPolygons(black, BLACK)}</g>`;
});
const NAMES = cornerCards().map(({ name }) => name);
const TAPES = [
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
const onBench = (card: string, bench: Scene['bench'], corners = LAID): Scene => ({
  box: [-250, -250, 1200, 850],
  bench,
  drawn: `${corners.join('')}<path d="${svgPath(LARGE)}" fill="${card}"/>`,
});
/** In its own mm card one lies at 0 and card two along +x. */
const asLaid = ([x, y]: Vec): Vec => {
  const [one, two] = [STANDS[0]![0], STANDS[1]![0]];
  const turn = Math.atan2(two[1] - one[1], two[0] - one[0]);
  return [
    one[0] + x * Math.cos(turn) - y * Math.sin(turn),
    one[1] + x * Math.sin(turn) + y * Math.cos(turn),
  ];
};
const ABOVE: Shot = {
  width: 2000,
  height: 1500,
  tiltDeg: 25,
  aroundDeg: 100,
  rollDeg: 10,
  barrel: 0.04,
  fades: 0.2,
  noise: 3,
};
const SMALLER = { width: 1600, height: 1200 };
/** Somebody's head, soft at its rim; the corner of a shelf. */
const HEAD = (x: number, y: number) =>
  Math.max(0, Math.min(1, 0.5 + (0.2 - Math.hypot(x - 0.62, (y - 0.5) * 0.75)) / 0.012));
const SHELF = (x: number, y: number) => Number(x > 0.5 && y > 0.42);

test.each<[string, string, Scene['bench'], Shot['shadow']]>([
  ['in even light', 'rgb(235,235,235)', 'gray', undefined],
  ['manila, the edge of a roof across', MANILA, 'dark', 0.5],
  [
    'white, a post across',
    WHITE,
    'gray',
    (x, y) => Number(x + 0.2 * y > 0.5 && x + 0.2 * y < 0.64),
  ],
  ['white, a head above', WHITE, 'dark', HEAD],
])(
  'a card of 900 mm between four loose corner cards that lie askew: %s',
  async (_, card, bench, shadow) => {
    const found = traced(await photographed(onBench(card, bench), { ...ABOVE, shadow }), {
      kind: 'corners',
      tapes: TAPES,
    });
    const { worst } = off(
      found.outline.map(({ a, b, bulge }) => ({ a: asLaid(a), b: asLaid(b), bulge })),
      LARGE,
    );
    expect(worst).toBeLessThan(1);
    expect(found.outline.length).toBeLessThanOrEqual(LARGE.length + 2);
  },
  90_000,
);

test.each<[string, string, Scene['bench'], Shot['shadow']]>([
  ['white in the shade of a shelf, as bright as the bench in the light', WHITE, 'gray', SHELF],
  ['gray in the shade of a head, on a dark bench', GRAY, 'dark', HEAD],
])(
  'where the edge of a shadow passes for the card’s own, it is told: %s',
  async (_, card, bench, shadow) => {
    const found = traced(
      await photographed(onBench(card, bench), { ...ABOVE, ...SMALLER, shadow }),
      { kind: 'corners', tapes: TAPES },
    );
    const truly = (p: Vec) => Math.min(...LARGE.map((s) => nearest(s, asLaid(p)).distance));
    const middles = found.outline.flatMap((s) =>
      flattened(s, 0.2).map((a, k, row) => mix(a, row[k + 1] ?? s.b, 0.5)),
    );
    // What is no longer than 15 mm is no stretch of its own.
    const told = found.doubtful.flat();
    for (const p of middles.filter((p) => truly(p) > 4))
      expect(Math.min(...told.map((q) => distance(p, q)))).toBeLessThan(16);
    expect(told.length > 0 || middles.every((p) => truly(p) < 1)).toBe(true);
  },
  90_000,
);

test('without one of the corner cards there is no telling, and it is named', async () => {
  const picture = await photographed(onBench(WHITE, 'gray', LAID.slice(1)), {
    ...ABOVE,
    ...SMALLER,
  });
  expect(whole(trace(picture, { kind: 'corners', tapes: TAPES }))).toMatchObject({
    ok: false,
    problems: [{ code: 'no-frame', about: ['one'] }],
  });
}, 90_000);

test('no frame, nothing on it, and a scan', async () => {
  const empty = await photographed(
    { box: [0, 0, 300, 225], bench: 'wood', drawn: '' },
    { ...SHOT, width: 800, height: 600 },
  );
  expect(whole(trace(empty, { kind: 'paper', paper: 'a4' }))).toMatchObject({
    ok: false,
    problems: [{ code: 'no-frame' }],
  });
  const bare: Scene = {
    ...onPaper(MANILA, 'gray', 'white'),
    drawn: svgBox(0, 0, 210, 297, WHITE) + svgPolygons(scaleFrame('a4').black, BLACK),
  };
  expect(
    whole(trace(await photographed(bare, SHOT), { kind: 'paper', paper: 'a4' })),
  ).toMatchObject({ ok: false, problems: [{ code: 'card-not-found' }] });
  // The frame of one paper does not pass for that of another, though A3 has its shape.
  const a4 = await photographed(onPaper(MANILA, 'wood', 'white'), { ...SHOT, tiltDeg: 12 });
  for (const paper of ['a3', 'letter', 'tabloid'] as const)
    expect(whole(trace(a4, { kind: 'paper', paper })).ok).toBe(false);
  // Seen by a scanner at 100 dots to the inch, its lid white.
  const scene: Scene = {
    box: [0, 0, 254, 254],
    bench: 'gray',
    drawn:
      svgBox(0, 0, 254, 254, 'rgb(250,250,250)') + `<path d="${svgPath(CARD)}" fill="${MANILA}"/>`,
  };
  const scan = await lookThrough(scene, 100);
  const found = traced(scan, { kind: 'scan', dpi: 100 });
  expect(off(found.outline, CARD).worst).toBeLessThan(0.3);
}, 90_000);
