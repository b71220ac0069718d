import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import { letterAt } from '../outline';
import type { Edge, Fold, PatternDoc } from '../pattern';
import { danglingDependents, withoutDangling } from '../rule/dependents';
import type { Atom } from './atoms';
import { keyOf, meetingOwner } from './atoms';
import type { Difference } from './differences';

/**
 * A card with some atoms as another has them; the rest stays. Where the outline is taken over, what
 * both have of it stays as it was unless it is taken too.
 *
 * Folds of its own that then hang on nothing are a problem, or are dropped.
 *
 * Problems: `taken-strands-fold` (about: ids of folds that hang on sides the other outline does not
 * have), `taken-needs-outline` (about: ids of folds, tucks, beads or rules of the other card that
 * hang on sides this one does not have).
 */
export function adopted(
  to: PatternDoc,
  from: PatternDoc,
  atoms: readonly Atom[],
  loose: 'problem' | 'drop' = 'problem',
): Result<{ doc: PatternDoc }> {
  const wanted = new Set(atoms.map(keyOf));
  const wants = (of: Atom['of']) => (id: string) => wanted.has(`${of} ${id}`);
  const outlined = wanted.has('outline ') ? withOutlineOf(to, from) : to;
  const byId = <T extends { id: string }>(list: readonly T[]) =>
    new Map(list.map((one) => [one.id, one]));
  const [corners, sides, edges] = [byId(from.corners), byId(from.sides), byId(from.edges)];
  /**
   * The things of a list with those that are wanted as the other card has them: put in, changed or
   * left out.
   */
  const merged = <T extends { id: string }>(
    mine: readonly T[],
    theirs: readonly T[],
    want: (id: string) => boolean,
  ): T[] => {
    const [known, other] = [byId(mine), byId(theirs)];
    return [
      ...mine.flatMap((one) => (want(one.id) ? (other.get(one.id) ?? []) : one)),
      ...theirs.filter(({ id }) => want(id) && !known.has(id)),
    ];
  };
  const taken: PatternDoc = {
    ...outlined,
    corners: outlined.corners.map(
      (corner) => (wants('corner')(corner.id) && corners.get(corner.id)) || corner,
    ),
    sides: outlined.sides.map((side) => {
      const other = wants('side')(side.id) ? sides.get(side.id) : undefined;
      return other ? { ...side, shape: other.shape } : side;
    }),
    edges: outlined.edges.map((edge) => {
      const other = wants('joint')(edge.id) ? edges.get(edge.id) : undefined;
      return other ? { ...edge, joint: other.joint, flange: other.flange } : edge;
    }),
    folds: merged(to.folds, from.folds, wants('fold')),
    ...withMeetings(to, from, wants('fold')),
    holes: merged(to.holes, from.holes, wants('hole')),
    tucks: merged(to.tucks, from.tucks, wants('tuck')),
    marks: merged(to.marks, from.marks, wants('mark')),
    beads: merged(to.beads, from.beads, wants('bead')),
    rules: merged(to.rules, from.rules, wants('rule')),
    profiles: merged(to.profiles, from.profiles, wants('profile')),
    base: wanted.has('base ') ? from.base : to.base,
  };
  const doc = { ...taken, edges: asLettered(taken.edges, edges, wants('letter')) };
  const there = new Set(doc.sides.map(({ id }) => id));
  const hangs = (fold: Fold) => sidesOfFold(fold).every((side) => there.has(side));
  if (loose === 'drop')
    return { ok: true, doc: withoutDangling({ ...doc, folds: doc.folds.filter(hangs) }) };
  const stranded = doc.folds.filter((fold) => !hangs(fold)).map(({ id }) => id);
  const needs = [
    ...stranded.filter(wants('fold')),
    ...doc.tucks
      .filter(({ id, at }) => wants('tuck')(id) && !there.has(at.side))
      .map(({ id }) => id),
    ...danglingDependents({ ...doc, tucks: [], dismissedRules: [], beads: [] }).filter(
      wants('rule'),
    ),
    ...danglingDependents({ ...doc, tucks: [], dismissedRules: [], rules: [] }).filter(
      wants('bead'),
    ),
  ];
  if (needs.length > 0) return failure({ code: 'taken-needs-outline', about: needs });
  if (stranded.length > 0) return failure({ code: 'taken-strands-fold', about: stranded });
  return { ok: true, doc: withoutDangling(doc) };
}

/** How walls meet at corners, of the folds that are wanted as the other card has it. */
function withMeetings(
  to: PatternDoc,
  from: PatternDoc,
  wanted: (fold: string) => boolean,
): Pick<PatternDoc, 'meetings'> {
  const of = (doc: PatternDoc, take: boolean) =>
    (doc.meetings ?? []).filter((one) => wanted(meetingOwner(one)) === take);
  const all = [...of(to, false), ...of(from, true)];
  return all.length > 0 || to.meetings ? { meetings: all } : {};
}

const sidesOfFold = ({ path }: Fold): string[] =>
  path.kind === 'along' ? [path.side] : [path.from.side, path.to.side];

/**
 * A card with the corners, sides and edges another has; of those it has itself the places, shapes,
 * joints and letters stay.
 */
function withOutlineOf(to: PatternDoc, from: PatternDoc): PatternDoc {
  const corners = new Map(to.corners.map((corner) => [corner.id, corner]));
  const sides = new Map(to.sides.map((side) => [side.id, side]));
  const edges = new Map(to.edges.map((edge) => [edge.id, edge]));
  const kept: Edge[] = from.edges.map((edge) => {
    const mine = edges.get(edge.id);
    return mine ? { ...edge, joint: mine.joint, flange: mine.flange, letter: mine.letter } : edge;
  });
  return {
    ...to,
    crown: from.crown,
    corners: from.corners.map((corner) => corners.get(corner.id) ?? corner),
    sides: from.sides.map((side) => ({ ...side, shape: sides.get(side.id)?.shape ?? side.shape })),
    edges: lettersApart(kept, (edge) => edges.has(edge.id)),
  };
}

/**
 * Edges, those that are wanted lettered as on another card; of the rest, whose letter is taken now
 * gets the next free one.
 */
function asLettered(
  all: readonly Edge[],
  others: ReadonlyMap<string, Edge>,
  wanted: (id: string) => boolean,
): Edge[] {
  const known = ({ id }: Edge) => wanted(id) && others.has(id);
  return lettersApart(
    all.map((edge) => (known(edge) ? { ...edge, letter: others.get(edge.id)!.letter } : edge)),
    known,
  );
}

/** No letter twice: those of `first` edges stay. */
function lettersApart(edges: readonly Edge[], first: (edge: Edge) => boolean): Edge[] {
  const used = new Set(edges.filter(first).map(({ letter }) => letter));
  return edges.map((edge) => {
    if (first(edge)) return edge;
    let { letter } = edge;
    for (let i = 0; used.has(letter); i++) letter = letterAt(i);
    used.add(letter);
    return { ...edge, letter };
  });
}

/**
 * Everything of a difference that can be taken over without losing what was changed here; `over`
 * that as well.
 */
export const toAdopt = ({ there, both }: Difference, over = false): Atom[] =>
  over ? [...there, ...both] : there;
