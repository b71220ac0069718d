import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import type { NewId } from './kinds';
import type { CardRule, Hole, PatternDoc } from './pattern';

/**
 * Holes that belong together: a row from `at` on, a circle about `at` (from the first hole at
 * `turnDeg` on), or a rectangle about `at`, `turnDeg` from the horizontal.
 */
export type HolePattern = { at: Vec; turnDeg: number; diameterMm: number } & (
  | { kind: 'row'; count: number; pitchMm: number }
  | { kind: 'circle'; count: number; acrossMm: number }
  | { kind: 'rectangle'; longMm: number; wideMm: number }
);

/** Where the holes of a pattern are. */
export function placesOf(pattern: HolePattern): Vec[] {
  const { at, turnDeg } = pattern;
  const turn = (turnDeg * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const placed = ([x, y]: Vec): Vec => [at[0] + x * c - y * s, at[1] + x * s + y * c];
  switch (pattern.kind) {
    case 'row':
      return Array.from({ length: pattern.count }, (_, i) => placed([i * pattern.pitchMm, 0]));
    case 'circle':
      return Array.from({ length: pattern.count }, (_, i) => {
        const way = (2 * Math.PI * i) / pattern.count;
        return placed([
          (pattern.acrossMm / 2) * Math.cos(way),
          (pattern.acrossMm / 2) * Math.sin(way),
        ]);
      });
    case 'rectangle': {
      const [l, w] = [pattern.longMm / 2, pattern.wideMm / 2];
      return (
        [
          [-l, -w],
          [l, -w],
          [l, w],
          [-l, w],
        ] as Vec[]
      ).map(placed);
    }
  }
}

/**
 * A card with the holes of a pattern, ruled to stay one: at its pitch, on its circle or its
 * rectangle, and of one size.
 */
export function withHolePattern(doc: PatternDoc, pattern: HolePattern, newId: NewId): PatternDoc {
  const holes = placesOf(pattern).map(([x, y]): Hole => ({
    id: newId(),
    x,
    y,
    diameterMm: pattern.diameterMm,
  }));
  const ids = holes.map(({ id }) => id);
  const rules: CardRule[] = ids.length > 1 ? [{ id: newId(), kind: 'same-size', holes: ids }] : [];
  if (pattern.kind === 'rectangle') {
    const [a, b, c, d] = ids;
    rules.push({ id: newId(), kind: 'rectangle', holes: [a!, b!, c!, d!] });
  } else if (ids.length > 2) {
    rules.push({ id: newId(), kind: pattern.kind === 'row' ? 'pitch' : 'circle', holes: ids });
  }
  return { ...doc, holes: [...doc.holes, ...holes], rules: [...doc.rules, ...rules] };
}

/**
 * The figure by which ruled holes are known as one thing: their pitch in a row, their circle's
 * diameter, how wide each is; null for other rules.
 */
export function patternFigure(
  doc: PatternDoc,
  rule: CardRule,
): { what: 'pitch' | 'circle' | 'size'; mm: number } | null {
  if (rule.kind !== 'pitch' && rule.kind !== 'circle' && rule.kind !== 'same-size') return null;
  const holes = rule.holes.flatMap((id) => doc.holes.find((hole) => hole.id === id) ?? []);
  const [first, last] = [holes[0], holes[holes.length - 1]];
  if (!first || !last || holes.length < 2) return null;
  if (rule.kind === 'same-size') return { what: 'size', mm: first.diameterMm };
  if (rule.kind === 'pitch')
    return {
      what: 'pitch',
      mm: distance([first.x, first.y], [last.x, last.y]) / (holes.length - 1),
    };
  const middle = middleOf(holes);
  return {
    what: 'circle',
    mm: (2 * holes.reduce((sum, { x, y }) => sum + distance([x, y], middle), 0)) / holes.length,
  };
}

/**
 * A card with that figure another one: a row drawn out from its first hole, a circle about its
 * middle, each hole as wide.
 */
export function withPatternFigure(doc: PatternDoc, rule: CardRule, mm: number): PatternDoc {
  const now = patternFigure(doc, rule);
  if (!now || !('holes' in rule) || !(mm > 0) || !(now.mm > 0)) return doc;
  const mine = new Set(rule.holes);
  const holes = rule.holes.flatMap((id) => doc.holes.find((hole) => hole.id === id) ?? []);
  const from = now.what === 'circle' ? middleOf(holes) : ([holes[0]!.x, holes[0]!.y] as Vec);
  const by = mm / now.mm;
  return {
    ...doc,
    holes: doc.holes.map((hole) => {
      if (!mine.has(hole.id)) return hole;
      if (now.what === 'size') return { ...hole, diameterMm: mm };
      return {
        ...hole,
        x: from[0] + by * (hole.x - from[0]),
        y: from[1] + by * (hole.y - from[1]),
      };
    }),
  };
}

const middleOf = (holes: readonly Hole[]): Vec => [
  holes.reduce((sum, { x }) => sum + x, 0) / holes.length,
  holes.reduce((sum, { y }) => sum + y, 0) / holes.length,
];
