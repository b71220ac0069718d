import type { Brake } from '../../../machine/brake';
import { FINGER_GAP_MM } from '../../../machine/brake';
import type { Segment } from '../../../measure/segment';
import type { Vec } from '../../../measure/vector';
import { dot, sub } from '../../../measure/vector';
import type { Development } from '../developed';
import type { FoldPiece } from '../foldedOutline';
import { bitSetOf } from './bitSet';
import { turnedEdgeIds } from './bodies';
import { flangeDepth as depthOf, flangeOf } from './flange';
import type { Settled } from './solve';
import { foldability } from './solve';

/** What frees a piece that no order makes: each was tried before it is told. */
export type Remedy =
  /**
   * Leave a fold at `deg` degrees on the machine, and close it after all others, with fingers or
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
  /** Turn some edges over (flanges, hems) when all folds are made, by their ids. */
  | { kind: 'turn-after'; edges: string[] }
  /** Let the ends of a fold stay uncovered by fingers as far as this, mm. */
  | { kind: 'uncover'; gapMm: number }
  /** A flange shorter by `byMm`. */
  | { kind: 'shorten'; fold: number; byMm: number };

/** Step in which a fold is left open, and the minimum angle it is folded to, degrees. */
const [OPEN_STEP_DEG, MIN_DEG] = [5, 10];
/** No more of a fold than this is left uncovered by fingers, mm, found to a step. */
const [MAX_UNCOVERED_MM, UNCOVERED_STEP_MM] = [40, 1];
/** Step in which a flange is shortened, and its minimum width, mm. */
const [SHORTER_STEP_MM, MIN_MM] = [1, 8];
/** Of more folds than these it would take too long to try. */
export const MAX_TRIED = 14;

/**
 * What would let a piece be folded that cannot be, the least trouble first. Empty where nothing
 * helps that one or two folds do differently, and for more than `MAX_TRIED` folds. Each is told on
 * top of what is settled.
 *
 * @param leftMost how many folds every order leaves over, where that is known: as many have to be
 * made by hand at the least, which spares trying fewer
 */
export function remediesFor(
  development: Development,
  brake: Brake,
  settled: Settled = {},
  leftMost: number | null = null,
): Remedy[] {
  const { folds } = development;
  if (folds.length > MAX_TRIED) return [];
  const {
    anglesDeg: angles = folds.map(({ bend }) => bend.angleDeg),
    byHand: handed = [],
    made = [],
    turnedAfter = [],
  } = settled;
  // What is made, or settled to be made by hand, is not asked again.
  const asked = folds.flatMap((_, fold) =>
    handed.includes(fold) || made.includes(fold) ? [] : [fold],
  );
  const goes = foldability(development, brake, settled);
  const fewest = leftMost ?? 0;
  const byHand = fewest > 1 ? [] : asked.filter((fold) => goes([fold]));
  const found = [
    ...turnAfter(development, brake, settled, turnedAfter),
    ...uncover(development, brake, settled),
    // What does not go with a fold flat all along does not go with one that is nearly so.
    ...byHand
      .flatMap((fold) => leaveOpen(development, brake, settled, angles, fold))
      .sort((a, b) => angles[a.fold]! - a.deg - (angles[b.fold]! - b.deg)),
    ...byHand.map((fold): Remedy => ({ kind: 'over-a-bar', fold })),
    ...asked
      .flatMap((fold) => shorter(development, brake, settled, fold))
      .sort((a, b) => a.byMm - b.byMm),
    ...parted(development, brake, settled, asked),
  ];
  return found.length > 0 || fewest > 2
    ? found
    : twoByHand(asked, (fold, also) => goes([fold, also]));
}

type Of<Kind extends Remedy['kind']> = Extract<Remedy, { kind: Kind }>;

/** Edges that are turned over after the folds: one of them where that is enough, else all. */
function turnAfter(
  development: Development,
  brake: Brake,
  settled: Settled,
  already: readonly string[],
): Of<'turn-after'>[] {
  const edges = turnedEdgeIds(development).filter((id) => !already.includes(id));
  const goes = (some: readonly string[]) =>
    foldability(development, brake, { ...settled, turnedAfter: [...already, ...some] })();
  if (edges.length === 0 || !goes(edges)) return [];
  const single = edges.length > 1 ? edges.filter((id) => goes([id])) : [];
  return single.length > 0
    ? single.map((id) => ({ kind: 'turn-after', edges: [id] }))
    : [{ kind: 'turn-after', edges }];
}

/** The least whole figure above one that does not go and up to one that does, found to a step. */
function least(bad: number, good: number, step: number, goes: (at: number) => boolean): number {
  while (good - bad > step) {
    const middle = Math.round((good + bad) / 2);
    if (middle <= bad || middle >= good) break;
    if (goes(middle)) good = middle;
    else bad = middle;
  }
  return good;
}

/** The least that fingers must leave uncovered where no set of them fits. */
function uncover(development: Development, brake: Brake, settled: Settled): Of<'uncover'>[] {
  if (!brake.fingersMm) return [];
  const goes = (gapMm: number) =>
    foldability(development, { ...brake, fingerGapMm: gapMm }, settled)();
  const now = brake.fingerGapMm ?? FINGER_GAP_MM;
  if (now >= MAX_UNCOVERED_MM || !goes(MAX_UNCOVERED_MM)) return [];
  return [{ kind: 'uncover', gapMm: least(now, MAX_UNCOVERED_MM, UNCOVERED_STEP_MM, goes) }];
}

/** A fold as far as it can be closed on the machine, none where it cannot be at all. */
function leaveOpen(
  development: Development,
  brake: Brake,
  settled: Settled,
  angles: readonly number[],
  fold: number,
): Of<'leave-open'>[] {
  const at = (deg: number) =>
    foldability(development, brake, {
      ...settled,
      anglesDeg: angles.map((angle, i) => (i === fold ? deg : angle)),
    })();
  if (angles[fold]! <= MIN_DEG || !at(MIN_DEG)) return [];
  // The most closed that still goes, looked for from both ends.
  let [good, bad] = [MIN_DEG, angles[fold]!];
  while (bad - good > OPEN_STEP_DEG) {
    const middle = Math.round((good + bad) / 2 / OPEN_STEP_DEG) * OPEN_STEP_DEG;
    if (middle <= good || middle >= bad) break;
    if (at(middle)) good = middle;
    else bad = middle;
  }
  return [{ kind: 'leave-open', fold, deg: good }];
}

/** A flange as long as the machine still lets it be. */
function shorter(
  development: Development,
  brake: Brake,
  settled: Settled,
  fold: number,
): Of<'shorten'>[] {
  const deep = depthOf(development, fold);
  if (deep === null || deep <= MIN_MM) return [];
  const at = (byMm: number) => foldability(shortened(development, fold, byMm), brake, settled)();
  const most = Math.floor(deep - MIN_MM);
  if (most < SHORTER_STEP_MM || !at(most)) return [];
  return [{ kind: 'shorten', fold, byMm: least(0, most, SHORTER_STEP_MM, at) }];
}

/** Folds along which a piece is cut apart so that both parts can be folded. */
function parted(
  development: Development,
  brake: Brake,
  { turnedAfter }: Settled,
  asked: readonly number[],
): Of<'part'>[] {
  // A part that holds one that cannot be folded cannot be either: small ones first.
  const stuck: number[] = [];
  const known = new Map<number, boolean>();
  const goes = (part: Part): boolean => {
    const bits = bitSetOf(part.folds);
    let found = known.get(bits);
    if (found !== undefined) return found;
    found =
      !stuck.some((one) => (one & bits) === one) &&
      foldability(part.development, brake, turnedAfter ? { turnedAfter } : {})();
    if (!found) stuck.push(bits);
    known.set(bits, found);
    return found;
  };
  const ways = asked.map((fold) => ({ fold, parts: partsAt(development, fold) }));
  for (const part of ways
    .flatMap(({ parts }) => parts)
    .sort((a, b) => a.folds.length - b.folds.length))
    goes(part);
  return ways.flatMap(({ fold, parts }) => (parts.every(goes) ? [{ kind: 'part', fold }] : []));
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
  const cut = <One extends { segment: Segment }>(piece: One): One => {
    const { segment } = piece;
    return { ...piece, segment: { ...segment, a: back(segment.a), b: back(segment.b), bulge: 0 } };
  };
  return {
    ...development,
    faces: development.faces.map((one, i) =>
      i === face ? { ...one, pieces: one.pieces.map(cut) } : one,
    ),
    net: development.net.map((piece) => (piece.face === face ? cut(piece) : piece)),
    strips: development.strips.map((strip) =>
      strip.piece.face === face ? { ...strip, piece: cut(strip.piece) } : strip,
    ),
  };
}

/** One of the parts of a piece that is cut apart, with the folds that are left to it. */
type Part = { development: Development; folds: number[] };

/** Both parts of a piece that is cut apart along a fold. */
function partsAt(development: Development, fold: number): Part[] {
  const { folds, faces, order, net, strips } = development;
  const beyond = new Set<number>([folds[fold]!.child]);
  for (const face of order) {
    const own = faces[face]!.fold;
    if (own >= 0 && beyond.has(folds[own]!.parent)) beyond.add(face);
  }
  return [false, true].map((far) => {
    const kept = order.filter((face) => beyond.has(face) === far);
    const number = new Map(kept.map((face, i) => [face, i]));
    const left = folds.flatMap((one, i) =>
      i !== fold && number.has(one.parent) && number.has(one.child) ? [i] : [],
    );
    // The outline stays whole, so that laps end as they did; what is the other part's has no face.
    const own = (piece: FoldPiece): FoldPiece => ({
      ...piece,
      face: number.get(piece.face) ?? -1,
    });
    const part: Development = {
      ...development,
      order: kept.map((_, i) => i),
      faces: kept.map((face) => ({
        ...faces[face]!,
        fold: left.indexOf(faces[face]!.fold),
      })),
      folds: left.map((i) => ({
        ...folds[i]!,
        parent: number.get(folds[i]!.parent)!,
        child: number.get(folds[i]!.child)!,
      })),
      net: net.map(own),
      strips: strips.flatMap((strip) => {
        const piece = own(strip.piece);
        return piece.face >= 0 ? [{ ...strip, piece }] : [];
      }),
    };
    return { development: part, folds: left };
  });
}
