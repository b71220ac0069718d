import fc from 'fast-check';
import { develop } from '../blank/fold/develop';
import { DEFAULT_SHOP, sheetMetal } from '../blank/fold/practice';
import { spread } from '../measure/spread.arbitrary';
import { area, boxOf, points } from '../measure/path';
import { runToCompletion } from '../measure/runToCompletion';
import { metalById } from '../metal/metals';
import type { Described } from '../surface/panel/laidPanel';
import { layingPanel } from '../surface/panel/laidPanel';
import { stillToDo } from '../surface/mesh/progress';
import { stripsOf } from '../surface/flatten/strips';
import { panels } from '../surface/mesh/surfaces.arbitrary';
import { crownCard } from './crownCard';
import { emptyPattern } from './emptyPattern';
import { countingIds } from './kinds';
import { mirrored } from './mirror';
import { outlineOf } from './outline';
import { readPattern } from './read';

function laidFrom(made: Described, balance: number, keep: number[] = []) {
  const found = runToCompletion(layingPanel(made, balance, 500, keep));
  if (!found.ok) throw new Error(found.problems[0]!.code);
  return found.laid;
}

test('a laid panel is a card like any other: read, developed, mirrored; another balance keeps its edges, letters and joints', () => {
  fc.assert(
    fc.property(panels, spread(0, 1), spread(0, 1), (made, one, other) => {
      const ids = countingIds('s');
      const first = laidFrom(made, one);
      const strips = stripsOf(first.disc, first.flat, 3);
      const card = crownCard(
        emptyPattern(),
        { made, balance: one, keep: [], hold: [], part: null },
        first,
        strips,
        ids,
      );
      expect(readPattern(JSON.parse(JSON.stringify(card)))).toEqual({ ok: true, doc: card });
      expect(card.profiles).toHaveLength(strips.length);
      expect(card.marks).toHaveLength(strips.length);
      const { path } = outlineOf(card);
      expect(Math.abs(area(path) / first.blankMm2 - 1)).toBeLessThan(0.01);
      expect(
        Math.min(...points(path).map(([x]) => x), ...points(path).map(([, y]) => y)),
      ).toBeGreaterThan(-0.11);
      const sheet = sheetMetal(metalById('dc04'), 1, DEFAULT_SHOP);
      const blank = develop(card, sheet, DEFAULT_SHOP);
      expect(
        blank.ok && Math.abs(blank.development.size.areaMm2 / first.blankMm2 - 1),
      ).toBeLessThan(0.01);
      const { map, ...crown } = card.crown!;
      const back = mirrored(mirrored(card)).crown!;
      expect(back).toMatchObject(crown);
      back.map!.marks.forEach(({ at, turn }, i) =>
        expect([...at, turn]).toEqual(
          [...map!.marks[i]!.at, map!.marks[i]!.turn].map((x) => expect.closeTo(x, 6)),
        ),
      );
      // What is drawn lies on the card, where it was laid flat.
      const inside = boxOf(points(path));
      for (const [x, y] of [
        ...map!.marks.map(({ at }) => at),
        ...map!.lines.flatMap(({ places }) => places),
      ]) {
        expect(Math.max(inside.minX - x, x - inside.maxX)).toBeLessThan(0.3);
        expect(Math.max(inside.minY - y, y - inside.maxY)).toBeLessThan(0.3);
      }
      expect(mirrored(card).crown?.turned).toBe(true);
      // Joined, then laid anew.
      const joined = {
        ...card,
        edges: card.edges.map((edge) => ({ ...edge, joint: { kind: 'butt' as const, trimMm: 2 } })),
      };
      const second = laidFrom(made, other, [1]);
      const again = crownCard(
        joined,
        { made, balance: other, keep: [1], hold: [], part: null },
        second,
        stripsOf(second.disc, second.flat, 3),
        ids,
      );
      expect(readPattern(again).ok).toBe(true);
      if (second.outline.edges.length !== first.outline.edges.length) return;
      expect(again.edges.map(({ id, letter, joint }) => ({ id, letter, joint }))).toEqual(
        joined.edges.map(({ id, letter, joint }) => ({ id, letter, joint })),
      );
      expect(again.crown!.edges.map(({ edge }) => edge)).toEqual(again.edges.map(({ id }) => id));
      expect(again.profiles).toHaveLength(card.profiles.length);
    }),
    { numRuns: 8 },
  );
});

test('what a panel still lacks along a strip is the difference of two arcs, by reading its gaps', () => {
  fc.assert(
    fc.property(spread(120, 400), spread(0.06, 0.2), spread(0.5, 1), (wide, rise, share) => {
      // The strip is an arc over a chord; the panel's rise, as a share of its height.
      const arc = (height: number) => {
        const r = wide ** 2 / (8 * height) + height / 2;
        return {
          drop: (s: number) => r - Math.sqrt(r ** 2 - (s - wide / 2) ** 2),
          long: 2 * r * Math.asin(wide / 2 / r),
        };
      };
      const [strip, panel] = [arc(wide * rise), arc(wide * rise * share)];
      const at = Array.from({ length: 25 }, (_, i) => (wide * i) / 24);
      const ends = strip.drop(0) - panel.drop(0);
      const gaps = at.map((s) => ({ at: s, lowMm: panel.drop(s) - strip.drop(s) + ends }));
      const found = stillToDo(
        at.map((s) => [s, strip.drop(s)] as const),
        gaps,
      );
      if (!found.ok) throw new Error('not read');
      expect(Math.abs(found.changeMm - (strip.long - panel.long))).toBeLessThan(
        0.01 + 0.002 * strip.long * rise,
      );
      expect(found.changeMm).toBeGreaterThanOrEqual(-1e-6);
      // Too high is the same the other way.
      const over = stillToDo(
        at.map((s) => [s, panel.drop(s)] as const),
        gaps.map(({ at: s, lowMm }) => ({ at: s, lowMm: -lowMm })),
      );
      expect(over.ok && over.changeMm).toBeCloseTo(-found.changeMm, 6);
    }),
    { numRuns: 16 },
  );
  const flat = [
    [0, 5],
    [100, 0],
    [200, 5],
  ] as const;
  expect(
    stillToDo(flat, [
      { at: 0, lowMm: 0 },
      { at: 200, lowMm: 0 },
    ]),
  ).toMatchObject({ ok: true, changeMm: 0 });
  expect(stillToDo(flat, [{ at: 0, lowMm: 0 }])).toMatchObject({ ok: false });
  expect(
    stillToDo(flat, [
      { at: 0, lowMm: 0 },
      { at: 240, lowMm: 0 },
    ]),
  ).toMatchObject({ ok: false });
});
