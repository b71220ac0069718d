import { z } from 'zod';
import type { Result } from '../measure/result';
import { failure, stop } from '../measure/result';
import type { PatternDoc } from './pattern';
import { PATTERN_VERSION, PatternSchema } from './pattern';
import { danglingDependents } from './rule/dependents';

/**
 * The form of version 1 as far as it differs: what it said of an edge that is no geometry went into
 * the plan.
 */
const V1Schema = z.looseObject({
  version: z.literal(1),
  edges: z.array(z.looseObject({ was: z.array(z.looseObject({})).optional() })),
  folds: z.array(
    z.looseObject({
      from: z.object({ side: z.string(), at: z.number() }),
      to: z.object({ side: z.string(), at: z.number() }),
    }),
  ),
});

function fromVersion1(given: z.output<typeof V1Schema>): unknown {
  const { face: _face, unitsHint: _units, ...rest } = given;
  const share = ({ side, at }: { side: string; at: number }) => ({ side, share: at });
  return {
    ...rest,
    version: 2,
    turned: false,
    edges: given.edges.map(({ meets: _meets, weld: _weld, ...edge }) => ({
      ...edge,
      ...(edge.was && { was: edge.was.map((old) => ({ ...old, span: null })) }),
    })),
    folds: given.folds.map(({ from, to, ...fold }) => ({
      ...fold,
      path: { kind: 'between', from: share(from), to: share(to) },
    })),
  };
}

/**
 * The form of version 2 as far as it differs: nothing was ruled, tucked or measured on a picture
 * yet.
 */
const V2Schema = z.looseObject({ version: z.literal(2) });

const fromVersion2 = (given: z.output<typeof V2Schema>): unknown => ({
  ...given,
  version: 3,
  rules: [],
  left: [],
  tucks: [],
  measured: null,
});

/**
 * The form of version 3 as far as it differs: a card had no profiles, no picture behind it, and
 * knew of no other it was made from.
 */
const V3Schema = z.looseObject({ version: z.literal(3) });

const fromVersion3 = (given: z.output<typeof V3Schema>): unknown => ({
  ...given,
  version: 4,
  profiles: [],
  underlay: null,
  taken: null,
});

/**
 * The form of version 4 as far as it differs: nothing but folds was scribed, and no rule was about
 * a fold.
 */
const V4Schema = z.looseObject({
  version: z.literal(4),
  taken: z.nullable(z.looseObject({ card: z.unknown(), here: z.unknown() })),
});

function fromVersion4(given: z.output<typeof V4Schema>): unknown {
  const { taken } = given;
  const lying = (card: unknown) =>
    card === null ? null : { ...(card as object), version: 5, marks: [] };
  return {
    ...given,
    version: 5,
    marks: [],
    taken: taken && { ...taken, card: lying(taken.card), here: lying(taken.here) },
  };
}

/** The form of version 5 as far as it differs: no bead was on a card yet. */
const V5Schema = z.looseObject({
  version: z.literal(5),
  taken: z.nullable(z.looseObject({ card: z.unknown(), here: z.unknown() })),
});

function fromVersion5(given: z.output<typeof V5Schema>): unknown {
  const { taken } = given;
  const lying = (card: unknown) =>
    card === null ? null : { ...(card as object), version: 6, beads: [] };
  return {
    ...given,
    version: 6,
    beads: [],
    taken: taken && { ...taken, card: lying(taken.card), here: lying(taken.here) },
  };
}

/**
 * The form of version 6 as far as it differs: no card was laid flat from a panel curved two ways.
 */
const V6Schema = z.looseObject({
  version: z.literal(6),
  taken: z.nullable(z.looseObject({ card: z.unknown(), here: z.unknown() })),
});

function fromVersion6(given: z.output<typeof V6Schema>): unknown {
  const { taken } = given;
  const lying = (card: unknown) =>
    card === null ? null : { ...(card as object), version: 7, crown: null };
  return {
    ...given,
    version: 7,
    crown: null,
    taken: taken && { ...taken, card: lying(taken.card), here: lying(taken.here) },
  };
}

/**
 * The form of version 7 as far as it differs: of a panel laid flat nothing was held but edges, and
 * its map was not kept.
 */
const V7Schema = z.looseObject({
  version: z.literal(7),
  crown: z.nullable(z.looseObject({})),
  taken: z.nullable(z.looseObject({ card: z.unknown(), here: z.unknown() })),
});

function fromVersion7(given: z.output<typeof V7Schema>): unknown {
  const { taken } = given;
  const lying = (card: unknown) => {
    if (card === null) return null;
    const { crown, ...rest } = card as { crown: object | null };
    return { ...rest, version: 8, crown: crown && { ...crown, hold: [], map: null } };
  };
  return {
    ...(lying(given) as object),
    taken: taken && { ...taken, card: lying(taken.card), here: lying(taken.here) },
  };
}

/** The form of version 8 as far as it differs: the map of a panel laid flat had no tracks. */
const V8Schema = z.looseObject({
  version: z.literal(8),
  crown: z.nullable(z.looseObject({})),
  taken: z.nullable(z.looseObject({ card: z.unknown(), here: z.unknown() })),
});

function fromVersion8(given: z.output<typeof V8Schema>): unknown {
  const { taken } = given;
  const lying = (card: unknown) => {
    if (card === null) return null;
    const { crown, ...rest } = card as { crown: { map: object | null } | null };
    return {
      ...rest,
      version: 9,
      crown: crown && { ...crown, map: crown.map && { ...crown.map, tracks: [] } },
    };
  };
  return {
    ...(lying(given) as object),
    taken: taken && { ...taken, card: lying(taken.card), here: lying(taken.here) },
  };
}

/**
 * The form of version 9 as far as it differs: of a bead along a curved panel it was not said which
 * side it stands on.
 */
const V9Schema = z.looseObject({
  version: z.literal(9),
  taken: z.nullable(z.looseObject({ card: z.unknown(), here: z.unknown() })),
});

function fromVersion9(given: z.output<typeof V9Schema>): unknown {
  const { taken } = given;
  const lying = (card: unknown) => {
    if (card === null) return null;
    const { beads, ...rest } = card as { beads: object[] };
    // What is no list of beads is told by the schema of this version.
    return {
      ...rest,
      version: 10,
      beads: Array.isArray(beads) ? beads.map((bead) => ({ ...bead, acrossOn: null })) : beads,
    };
  };
  return {
    ...(lying(given) as object),
    taken: taken && { ...taken, card: lying(taken.card), here: lying(taken.here) },
  };
}

/**
 * The form of version 10 as far as it differs: how flanges end and how walls meet was not said, and
 * is as usual.
 */
const V10Schema = z.looseObject({
  version: z.literal(10),
  taken: z.nullable(z.looseObject({ card: z.unknown(), here: z.unknown() })),
});

function fromVersion10(given: z.output<typeof V10Schema>): unknown {
  const { taken } = given;
  const lying = (card: unknown) => (card === null ? null : { ...(card as object), version: 11 });
  return {
    ...given,
    version: 11,
    taken: taken && { ...taken, card: lying(taken.card), here: lying(taken.here) },
  };
}

/** The form of version 11 as far as it differs: four of its names were others. */
const V11Card = z.looseObject({
  left: z.unknown(),
  folds: z.array(z.looseObject({ made: z.unknown() })),
});
const V11Schema = V11Card.extend({
  version: z.literal(11),
  taken: z.nullable(
    z.looseObject({ card: V11Card, here: z.nullable(V11Card), takeOff: z.unknown() }),
  ),
});

function fromVersion11({ taken, ...given }: z.output<typeof V11Schema>): unknown {
  const renamed = ({ left, folds, ...card }: z.output<typeof V11Card>) => ({
    ...card,
    version: 12,
    dismissedRules: left,
    folds: folds.map(({ made, ...fold }) => ({ ...fold, convention: made })),
  });
  const linked = ({ card, here, takeOff, ...link }: NonNullable<typeof taken>) => ({
    ...link,
    card: renamed(card),
    here: here && renamed(here),
    edgeOffsets: takeOff,
  });
  return { ...renamed(given), linkedFrom: taken && linked(taken) };
}

/** The form of version 12 as far as it differs: a crown’s balance had another name. */
const V12Card = z.looseObject({
  crown: z.nullable(z.looseObject({ school: z.unknown() })),
});
const V12Schema = V12Card.extend({
  version: z.literal(12),
  linkedFrom: z.nullable(z.looseObject({ card: V12Card, here: z.nullable(V12Card) })),
});

function fromVersion12({ linkedFrom, ...given }: z.output<typeof V12Schema>): unknown {
  const renamed = ({ crown, ...card }: z.output<typeof V12Card>) => {
    const { school: balance, ...rest } = crown ?? { school: null };
    return { ...card, version: 13, crown: crown && { ...rest, balance } };
  };
  const linked = ({ card, here, ...link }: NonNullable<typeof linkedFrom>) => ({
    ...link,
    card: renamed(card),
    here: here && renamed(here),
  });
  return { ...renamed(given), linkedFrom: linkedFrom && linked(linkedFrom) };
}

/** A step from one version to the next; what is of another stays as it is. */
const step =
  <S extends z.ZodType>(schema: S, bring: (given: z.output<S>) => unknown) =>
  (given: unknown): unknown => {
    const read = schema.safeParse(given);
    return read.success ? bring(read.data) : given;
  };

const STEPS = [
  step(V1Schema, fromVersion1),
  step(V2Schema, fromVersion2),
  step(V3Schema, fromVersion3),
  step(V4Schema, fromVersion4),
  step(V5Schema, fromVersion5),
  step(V6Schema, fromVersion6),
  step(V7Schema, fromVersion7),
  step(V8Schema, fromVersion8),
  step(V9Schema, fromVersion9),
  step(V10Schema, fromVersion10),
  step(V11Schema, fromVersion11),
  step(V12Schema, fromVersion12),
];

/** A card of whatever version as one of this; what is of none stays as it is. */
const upgraded = (given: unknown): unknown => STEPS.reduce((card, bring) => bring(card), given);

/** Ids that are there more than once. */
function twice(ids: readonly string[]): string[] {
  const seen = new Set<string>();
  return [...new Set(ids.filter((id) => seen.size === seen.add(id).size))];
}

/**
 * What must hold together beyond the form: ids once, references there, edges parting the sides
 * without gap or overlap.
 */
function hangsTogether(doc: PatternDoc): Result<{ doc: PatternDoc }> {
  const lists = [
    doc.corners,
    doc.sides,
    doc.edges,
    doc.folds,
    doc.holes,
    doc.rules,
    doc.tucks,
    doc.marks,
    doc.beads,
    doc.profiles,
  ];
  const double = lists.flatMap((list) => twice(list.map((thing) => thing.id)));
  if (double.length > 0) return failure(stop('document-ids-twice', double.slice(0, 5)));
  const corners = new Set(doc.corners.map((c) => c.id));
  const sides = new Set(doc.sides.map((s) => s.id));
  const gone = [
    ...doc.sides.flatMap((s) => (corners.has(s.from) && corners.has(s.to) ? [] : [s.id])),
    ...doc.edges.flatMap((e) => (e.sides.every((s) => sides.has(s)) ? [] : [e.id])),
    ...danglingDependents(doc),
  ];
  if (gone.length > 0) return failure(stop('document-reference-gone', gone.slice(0, 5)));
  // Edges in outline order, each a run of neighbouring sides, together every side once.
  const inEdges = doc.edges.flatMap((e) => e.sides);
  const start = doc.sides.findIndex((s) => s.id === inEdges[0]);
  const parts =
    inEdges.length === doc.sides.length &&
    inEdges.every((id, i) => doc.sides[(start + i) % doc.sides.length]!.id === id);
  return parts ? { ok: true, doc } : failure(stop('document-edges-part-badly', []));
}

/**
 * The one door for cards: from the database, a file, the network or the browser's store. Brought up
 * from any older version, checked by form and for what must hold together.
 *
 * Problems (stop): `document-too-new`, `document-unreadable` (about: the place in it),
 * `document-ids-twice`, `document-reference-gone`, `document-edges-part-badly` (about: ids).
 */
export function readPattern(given: unknown): Result<{ doc: PatternDoc }> {
  const version = z.looseObject({ version: z.number() }).safeParse(given);
  if (version.success && version.data.version > PATTERN_VERSION) {
    const numbers = { version: version.data.version, knownVersion: PATTERN_VERSION };
    return failure(stop('document-too-new', [], numbers));
  }
  const read = PatternSchema.safeParse(upgraded(given));
  if (read.success) return hangsTogether(read.data);
  return failure(stop('document-unreadable', [read.error.issues[0]?.path.join('.') || 'card']));
}
