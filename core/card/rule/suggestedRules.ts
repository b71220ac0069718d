import { isStraight } from '../../measure/segment';
import type { Vec } from '../../measure/vector';
import { cross, distance, dot, sub, unit } from '../../measure/vector';
import { chordOf, endsOfFold } from '../foldPlace';
import { outlineOf } from '../outline';
import type { CardRule, PatternDoc } from '../pattern';
import type { AsMeasured } from './asMeasured';
import { offNow } from './cardRules';
import { partsOf } from './dependents';

/**
 * Tolerance within which sides are suggested as parallel or square, degrees, and as of one length,
 * as a share.
 */
const LOOKS_DEG = 1.5;
const LOOKS_SHARE = 0.01;
/** What is off by less is met as well as a pencil can, mm. */
const AS_DRAWN_MM = 0.2;
/** Shorter sides say little of what they are meant to be, mm. */
const SHORT_MM = 12;
const MAX_OFFERED = 8;
/** Maximum number of sides, the longest first, that are held against each other. */
const MAX_LOOKED_AT = 40;

/** A straight side, or a fold (`ends`: the sides it ends on). */
type Straight = {
  id: string;
  i: number;
  way: Vec;
  long: number;
  ends: readonly [string, string] | null;
};

/**
 * What looks meant and is not: sides within 1.5° of parallel, of square to their neighbour, or of
 * going straight on, and opposite sides within 1 % of one length; folds likewise against sides and
 * each other; holes within 2 % of equal pitch. Not what is ruled, or was said to be left. The
 * longest sides first.
 *
 * @param newId gives an id to each
 */
export function suggestedRules(
  doc: PatternDoc,
  newId: () => string,
): { rule: CardRule; off: AsMeasured }[] {
  const { path } = outlineOf(doc);
  const n = path.length;
  const straight = doc.sides.flatMap((side, i): Straight[] => {
    const s = path[i];
    return s && isStraight(s) && distance(s.a, s.b) >= SHORT_MM
      ? [{ id: side.id, i, way: unit(sub(s.b, s.a)), long: distance(s.a, s.b), ends: null }]
      : [];
  });
  const folded = doc.folds.flatMap((fold, k): Straight[] => {
    const chord = fold.path.kind === 'between' ? chordOf(doc, fold) : null;
    const [a, b] = (chord && endsOfFold(doc, fold)) ?? [null, null];
    return chord && a && b && distance(a, b) >= SHORT_MM
      ? [
          {
            id: fold.id,
            i: n + k,
            way: unit(sub(b, a)),
            long: distance(a, b),
            ends: [chord.from.side, chord.to.side],
          },
        ]
      : [];
  });
  const offers: CardRule[] = [];
  const known = (kind: CardRule['kind'], ids: readonly string[]) =>
    [...doc.rules, ...doc.dismissedRules].some(
      (one) =>
        (one.kind === kind || (kind === 'parallel' && one.kind === 'width')) &&
        ids.every((id) => ('sides' in one ? (one.sides as readonly string[]) : []).includes(id)),
    );
  const within = Math.sin((LOOKS_DEG * Math.PI) / 180);
  const byLength = [...straight, ...folded].sort((a, b) => b.long - a.long).slice(0, MAX_LOOKED_AT);
  for (const [k, a] of byLength.entries())
    for (const b of byLength.slice(k + 1)) {
      const pair: [string, string] = a.i < b.i ? [a.id, b.id] : [b.id, a.id];
      const [sine, cosine] = [Math.abs(cross(a.way, b.way)), dot(a.way, b.way)];
      if (a.ends || b.ends) {
        // A fold is held against every side and fold for being parallel, and for square against the
        // sides it ends on.
        const meets = (a.ends ?? b.ends)!.includes(a.ends ? b.id : a.id);
        if (sine < within && !meets) offers.push({ id: newId(), kind: 'parallel', sides: pair });
        else if (Math.abs(cosine) < within && meets)
          offers.push({ id: newId(), kind: 'square', sides: pair });
        continue;
      }
      const next = (a.i + 1) % n === b.i || (b.i + 1) % n === a.i;
      if (sine < within && next && cosine > 0)
        offers.push({ id: newId(), kind: 'straight', sides: pair });
      else if (sine < within && !next && cosine < 0) {
        offers.push({ id: newId(), kind: 'parallel', sides: pair });
        if (Math.abs(a.long - b.long) < LOOKS_SHARE * a.long)
          offers.push({ id: newId(), kind: 'equal-length', sides: pair });
      } else if (Math.abs(cosine) < within && next)
        offers.push({ id: newId(), kind: 'square', sides: pair });
    }
  if (doc.holes.length >= 3 && doc.holes.length <= 40) offers.push(...pitched(doc, newId));
  const open = offers.filter((rule) => !known(rule.kind, partsOf(rule)));
  const off = offNow(doc, open);
  return open
    .flatMap((rule, i) =>
      off[i] && (off[i].offMm ?? 0) > AS_DRAWN_MM ? [{ rule, off: off[i] }] : [],
    )
    .slice(0, MAX_OFFERED);
}

/** All holes of the card as one row at equal pitch, where they look it. */
function pitched(doc: PatternDoc, newId: () => string): CardRule[] {
  const [first] = doc.holes;
  const far = doc.holes.reduce((most, hole) =>
    distance([hole.x, hole.y], [first!.x, first!.y]) >
    distance([most.x, most.y], [first!.x, first!.y])
      ? hole
      : most,
  );
  const way = unit(sub([far.x, far.y], [first!.x, first!.y]));
  const row = doc.holes
    .map((hole) => ({ id: hole.id, x: dot([hole.x, hole.y], way), p: [hole.x, hole.y] as Vec }))
    .sort((a, b) => a.x - b.x);
  const steps = row.slice(1).map((one, i) => distance(one.p, row[i]!.p));
  const mean = steps.reduce((sum, step) => sum + step, 0) / steps.length;
  const off = [
    ...steps.map((step) => Math.abs(step - mean)),
    ...row.map(({ p }) => Math.abs(cross(way, sub(p, row[0]!.p)))),
  ];
  return mean > 0 && Math.max(...off) < 2 * LOOKS_SHARE * mean + 0.5
    ? [{ id: newId(), kind: 'pitch', holes: row.map(({ id }) => id) }]
    : [];
}
