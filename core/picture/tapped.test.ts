import fc from 'fast-check';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import { pictureScale } from './pictureScale';
import { RIM, scaleFrame } from './scaleFrame';
import { tappedScale } from './tapped';
import { runToCompletion } from '../measure/runToCompletion';
import { trace } from './trace';

/** A camera that looks at the plane askew: mm to px, v down. */
const camera = fc
  .tuple(spread(-3e-4, 3e-4), spread(-3e-4, 3e-4), spread(-0.2, 0.2), spread(0.8, 1.2))
  .map(([g, h, skew, size]) => ([x, y]: Vec): Vec => {
    const w = 1 + g * x + h * y;
    return [(size * (x + skew * y) + 60) / w, (size * (400 - y)) / w];
  });
const grey = { width: 500, height: 700, data: new Uint8ClampedArray(4 * 500 * 700).fill(128) };

test('frame and card pointed at exactly are measured exactly, however askew the picture and however the card is gone round', () => {
  fc.assert(
    fc.property(
      camera,
      fc.boolean(),
      fc.constantFrom('a4' as const, 'letter' as const),
      (seen, over, paper) => {
        const { widthMm, heightMm } = scaleFrame(paper);
        const corners: Vec[] = [
          [RIM, RIM],
          [widthMm - RIM, RIM],
          [widthMm - RIM, heightMm - RIM],
          [RIM, heightMm - RIM],
        ];
        const card: Vec[] = [
          [50, 60],
          [150, 66],
          [140, 200],
          [90, 120],
          [55, 190],
        ];
        const scale = tappedScale({ kind: 'paper', paper }, corners.map(seen));
        if (!scale.ok) throw new Error(JSON.stringify(scale));
        const tapped = (over ? [...card].reverse() : card).map(seen);
        const found = runToCompletion(trace(grey, scale.scale, 0.5, tapped));
        if (!found.ok) throw new Error(JSON.stringify(found));
        const sizes = found.outline.map(({ a, b }) => distance(a, b)).sort((a, b) => a - b);
        const truth = card
          .map((p, i) => distance(p, card[(i + 1) % card.length]!))
          .sort((a, b) => a - b);
        sizes.forEach((mm, i) => expect(mm).toBeCloseTo(truth[i]!, 5));
        // Counter-clockwise, as every card.
        const area = found.outline.reduce((sum, { a, b }) => sum + a[0] * b[1] - a[1] * b[0], 0);
        expect(area).toBeGreaterThan(0);
      },
    ),
    { numRuns: 40 },
  );
});

test('corner cards pointed at lie as their tapes say, whichever way they go round', () => {
  const at: Vec[] = [
    [0, 0],
    [900, 20],
    [880, 520],
    [-30, 500],
  ];
  const tapes = [
    [0, 1],
    [1, 2],
    [2, 3],
    [3, 0],
    [0, 2],
  ].map(([i, j]) => ({ from: NAMES[i!]!, to: NAMES[j!]!, mm: distance(at[i!]!, at[j!]!) }));
  for (const v of [1, -1]) {
    const px = at.map(([x, y]): Vec => [x, v * y]);
    const found = tappedScale({ kind: 'corners', tapes }, px);
    if (!found.ok || found.scale.kind !== 'places') throw new Error(JSON.stringify(found));
    const { places } = found.scale;
    places.forEach((p, i) =>
      expect(distance(p.mm, places[0]!.mm)).toBeCloseTo(distance(at[i]!, at[0]!), 6),
    );
    // Up in mm is up in the picture, in which v runs down.
    const turn = (list: readonly Vec[]) =>
      list.reduce(
        (sum, [x, y], i) => sum + x * list[(i + 1) % 4]![1] - y * list[(i + 1) % 4]![0],
        0,
      );
    expect(turn(px) * turn(places.map(({ mm }) => mm))).toBeLessThan(0);
  }
  expect(
    tappedScale({ kind: 'paper', paper: 'a4' }, [
      [0, 0],
      [1, 0],
      [1, 1],
    ]),
  ).toMatchObject({ ok: false });
});
const NAMES = ['one', 'two', 'three', 'four'];

test('places read on a picture lie to each other as on the plane, and less surely the farther from what is known', () => {
  fc.assert(
    fc.property(camera, (seen) => {
      const box: Vec[] = [
        [20, 20],
        [190, 20],
        [190, 270],
        [20, 270],
      ];
      const px = box.map(seen);
      const pairs = [
        [0, 1],
        [1, 2],
        [2, 3],
        [3, 0],
        [0, 2],
        [1, 3],
      ] as const;
      const known = pairs.map(([i, j]) => ({
        from: px[i]!,
        to: px[j]!,
        mm: distance(box[i]!, box[j]!),
      }));
      const asked: Vec[] = [
        [100, 140],
        [300, 400],
        [120, 150],
      ];
      const found = pictureScale({ known, ask: [], place: asked.map(seen), uPx: 0.5 });
      if (!found.ok) throw new Error(JSON.stringify(found));
      for (const [i, j] of [
        [0, 1],
        [1, 2],
        [0, 2],
      ] as const)
        expect(distance(found.placed[i]!.at, found.placed[j]!.at)).toBeCloseTo(
          distance(asked[i]!, asked[j]!),
          3,
        );
      expect(found.placed[1]!.uMm).toBeGreaterThan(2 * found.placed[0]!.uMm);
    }),
    { numRuns: 30 },
  );
});
