import type { Brake } from '../../../machine/brake';
import type { Vec } from '../../../measure/vector';
import { dot, sub } from '../../../measure/vector';
import type { Development } from '../developed';
import { flangeDepth as depthOf, flangeOf } from './flange';
import type { Settled } from './solve';
import { canBeFolded } from './solve';

/** What frees a piece that no order makes: each was tried before it is told. */
export type Remedy =
  /**
   * Leave a fold at so many degrees on the machine, and close it after all others, with fingers or
   * over a bar.
   */
  | { kind: 'leave-open'; fold: number; deg: number }
  /**
   * Make a fold by hand over a bar when all others are made; and another one likewise where one is
   * not enough.
   */
  | { kind: 'over-a-bar'; fold: number; also?: number }
  /** Cut the piece apart along a fold and weld it: both parts can be folded. */
  | { kind: 'part'; fold: number }
  /** A flange shorter by so much. */
  | { kind: 'shorten'; fold: number; byMm: number };

/** A fold is left open in steps of so many degrees, and no wider than at the least. */
const [OPEN_STEP_DEG, LEAST_DEG] = [5, 10];
/** A flange is shortened in steps of so many mm, to no less than this. */
const [SHORTER_STEP_MM, LEAST_MM] = [1, 8];
/** Of more folds than these it would take too long to try. */
export const MOST_TRIED = 14;

/** What would let a piece be folded that cannot be, the least trouble first. Empty where nothing that one or two folds do
 * differently helps, and for more than `MOST_TRIED` folds. Each is told on top of what is settled. */
export function remediesFor(
  development: Development,
  brake: Brake,
  settled: Settled = {},
): Remedy[] {
  const { folds } = development;
  if (folds.length > MOST_TRIED) return [];
  const {
    anglesDeg: angles = folds.map(({ bend }) => bend.angleDeg),
    byHand: handed = [],
    made = [],
  } = settled;
  // What is made, or settled to be made by hand, is not asked again.
  const asked = folds.flatMap((_, fold) =>
    handed.includes(fold) || made.includes(fold) ? [] : [fold],
  );
  const goes = (one: Development, with_: readonly number[] = angles) =>
    canBeFolded(one, brake, { ...settled, anglesDeg: with_ });
  const open = asked.flatMap((fold): Remedy[] => {
    const at = (deg: number) =>
      goes(
        development,
        angles.map((angle, i) => (i === fold ? deg : angle)),
      );
    if (angles[fold]! <= LEAST_DEG || !at(LEAST_DEG)) return [];
    // The most closed that still goes, looked for from both ends.
    let [good, bad] = [LEAST_DEG, angles[fold]!];
    while (bad - good > OPEN_STEP_DEG) {
      const middle = Math.round((good + bad) / 2 / OPEN_STEP_DEG) * OPEN_STEP_DEG;
      if (middle <= good || middle >= bad) break;
      if (at(middle)) good = middle;
      else bad = middle;
    }
    return [{ kind: 'leave-open', fold, deg: good }];
  });
  const shorter = asked.flatMap((fold): Remedy[] => {
    const deep = depthOf(development, fold);
    if (deep === null || deep <= LEAST_MM) return [];
    const at = (byMm: number) => goes(shortened(development, fold, byMm));
    const most = Math.floor(deep - LEAST_MM);
    if (most < SHORTER_STEP_MM || !at(most)) return [];
    let [good, bad] = [most, 0];
    while (good - bad > SHORTER_STEP_MM) {
      const middle = Math.round((good + bad) / 2);
      if (at(middle)) good = middle;
      else bad = middle;
    }
    return [{ kind: 'shorten', fold, byMm: good }];
  });
  const without = (...byHand: number[]) =>
    canBeFolded(development, brake, { ...settled, byHand: [...handed, ...byHand] });
  const byHand = asked.flatMap((fold): Remedy[] =>
    without(fold) ? [{ kind: 'over-a-bar', fold }] : [],
  );
  const parted = asked.flatMap((fold): Remedy[] =>
    partsGo(development, fold, brake) ? [{ kind: 'part', fold }] : [],
  );
  if (open.length + shorter.length + byHand.length + parted.length === 0)
    return twoByHand(asked, without);
  // The least left to do after comes first.
  const left = (remedy: Remedy) =>
    remedy.kind === 'leave-open' ? angles[remedy.fold]! - remedy.deg : 0;
  return [
    ...open.sort((a, b) => left(a) - left(b)),
    ...byHand,
    ...shorter.sort((a, b) => ('byMm' in a && 'byMm' in b ? a.byMm - b.byMm : 0)),
    ...parted,
  ];
}

/** Two folds made by hand, where no one thing helps. */
function twoByHand(
  asked: readonly number[],
  without: (fold: number, also: number) => boolean,
): Remedy[] {
  for (const [i, fold] of asked.entries())
    for (const also of asked.slice(i + 1))
      if (without(fold, also)) return [{ kind: 'over-a-bar', fold, also }];
  return [];
}

/** A piece with a flange cut off shorter, all that reaches farther brought back. */
function shortened(development: Development, fold: number, byMm: number): Development {
  const face = flangeOf(development, fold)!;
  const { tangents, across } = development.folds[fold]!;
  const to = depthOf(development, fold)! - byMm;
  const back = (p: Vec): Vec => {
    const over = dot(sub(p, tangents[1][0]), across) - to;
    return over > 0 ? [p[0] - over * across[0], p[1] - over * across[1]] : p;
  };
  const faces = development.faces.map((one, i) =>
    i === face
      ? {
          ...one,
          pieces: one.pieces.map((piece) => ({
            ...piece,
            segment: {
              ...piece.segment,
              a: back(piece.segment.a),
              b: back(piece.segment.b),
              bulge: 0,
            },
          })),
        }
      : one,
  );
  return { ...development, faces };
}

/** Whether both parts of a piece that is cut apart along a fold can be folded. */
function partsGo(development: Development, fold: number, brake: Brake): boolean {
  const { folds, faces, order } = development;
  const beyond = new Set<number>([folds[fold]!.child]);
  for (const face of order) {
    const own = faces[face]!.fold;
    if (own >= 0 && beyond.has(folds[own]!.parent)) beyond.add(face);
  }
  return [false, true].every((far) => {
    const kept = order.filter((face) => beyond.has(face) === far);
    const number = new Map(kept.map((face, i) => [face, i]));
    const foldsKept = folds.filter(
      (one, i) => i !== fold && number.has(one.parent) && number.has(one.child),
    );
    const part: Development = {
      ...development,
      order: kept.map((_, i) => i),
      faces: kept.map((face) => ({
        ...faces[face]!,
        fold: foldsKept.indexOf(folds[faces[face]!.fold]!),
      })),
      folds: foldsKept.map((one) => ({
        ...one,
        parent: number.get(one.parent)!,
        child: number.get(one.child)!,
      })),
    };
    return canBeFolded(part, brake);
  });
}
