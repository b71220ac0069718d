import { flattened, nearest } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { distance, mix } from '../measure/vector';
import { BLACK, CARD, HOLES, LINE, MANILA, RING, WHITE, off, onPaper } from './cardScene.arbitrary';
import { lookThrough, photographed, svgBox, svgPath, svgPolygons } from './photographed.arbitrary';
import type { Scene } from './photographed.arbitrary';
import {
  ABOVE,
  BETWEEN_CORNERS,
  DOUBTFUL,
  LAID,
  LARGE,
  ON_A4,
  SHOT,
  SMALLER,
  TAPES,
  asLaid,
  onBench,
} from './photographs.arbitrary';
import type { Picture } from './picture';
import { scaleFrame } from './scaleFrame';
import type { Traced } from './trace';
import { runToCompletion } from '../measure/runToCompletion';
import { trace } from './trace';

function traced(picture: Picture, scale: Parameters<typeof trace>[1]): Traced {
  const found = runToCompletion(trace(picture, scale));
  if (!found.ok) throw new Error(JSON.stringify(found));
  return found;
}

/** What is refused needs no sharp picture. */
const SMALL = { width: 1000, height: 750 };

const [, tilted] = ON_A4;
test.each([tilted!])(
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

const [, roof] = BETWEEN_CORNERS;
test.each([roof!])(
  'a card of 900 mm between four loose corner cards that lie askew: %s',
  async (_, card, bench, shadow) => {
    const found = traced(
      await photographed(onBench(card, bench), { ...ABOVE, ...SMALLER, shadow }),
      {
        kind: 'corners',
        tapes: TAPES,
      },
    );
    const { worst } = off(
      found.outline.map(({ a, b, bulge }) => ({ a: asLaid(a), b: asLaid(b), bulge })),
      LARGE,
    );
    expect(worst).toBeLessThan(1);
    expect(found.outline.length).toBeLessThanOrEqual(LARGE.length + 2);
  },
  90_000,
);

test.each(DOUBTFUL.slice(0, 1))(
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
    ...SMALL,
  });
  expect(runToCompletion(trace(picture, { kind: 'corners', tapes: TAPES }))).toMatchObject({
    ok: false,
    problems: [{ code: 'no-frame', about: ['one'] }],
  });
}, 90_000);

test('no frame, nothing on it, and a scan', async () => {
  const empty = await photographed(
    { box: [0, 0, 300, 225], bench: 'wood', drawn: '' },
    { ...SHOT, width: 800, height: 600 },
  );
  expect(runToCompletion(trace(empty, { kind: 'paper', paper: 'a4' }))).toMatchObject({
    ok: false,
    problems: [{ code: 'no-frame' }],
  });
  const bare: Scene = {
    ...onPaper(MANILA, 'gray', 'white'),
    drawn: svgBox(0, 0, 210, 297, WHITE) + svgPolygons(scaleFrame('a4').black, BLACK),
  };
  expect(
    runToCompletion(
      trace(await photographed(bare, { ...SHOT, ...SMALL }), { kind: 'paper', paper: 'a4' }),
    ),
  ).toMatchObject({ ok: false, problems: [{ code: 'card-not-found' }] });
  // The frame of one paper does not pass for that of another, though A3 has its shape.
  const a4 = await photographed(onPaper(MANILA, 'wood', 'white'), {
    ...SHOT,
    ...SMALL,
    tiltDeg: 12,
  });
  for (const paper of ['a3', 'letter', 'tabloid'] as const)
    expect(runToCompletion(trace(a4, { kind: 'paper', paper })).ok).toBe(false);
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
