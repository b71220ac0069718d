import fc from 'fast-check';
import { DEFAULT_SHOP } from '../blank/fold/practice';
import { emptyPattern } from '../card/emptyPattern';
import { countingIds } from '../card/kinds';
import { edgeLength, patternParts } from '../card/outline';
import type { PatternDoc } from '../card/pattern';
import { closedPath } from '../measure/path';
import { spread } from '../measure/spread.arbitrary';
import { metalById } from '../metal/metals';
import { crownSteps } from './crownSteps';
import type { ShapeGiven } from './stepMaking';

const metal = metalById('dc04');
const card: PatternDoc = {
  ...emptyPattern(),
  ...patternParts(
    closedPath([
      [0, 0],
      [400, 0],
      [400, 260],
      [0, 260],
    ]),
    countingIds('p'),
  ),
};
const given = (
  changes: readonly number[],
  raise: boolean,
  ways: readonly (1 | -1)[],
): ShapeGiven => ({
  pattern: {
    ...card,
    crown: {
      edges: changes.map((changeMm, i) => ({
        edge: card.edges[i % card.edges.length]!.id,
        changeMm,
      })),
      raise: raise ? { areaMm2: 9000, most: 0.06 } : null,
    } as unknown as NonNullable<PatternDoc['crown']>,
  },
  development: null as never,
  metal,
  thicknessMm: 1,
  shop: {
    ...DEFAULT_SHOP,
    bites: [...ways, ...ways].map((sign) => ({
      metal: 'dc04' as const,
      thicknessMm: 1,
      tool: null,
      piece: null,
      at: '',
      widthMm: 25,
      lengthMm: 100,
      bites: 10,
      afterMm: 100 * (1 + sign * 0.04),
      uMm: 0.5,
    })),
  },
  foldOrder: [],
  turnedAfter: [],
  gaps: [],
});
const changes = fc.array(fc.oneof(spread(-12, 12), spread(-0.29, 0.29)), {
  maxLength: card.edges.length,
  minLength: 1,
});

test('of a panel curved two ways the middle comes first; each edge that changes is worked by as much, the others are let be', () => {
  fc.assert(
    fc.property(changes, fc.boolean(), fc.subarray([1, -1] as const), (list, raise, ways) => {
      const steps = crownSteps(given(list, raise, ways));
      expect(steps.slice(0, raise ? 2 : 0).map(({ what }) => what)).toEqual(
        raise ? ['raise', 'smooth'] : [],
      );
      const edges = steps.filter(({ what }) => what === 'strain');
      const worked = list.flatMap((changeMm, i) =>
        Math.abs(changeMm) < 0.3 ? [] : [{ id: card.edges[i]!.id, changeMm }],
      );
      expect(edges.map(({ about: [id], figures: { changeMm } }) => ({ id, changeMm }))).toEqual(
        worked,
      );
      for (const { about, figures, reason, counts } of edges) {
        const freeMm = edgeLength(
          card,
          card.edges.find(({ id }) => id === about[0])!,
        );
        expect(figures.strain! * freeMm).toBeCloseTo(figures.changeMm!, 9);
        expect(reason).toBe(figures.changeMm! > 0 ? 'crown-stretch' : 'crown-shrink');
        const knows = ways.includes(Math.sign(figures.changeMm!) as 1 | -1);
        expect(counts).toEqual({ of: 'bites', wanted: knows ? expect.any(Number) : null });
        // Ten bites made 4 % of 100 mm: to the nearest bite, and one at least.
        if (knows)
          expect(
            Math.abs(
              counts!.wanted! -
                Math.abs(
                  (Math.log1p(figures.strain!) * freeMm) /
                    ((Math.log(figures.changeMm! > 0 ? 1.04 : 0.96) * 100) / 10),
                ),
            ),
          ).toBeLessThan(1);
      }
      // A strip is asked for once for each way that is worked and not known, before the first edge
      // that is worked so.
      const strips = steps.filter(({ what }) => what === 'test-strip').map(({ reason }) => reason);
      const unknown = [...new Set(worked.map(({ changeMm }) => Math.sign(changeMm)))].filter(
        (way) => !ways.includes(way as 1 | -1),
      );
      expect(strips).toEqual(
        unknown.map((way) => (way > 0 ? 'stretch-not-proven' : 'shrink-not-proven')),
      );
      for (const reason of strips) {
        const way = reason === 'stretch-not-proven' ? 'crown-stretch' : 'crown-shrink';
        expect(steps.findIndex((step) => step.reason === reason)).toBeLessThan(
          steps.findIndex((step) => step.reason === way),
        );
      }
    }),
  );
  expect(crownSteps({ ...given([5], false, []), pattern: card })).toEqual([]);
});
