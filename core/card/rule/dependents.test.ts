import fc from 'fast-check';
import { awkwardCard } from '../../blank/fold/awkward.arbitrary';
import type { CardRule, PatternDoc } from '../pattern';
import { RuleSchema } from '../pattern';
import { danglingDependents, partsOf, withoutDangling } from './dependents';

const some = (ids: readonly string[], least: number): fc.Arbitrary<string[]> =>
  ids.length < least
    ? fc.constant([])
    : fc.shuffledSubarray([...ids], { minLength: least, maxLength: Math.min(ids.length, 9) });

/** Rules of every kind about any parts there are, as many of them as its kind takes. */
function rulesOn({ sides, corners, holes, folds }: PatternDoc): fc.Arbitrary<CardRule[]> {
  const ids = (of: readonly { id: string }[]) => of.map(({ id }) => id);
  const straight = [...ids(sides), ...ids(folds)];
  const places = [...ids(corners), ...ids(holes)];
  const about = (
    kind: CardRule['kind'],
    name: string,
    from: readonly string[],
    least: number,
    most = 9,
  ) => some(from, least).map((parts) => ({ kind, [name]: parts.slice(0, most), mm: 50 }));
  const one = fc.oneof(
    about('parallel', 'sides', straight, 2),
    about('square', 'sides', straight, 2, 2),
    about('straight', 'sides', straight, 2),
    about('equal-length', 'sides', straight, 2),
    about('length', 'sides', straight, 1, 1),
    about('width', 'sides', straight, 2, 2),
    about('arc', 'corners', ids(corners), 3),
    about('pitch', 'holes', ids(holes), 3),
    about('in-line', 'places', places, 3),
    about('level', 'places', places, 2),
    about('symmetric', 'places', places, 4, 8),
    about('circle', 'holes', ids(holes), 3),
    about('rectangle', 'holes', ids(holes), 4, 4),
    about('same-size', 'holes', ids(holes), 2),
  );
  return fc.array(one, { maxLength: 12 }).map((rules) =>
    rules.flatMap((rule, i): CardRule[] => {
      const { mm, ...rest } = rule;
      const read = RuleSchema.safeParse({
        id: `rule${i}`,
        ...rest,
        ...(/^(length|width)$/.test(rule.kind) && { mm }),
      });
      return read.success && (rule.kind !== 'symmetric' || partsOf(read.data).length % 2 === 0)
        ? [read.data]
        : [];
    }),
  );
}

test('what hangs on parts that are taken away goes with them; a rule about several goes on for those that are left', () => {
  const seen = { lost: 0, shorter: 0, kept: 0 };
  fc.assert(
    fc.property(
      awkwardCard.chain(({ doc }) =>
        fc
          .tuple(rulesOn(doc), fc.func(fc.integer({ min: 0, max: 99 })), fc.constantFrom(5, 20, 50))
          .map(([rules, odds, share]) => ({ doc: { ...doc, rules }, odds, share })),
      ),
      ({ doc, odds, share }) => {
        const stays = ({ id }: { id: string }) => odds(id) >= share;
        const cut: PatternDoc = {
          ...doc,
          sides: doc.sides.filter(stays),
          corners: doc.corners.filter(stays),
          holes: doc.holes.filter(stays),
          folds: doc.folds.filter(stays),
          edges: doc.edges.filter(stays),
        };
        const found = withoutDangling(cut);
        expect(danglingDependents(found)).toEqual([]);
        expect(withoutDangling(found)).toEqual(found);
        const there = new Set(
          [...cut.sides, ...cut.corners, ...cut.holes, ...cut.folds].map(({ id }) => id),
        );
        for (const rule of doc.rules) {
          const [before, after] = [partsOf(rule), found.rules.find(({ id }) => id === rule.id)];
          const left = before.filter((id) => there.has(id));
          if (left.length === before.length) {
            expect(after).toEqual(rule);
            seen.kept++;
          } else if (after) {
            // The same kind about what is left, in its order, and still a rule that can be read.
            expect(after.kind).toBe(rule.kind);
            expect(RuleSchema.safeParse(after).success).toBe(true);
            const pairs = before.filter(
              (_, i) => there.has(before[i - (i % 2)]!) && there.has(before[i - (i % 2) + 1]!),
            );
            expect(partsOf(after)).toEqual(rule.kind === 'symmetric' ? pairs : left);
            seen.shorter++;
          } else seen.lost++;
        }
        // Nothing but what hangs on something is touched.
        const { rules: _, tucks: __, beads: ___, dismissedRules: ____, ...rest } = found;
        expect(cut).toMatchObject(rest);
        expect(found.beads).toEqual(
          cut.beads.filter(
            ({ path }) => path.kind !== 'along' || cut.edges.some(({ id }) => id === path.edge),
          ),
        );
      },
    ),
    { numRuns: 400 },
  );
  expect(Math.min(seen.lost, seen.shorter, seen.kept)).toBeGreaterThan(50);
});
