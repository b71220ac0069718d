import { byLetter } from '../outline';
import type { Edge, PatternDoc } from '../pattern';
import type { Atom } from './atoms';
import { alike, keyOf, valuesOf } from './atoms';

export const PARTS = [
  'outline',
  'edge',
  'letters',
  'fold',
  'hole',
  'tuck',
  'bead',
  'rule',
  'profile',
  'base',
] as const;

/**
 * What a maker takes over as one: the outline's corners and edges as such, an edge, a fold, a hole
 * and so on.
 */
export type Part =
  | { of: 'edge' | 'fold' | 'hole' | 'tuck' | 'mark' | 'bead' | 'rule' | 'profile'; id: string }
  | { of: 'outline' | 'letters' | 'base'; id: '' };

/**
 * A part that is not alike on two cards, and what of it was changed since they were last one:
 * `there`, `here`, or `both`, unlike each other.
 */
export type Difference = { part: Part; there: Atom[]; here: Atom[]; both: Atom[] };

/**
 * What differs between two cards that were once one, part by part: the outline first, then edges by
 * their letters here, then the rest. All three lie alike. A corner belongs to the two edges it
 * ends.
 */
export function differences(once: PatternDoc, there: PatternDoc, here: PatternDoc): Difference[] {
  const [was, theirs, ours] = [valuesOf(once), valuesOf(there), valuesOf(here)];
  const found = (part: Part, atoms: readonly Atom[]): Difference[] => {
    const difference: Difference = { part, there: [], here: [], both: [] };
    for (const atom of atoms) {
      const key = keyOf(atom);
      const [a, b, o] = [theirs.get(key), ours.get(key), was.get(key)];
      if (alike(a, b)) continue;
      const [changedThere, changedHere] = [!alike(a, o), !alike(b, o)];
      difference[changedThere ? (changedHere ? 'both' : 'there') : 'here'].push(atom);
    }
    const { length } = [...difference.there, ...difference.here, ...difference.both];
    return length > 0 ? [difference] : [];
  };
  const single = (of: 'outline' | 'base') => found({ of, id: '' }, [{ of, id: '' }]);
  const listed = (
    of: 'fold' | 'hole' | 'tuck' | 'mark' | 'bead' | 'rule' | 'profile',
    list: (doc: PatternDoc) => readonly { id: string }[],
  ) =>
    [...new Set([here, there].flatMap((doc) => list(doc).map(({ id }) => id)))].flatMap((id) =>
      found({ of, id }, [{ of, id }]),
    );
  const shared = (atom: Atom) => [was, theirs, ours].every((values) => values.has(keyOf(atom)));
  return [
    ...single('outline'),
    ...byLetter(here.edges).flatMap((edge) =>
      found({ of: 'edge', id: edge.id }, atomsOf(here, edge).filter(shared)),
    ),
    ...found(
      { of: 'letters', id: '' },
      here.edges.map(({ id }): Atom => ({ of: 'letter', id })).filter(shared),
    ),
    ...listed('fold', (doc) => doc.folds),
    ...listed('hole', (doc) => doc.holes),
    ...listed('tuck', (doc) => doc.tucks),
    ...listed('mark', (doc) => doc.marks),
    ...listed('bead', (doc) => doc.beads),
    ...listed('rule', (doc) => doc.rules),
    ...listed('profile', (doc) => doc.profiles),
    ...single('base'),
  ];
}

/** An edge's joint, its sides and the corners they run between. */
function atomsOf(doc: PatternDoc, edge: Edge): Atom[] {
  const mine = new Set(edge.sides);
  const sides = doc.sides.filter(({ id }) => mine.has(id));
  const corners = new Set(sides.flatMap(({ from, to }) => [from, to]));
  return [
    { of: 'joint', id: edge.id },
    ...edge.sides.map((id): Atom => ({ of: 'side', id })),
    ...[...corners].map((id): Atom => ({ of: 'corner', id })),
  ];
}
