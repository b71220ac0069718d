import fc from 'fast-check';
import { spread } from '../measure/spread.arbitrary';
import { closedPath } from '../measure/path';
import type { Segment } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { distance, mix } from '../measure/vector';
import { doubtfulAlong } from './doubtful';
import { fitOutline } from './fitOutline';
import { shadowEdges } from './shadows';
import type { StraightPicture } from './straightPicture';

const [WIDTH, HEIGHT, STEP] = [420, 300, 2];
type Colour = readonly [number, number, number];
type Scene = {
  card: Colour;
  bench: Colour;
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  seed: number;
};

/** A rectangular card on a bench, with the light at each place and the noise of a sensor. */
function seen(
  { card, bench, x0, y0, x1, y1, seed }: Scene,
  light: (x: number, y: number) => number,
): StraightPicture {
  const data = new Uint8ClampedArray(4 * WIDTH * HEIGHT).fill(255);
  for (let y = 0, k = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++, k += 4) {
      const on = x >= x0 && x < x1 && y >= y0 && y < y1 ? card : bench;
      // Sines of large numbers are as good as chance here, and the same each time.
      const noise = 6 * ((Math.abs(Math.sin(seed + k * 12.9898)) * 43758.5453) % 1) - 3;
      for (let c = 0; c < 3; c++) data[k + c] = light(x + 0.5, y + 0.5) * on[c]! + noise;
    }
  return { width: WIDTH, height: HEIGHT, data, leftMm: 0, topMm: HEIGHT * STEP, stepMm: STEP };
}

const colours = fc.tuple(spread(60, 235), spread(60, 235), spread(60, 235));
const scenes = fc.record({
  card: colours,
  bench: colours,
  x0: fc.integer({ min: 40, max: 120 }),
  y0: fc.integer({ min: 40, max: 90 }),
  x1: fc.integer({ min: 260, max: 370 }),
  y1: fc.integer({ min: 190, max: 260 }),
  seed: fc.integer({ min: 0, max: 1000 }),
});
const EVERYWHERE = new Uint8Array(WIDTH * HEIGHT).fill(1);
/** The card's outline, counter-clockwise, mm, y up. */
const outlineOf = ({ x0, y0, x1, y1 }: Scene): Segment[] =>
  closedPath(
    [
      [x0, y1],
      [x1, y1],
      [x1, y0],
      [x0, y0],
    ].map(([x, y]): Vec => [x! * STEP, (HEIGHT - y!) * STEP]),
  );
const along = (path: readonly Segment[], everyMm: number): Vec[] =>
  path.flatMap(({ a, b }) => {
    const count = Math.max(1, Math.round(distance(a, b) / everyMm));
    return Array.from({ length: count }, (_, i) => mix(a, b, i / count));
  });

test('a line beyond which all is darker by one ratio is found as it lies, whatever is under it', () => {
  fc.assert(
    fc.property(
      scenes,
      spread(12, 78),
      fc.boolean(),
      spread(-60, 60),
      spread(0.35, 0.8),
      (scene, slant, flat, off, ratio) => {
        // Beside a side of the card, and along it, the two steps are one.
        const turnDeg = flat ? slant + 90 : slant;
        const [nx, ny] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
        const c = (nx * WIDTH) / 2 + (ny * HEIGHT) / 2 + off;
        const found = shadowEdges(
          seen(scene, (x, y) => (nx * x + ny * y > c ? ratio : 1)),
          EVERYWHERE,
        );
        expect(found.length).toBeGreaterThanOrEqual(1);
        const edge = found[0]!;
        const same = Math.sign(edge.nx * nx + edge.ny * ny);
        expect(Math.abs(edge.nx * nx + edge.ny * ny)).toBeGreaterThan(
          Math.cos((1 * Math.PI) / 180),
        );
        // At the middle of the picture the two lie over each other within two pixels, and step
        // alike.
        expect(
          Math.abs(
            same * edge.c -
              c +
              (nx - same * edge.nx) * (WIDTH / 2) +
              (ny - same * edge.ny) * (HEIGHT / 2),
          ),
        ).toBeLessThan(2);
        expect(Math.abs(same * edge.log - Math.log(ratio))).toBeLessThan(-0.12 * Math.log(ratio));
      },
    ),
    { numRuns: 16 },
  );
}, 60_000);

test('in even light, or light that fades, no side of a card is a shadow', () => {
  fc.assert(
    fc.property(scenes, spread(0, 0.3), (scene, fades) => {
      expect(
        shadowEdges(
          seen(scene, (x) => 1 - (fades * x) / WIDTH),
          EVERYWHERE,
        ),
      ).toEqual([]);
    }),
    { numRuns: 16 },
  );
}, 60_000);

test('an outline that was seen all round is in no doubt; one drawn along a shadow is, just there', () => {
  const apart = ({ card, bench }: Scene) =>
    Math.hypot(...card.map((x, i) => Math.log((x + 4) / (bench[i]! + 4)))) > 0.5;
  fc.assert(
    fc.property(scenes.filter(apart), spread(0.45, 0.7), (scene, ratio) => {
      const straight = seen(scene, () => 1);
      const outline = outlineOf(scene);
      expect(doubtfulAlong(outline, along(outline, 3), straight, [])).toEqual([]);
      // Half the card in the shade and left out.
      const half = Math.round((scene.x0 + scene.x1) / 2);
      const shaded = seen(scene, (x) => (x > half ? ratio : 1));
      const wrong = outlineOf({ ...scene, x1: half });
      const told = doubtfulAlong(wrong, along(wrong, 3), shaded, []).flat();
      const middle: Vec = [half * STEP, (HEIGHT - (scene.y0 + scene.y1) / 2) * STEP];
      expect(Math.min(...told.map((p) => distance(p, middle)))).toBeLessThan(5);
      // Where nothing was seen along a side it is told as well.
      const unseen = along(outline, 3).filter(([, y]) => y > (HEIGHT - scene.y1) * STEP + 20);
      const missing = doubtfulAlong(outline, unseen, straight, []);
      expect(missing).toHaveLength(1);
      for (const [, y] of missing[0]!) expect(y).toBeLessThan((HEIGHT - scene.y1) * STEP + 20);
    }),
    { numRuns: 12 },
  );
}, 60_000);

test('places that scatter more along one side make no more sides of it, and a gap in them no arc', () => {
  fc.assert(
    fc.property(spread(0.3, 0.8), fc.integer({ min: 0, max: 1000 }), (scatter, seed) => {
      const path = closedPath([
        [0, 0],
        [300, 4],
        [292, 190],
        [-6, 180],
      ]);
      const chance = (i: number) =>
        ((Math.abs(Math.sin(seed + i * 78.233)) * 43758.5453) % 1) - 0.5;
      // Twice as noisy as it may be along the lower side, and nothing seen for 40 mm before its
      // end.
      const places = along(path, 1)
        .map(([x, y], i): Vec =>
          y < 5 ? [x, y + 2 * scatter * chance(i)] : [x + 0.1 * chance(i), y + 0.1 * chance(i + 7)],
        )
        .filter(([x, y]) => !(y < 6 && x > 255));
      const found = fitOutline(places, 0.5)!;
      expect(found.path).toHaveLength(4);
      for (const { a, bulge } of found.path) {
        expect(Math.abs(bulge)).toBeLessThan(0.02);
        expect(Math.min(...path.map((side) => distance(side.a, a)))).toBeLessThan(1);
      }
    }),
    { numRuns: 16 },
  );
});
