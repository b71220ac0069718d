import fc from 'fast-check';
import { spread } from '../measure/spread.arbitrary';
import type { Paper } from './tiles';
import { PAPERS, registerMarks, tilePages } from './tiles';

const paper = fc.constantFrom(...(Object.keys(PAPERS) as Paper[]));
const drawing = fc
  .tuple(spread(-500, 500), spread(-500, 500), spread(5, 1800), spread(5, 1200))
  .map(([minX, minY, width, height]) => ({ minX, minY, maxX: minX + width, maxY: minY + height }));

test('paper sizes: ISO 216, and 8.5 × 11 and 11 × 17 in', () => {
  // A0 is 1 m² with sides as 1 : √2; each next size is half, rounded down to whole millimetres (ISO
  // 216).
  const a = (n: number) => {
    let [w, h] = [841, 1189];
    for (let i = 0; i < n; i++) [w, h] = [Math.floor(h / 2), w];
    return [w, h];
  };
  expect([PAPERS.a4.widthMm, PAPERS.a4.heightMm]).toEqual(a(4));
  expect([PAPERS.a3.widthMm, PAPERS.a3.heightMm]).toEqual(a(3));
  expect([PAPERS.letter.widthMm / 25.4, PAPERS.letter.heightMm / 25.4]).toEqual(
    [8.5, 11].map((v) => expect.closeTo(v, 9)),
  );
  expect([PAPERS.tabloid.widthMm / 25.4, PAPERS.tabloid.heightMm / 25.4]).toEqual(
    [11, 17].map((v) => expect.closeTo(v, 9)),
  );
});

test('the pages cover the drawing, overlap by what was asked, and there are no more of them than that takes', () => {
  fc.assert(
    fc.property(drawing, paper, spread(5, 25), (box, name, overlapMm) => {
      const found = tilePages(box, name, { overlapMm });
      if (!found.ok) return expect(found.problems[0]!.code).toBe('too-many-pages');
      const { tiling } = found;
      const { tiles, windowWidthMm: w, windowHeightMm: h } = tiling;
      expect(Math.min(...tiles.map((t) => t.x))).toBeLessThanOrEqual(box.minX + 1e-6);
      expect(Math.min(...tiles.map((t) => t.y))).toBeLessThanOrEqual(box.minY + 1e-6);
      expect(Math.max(...tiles.map((t) => t.x + w))).toBeGreaterThanOrEqual(box.maxX - 1e-6);
      expect(Math.max(...tiles.map((t) => t.y + h))).toBeGreaterThanOrEqual(box.maxY - 1e-6);
      for (const t of tiles) {
        const right = tiles.find((o) => o.row === t.row && o.column === t.column + 1);
        const below = tiles.find((o) => o.row === t.row + 1 && o.column === t.column);
        if (right) expect(t.x + w - right.x).toBeCloseTo(overlapMm, 6);
        if (below) expect(below.y + h - t.y).toBeCloseTo(overlapMm, 6);
      }
      expect(tiles).toHaveLength(tiling.rows * tiling.columns);
      expect(new Set(tiles.map((t) => t.name)).size).toBe(tiles.length);
      // One column or row fewer would not reach.
      const reach = (window: number, n: number) => n * window - (n - 1) * overlapMm;
      if (tiling.columns > 1)
        expect(reach(w, tiling.columns - 1)).toBeLessThan(box.maxX - box.minX + 1e-6);
      if (tiling.rows > 1)
        expect(reach(h, tiling.rows - 1)).toBeLessThan(box.maxY - box.minY + 1e-6);
      // Nor would the sheet turned the other way take fewer.
      const { widthMm, heightMm } = PAPERS[name];
      const pages = (pw: number, ph: number) => {
        const count = (size: number, window: number) => {
          let n = 1;
          while (reach(window, n) < size - 1e-6) n++;
          return n;
        };
        return count(box.maxX - box.minX, pw - 30) * count(box.maxY - box.minY, ph - 30);
      };
      expect(tiles.length).toBeLessThanOrEqual(
        Math.min(pages(widthMm, heightMm), pages(heightMm, widthMm)),
      );
    }),
  );
});

test('a register cross lies in the overlap, at the same place of the drawing on every page that shares it', () => {
  fc.assert(
    fc.property(drawing, paper, (box, name) => {
      const found = tilePages(box, name);
      if (!found.ok) return;
      const { tiling } = found;
      const marks = tiling.tiles.map((tile) => ({ tile, marks: registerMarks(tiling, tile) }));
      for (const { tile, marks: own } of marks) {
        expect(own).toHaveLength(4);
        for (const mark of own) {
          expect(mark.x).toBeGreaterThan(tile.x);
          expect(mark.x).toBeLessThan(tile.x + tiling.windowWidthMm);
          for (const { tile: other, marks: theirs } of marks) {
            const seen =
              mark.x > other.x &&
              mark.x < other.x + tiling.windowWidthMm &&
              mark.y > other.y &&
              mark.y < other.y + tiling.windowHeightMm;
            if (!seen) continue;
            expect(
              Math.min(...theirs.map((m) => Math.hypot(m.x - mark.x, m.y - mark.y))),
            ).toBeLessThan(1e-6);
          }
        }
      }
    }),
    { numRuns: 40 },
  );
});

test('nothing to print, no room on the paper, and more pages than anyone would join are said', () => {
  const small = { minX: 0, minY: 0, maxX: 10, maxY: 10 };
  expect(tilePages({ ...small, maxX: 0 }, 'a4')).toMatchObject({
    ok: false,
    problems: [{ code: 'nothing-to-print' }],
  });
  expect(tilePages(small, 'a4', { marginMm: 104 })).toMatchObject({
    problems: [{ code: 'paper-too-small' }],
  });
  expect(tilePages({ ...small, maxX: 30_000, maxY: 30_000 }, 'a4')).toMatchObject({
    problems: [{ code: 'too-many-pages', numbers: { pages: expect.any(Number) } }],
  });
  // Rows are lettered on past Z.
  const tall = tilePages({ minX: 0, minY: 0, maxX: 20, maxY: 7000 }, 'a4');
  expect(tall.ok && tall.tiling.tiles.map((t) => t.name).slice(24, 28)).toEqual([
    'Y1',
    'Z1',
    'AA1',
    'AB1',
  ]);
});
