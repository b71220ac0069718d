import fc from 'fast-check';
import type { CardConvention } from '../../card/kinds';
import { CONVENTIONS } from '../../card/kinds';
import { spread } from '../../measure/spread.arbitrary';
import type { Vec } from '../../measure/vector';
import { add, along, left, scale, sub, unit } from '../../measure/vector';
import type { Rule } from './allowance';
import { develop } from './develop';
import type { Development } from './developed';
import type { PlainCard } from './plain';
import { PlainCardSchema, fromPlain } from './plain';

/**
 * A card as a tree: a regular base with flanges on its sides, flanges on the flanges, every fold
 * with its own angle, radius and way of making. Flanges taper, so that a card never lies on itself.
 */
type Flange = {
  depth: number;
  taper: [number, number];
  angleDeg: number;
  radiusMm: number;
  made: CardConvention;
  toward: 'face' | 'back';
  next: Flange | null;
};

const { flange } = fc.letrec<{ flange: Flange; next: Flange | null }>((tie) => ({
  next: fc.option(tie('flange'), { maxDepth: 2, depthIdentifier: 'chain' }),
  flange: fc.record({
    depth: spread(22, 40),
    taper: fc.tuple(spread(0, 0.3), spread(0.01, 0.3)),
    angleDeg: spread(15, 180),
    radiusMm: spread(0, 4),
    made: fc.constantFrom(...CONVENTIONS),
    toward: fc.constantFrom('face', 'back'),
    next: tie('next'),
  }),
}));
const rule: fc.Arbitrary<Rule> = fc.oneof(
  fc.constant({ kind: 'din6935' } as const),
  fc.record({
    kind: fc.constant('machinery' as const),
    temper: fc.constantFrom('soft', 'half', 'hard'),
  }),
  fc.record({ kind: fc.constant('k' as const), k: spread(0, 0.5) }),
);
export const cardTree = fc.record({
  sides: fc.integer({ min: 3, max: 7 }),
  turn: spread(0, 6),
  flanges: fc.array(fc.option(flange), { minLength: 7, maxLength: 7 }),
  thicknessMm: spread(0.5, 2),
  rule,
});

export function cardOf(t: typeof cardTree extends fc.Arbitrary<infer T> ? T : never): PlainCard {
  const outline: Vec[] = [];
  const folds: NonNullable<PlainCard['folds']> = [];
  const side = (p: Vec, q: Vec, flange: Flange | null): void => {
    outline.push(p);
    if (!flange) return;
    const u = unit(sub(q, p));
    const out = scale(left(u), -1);
    const p2 = add(along(p, out, flange.depth), scale(u, flange.depth * flange.taper[0]));
    const q2 = add(along(q, out, flange.depth), scale(u, -flange.depth * flange.taper[1]));
    folds.push({ ...flange, from: [...p], to: [...q] });
    side(p2, q2, flange.next);
    outline.push(q2);
  };
  const radius = 60 / Math.sin(Math.PI / t.sides);
  const corner = (i: number): Vec => {
    const a = t.turn + (2 * Math.PI * i) / t.sides;
    return [radius * Math.cos(a), radius * Math.sin(a)];
  };
  for (let i = 0; i < t.sides; i++) side(corner(i), corner(i + 1), t.flanges[i]!);
  return {
    thicknessMm: t.thicknessMm,
    rule: t.rule,
    outline: outline.map(([x, y]) => [x, y]),
    folds,
    base: [0, 0],
  };
}

/**
 * A plain card as a document with its sheet; a card that cannot be one fails the test that asks.
 */
export function given(plain: PlainCard) {
  const read = fromPlain(PlainCardSchema.parse(plain));
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read;
}

/** The blank of a plain card that has one. */
export function developed(plain: PlainCard): Development {
  const { doc, sheet, practice } = given(plain);
  const found = develop(doc, sheet, practice);
  if (!found.ok) throw new Error(JSON.stringify(found.problems));
  return found.development;
}
