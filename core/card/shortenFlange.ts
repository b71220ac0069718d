import { ROUNDING_MM } from '../measure/tolerance';
import type { Vec } from '../measure/vector';
import { along, dot, left, scale, sub, unit } from '../measure/vector';
import { facesOf } from './faces';
import { stayingAt } from './foldPlace';
import { outlineOf, segmentOfSide } from './outline';
import type { FoldPath, PatternDoc, Place } from './pattern';

/**
 * A card with the face beyond a fold made shorter by `byMm`: what reaches farther from the fold is
 * brought back square to it, and what was an arc there is cut straight; folds stay where they are.
 * Null where the fold has
 * nothing to be cut, or other folds on what is beyond it.
 */
export function shortenedFlange(doc: PatternDoc, foldId: string, byMm: number): PatternDoc | null {
  const tree = facesOf(doc);
  const fold = doc.folds.findIndex(({ id }) => id === foldId);
  if (!tree.ok || fold < 0) return null;
  const { parent, child } = tree.sidesOfFold[fold]!;
  if (tree.sidesOfFold.some((one) => one.parent === child)) return null;
  const { segment } = tree.faces[parent]!.bounds.find(
    (bound) => bound.kind === 'fold' && bound.fold === fold,
  )!;
  const across: Vec = scale(left(unit(sub(segment.b, segment.a))), -1);
  const { sideIds } = outlineOf(doc);
  const sides = new Set(
    tree.faces[child]!.bounds.flatMap((bound) =>
      bound.kind === 'side' ? [sideIds[bound.side]!] : [],
    ),
  );
  const own = new Set(doc.sides.flatMap(({ id, from, to }) => (sides.has(id) ? [from, to] : [])));
  const reach = (p: Vec) => dot(sub(p, segment.a), across);
  const beyond = doc.corners.filter(({ id, x, y }) => own.has(id) && reach([x, y]) > ROUNDING_MM);
  const deep = Math.max(0, ...beyond.map(({ x, y }) => reach([x, y])));
  const to = deep - byMm;
  if (!(to > ROUNDING_MM)) return null;
  const moved = new Map(
    beyond.flatMap(({ id, x, y }) => {
      const over = reach([x, y]) - to;
      return over > 0 ? [[id, along([x, y], across, -over)] as const] : [];
    }),
  );
  const corners = doc.corners.map((corner) => {
    const at = moved.get(corner.id);
    return at ? { ...corner, x: at[0], y: at[1] } : corner;
  });
  const cut: PatternDoc = {
    ...doc,
    corners,
    sides: doc.sides.map((side) =>
      moved.has(side.from) && moved.has(side.to) ? { ...side, shape: { kind: 'line' } } : side,
    ),
  };
  const stay = (place: Place): Place => stayingAt(place, doc, cut);
  return {
    ...cut,
    folds: cut.folds.map((one) =>
      one.path.kind === 'along'
        ? { ...one, path: { ...one.path, inMm: stillIn(one.path, doc, cut, across) } }
        : { ...one, path: { ...one.path, from: stay(one.path.from), to: stay(one.path.to) } },
    ),
  };
}

/** How far in from a side a fold runs that follows it, when that side is brought back. */
function stillIn(
  { side, inMm }: Extract<FoldPath, { kind: 'along' }>,
  before: PatternDoc,
  after: PatternDoc,
  across: Vec,
): number {
  const [was, is] = [segmentOfSide(before, side), segmentOfSide(after, side)];
  return was && is ? inMm - Math.abs(dot(sub(was.a, is.a), across)) : inMm;
}
