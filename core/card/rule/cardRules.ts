import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import { bulgeThrough } from '../../measure/segment';
import type { Vec } from '../../measure/vector';
import { along, cross, distance, sub } from '../../measure/vector';
import type { CardRule, Hole, PatternDoc, Side } from '../pattern';
import { partsOf, withoutDangling } from './dependents';
import { ruled } from './ruled';
import type { AsMeasured } from './asMeasured';
import { asMeasured } from './asMeasured';
import type { FoldLine } from './ruledFolds';
import { foldAt, foldLines, tied } from './ruledFolds';
import type { Rule } from './rules';

/** The rules of a card, by ids, on the solver that knows only numbers. */

/**
 * A card that follows its rules: what has moved most, mm, and how far each rule was from being met
 * before, in their order.
 */
export type RuledCard = { doc: PatternDoc; movedMm: number; asMeasured: AsMeasured[] };

/**
 * What stays where it is while a card is ruled: corners by their ids, and the ends (0 and 1) of
 * folds.
 */
export type Held = { corners: readonly string[]; folds: readonly { fold: string; end: 0 | 1 }[] };

/**
 * The card moved as little as can be so that all its rules are met, some of it held where it is.
 * Folds that are ruled slide along the sides they end on.
 *
 * Problems: `rules-contradict` (about: the ids of the rules that cannot all be met; numbers: by how
 * much, mm; nothing is moved), `rule-unreadable` (about: ids), `fold-leaves-side` (about: the ids
 * of a fold's rules: to meet them it would have to go beyond the side it ends on).
 */
export function ruledCard(
  doc: PatternDoc,
  held: Held = { corners: [], folds: [] },
): Result<RuledCard> {
  const order = doc.sides.map(({ from }) => from);
  const at = new Map(doc.corners.map((c) => [c.id, [c.x, c.y] as Vec]));
  const points = order.map((id) => at.get(id)!);
  const lines = foldLines(doc);
  const numbers = numbersOf(doc, lines);
  const placed = doc.rules.filter((rule): rule is Placed => rule.kind !== 'same-size');
  const rules = placed.map((rule) => numbered(rule, numbers));
  const ends = (i: number) =>
    [
      points.length + doc.holes.length + 2 * i,
      points.length + doc.holes.length + 2 * i + 1,
    ] as const;
  const ties = lines.flatMap((line, i) =>
    tied(doc, line, points.length + i, ends(i), (side) => numbers.side.get(side) ?? -1),
  );
  const hold = [
    ...held.corners.flatMap((id) => numbers.corner.get(id) ?? []),
    ...held.folds.flatMap(({ fold, end }) => {
      const i = lines.findIndex((line) => line.fold.id === fold);
      return i < 0 ? [] : [ends(i)[end]];
    }),
  ];
  const found = ruled(
    points,
    doc.holes.map(({ x, y }): Vec => [x, y]),
    [...rules, ...ties, ...(hold.length > 0 ? [{ kind: 'hold', points: hold } as const] : [])],
    lines.map((line) => line.ends),
  );
  if (!found.ok)
    return {
      ok: false,
      problems: found.problems.map((problem) => ({
        ...problem,
        about: (problem.about ?? []).flatMap((i) => placed[Number(i)]?.id ?? []),
      })),
    };
  const places = new Map(order.map((id, i) => [id, found.points[i]!]));
  const moved: PatternDoc = {
    ...doc,
    corners: doc.corners.map((c) => {
      const [x, y] = places.get(c.id) ?? [c.x, c.y];
      return { ...c, x, y };
    }),
    holes: ofOneSize(doc, null).map((hole, i) => ({
      ...hole,
      x: found.holes[i]![0],
      y: found.holes[i]![1],
    })),
  };
  const round = { ...moved, sides: roundSides(moved) };
  const folds = new Map(
    lines.map(({ fold }, i) => [fold.id, foldAt(doc, round, fold, found.lines[i]!)]),
  );
  const off = [...folds].flatMap(([id, fold]) => (fold === null ? [id] : []));
  if (off.length > 0) {
    const about = doc.rules
      .filter((rule) => partsOf(rule).some((id) => off.includes(id)))
      .map(({ id }) => id);
    return failure({ code: 'fold-leaves-side', about });
  }
  return {
    ok: true,
    doc: { ...round, folds: doc.folds.map((fold) => folds.get(fold.id) ?? fold) },
    movedMm: found.movedMm,
    asMeasured: doc.rules.map((rule, number) =>
      rule.kind === 'same-size'
        ? sizesOff(doc, rule, number)
        : { ...found.asMeasured[placed.indexOf(rule)]!, rule: number },
    ),
  };
}

/** A rule about where things are, as the solver knows it. */
type Placed = Exclude<CardRule, { kind: 'same-size' }>;

/**
 * The holes of a card, those that are ruled of one size so: as wide as the one that was changed by
 * hand, if one was, else as the mean of them.
 */
function ofOneSize(doc: PatternDoc, before: PatternDoc | null): Hole[] {
  const was = new Map(before?.holes.map(({ id, diameterMm }) => [id, diameterMm]));
  let { holes } = doc;
  for (const rule of doc.rules) {
    if (rule.kind !== 'same-size') continue;
    const group = holes.filter(({ id }) => rule.holes.includes(id));
    if (group.length === 0) continue;
    const byHand = group.find(({ id, diameterMm }) => was.has(id) && was.get(id) !== diameterMm);
    const mean = group.reduce((sum, { diameterMm }) => sum + diameterMm, 0) / group.length;
    // Alike already, they stay to the last figure.
    const alike = group.every(({ diameterMm }) => diameterMm === group[0]!.diameterMm);
    const size =
      byHand?.diameterMm ?? (alike ? group[0]!.diameterMm : Math.round(mean * 1000) / 1000);
    holes = holes.map((hole) =>
      rule.holes.includes(hole.id) ? { ...hole, diameterMm: size } : hole,
    );
  }
  return holes;
}

/** Of holes of one size: how far the smallest and the largest are apart. */
function sizesOff(
  doc: PatternDoc,
  rule: Extract<CardRule, { kind: 'same-size' }>,
  number: number,
): AsMeasured {
  const sizes = doc.holes
    .filter(({ id }) => rule.holes.includes(id))
    .map(({ diameterMm }) => diameterMm);
  const [leastMm, mostMm] = [Math.min(...sizes), Math.max(...sizes)];
  return { rule: number, offMm: mostMm - leastMm, leastMm, mostMm };
}

/**
 * How far each rule is from being met as the card lies now, in their order; null where it names
 * what is not there.
 */
export function offNow(
  doc: PatternDoc,
  rules: readonly CardRule[] = doc.rules,
): (AsMeasured | null)[] {
  const at = new Map(doc.corners.map((c) => [c.id, c]));
  const places = [...doc.sides.map(({ from }) => at.get(from)!), ...doc.holes];
  const lines = foldLines({ ...doc, rules: [...rules] });
  const x = Float64Array.from([
    ...places.flatMap((place) => [place.x, place.y]),
    ...lines.flatMap(({ ends }) => ends.flat()),
  ]);
  const counted = { points: doc.sides.length, holes: doc.holes.length, lines: lines.length };
  const numbers = numbersOf(doc, lines);
  const there = new Set([...numbers.side.keys(), ...numbers.corner.keys(), ...numbers.hole.keys()]);
  return rules.map((rule) =>
    !partsOf(rule).every((id) => there.has(id))
      ? null
      : rule.kind === 'same-size'
        ? sizesOff(doc, rule, 0)
        : asMeasured([numbered(rule, numbers)], counted, x)[0]!,
  );
}

/** A rule is met when it is off by no more than this, mm. */
const MET_MM = 1e-5;
export const isMet = (off: AsMeasured | null): boolean =>
  off !== null && (off.offMm ?? 0) <= MET_MM && (off.offDeg ?? 0) <= 1e-6;

/**
 * A card after an edit, its rules still met: what was moved by hand is held where it was put if
 * that can be, else let go. Where the rules cannot be met either way the edit stands as it is, and
 * they are told as not met.
 */
export function keptToRules(before: PatternDoc, edited: PatternDoc): PatternDoc {
  const there = withoutDangling(edited);
  if (there.rules.length === 0) return there;
  const holes = ofOneSize(there, before);
  const next = holes === there.holes ? there : { ...there, holes };
  const where = new Map(before.corners.map((c) => [c.id, c]));
  const byHand = next.corners.filter((c) => {
    const was = where.get(c.id);
    return was !== undefined && (was.x !== c.x || was.y !== c.y);
  });
  // Everything moved is a card turned or put elsewhere: nothing of it is held.
  const corners = byHand.length < next.corners.length ? byHand.map(({ id }) => id) : [];
  const folds = corners.length === 0 ? foldsByHand(before, next) : [];
  // A fold that was laid anew moves no corner if it need not.
  const tries: Held[] = [
    ...(folds.length > 0 ? [{ corners: next.corners.map(({ id }) => id), folds }] : []),
    ...(corners.length + folds.length > 0 ? [{ corners, folds }] : []),
  ];
  for (const held of tries) {
    const found = ruledCard(next, held);
    if (found.ok) return found.doc;
  }
  const free = ruledCard(next);
  return free.ok ? free.doc : next;
}

/** The ends of folds that were placed anew by hand. */
function foldsByHand(before: PatternDoc, next: PatternDoc): Held['folds'] {
  const was = new Map(before.folds.map((fold) => [fold.id, fold.path]));
  return next.folds.flatMap(({ id, path }): Held['folds'][number][] => {
    const old = was.get(id);
    const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
    if (!old || same(old, path)) return [];
    const both = [0, 1].map((end) => ({ fold: id, end: end as 0 | 1 }));
    if (old.kind !== 'between' || path.kind !== 'between') return both;
    return both.filter(({ end }) =>
      end === 0 ? !same(old.from, path.from) : !same(old.to, path.to),
    );
  });
}

type Numbers = {
  corner: Map<string, number>;
  side: Map<string, number>;
  hole: Map<string, number>;
};
const numbersOf = (doc: PatternDoc, lines: readonly FoldLine[]): Numbers => ({
  corner: new Map(doc.sides.map(({ from }, i) => [from, i])),
  side: new Map([...doc.sides, ...lines.map(({ fold }) => fold)].map(({ id }, i) => [id, i])),
  hole: new Map(doc.holes.map(({ id }, i) => [id, i])),
});

function numbered(rule: Placed, { corner, side, hole }: Numbers): Rule {
  const sides = 'sides' in rule ? rule.sides.map((id) => side.get(id) ?? -1) : [];
  const two = [sides[0] ?? -1, sides[1] ?? -1] as const;
  switch (rule.kind) {
    case 'parallel':
    case 'straight':
    case 'equal-length':
      return { kind: rule.kind, sides };
    case 'square':
      return { kind: 'square', sides: two };
    case 'length':
      return { kind: 'length', side: two[0], mm: rule.mm };
    case 'width':
      return { kind: 'width', sides: two, mm: rule.mm };
    case 'arc':
      return { kind: 'arc', points: rule.corners.map((id) => corner.get(id) ?? -1) };
    case 'pitch':
    case 'circle':
      return { kind: rule.kind, holes: rule.holes.map((id) => hole.get(id) ?? -1) };
    case 'rectangle': {
      const [a, b, c, d] = rule.holes.map((id) => hole.get(id) ?? -1);
      return { kind: 'rectangle', holes: [a!, b!, c!, d!] };
    }
    case 'in-line':
    case 'level':
    case 'symmetric': {
      const at = (id: string) =>
        corner.get(id) ?? (hole.has(id) ? corner.size + hole.get(id)! : -1);
      return { kind: rule.kind, places: rule.places.map(at) };
    }
  }
}

/** Sides between corners that lie on one arc are arcs of it. */
function roundSides(doc: PatternDoc): Side[] {
  let { sides } = doc;
  const at = new Map(doc.corners.map((c) => [c.id, [c.x, c.y] as Vec]));
  for (const rule of doc.rules) {
    if (rule.kind !== 'arc') continue;
    const on = new Set(rule.corners);
    const all = rule.corners.map((id) => at.get(id)!);
    const three = [all[0]!, all[Math.floor((all.length - 1) / 2)]!, all[all.length - 1]!] as const;
    sides = sides.map((side) => {
      if (!on.has(side.from) || !on.has(side.to)) return side;
      const [a, b] = [at.get(side.from)!, at.get(side.to)!];
      const bulge = bulgeOn(three, a, b);
      return { ...side, shape: bulge === 0 ? { kind: 'line' } : { kind: 'arc', bulge } };
    });
  }
  return sides;
}

/** The bulge of the shorter arc from one place to another on the circle of three. */
function bulgeOn([p, q, r]: readonly [Vec, Vec, Vec], a: Vec, b: Vec): number {
  const turn = bulgeThrough(p, q, r);
  if (Math.abs(turn) < 1e-9) return 0;
  const radius = distance(p, r) / 2 / Math.abs(Math.sin(2 * Math.atan(turn)));
  const half = distance(a, b) / 2;
  // Which way round: as the three lie, whether the side runs along with them or against.
  const centre = along(
    along(p, sub(r, p), 0.5),
    [-(r[1] - p[1]), r[0] - p[0]],
    (1 - turn * turn) / (4 * turn),
  );
  const sign = Math.sign(cross(sub(a, centre), sub(b, centre))) || 1;
  return sign * Math.tan(Math.asin(Math.min(1, half / radius)) / 2);
}
