import fc from 'fast-check';
import { develop } from '../blank/fold/develop';
import { DEFAULT_SHOP, sheetMetal } from '../blank/fold/practice';
import { toDxf } from '../format/dxf';
import { toSvg } from '../format/svg';
import { polygonArea } from '../measure/path';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { metalById } from '../metal/metals';
import { layersOfBlank } from '../sheet/layers';
import { checkCard } from './check';
import { emptyPattern } from './emptyPattern';
import { holeAlong, holeArea, holePath, holePolygon, holeReach } from './holeForm';
import { countingIds } from './kinds';
import { outlineFromPoints } from './legs';
import { mirrored } from './mirror';
import { patternParts } from './outline';
import type { Fold, Hole, PatternDoc } from './pattern';
import { readPattern } from './read';

const form = fc.oneof(
  fc.record({
    kind: fc.constant('slot' as const),
    longMm: spread(4, 60),
    turnDeg: spread(-180, 180),
  }),
  fc.record({ kind: fc.constant('square' as const), turnDeg: spread(-180, 180) }),
  fc.constant(undefined),
);
const hole = fc.record({
  id: fc.constant('h'),
  x: spread(60, 140),
  y: spread(40, 60),
  diameterMm: spread(3, 20),
  form,
});

test('area, reach and half width along any direction are those of the outline', () => {
  fc.assert(
    fc.property(hole, spread(-Math.PI, Math.PI), (one, turn) => {
      const at: Vec = [one.x, one.y];
      const polygon = holePolygon(at, one, 1e-4);
      expect(polygonArea(polygon)).toBeCloseTo(holeArea(one), 1);
      expect(Math.max(...polygon.map(([x, y]) => Math.hypot(x - at[0], y - at[1])))).toBeCloseTo(
        holeReach(one),
        2,
      );
      const u: Vec = [Math.cos(turn), Math.sin(turn)];
      expect(
        Math.max(...polygon.map(([x, y]) => (x - at[0]) * u[0] + (y - at[1]) * u[1])),
      ).toBeCloseTo(holeAlong(one, u), 2);
    }),
    { numRuns: 80 },
  );
});

const sheet = sheetMetal(metalById('dc01'), 1, DEFAULT_SHOP);
/** A plate of 200 × 160 folded up along y = 100, with a hole below. */
function plate(one: Hole): PatternDoc {
  const built = outlineFromPoints([
    [0, 0],
    [200, 0],
    [200, 160],
    [0, 160],
  ]);
  if (!built.ok) throw new Error('not built');
  const parts = patternParts(built.path, countingIds('s'));
  const at = (i: number, share: number) => ({ side: parts.sides[i]!.id, share });
  const fold: Fold = {
    id: 'f',
    path: { kind: 'between', from: at(1, 0.625), to: at(3, 0.375) },
    angleDeg: 90,
    toward: 'face',
    radiusMm: null,
    convention: 'outside-sharp',
  };
  return { ...emptyPattern(), ...parts, folds: [fold], holes: [one] };
}

test('a slot or square comes to lie on the blank as it lies on the card, is taken off its area and goes out in every file', () => {
  fc.assert(
    fc.property(hole, (one) => {
      const doc = plate(one);
      expect(readPattern(JSON.parse(JSON.stringify(doc)))).toMatchObject({ ok: true });
      const found = develop(doc, sheet, DEFAULT_SHOP);
      if (!found.ok) throw new Error(JSON.stringify(found.problems));
      const { development } = found;
      expect(development.size.parts.holesMm2).toBeCloseTo(-holeArea(one), 6);
      const [on] = development.holes;
      const [a, b] = [holePolygon([one.x, one.y], one), holePolygon(on!.centre, on!)];
      const by = [on!.centre[0] - one.x, on!.centre[1] - one.y];
      a.forEach(([x, y], i) =>
        expect(Math.hypot(b[i]![0] - x - by[0]!, b[i]![1] - y - by[1]!)).toBeLessThan(1e-5),
      );
      const layers = layersOfBlank(development);
      expect(toDxf(layers).includes('CIRCLE')).toBe(one.form === undefined);
      expect(/id="HOLE"[^§]*<path/.test(toSvg(layers, 'x'))).toBe(one.form !== undefined);
    }),
    { numRuns: 30 },
  );
});

test('turned over a slot lies as its mirror image', () => {
  fc.assert(
    fc.property(hole, (one) => {
      const over = mirrored({ ...plate(one), folds: [] }, 100).holes[0]!;
      const sorted = (polygon: Vec[]) =>
        polygon
          .map(([x, y]) => [Math.round(x * 1e4) / 1e4, Math.round(y * 1e4) / 1e4])
          .sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]!);
      const [mine, theirs] = [
        holePolygon([over.x, over.y], over),
        holePolygon([one.x, one.y], one).map(([x, y]): Vec => [200 - x, y]),
      ];
      expect(Math.abs(polygonArea(mine) - Math.abs(polygonArea(theirs)))).toBeLessThan(1e-6);
      const box = (p: readonly (readonly number[])[]) =>
        [0, 1].flatMap((k) => [Math.min(...p.map((q) => q[k]!)), Math.max(...p.map((q) => q[k]!))]);
      box(sorted(mine)).forEach((edge, i) => expect(edge).toBeCloseTo(box(sorted(theirs))[i]!, 3));
    }),
    { numRuns: 40 },
  );
});

test('what a slot reaches over or lies on is told, what it clears is not', () => {
  const slot = (x: number, y: number, turnDeg: number, id = 'h'): Hole => ({
    id,
    x,
    y,
    diameterMm: 8,
    form: { kind: 'slot', longMm: 40, turnDeg },
  });
  const codes = (holes: Hole[]) =>
    checkCard({ ...plate(holes[0]!), holes, folds: [] }).map(({ code }) => code);
  expect(codes([slot(100, 10, 0)])).toEqual([]);
  expect(codes([slot(100, 10, 90)])).toEqual(['hole-over-edge']);
  // Side by side they clear each other, crossed they do not.
  expect(codes([slot(100, 50, 0), slot(100, 60, 0, 'i')])).toEqual([]);
  expect(codes([slot(100, 50, 0), slot(100, 55, 90, 'i')])).toEqual(['holes-overlap']);
  expect(holePath([0, 0], { diameterMm: 8 })).toBeNull();
});
