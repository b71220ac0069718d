import fc from 'fast-check';
import { USUAL_BRAKES } from '../../../machine/brake';
import { spread } from '../../../measure/spread.arbitrary';
import type { Vec } from '../../../measure/vector';
import { develop } from '../develop';
import { PlainCardSchema, fromPlain } from '../plain';
import { anyOrderBackward, backwardSearch, reachability } from './backwardSearch';
import type { SearchProblem, FoldStep } from './searchProblem';
import type { SearchNode } from './forwardSearch';
import { aStarSearch, costOf, turningLowerBound } from './forwardSearch';
import { checkedOrder, foldOrder, foldability } from './solve';
import { stepper } from './foldStep';
import { piece } from './strips.arbitrary';

/**
 * The best order is the best: against every order there is, and the search from the end against the
 * one from the beginning.
 */

/** A plate with a chain of folds across it, and tabs on both its first and its last part. */
const cards = fc
  .record({
    widths: fc.array(spread(18, 90), { minLength: 1, maxLength: 4 }),
    bends: fc.array(
      fc.record({
        angleDeg: fc.constantFrom(30, 60, 90, 110),
        toward: fc.constantFrom('face' as const, 'back' as const),
      }),
      { minLength: 7, maxLength: 7 },
    ),
    tabs: fc.array(fc.boolean(), { minLength: 2, maxLength: 2 }),
    long: spread(90, 260),
    deep: spread(14, 40),
  })
  .map(({ widths, bends, tabs, long, deep }) => {
    let y = 0;
    const folds = widths.map((width, i) => ({
      from: [0, (y += width)] as Vec,
      to: [long, y] as Vec,
      ...bends[i]!,
    }));
    const top = y + 40;
    const [left, right]: Vec[][] = [[], []];
    if (tabs[0]) {
      right!.push(
        [long, 6],
        [long + deep, 6],
        [long + deep, widths[0]! - 6],
        [long, widths[0]! - 6],
      );
      folds.push({ from: [long, 6], to: [long, widths[0]! - 6], ...bends[5]! });
    }
    if (tabs[1]) {
      left!.push([0, top - 8], [-deep, top - 8], [-deep, y + 8], [0, y + 8]);
      folds.push({ from: [0, y + 8], to: [0, top - 8], ...bends[6]! });
    }
    return piece([[0, 0], [long, 0], ...right!, [long, top], [0, top], ...left!], folds);
  });
const machines = fc
  .record({
    which: fc.constantFrom('box-and-pan' as const, 'folder' as const),
    openMm: spread(15, 90),
    noseDepthMm: spread(20, 60),
  })
  .map(({ which, ...figures }) => ({ ...USUAL_BRAKES[which], ...figures }));

const permutations = (some: readonly number[]): number[][] =>
  some.length === 0
    ? [[]]
    : some.flatMap((one) =>
        permutations(some.filter((x) => x !== one)).map((rest) => [one, ...rest]),
      );

test('no order of all there are takes less turning, or as much with fewer changes of fingers; and where none goes none is found', () => {
  const seen = { found: 0, none: 0 };
  fc.assert(
    fc.property(cards, machines, (development, brake) => {
      const handling = permutations(development.folds.map((_, i) => i)).flatMap((order) => {
        const checked = checkedOrder(development, brake, order);
        return checked.ok ? [checked.turnings * 1000 + checked.fingerChanges] : [];
      });
      const found = foldOrder(development, brake);
      seen[found.ok ? 'found' : 'none']++;
      expect(found.ok).toBe(handling.length > 0);
      expect(foldability(development, brake)()).toBe(found.ok);
      if (found.ok)
        expect([found.exact, found.turnings * 1000 + found.fingerChanges]).toEqual([
          true,
          Math.min(...handling),
        ]);
    }),
    { numRuns: 25 },
  );
  expect(Math.min(seen.found, seen.none)).toBeGreaterThan(5);
}, 60_000);

/** What a way costs from its first step on, by the sum over its steps. */
function costOfAll(way: readonly FoldStep[], { transitions: known }: SearchProblem): number {
  const start: SearchNode = {
    made: way[0]!.made,
    fold: -1,
    side: 'base',
    cost: 0,
    estimate: 0,
    parent: null,
  };
  return way.reduce<SearchNode>((at, { fold, side, made }) => {
    const found = known.step(fold, side, made);
    if (!found.ok) throw new Error(`step ${fold} cannot be made`);
    expect(made).toBe(at.made);
    return {
      ...at,
      made: made | (1 << fold),
      fold,
      side,
      cost: at.cost + costOf(at, { fold, side, found }, known),
    };
  }, start).cost;
}

test('from the end and from the beginning it comes to the same cost, with some folds made or left to the hand before; any way found is a way', () => {
  fc.assert(
    fc.property(
      cards,
      machines,
      fc.nat(),
      fc.nat(),
      fc.boolean(),
      (development, brake, bits, byHand, longFirst) => {
        const angles = development.folds.map(({ bend }) => bend.angleDeg);
        const machine = stepper(development, brake, angles);
        if (!machine.ok) throw new Error(JSON.stringify(machine));
        const n = angles.length;
        const long = machine.poses.map(
          ({ base }) => (longFirst ? -1 : 1) * (base.line[1] - base.line[0]),
        );
        const all = (1 << n) - 1 - (n > 2 ? (1 << (byHand % n)) & byHand : 0);
        const folding: SearchProblem = {
          count: n,
          goal: all,
          start: bits & (bits >> 7) & all,
          transitions: { poses: machine.poses, long, step: machine.step },
        };
        const [back, ahead] = [
          backwardSearch(folding),
          aStarSearch({ ...folding, lowerBound: turningLowerBound(machine.poses, all) }, Infinity),
        ];
        const any = anyOrderBackward(folding, Infinity);
        expect(ahead.exact).toBe(true);
        if (ahead.made === null) {
          expect([back, any]).toEqual(['none', null]);
          const { most, reached, whole } = reachability(folding, Infinity);
          expect([whole, most & ~reached, most === all]).toEqual([true, 0, false]);
          return;
        }
        if (!Array.isArray(back) || !any) throw new Error('no way back');
        expect([back.length, any.length]).toEqual([ahead.made.length, ahead.made.length]);
        if (back.length === 0) return;
        expect(costOfAll(back, folding)).toBe(costOfAll(ahead.made, folding));
        expect(costOfAll(any, folding)).toBeGreaterThanOrEqual(costOfAll(back, folding));
        expect(backwardSearch(folding, 1)).toBe('over');
      },
    ),
    { numRuns: 80 },
  );
}, 60_000);

test('a lap counts for as much in the machine as the same part drawn wider by the lap', () => {
  const seen = { found: 0, none: 0 };
  const chains = fc.record({
    wide: spread(20, 70),
    lip: spread(14, 40),
    lap: spread(5, 45),
    up: fc.boolean(),
  });
  fc.assert(
    fc.property(chains, machines, ({ wide, lip, lap, up }, brake) => {
      const card = (end: number) => {
        const at = [30, 30 + wide, 30 + 2 * wide];
        const folds = at.map((y, i) => ({
          from: [0, y],
          to: [200, y],
          angleDeg: 90,
          toward: up || i > 0 ? 'face' : 'back',
        }));
        const top = at[2]! + end;
        return fromPlain(
          PlainCardSchema.parse({
            thicknessMm: 1,
            rule: { kind: 'din6935' },
            outline: [
              [0, 0],
              [200, 0],
              [200, top],
              [0, top],
            ],
            folds,
            base: [100, 15],
          }),
        );
      };
      const answer = (end: number, widthMm: number) => {
        const read = card(end);
        if (!read.ok) throw new Error(JSON.stringify(read));
        const plain = develop(read.doc, read.sheet, read.practice);
        if (!plain.ok) throw new Error(JSON.stringify(plain));
        const highest = (id: string) =>
          Math.min(
            ...plain.development.edges
              .find((edge) => edge.id === id)!
              .net.map(({ a, b }) => Math.min(a[1], b[1])),
          );
        const last = read.doc.edges.reduce((best, edge) =>
          highest(edge.id) > highest(best.id) ? edge : best,
        );
        const doc = {
          ...read.doc,
          edges: read.doc.edges.map((edge) =>
            edge === last ? { ...edge, joint: { kind: 'lap' as const, widthMm } } : edge,
          ),
        };
        const found = develop(doc, read.sheet, read.practice);
        if (!found.ok) throw new Error(JSON.stringify(found));
        const order = foldOrder(found.development, brake);
        return order.ok ? order.steps.map(({ fold, clamped }) => [fold, clamped]) : order.problems;
      };
      const [lapped, wider] = [answer(lip, lap), answer(lip + lap, 0)];
      expect(lapped).toEqual(wider);
      seen[Array.isArray(lapped[0]) ? 'found' : 'none']++;
    }),
    { numRuns: 40 },
  );
  expect(Math.min(seen.found, seen.none)).toBeGreaterThan(5);
});

test('a comb of fourteen tabs, any of which can be last, is still answered exactly', () => {
  const tabs = Array.from({ length: 14 }, (_, i) => 10 + i * 50);
  const outline: Vec[] = [
    [0, 0],
    ...tabs.flatMap((x): Vec[] => [
      [x, 0],
      [x, -30],
      [x + 40, -30],
      [x + 40, 0],
    ]),
    [710, 0],
    [710, 200],
    [0, 200],
  ];
  const folds = tabs.map((x) => ({
    from: [x, 0] as Vec,
    to: [x + 40, 0] as Vec,
    angleDeg: 90,
    toward: 'face' as const,
  }));
  expect(foldOrder(piece(outline, folds), USUAL_BRAKES['box-and-pan'])).toMatchObject({
    ok: true,
    exact: true,
    turnings: 0,
    fingerChanges: 0,
  });
});
