import fc from 'fast-check';
import { spread } from '../../measure/spread.arbitrary';
import type { Vec } from '../../measure/vector';
import { add, turned } from '../../measure/vector';
import { reshapeSide } from '../edit';
import { emptyPattern } from '../emptyPattern';
import { done } from '../given.arbitrary';
import { countingIds } from '../kinds';
import { outlineFromPoints } from '../legs';
import { mirrored } from '../mirror';
import { withEdgesOffset } from '../otherSide';
import { patternParts } from '../outline';
import type { PatternDoc } from '../pattern';
import { laidOverCard } from './laidOver';

/** A plate with a notch in one corner, so that it lies on itself one way only, and a bowed top. */
function notched(off: readonly Vec[], bow: number, prefix: string): PatternDoc {
  const corners = [
    [0, 0],
    [420, 0],
    [420, 170],
    [330, 170],
    [330, 260],
    [0, 260],
  ].map(([x, y], i): Vec => [x! + off[i]![0], y! + off[i]![1]]);
  const built = outlineFromPoints(corners);
  if (!built.ok) throw new Error('no outline');
  const flat = { ...emptyPattern(), ...patternParts(built.path, countingIds(prefix)) };
  return reshapeSide(flat, flat.sides[4]!.id, bow);
}
const off = fc.tuple(spread(-20, 20), spread(-20, 20));
const plates = fc.tuple(fc.tuple(off, off, off, off, off, off), spread(-0.15, 0.15));

/** A card as another hand drew it: turned, shoved, nothing of it known by the same name. */
const elsewhere = (doc: PatternDoc, turn: number, by: Vec): PatternDoc => ({
  ...doc,
  corners: doc.corners.map((c) => {
    const [x, y] = add(turned([c.x, c.y], turn), by);
    return { ...c, x, y };
  }),
});

test('a card turned, shoved and turned over lies on itself again, and every edge on its own', () => {
  fc.assert(
    fc.property(
      plates,
      spread(-Math.PI, Math.PI),
      fc.tuple(spread(-900, 900), spread(-900, 900)),
      fc.boolean(),
      ([corners, bow], turn, by, over) => {
        const here = notched(corners, bow, 'a');
        const same = notched(corners, bow, 'b');
        const laid = laidOverCard(here, elsewhere(over ? mirrored(same) : same, turn, by), over)!;
        expect(laid.meanMm).toBeLessThan(1e-5);
        expect(laid.apart).toHaveLength(here.edges.length);
        for (const { mm } of laid.apart) expect(Math.abs(mm)).toBeLessThan(1e-3);
      },
    ),
    { numRuns: 16 },
  );
}, 60_000);

test('an edge that was moved stands out by its move, and the others lie on each other', () => {
  fc.assert(
    fc.property(
      plates,
      fc.nat(5),
      spread(1, 12),
      spread(-3, 3),
      ([corners, bow], which, mm, turn) => {
        const here = notched(corners, bow, 'a');
        const edge = here.edges[which]!;
        const less = withEdgesOffset(here, { edge: edge.id, mm });
        fc.pre(less.ok);
        const laid = laidOverCard(here, elsewhere(done(less), turn, [40, -70]), false)!;
        const off = laid.apart.filter((one) => Math.abs(one.mm) > 0.05 * mm);
        // Moved inward there, this card lies farther out by that: there, or, where the edge is the
        // whole of one side, all that faces it.
        for (const one of off) expect(Math.abs(one.mm - mm)).toBeLessThan(0.06 * mm);
        const wholeSide = which === 0 || which === 5;
        if (!wholeSide || off.some((one) => one.edge === edge.id))
          expect(off.map((one) => one.edge)).toEqual([edge.id]);
        else expect(off.length).toBeLessThanOrEqual(2);
      },
    ),
    { numRuns: 16 },
  );
}, 60_000);

test('nothing lies on a card without an outline', () => {
  const here = notched(
    [
      [0, 0],
      [0, 0],
      [0, 0],
      [0, 0],
      [0, 0],
      [0, 0],
    ],
    0,
    'a',
  );
  expect(laidOverCard(here, emptyPattern(), false)).toBeNull();
  expect(laidOverCard(emptyPattern(), here, true)).toBeNull();
});
