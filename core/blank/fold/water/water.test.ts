import fc from 'fast-check';
import { emptyPattern } from '../../../card/emptyPattern';
import { countingIds } from '../../../card/kinds';
import { outlineFromPoints } from '../../../card/legs';
import { patternParts, spotNearest } from '../../../card/outline';
import type { PatternDoc } from '../../../card/pattern';
import { spread } from '../../../measure/spread.arbitrary';
import type { Vec } from '../../../measure/vector';
import { metalById } from '../../../metal/metals';
import { develop } from '../develop';
import { DEFAULT_SHOP, sheetMetal } from '../practice';
import type { Lies } from './slopes';
import { fallRemedies, lapsMet, waterOn } from './water';

const [WIDE, DEEP, WALL] = [300, 200, 30];

/** A tray, its walls turned up, with holes; `turn` of its walls. */
function tray(holes: [Vec, number][], angleDeg = 90, toward: 'face' | 'back' = 'face'): PatternDoc {
  const [w, d, h] = [WIDE, DEEP, WALL];
  const built = outlineFromPoints([
    [0, 0],
    [0, -h],
    [w, -h],
    [w, 0],
    [w + h, 0],
    [w + h, d],
    [w, d],
    [w, d + h],
    [0, d + h],
    [0, d],
    [-h, d],
    [-h, 0],
  ]);
  if (!built.ok) throw new Error('no outline');
  const doc: PatternDoc = {
    ...emptyPattern(),
    ...patternParts(built.path, countingIds('s')),
    base: [w / 2, d / 2],
  };
  const at = (p: Vec) => {
    const { side, at } = spotNearest(doc, p)!.spot;
    return { side, share: at };
  };
  const lines: [Vec, Vec][] = [
    [
      [0, 0],
      [w, 0],
    ],
    [
      [w, 0],
      [w, d],
    ],
    [
      [w, d],
      [0, d],
    ],
    [
      [0, d],
      [0, 0],
    ],
  ];
  const folds = lines.map(([from, to], i): PatternDoc['folds'][number] => ({
    id: `f${i + 1}`,
    path: { kind: 'between', from: at(from), to: at(to) },
    angleDeg,
    toward,
    radiusMm: 1,
    convention: 'outside-sharp',
  }));
  return {
    ...doc,
    folds,
    holes: holes.map(([[x, y], diameterMm], i) => ({ id: `h${i + 1}`, x, y, diameterMm })),
  };
}

function made(doc: PatternDoc) {
  const found = develop(doc, sheetMetal(metalById('dc01'), 1, DEFAULT_SHOP), DEFAULT_SHOP);
  if (!found.ok) throw new Error(JSON.stringify(found.problems));
  return found.development;
}
const lies = (alongDeg: number, acrossDeg: number, more: Partial<Lies> = {}): Lies => ({
  fold: null,
  alongDeg,
  acrossDeg,
  faceUp: true,
  ...more,
});
const on = (doc: PatternDoc, how: Lies, drains: string[] = [], fallDeg = 0) => {
  const found = waterOn(made(doc), { lies: how, drains, fallDeg });
  if (!found.ok) throw new Error(JSON.stringify(found.problems));
  return found.water;
};

/** The face that stays put, by its index. */
const FLOOR = made(tray([])).order[0]!;

/** A tilt that is neither level nor steeper than its walls can hold. */
const tilt = fc
  .tuple(spread(-20, 20), spread(-20, 20))
  .filter(([a, b]) => Math.abs(a) > 0.5 && Math.abs(b) > 0.5);

test('a tilted tray holds water where its height is least, which is at a corner; a hole there drains it', () => {
  fc.assert(
    fc.property(tilt, spread(90, 110), ([a, b], angleDeg) => {
      const water = on(tray([], angleDeg), lies(a, b));
      // Linear programming: over a rectangle a plane is lowest at the corner both slopes fall
      // toward.
      const [x, y] = [a > 0 ? 0 : WIDE, b > 0 ? 0 : DEEP];
      const floor = water.runs.filter(({ from }) => from.includes(FLOOR));
      expect(floor).toHaveLength(1);
      const end = floor[0]!.end;
      if (end.kind !== 'stands') throw new Error(JSON.stringify(end));
      expect(Math.hypot(end.at[0] - x, end.at[1] - y)).toBeLessThan(8);
      expect(end.folds).toEqual(
        [[0, 2][b > 0 ? 0 : 1]!, [3, 1][a > 0 ? 0 : 1]!].sort((p, q) => p - q),
      );
      const inward = (low: number, of: number) => (low === 0 ? 9 : of - 9);
      const drained = on(tray([[[inward(x, WIDE), inward(y, DEEP)], 10]], angleDeg), lies(a, b), [
        'h1',
      ]);
      expect(drained.runs.find(({ from }) => from.includes(FLOOR))!.end).toEqual({
        kind: 'drain',
        hole: 'h1',
      });
      expect(drained.dry).toBe(true);
    }),
  );
});

test('upside down it sheds: nothing stands, whatever the tilt', () => {
  fc.assert(
    fc.property(tilt, ([a, b]) => {
      // Upside down a level along the card's own directions reads the same with the drawn side
      // down.
      const water = on(tray([]), lies(a, b, { faceUp: false }));
      expect(water.runs.filter(({ end }) => end.kind === 'stands')).toEqual([]);
    }),
  );
});

test('a drain that is not at the low place leaves water as deep as it lies higher', () => {
  fc.assert(
    fc.property(spread(1, 10), spread(60, 240), (a, x) => {
      const water = on(tray([[[x, 100], 10]]), lies(a, 0.8), ['h1']);
      const stood = water.runs.map(({ end }) => end).find((end) => end.kind === 'stands');
      if (stood?.kind !== 'stands') throw new Error('dry');
      const s = (deg: number) => Math.sin((deg * Math.PI) / 180);
      // Its lowest lip over the low corner, which is where both bends begin (outside setback R +
      // T): the plane's rise, less the hole's half across the slope.
      const lip = (x - 2) * s(a) + (100 - 2) * s(0.8) - 5 * Math.hypot(s(a), s(0.8));
      expect(stood.depthMm).toBeGreaterThan(lip - 0.02);
      expect(stood.depthMm).toBeLessThan(lip + 0.02);
    }),
  );
});

test('a level floor is told, and so is what cannot be read; the face of the level makes no odds', () => {
  const level = on(tray([]), lies(0, 0), [], 2);
  expect(level.tooFlat).toEqual([FLOOR]);
  expect(level.runs.some(({ end }) => end.kind === 'stands' && end.folds.length === 0)).toBe(true);
  expect(waterOn(made(tray([])), { lies: lies(80, 40), drains: [], fallDeg: 2 })).toMatchObject({
    ok: false,
    problems: [{ code: 'lies-impossible' }],
  });
  expect(
    waterOn(made(tray([])), { lies: lies(1, 1, { fold: 'x' }), drains: [], fallDeg: 2 }),
  ).toMatchObject({ ok: false, problems: [{ code: 'lies-on-no-face' }] });
  fc.assert(
    fc.property(tilt, ([a, b]) => {
      // Read on the wall beyond fold 2 (along x, turned up square): its x rises as the floor's
      // normal, its y as the floor's y.
      const floor = on(tray([]), lies(a, b)).lying.up;
      const onWall = lies((Math.asin(floor[2]) * 180) / Math.PI, b, {
        fold: 'f2',
        faceUp: floor[0] < 0,
      });
      const wall = on(tray([]), onWall).lying.up;
      for (const k of [0, 1, 2]) expect(wall[k]).toBeCloseTo(floor[k]!, 6);
    }),
  );
});

test('what is offered to make it fall does so', () => {
  fc.assert(
    fc.property(fc.tuple(spread(-1.5, 1.5), spread(-1.5, 1.5)), ([a, b]) => {
      const development = made(tray([[[9, 9], 10]]));
      const asked = { lies: lies(a, b), drains: ['h1'], fallDeg: 2 };
      for (const remedy of fallRemedies(development, asked)) {
        const angles = development.folds.map(({ bend }, i) =>
          remedy.kind === 'fold' && remedy.fold === i ? remedy.toDeg : bend.angleDeg,
        );
        const other =
          remedy.kind === 'lie'
            ? { ...asked.lies, alongDeg: remedy.alongDeg, acrossDeg: remedy.acrossDeg }
            : asked.lies;
        expect(waterOn(development, { ...asked, lies: other }, angles)).toMatchObject({
          ok: true,
          water: { dry: true },
        });
      }
    }),
    { numRuns: 12 },
  );
});

test('a lap is met by water from the side that rises', () => {
  const doc = tray([]);
  const lap = doc.edges.find(({ sides }) =>
    sides.includes(spotNearest(doc, [WIDE / 2, DEEP + WALL])!.spot.side),
  )!;
  const lapped = {
    ...doc,
    edges: doc.edges.map((edge) =>
      edge.id === lap.id ? { ...edge, joint: { kind: 'lap' as const, widthMm: 12 } } : edge,
    ),
  };
  // The wall beyond fold 3 opened nearly flat: down toward its edge, then away from it.
  const flat = { ...lapped, folds: lapped.folds.map((fold) => ({ ...fold, angleDeg: 3 })) };
  const top = (acrossDeg: number) => lapsMet(made(flat), flat, on(flat, lies(0, acrossDeg)).lying);
  expect(top(-10)).toEqual([{ edge: lap.id, top: 'this' }]);
  expect(top(10)).toEqual([{ edge: lap.id, top: 'other' }]);
});
