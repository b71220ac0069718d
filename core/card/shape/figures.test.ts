import fc from 'fast-check';
import { develop } from '../../blank/fold/develop';
import { DEFAULT_SHOP, sheetMetal } from '../../blank/fold/practice';
import { area, perimeter } from '../../measure/path';
import { metalById } from '../../metal/metals';
import { spread } from '../../measure/spread.arbitrary';
import { checkCard } from '../check';
import { countingIds } from '../kinds';
import { readPattern } from '../read';
import { SHAPES, cardOfShape, shaped } from './figures';
import type { ShapeKind } from './figures';

const kinds = Object.keys(SHAPES) as ShapeKind[];
const sheet = sheetMetal(metalById('dc01'), 1, DEFAULT_SHOP);
const got = (kind: ShapeKind, figures: Record<string, number>) => {
  const found = shaped(kind, figures);
  if (!found.ok) throw new Error(`${kind}: ${JSON.stringify(found.problems)}`);
  return found;
};
/** The usual figures of a shape, larger or smaller. */
const sized = fc.tuple(fc.constantFrom(...kinds), spread(0.7, 4)).map(([kind, by]) => {
  const figures = Object.entries(SHAPES[kind]).map(([name, value]) => [
    name,
    name.endsWith('Deg') || name === 'pieces' ? value : value * by,
  ]);
  return { kind, by, figures: Object.fromEntries(figures) as Record<string, number> };
});

test('every shape, at any size, is a card that the door takes, without a fault, and that has a blank', () => {
  fc.assert(
    fc.property(sized, ({ kind, figures }) => {
      const doc = cardOfShape(got(kind, figures), countingIds('s'));
      expect(readPattern(doc)).toMatchObject({ ok: true });
      expect(checkCard(doc).filter(({ severity }) => severity !== 'care')).toEqual([]);
      expect(develop(doc, sheet, DEFAULT_SHOP)).toMatchObject({ ok: true });
      expect(doc.edges.flatMap((edge) => edge.sides).sort()).toEqual(
        doc.sides.map(({ id }) => id).sort(),
      );
    }),
    { numRuns: 25 },
  );
});

test('they have the areas that their figures say', () => {
  fc.assert(
    fc.property(spread(0.5, 5), (k) => {
      const flat = (kind: ShapeKind, figures: Record<string, number>) =>
        area(got(kind, figures).path);
      expect(flat('disc', { diameterMm: 60 * k })).toBeCloseTo((Math.PI * (60 * k) ** 2) / 4, 6);
      expect(flat('strip', { longMm: 300 * k, wideMm: 40 })).toBeCloseTo(12_000 * k, 6);
      expect(flat('gusset', { longMm: 120 * k, highMm: 90 * k, bluntMm: 15 * k })).toBeCloseTo(
        (90 * 120 - (105 * 75) / 2) * k * k,
        6,
      );
      expect(flat('tray', { longMm: 300 * k, wideMm: 200, highMm: 40 })).toBeCloseTo(
        300 * k * 200 + 2 * 40 * (300 * k + 200),
        6,
      );
      // The paper of a tube cut straight: half of what is cut off is left, for the cut goes as the
      // cosine.
      expect(flat('tube-cut', { tubeMm: 40 * k, angleDeg: 30, paperMm: 10 })).toBeCloseTo(
        Math.PI * 40 * k * (10 + 20 * k * Math.tan(Math.PI / 6)),
        -1,
      );
      expect(perimeter(got('disc', { diameterMm: 60 * k }).path)).toBeCloseTo(Math.PI * 60 * k, 6);
    }),
  );
});

test('a cone that leans has the area of its surface, by quadrature, and rims as long as its circles; upright it is a frustum', () => {
  fc.assert(
    fc.property(
      spread(60, 300),
      spread(30, 280),
      spread(40, 250),
      spread(-150, 150),
      (lowerMm, upperMm, heightMm, offsetMm) => {
        const { path, runs } = got('leaning-cone', { lowerMm, upperMm, heightMm, offsetMm });
        // The surface (a + t(b − a), turned): |∂turn × ∂t| by Simpson's rule over the rules of the
        // cone.
        const [r, s] = [lowerMm / 2, upperMm / 2];
        const density = (turn: number, t: number) => {
          const radius = r + t * (s - r);
          const [x, y] = [offsetMm + (s - r) * Math.cos(turn), (s - r) * Math.sin(turn)];
          const [u, v] = [-radius * Math.sin(turn), radius * Math.cos(turn)];
          return Math.hypot(v * heightMm, u * heightMm, u * y - v * x);
        };
        let surface = 0;
        const [n, m] = [720, 8];
        for (let i = 0; i < n; i++)
          for (let k = 0; k <= m; k++)
            surface +=
              density((2 * Math.PI * i) / n, k / m) * (k === 0 || k === m ? 1 : k % 2 ? 4 : 2);
        surface *= (2 * Math.PI) / n / (3 * m);
        expect(Math.abs(area(path) / surface - 1)).toBeLessThan(1e-3);
        const rims = [runs![0]!, runs![2]!];
        const long = (from: number, count: number) => perimeter(path.slice(from, from + count));
        const both = [long(0, rims[0]!), long(rims[0]! + 1, rims[1]!)].sort((a, b) => a - b);
        const circles = [Math.PI * lowerMm, Math.PI * upperMm].sort((a, b) => a - b);
        both.forEach((mm, i) => expect(Math.abs(mm / circles[i]! - 1)).toBeLessThan(1e-3));
      },
    ),
    { numRuns: 30 },
  );
  const upright = area(
    got('leaning-cone', { lowerMm: 120, upperMm: 70, heightMm: 80, offsetMm: 0 }).path,
  );
  expect(
    Math.abs(upright / area(got('frustum', { lowerMm: 120, upperMm: 70, heightMm: 80 }).path) - 1),
  ).toBeLessThan(1e-3);
});

test('an elbow’s pieces together have the area of a tube along its axis, the mitres being cut evenly', () => {
  const figures = { tubeMm: 60, radiusMm: 90, bendDeg: 90, pieces: 4 };
  const [end, middle] = (['elbow-end', 'elbow-middle'] as const).map((kind) =>
    area(got(kind, figures).path),
  );
  // Each of six half pieces is R·tan(15°) long on the axis.
  expect(2 * end! + 2 * middle!).toBeCloseTo(Math.PI * 60 * 6 * 90 * Math.tan(Math.PI / 12), 0);
  expect(middle).toBeCloseTo(2 * end!, 0);
});

test('a bent one measured over its outsides: its blank is shorter by what the bends take', () => {
  const takes = (kind: ShapeKind, wide: number, bends: number) => {
    const found = develop(cardOfShape(got(kind, {}), countingIds('s')), sheet, DEFAULT_SHOP);
    if (!found.ok) throw new Error(JSON.stringify(found.problems));
    const { size, folds } = found.development;
    expect(folds).toHaveLength(bends);
    return [size.heightMm, wide - folds.reduce((sum, fold) => sum + fold.allowance.deductionMm, 0)];
  };
  const [angle, expected] = takes('angle', 70, 1);
  expect(angle).toBeCloseTo(expected!, 6);
  const [channel, web] = takes('channel', 110, 2);
  expect(channel).toBeCloseTo(web!, 6);
});

test('figures that make nothing are named', () => {
  const about = (kind: ShapeKind, figures: Record<string, number>) => {
    const found = shaped(kind, figures);
    return found.ok ? [] : found.problems[0]!.about;
  };
  expect(about('disc', { diameterMm: 0 })).toEqual(['diameterMm']);
  expect(about('ring', { outsideMm: 40, insideMm: 40 })).toEqual(['insideMm']);
  expect(about('washer-plate', { holeMm: 80 })).toEqual(['holeMm']);
  expect(about('gusset', { bluntMm: 100 })).toEqual(['bluntMm']);
  expect(about('angle', { turnedDeg: 175 })).toEqual(['turnedDeg']);
  expect(about('hat', { topMm: NaN, brimMm: -1 })).toEqual(['topMm', 'brimMm']);
  expect(about('tube-notch', { offsetMm: 40 })).toEqual(['offsetMm']);
  expect(about('tube-notch', { offsetMm: -2 })).toEqual([]);
  expect(about('frustum', { upperMm: 0 })).toEqual([]);
});
