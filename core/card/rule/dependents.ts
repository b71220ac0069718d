import type { Bead, CardRule, PatternDoc } from '../pattern';

/** The ids of what a rule is about. */
export const partsOf = (rule: CardRule): readonly string[] =>
  'sides' in rule
    ? rule.sides
    : 'corners' in rule
      ? rule.corners
      : 'places' in rule
        ? rule.places
        : rule.holes;

const edgeThere = ({ edges }: PatternDoc, { path }: Bead): boolean =>
  path.kind !== 'along' || edges.some(({ id }) => id === path.edge);

/** Ids of rules, tucks and beads that hang on what is no longer there. */
export function danglingDependents(doc: PatternDoc): string[] {
  const there = new Set(
    [...doc.sides, ...doc.corners, ...doc.holes, ...doc.folds].map(({ id }) => id),
  );
  return [
    ...doc.rules.filter((rule) => !partsOf(rule).every((id) => there.has(id))).map(({ id }) => id),
    ...doc.tucks.filter(({ at }) => !there.has(at.side)).map(({ id }) => id),
    ...doc.beads.filter((bead) => !edgeThere(doc, bead)).map(({ id }) => id),
    ...doc.dismissedRules.flatMap(({ sides }) => sides.filter((id) => !there.has(id))),
  ];
}

/** The fewest parts a rule can be about. */
const LEAST = {
  parallel: 2,
  square: 2,
  straight: 2,
  'equal-length': 2,
  length: 1,
  width: 2,
  arc: 3,
  pitch: 3,
  'in-line': 3,
  level: 2,
  symmetric: 4,
  circle: 3,
  rectangle: 4,
  'same-size': 2,
} as const;

/**
 * A card without what hangs on parts that an edit took away: a rule about several goes on for those
 * that are left.
 */
export function withoutDangling(doc: PatternDoc): PatternDoc {
  if (danglingDependents(doc).length === 0) return doc;
  const there = new Set(
    [...doc.sides, ...doc.corners, ...doc.holes, ...doc.folds].map(({ id }) => id),
  );
  const rules = doc.rules.flatMap((rule): CardRule[] => {
    const parts = partsOf(rule).filter((id) => there.has(id));
    if (parts.length === partsOf(rule).length) return [rule];
    if (parts.length < LEAST[rule.kind]) return [];
    switch (rule.kind) {
      case 'arc':
        return [{ ...rule, corners: parts }];
      case 'pitch':
      case 'same-size':
        return [{ ...rule, holes: parts }];
      case 'in-line':
      case 'level':
        return [{ ...rule, places: parts }];
      case 'symmetric': {
        const whole = rule.places.flatMap((id, i) =>
          i % 2 === 0 && there.has(id) && there.has(rule.places[i + 1] ?? '')
            ? [id, rule.places[i + 1]!]
            : [],
        );
        return whole.length >= LEAST.symmetric ? [{ ...rule, places: whole }] : [];
      }
      case 'parallel':
      case 'straight':
      case 'equal-length':
        return [{ ...rule, sides: parts }];
      default:
        return [];
    }
  });
  return {
    ...doc,
    rules,
    tucks: doc.tucks.filter(({ at }) => there.has(at.side)),
    beads: doc.beads.filter((bead) => edgeThere(doc, bead)),
    dismissedRules: doc.dismissedRules.filter(({ sides }) => sides.every((id) => there.has(id))),
  };
}
