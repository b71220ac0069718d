import fc from 'fast-check';
import { area, closedPath, perimeter, polygonArea } from '../measure/path';
import type { Path } from '../measure/path';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import { slit } from './slit';

const plate = (wide: number, high: number): Path =>
  closedPath([
    [0, 0],
    [wide, 0],
    [wide, high],
    [0, high],
  ]);
function made(outline: Path, from: Vec, to: Vec, openMm: number) {
  const found = slit(outline, from, to, openMm);
  if (!found.ok) throw new Error(found.problems[0]!.code);
  return found;
}

test('by triangles: 4 mm over 80 gathers 1.0 mm with 20 mm of metal ahead and 7.5 with 150', () => {
  for (const [ahead, gathers] of [
    [20, 1],
    [150, 7.5],
  ] as const) {
    const found = made(plate(400, 80 + ahead), [200, 0], [200, 80], 4);
    expect(found.hingeMm).toBeCloseTo(-gathers, 9);
    expect(found.turnDeg).toBeCloseTo((-2 * Math.asin(4 / 160) * 180) / Math.PI, 12);
    expect(distance(found.wedge[0]!, found.wedge[2]!)).toBeCloseTo(4, 9);
    expect(found.overlaps).toEqual([]);
  }
});

const cuts = fc
  .record({
    ...{ wide: spread(100, 600), high: spread(60, 400), at: spread(0.2, 0.8) },
    ...{ deep: spread(0.2, 0.85), lean: spread(-0.4, 0.4), open: spread(0.005, 0.12) },
  })
  .map(({ wide, high, at, deep, lean, open }) => {
    const from: Vec = [at * wide, 0];
    const to: Vec = [from[0] + lean * deep * Math.min(high, from[0], wide - from[0]), deep * high];
    return { outline: plate(wide, high), from, to, openMm: open * distance(from, to) };
  });

test('a slit opened and closed again gives the piece as it was, but for the rim that gave', () => {
  fc.assert(
    fc.property(cuts, ({ outline, from, to, openMm }) => {
      const opened = made(outline, from, to, openMm);
      const closed = made(opened.outline, from, to, -openMm);
      expect(closed.turnDeg).toBeCloseTo(-opened.turnDeg, 9);
      expect(closed.wedge).toEqual([]);
      expect(closed.overlaps).toEqual([]);
      // But for the rim ahead, which was gathered and drawn straight: of second order in what it
      // gives, times how much it and the cut are out of square, then and before.
      const turn = Math.abs(opened.turnDeg * Math.PI) / 180;
      const lean = Math.abs(to[0] - from[0]) / (to[1] - from[1]);
      const lost = opened.hingeMm ** 2 * (lean + 2 * Math.tan(turn));
      expect(Math.abs(area(closed.outline) - area(outline))).toBeLessThan(lost + 1e-6);
      expect(Math.abs(perimeter(closed.outline) - perimeter(outline))).toBeLessThan(
        2 * Math.abs(opened.hingeMm) + 1e-6,
      );
    }),
  );
});

test('closed, what laps is as large as the wedge would have been, and the rim ahead is stretched', () => {
  fc.assert(
    fc.property(cuts, ({ outline, from, to, openMm }) => {
      const [opened, closed] = [made(outline, from, to, openMm), made(outline, from, to, -openMm)];
      expect(closed.hingeMm).toBeCloseTo(-opened.hingeMm, 9);
      expect(closed.hingeMm).toBeGreaterThan(0);
      expect(polygonArea(closed.overlaps[0]!)).toBeCloseTo(polygonArea(opened.wedge), 6);
      expect(polygonArea(opened.wedge)).toBeGreaterThan(0);
    }),
  );
});

test('the mouth stands open by as much as was asked, and what lies right of the cut stays', () => {
  fc.assert(
    fc.property(cuts, ({ outline, from, to, openMm }) => {
      const { wedge, outline: opened } = made(outline, from, to, openMm);
      expect(distance(wedge[0]!, wedge[2]!)).toBeCloseTo(openMm, 9);
      expect(distance(wedge[1]!, wedge[2]!)).toBeCloseTo(distance(from, to), 9);
      const right = outline[1]!.a;
      expect(opened.some(({ a }) => distance(a, right) < 1e-9)).toBe(true);
    }),
  );
});

test('what is no slit is told', () => {
  const code = (from: Vec, to: Vec, openMm: number) => {
    const found = slit(plate(200, 100), from, to, openMm);
    return found.ok ? 'made' : found.problems[0]!.code;
  };
  expect(code([100, 0], [100, 60], 4)).toBe('made');
  expect(code([100, 1], [100, 60], 4)).toBe('slit-off-edge');
  expect(code([100, 0], [100, 140], 4)).toBe('slit-off-edge');
  expect(code([100, 0], [100, 0], 4)).toBe('slit-off-edge');
  expect(code([100, 0], [100, 60], 120)).toBe('slit-opening');
  expect(code([100, 0], [100, 60], Number.NaN)).toBe('slit-opening');
});
