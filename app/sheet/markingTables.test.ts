import fc from 'fast-check';
import { awkwardCard } from '#core/blank/fold/awkward.arbitrary';
import { develop } from '#core/blank/fold/develop';
import { DEFAULT_SHOP } from '#core/blank/fold/practice';
import { MAX_CORNERS } from '#core/blank/markingOut';
import { markingSheet } from './markingTables';

const hundredths = (mm: number) => mm.toFixed(2);
const figures = (text: string) => (text.match(/-?\d+\.\d\d/g) ?? []).map(Number);

/** Half of the last figure on paper, for each of two distances, both ways. */
const READ_MM = 0.015;

test('on paper as in the metal: corners set out from the two lines are as far apart as the table says', () => {
  let told = 0;
  fc.assert(
    fc.property(awkwardCard, ({ doc, sheet, practice }) => {
      const found = develop(doc, sheet, practice);
      if (!found.ok) return;
      const blank = found.development;
      const { tables, prove } = markingSheet(
        blank,
        blank.holes.slice(0, 1),
        { ...DEFAULT_SHOP, ...practice },
        hundredths,
      );
      const table = (title: RegExp) => tables.find((t) => title.test(t.title));
      for (const { head, rows, wide } of tables) {
        expect(
          rows.every((row) => row.length === head.length && row.every((cell) => cell !== '')),
        ).toBe(true);
        expect(wide).toBeLessThan(head.length);
      }
      const corners = table(/^Corners/);
      if (!corners) return expect(prove).toMatch(/prick it through/);
      expect(corners.rows.length).toBeLessThanOrEqual(MAX_CORNERS);
      const at = corners.rows.map(([, along, out]) => [Number(along), Number(out)] as const);
      corners.rows.forEach(([number, , , next], i) => {
        expect(Number(number)).toBe(i + 1);
        if (!/^\d/.test(next!)) return;
        const [a, b] = [at[i]!, at[(i + 1) % at.length]!];
        expect(Math.abs(Math.hypot(a[0] - b[0], a[1] - b[1]) - Number(next))).toBeLessThan(
          2 * READ_MM,
        );
        told++;
      });
      // Diagonals prove it; nothing lies behind the lines one measures from.
      for (const [, from, to, length] of prove.matchAll(/(\d+) to (\d+) (\d+\.\d\d)/g)) {
        const [a, b] = [at[Number(from) - 1]!, at[Number(to) - 1]!];
        expect(Math.abs(Math.hypot(a[0] - b[0], a[1] - b[1]) - Number(length))).toBeLessThan(
          2 * READ_MM,
        );
      }
      for (const place of at) expect(Math.min(...place)).toBeGreaterThanOrEqual(-0.005);
      for (const row of table(/^Folds/)?.rows ?? [])
        expect(figures(row[2]!).length).toBeGreaterThan(0);
    }),
    { numRuns: 150 },
  );
  expect(told).toBeGreaterThan(300);
});
