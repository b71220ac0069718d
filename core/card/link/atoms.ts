import { SAME_PLACE_MM } from '../../measure/tolerance';
import type { FoldMeeting, PatternDoc } from '../pattern';

/**
 * The smallest things that two cards can differ by. `outline` and `base` are one of a card; a
 * `letter` is of an edge.
 */
export type Atom =
  | {
      of:
        | 'corner'
        | 'side'
        | 'joint'
        | 'letter'
        | 'fold'
        | 'hole'
        | 'tuck'
        | 'mark'
        | 'bead'
        | 'rule'
        | 'profile';
      id: string;
    }
  | { of: 'outline' | 'base'; id: '' };

export const keyOf = ({ of, id }: Atom): string => `${of} ${id}`;

/** How two walls meet goes with one of their folds, the same one on every card. */
export const meetingOwner = ({ folds: [a, b] }: FoldMeeting): string => (a < b ? a : b);

/** What a card says of each atom: nothing of those it does not have. */
export function valuesOf(doc: PatternDoc): Map<string, unknown> {
  const values = new Map<string, unknown>();
  const set = (atom: Atom, value: unknown) => values.set(keyOf(atom), value);
  for (const { id, x, y } of doc.corners) set({ of: 'corner', id }, [x, y]);
  // The rise of an arc over a metre of chord and more, so that figures to a millionth are
  // millimetres to a millionth.
  for (const { id, shape } of doc.sides)
    set({ of: 'side', id }, shape.kind === 'arc' ? shape.bulge * 1000 : 0);
  for (const { id, joint, flange, letter } of doc.edges) {
    set({ of: 'joint', id }, { joint, flange });
    set({ of: 'letter', id }, letter);
  }
  for (const fold of doc.folds) {
    const corners = (doc.meetings ?? []).filter((one) => meetingOwner(one) === fold.id);
    set(
      { of: 'fold', id: fold.id },
      { ...fold, corners: corners.length > 0 ? corners : undefined },
    );
  }
  for (const hole of doc.holes) set({ of: 'hole', id: hole.id }, hole);
  for (const tuck of doc.tucks) set({ of: 'tuck', id: tuck.id }, tuck);
  for (const mark of doc.marks) set({ of: 'mark', id: mark.id }, mark);
  for (const bead of doc.beads) set({ of: 'bead', id: bead.id }, bead);
  for (const rule of doc.rules) set({ of: 'rule', id: rule.id }, rule);
  for (const profile of doc.profiles) set({ of: 'profile', id: profile.id }, profile);
  // What the outline was laid flat from goes with it; which way round it lies is the card’s own.
  set({ of: 'outline', id: '' }, [
    ringOf(doc),
    doc.crown && { ...doc.crown, turned: null, map: null },
  ]);
  set({ of: 'base', id: '' }, doc.base);
  return values;
}

/**
 * Which sides follow which, between which corners, in which edges; from the same side on however
 * the lists begin.
 */
function ringOf(doc: PatternDoc): unknown {
  const edgeOf = new Map(
    doc.edges.flatMap((edge) => edge.sides.map((side) => [side, edge.id] as const)),
  );
  const ring = doc.sides.map(({ id, from, to }) => [id, from, to, edgeOf.get(id) ?? '']);
  const first = ring.reduce((least, side, i) => (side[0]! < ring[least]![0]! ? i : least), 0);
  return [...ring.slice(first), ...ring.slice(0, first)];
}

/** Whether two values say the same, figures to a millionth. */
export function alike(a: unknown, b: unknown): boolean {
  if (typeof a === 'number' && typeof b === 'number') return Math.abs(a - b) <= SAME_PLACE_MM;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return a === b;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const [x, y] = [a, b] as [Record<string, unknown>, Record<string, unknown>];
  // What is not said and what is said to be nothing are the same.
  const keys = (of: Record<string, unknown>) =>
    Object.keys(of).filter((key) => of[key] !== undefined);
  return keys(x).length === keys(y).length && keys(x).every((key) => alike(x[key], y[key]));
}
