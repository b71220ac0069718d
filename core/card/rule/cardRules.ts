import { isStraight } from '../../measure/segment';
import type { Result } from '../../measure/result';
import { bulgeThrough } from '../../measure/segment';
import type { Vec } from '../../measure/vector';
import { along, cross, distance, dot, sub, unit } from '../../measure/vector';
import { outlineOf } from '../outline';
import type { CardRule, Hole, PatternDoc, Side } from '../pattern';
import { partsOf, withoutGone } from './hangsOn';
import { ruled } from './ruled';
import type { AsMeasured, Rule } from './rules';
import { asMeasured } from './rules';

/** The rules of a card, by ids, on the solver that knows only numbers. */

/** A card that follows its rules: what has moved most, mm, and how far each rule was from being met before, in their order. */
export type RuledCard = { doc: PatternDoc; movedMm: number; asMeasured: AsMeasured[] };

/**
 * The card moved as little as can be so that all its rules are met, some corners held where they are.
 *
 * Problems: `rules-contradict` (about: the ids of the rules that cannot all be met; numbers: by how much, mm; nothing is
 * moved), `rule-unreadable` (about: ids).
 */
export function ruledCard(doc: PatternDoc, held: readonly string[] = []): Result<RuledCard> {
  const order = doc.sides.map(({ from }) => from);
  const at = new Map(doc.corners.map((c) => [c.id, [c.x, c.y] as Vec]));
  const points = order.map((id) => at.get(id)!);
  const numbers = numbersOf(doc);
  const placed = doc.rules.filter((rule): rule is Placed => rule.kind !== 'same-size');
  const rules = placed.map((rule) => numbered(rule, numbers));
  const hold = held.flatMap((id) => numbers.corner.get(id) ?? []);
  const found = ruled(points, doc.holes.map(({ x, y }): Vec => [x, y]), [
    ...rules,
    ...(hold.length > 0 ? [{ kind: 'hold', points: hold } as const] : []),
  ]); // prettier-ignore
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
    holes: ofOneSize(doc, null).map((hole, i) => ({ ...hole, x: found.holes[i]![0], y: found.holes[i]![1] })),
  };
  const off = found.asMeasured.slice(0, rules.length);
  return {
    ok: true,
    doc: { ...moved, sides: roundSides(moved) },
    movedMm: found.movedMm,
    asMeasured: doc.rules.map((rule, number) =>
      rule.kind === 'same-size' ? sizesOff(doc, rule, number) : { ...off[placed.indexOf(rule)]!, rule: number },
    ),
  };
}

/** A rule about where things are, as the solver knows it. */
type Placed = Exclude<CardRule, { kind: 'same-size' }>;

/**
 * The holes of a card, those that are ruled of one size so: as wide as the one that was changed by hand, if one was, else as
 * the mean of them.
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
    const size = byHand?.diameterMm ?? (alike ? group[0]!.diameterMm : Math.round(mean * 1000) / 1000);
    holes = holes.map((hole) => (rule.holes.includes(hole.id) ? { ...hole, diameterMm: size } : hole));
  }
  return holes;
}

/** Of holes of one size: how far the smallest and the largest are apart. */
function sizesOff(doc: PatternDoc, rule: Extract<CardRule, { kind: 'same-size' }>, number: number): AsMeasured {
  const sizes = doc.holes.filter(({ id }) => rule.holes.includes(id)).map(({ diameterMm }) => diameterMm);
  const [leastMm, mostMm] = [Math.min(...sizes), Math.max(...sizes)];
  return { rule: number, offMm: mostMm - leastMm, leastMm, mostMm };
}

/** How far each rule is from being met as the card lies now, in their order; null where it names what is not there. */
export function offNow(doc: PatternDoc, rules: readonly CardRule[] = doc.rules): (AsMeasured | null)[] {
  const at = new Map(doc.corners.map((c) => [c.id, c]));
  const places = [...doc.sides.map(({ from }) => at.get(from)!), ...doc.holes];
  const x = Float64Array.from(places.flatMap((place) => [place.x, place.y]));
  const numbers = numbersOf(doc);
  const there = new Set([...numbers.side.keys(), ...numbers.corner.keys(), ...numbers.hole.keys()]);
  return rules.map((rule) =>
    !partsOf(rule).every((id) => there.has(id))
      ? null
      : rule.kind === 'same-size'
        ? sizesOff(doc, rule, 0)
        : asMeasured([numbered(rule, numbers)], { points: doc.sides.length, holes: doc.holes.length }, x)[0]!,
  );
}

/** A rule is met when it is off by no more than this, mm. */
export const MET_MM = 1e-5;
export const isMet = (off: AsMeasured | null): boolean => off !== null && (off.offMm ?? 0) <= MET_MM && (off.offDeg ?? 0) <= 1e-6; // prettier-ignore

/**
 * A card after an edit, its rules still met: what was moved by hand is held where it was put if that can be, else let go.
 * Where the rules cannot be met either way the edit stands as it is, and they are told as not met.
 */
export function keptToRules(before: PatternDoc, edited: PatternDoc): PatternDoc {
  const there = withoutGone(edited);
  if (there.rules.length === 0) return there;
  const holes = ofOneSize(there, before);
  const next = holes === there.holes ? there : { ...there, holes };
  const where = new Map(before.corners.map((c) => [c.id, c]));
  const byHand = next.corners.filter((c) => {
    const was = where.get(c.id);
    return was !== undefined && (was.x !== c.x || was.y !== c.y);
  });
  // Everything moved is a card turned or put elsewhere: nothing of it is held.
  const held = byHand.length < next.corners.length ? byHand.map(({ id }) => id) : [];
  const found = held.length > 0 ? ruledCard(next, held) : null;
  if (found?.ok) return found.doc;
  const free = ruledCard(next);
  return free.ok ? free.doc : next;
}

type Numbers = { corner: Map<string, number>; side: Map<string, number>; hole: Map<string, number> };
const numbersOf = (doc: PatternDoc): Numbers => ({
  corner: new Map(doc.sides.map(({ from }, i) => [from, i])),
  side: new Map(doc.sides.map(({ id }, i) => [id, i])),
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
      const at = (id: string) => corner.get(id) ?? (hole.has(id) ? corner.size + hole.get(id)! : -1);
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
  const centre = along(along(p, sub(r, p), 0.5), [-(r[1] - p[1]), r[0] - p[0]], (1 - turn * turn) / (4 * turn));
  const sign = Math.sign(cross(sub(a, centre), sub(b, centre))) || 1;
  return sign * Math.tan(Math.asin(Math.min(1, half / radius)) / 2);
}

/** Within so much of parallel or square sides look meant to be, degrees; and of one length, as a share. */
const LOOKS_DEG = 1.5;
const LOOKS_SHARE = 0.01;
/** What is off by less is met as well as a pencil can, mm. */
const AS_DRAWN_MM = 0.2;
/** Shorter sides say little of what they are meant to be, mm. */
const SHORT_MM = 12;
const MOST_OFFERED = 8;
/** Of a traced outline only so many of its longest sides are held against each other. */
const MOST_LOOKED_AT = 40;

/**
 * What looks meant and is not: sides within 1.5° of parallel, of square to their neighbour, or of going straight on, and
 * opposite sides within 1 % of one length; holes within 2 % of equal pitch. Not what is ruled, or was said to be left. The
 * longest sides first.
 *
 * @param newId gives an id to each
 */
export function looksMeant(doc: PatternDoc, newId: () => string): { rule: CardRule; off: AsMeasured }[] {
  const { path } = outlineOf(doc);
  const n = path.length;
  const straight = doc.sides.flatMap((side, i) => {
    const s = path[i];
    return s && isStraight(s) && distance(s.a, s.b) >= SHORT_MM
      ? [{ id: side.id, i, way: unit(sub(s.b, s.a)), long: distance(s.a, s.b) }]
      : [];
  });
  const offers: CardRule[] = [];
  const known = (kind: CardRule['kind'], ids: readonly string[]) =>
    [...doc.rules, ...doc.left].some((one) => (one.kind === kind || (kind === 'parallel' && one.kind === 'width')) && ids.every((id) => ('sides' in one ? (one.sides as readonly string[]) : []).includes(id))); // prettier-ignore
  const within = Math.sin((LOOKS_DEG * Math.PI) / 180);
  const byLength = [...straight].sort((a, b) => b.long - a.long).slice(0, MOST_LOOKED_AT);
  for (const [k, a] of byLength.entries())
    for (const b of byLength.slice(k + 1)) {
      const pair: [string, string] = a.i < b.i ? [a.id, b.id] : [b.id, a.id];
      const next = (a.i + 1) % n === b.i || (b.i + 1) % n === a.i;
      const [sine, cosine] = [Math.abs(cross(a.way, b.way)), dot(a.way, b.way)];
      if (sine < within && next && cosine > 0) offers.push({ id: newId(), kind: 'straight', sides: pair });
      else if (sine < within && !next && cosine < 0) {
        offers.push({ id: newId(), kind: 'parallel', sides: pair });
        if (Math.abs(a.long - b.long) < LOOKS_SHARE * a.long) offers.push({ id: newId(), kind: 'equal-length', sides: pair }); // prettier-ignore
      } else if (Math.abs(cosine) < within && next) offers.push({ id: newId(), kind: 'square', sides: pair });
    }
  if (doc.holes.length >= 3 && doc.holes.length <= 40) offers.push(...pitched(doc, newId));
  const open = offers.filter((rule) => !known(rule.kind, partsOf(rule)));
  const off = offNow(doc, open);
  return open
    .flatMap((rule, i) => (off[i] && (off[i].offMm ?? 0) > AS_DRAWN_MM ? [{ rule, off: off[i] }] : []))
    .slice(0, MOST_OFFERED);
}

/** All holes of the card as one row at equal pitch, where they look it. */
function pitched(doc: PatternDoc, newId: () => string): CardRule[] {
  const [first] = doc.holes;
  const far = doc.holes.reduce((most, hole) => (distance([hole.x, hole.y], [first!.x, first!.y]) > distance([most.x, most.y], [first!.x, first!.y]) ? hole : most)); // prettier-ignore
  const way = unit(sub([far.x, far.y], [first!.x, first!.y]));
  const row = doc.holes.map((hole) => ({ id: hole.id, x: dot([hole.x, hole.y], way), p: [hole.x, hole.y] as Vec })).sort((a, b) => a.x - b.x); // prettier-ignore
  const steps = row.slice(1).map((one, i) => distance(one.p, row[i]!.p));
  const mean = steps.reduce((sum, step) => sum + step, 0) / steps.length;
  const off = [
    ...steps.map((step) => Math.abs(step - mean)),
    ...row.map(({ p }) => Math.abs(cross(way, sub(p, row[0]!.p)))),
  ];
  return mean > 0 && Math.max(...off) < 2 * LOOKS_SHARE * mean + 0.5 ? [{ id: newId(), kind: 'pitch', holes: row.map(({ id }) => id) }] : []; // prettier-ignore
}
