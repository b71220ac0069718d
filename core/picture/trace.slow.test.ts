import type { Segment } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import { BLACK, CARD, GRAY, HOLES, LINE, MANILA, RING, WHITE, off, onPaper } from './cardScene.arbitrary';
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

const SHOT: Shot = { width: 1800, height: 1350, tiltDeg: 3, aroundDeg: 40, rollDeg: 92, noise: 3, fades: 0.2 };
test.each<[string, string, Scene['bench'], 'white' | 'dark' | 'cut out', Partial<Shot>]>([
  ['manila on the frame, from nearly above', MANILA, 'wood', 'white', {}],
  ['manila, 35° off, a lens with a barrel', MANILA, 'wood', 'white', { tiltDeg: 35, aroundDeg: 200, barrel: 0.05, fades: 0.4 }],
  ['gray, a shadow across, a lens with a cushion', GRAY, 'wood', 'white', { tiltDeg: 20, aroundDeg: 70, barrel: -0.05, shadow: 0.6 }],
  ['white on the dark middle', 'rgb(240,240,240)', 'green', 'dark', { tiltDeg: 25, aroundDeg: 300, fades: 0.4 }],
  ['white on a wooden bench, the middle cut out', 'rgb(240,240,238)', 'wood', 'cut out', { tiltDeg: 15, aroundDeg: 130 }],
])('a card on A4: %s', async (_, card, bench, middle, shot) => {
  const found = traced(await photographed(onPaper(card, bench, middle), { ...SHOT, ...shot }), { kind: 'paper', paper: 'a4' });
  const { rms, worst } = off(found.outline, CARD);
  // The issue asks 0.3 and 0.8 of pictures of twelve megapixels; these have two and a half.
  expect(rms).toBeLessThan(0.1);
  expect(worst).toBeLessThan(0.4);
  expect(found.outline.length).toBeLessThanOrEqual(CARD.length + 1);
  expect(found.cutOff).toBe(false);
  const wanted = [...HOLES.map((hole) => ({ hole, seen: 'through' })), { hole: RING, seen: 'ring' }];
  expect(found.holes).toHaveLength(wanted.length);
  for (const { hole: [x, y, d], seen } of wanted) {
    const hole = found.holes.find((one) => distance([one.x, one.y], [x, y]) < 0.5);
    expect(hole).toMatchObject({ seen });
    expect(Math.abs(hole!.diameterMm - d)).toBeLessThan(0.4);
  }
  expect(found.lines).toHaveLength(1);
  for (const end of LINE) expect(Math.min(...found.lines[0]!.map((p) => distance(p, end)))).toBeLessThan(1.2);
}, 90_000); // prettier-ignore

test('a card of 900 mm between four loose corner cards that lie askew', async () => {
  const card: Segment[] = [
    { a: [0, 0], b: [900, 10], bulge: 0 },
    { a: [900, 10], b: [880, 300], bulge: 0.05 },
    { a: [880, 300], b: [420, 340], bulge: 0 },
    { a: [420, 340], b: [400, 520], bulge: 0 },
    { a: [400, 520], b: [10, 500], bulge: -0.03 },
    { a: [10, 500], b: [0, 0], bulge: 0 },
  ];
  const stands: [Vec, number][] = [[[-40, -130], 0.1], [[1010, -90], 1.7], [[1000, 560], 3], [[-60, 640], 4.6]]; // prettier-ignore
  const drawn = cornerCards().map(({ widthMm: w, black, corner }, i) => {
    const [at, turn] = stands[i]!;
    const laid = `translate(${at.join(' ')}) rotate(${(turn * 180) / Math.PI}) translate(${-corner[0]} ${-corner[1]})`;
    return `<g transform="${laid}">${svgBox(0, 0, w, w, WHITE)}${svgPolygons(black, BLACK)}</g>`;
  });
  const scene: Scene = { box: [-250, -250, 1200, 850], bench: 'gray', drawn: `${drawn.join('')}<path d="${svgPath(card)}" fill="rgb(235,235,235)"/>` }; // prettier-ignore
  const picture = await photographed(scene, { width: 2200, height: 1650, tiltDeg: 25, aroundDeg: 100, rollDeg: 10, barrel: 0.04, fades: 0.3, noise: 3 }); // prettier-ignore
  const names = cornerCards().map(({ name }) => name);
  const tapes = [[0, 1], [1, 2], [2, 3], [3, 0], [0, 2]].map(([i, j]) => ({ from: names[i!]!, to: names[j!]!, mm: distance(stands[i!]![0], stands[j!]![0]), uMm: 0.5 })); // prettier-ignore
  const found = traced(picture, { kind: 'corners', tapes });
  // In its own mm card one lies at 0 and card two along +x.
  const [one, two] = [stands[0]![0], stands[1]![0]];
  const turn = Math.atan2(two[1] - one[1], two[0] - one[0]);
  const back = ([x, y]: Vec): Vec => [
    one[0] + x * Math.cos(turn) - y * Math.sin(turn),
    one[1] + x * Math.sin(turn) + y * Math.cos(turn),
  ];
  const { worst } = off(found.outline.map(({ a, b, bulge }) => ({ a: back(a), b: back(b), bulge })), card); // prettier-ignore
  expect(worst).toBeLessThan(1);
  // Without one of them there is no telling.
  const missing = whole(trace(await photographed({ ...scene, drawn: drawn.slice(1).join('') }, { ...SHOT, rollDeg: 10, width: 2000, height: 1500 }), { kind: 'corners', tapes })); // prettier-ignore
  expect(missing).toMatchObject({ ok: false, problems: [{ code: 'no-frame', about: ['one'] }] });
}, 90_000);

test('no frame, nothing on it, and a scan', async () => {
  const empty = await photographed({ box: [0, 0, 300, 225], bench: 'wood', drawn: '' }, { ...SHOT, width: 800, height: 600 }); // prettier-ignore
  expect(whole(trace(empty, { kind: 'paper', paper: 'a4' }))).toMatchObject({
    ok: false,
    problems: [{ code: 'no-frame' }],
  });
  const bare: Scene = { ...onPaper(MANILA, 'gray', 'white'), drawn: svgBox(0, 0, 210, 297, WHITE) + svgPolygons(scaleFrame('a4').black, BLACK) }; // prettier-ignore
  expect(whole(trace(await photographed(bare, SHOT), { kind: 'paper', paper: 'a4' }))).toMatchObject({ ok: false, problems: [{ code: 'card-not-found' }] }); // prettier-ignore
  // The frame of one paper does not pass for that of another, though A3 has its shape.
  for (const paper of ['a3', 'letter', 'tabloid'] as const) {
    const other = whole(trace(await photographed(onPaper(MANILA, 'wood', 'white'), { ...SHOT, tiltDeg: 12 }), { kind: 'paper', paper })); // prettier-ignore
    expect(other.ok).toBe(false);
  }
  // Seen by a scanner at 100 dots to the inch, its lid white.
  const scene: Scene = { box: [0, 0, 254, 254], bench: 'gray', drawn: svgBox(0, 0, 254, 254, 'rgb(250,250,250)') + `<path d="${svgPath(CARD)}" fill="${MANILA}"/>` }; // prettier-ignore
  const scan = await lookThrough(scene, 100);
  const found = traced(scan, { kind: 'scan', dpi: 100 });
  expect(off(found.outline, CARD).worst).toBeLessThan(0.3);
}, 90_000);
