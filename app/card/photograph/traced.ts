import { emptyPattern } from '#core/card/emptyPattern';
import type { NewId } from '#core/card/kinds';
import { patternParts, spotNearest } from '#core/card/outline';
import type { CardMark, HoleForm, PatternDoc } from '#core/card/pattern';
import type { Problem } from '#core/measure/result';
import type { Segment } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import type { Scale } from '#core/picture/findFrame';
import type { TracedHole } from '#core/picture/trace';
import { newFold } from '../hand/newFold';

/** What is asked of the worker that looks at a picture. */
export type TraceAsked = {
  file: Blob;
  scale: Scale;
  toleranceMm: number;
  /**
   * Where the frame's corners and the card's were pointed at, as shares of the picture's width and
   * height; null: found.
   */
  frameAt: readonly Vec[] | null;
  cardAt: readonly Vec[] | null;
};

/** The picture seen square on, and where it lies on the plane: kept behind the card. */
export type Underlay = {
  picture: Blob;
  leftMm: number;
  topMm: number;
  wideMm: number;
  highMm: number;
};

/** What was found, as plain data; of a picture in which it was not found, why. */
export type TraceFound = {
  outline: Segment[];
  holes: (TracedHole & { form?: HoleForm })[];
  /** Cut-outs that are neither round nor slots nor squares: how many. */
  openings: number;
  lines: [Vec, Vec][];
  uMm: number;
  worstMm: number;
  cutOff: boolean;
  /** Stretches of the outline that want to be compared with the picture. */
  doubtful: Vec[][];
  underlay: Underlay;
};
export type TraceAnswer =
  | {
      what: 'progress';
      share: number;
      doing: 'reading' | 'frame' | 'straight' | 'card' | 'edge' | 'drawn';
    }
  | { what: 'found'; found: TraceFound }
  | { what: 'refused'; problems: Problem[] }
  | { what: 'unreadable' };

/** Which of what was found is taken, lines as folds or to be scribed. */
export type Taken = {
  holes: readonly number[];
  folds: readonly number[];
  marks: readonly number[];
};

/** A line's end lies on the outline when it is no farther from it, mm. */
const ON_OUTLINE_MM = 3;

/**
 * Whether a line that was drawn runs from one side of the card to another: only such a one can be
 * folded along.
 */
export function canFold(found: TraceFound, line: readonly [Vec, Vec], newId: NewId): boolean {
  return foldBetween({ ...emptyPattern(), ...patternParts(found.outline, newId) }, line) !== null;
}

/**
 * The path of a fold along a line, where both its ends lie on the outline and on two sides of it;
 * null else.
 */
export function foldBetween(doc: PatternDoc, [a, b]: readonly [Vec, Vec]) {
  const [from, to] = [spotNearest(doc, a), spotNearest(doc, b)];
  if (
    !from ||
    !to ||
    from.distance > ON_OUTLINE_MM ||
    to.distance > ON_OUTLINE_MM ||
    from.spot.side === to.spot.side
  )
    return null;
  const place = ({ spot }: NonNullable<ReturnType<typeof spotNearest>>) => ({
    side: spot.side,
    share: spot.at,
  });
  return { kind: 'between', from: place(from), to: place(to) } as const;
}

/** The card that is made of what was found and taken. */
export function cardOf(
  found: TraceFound,
  taken: Taken,
  by: 'photograph' | 'scan',
  newId: NewId,
): PatternDoc {
  const doc: PatternDoc = {
    ...emptyPattern(),
    ...patternParts(found.outline, newId),
    measured: { by, uMm: found.uMm },
  };
  const holes = taken.holes.flatMap((i) => found.holes[i] ?? []);
  const made = {
    ...doc,
    holes: holes.map(({ x, y, diameterMm, form }) => ({ id: newId(), x, y, diameterMm, form })),
  };
  const lines = (which: readonly number[]) =>
    which.flatMap((i) => (found.lines[i] ? [found.lines[i]] : []));
  return foldedAlong(
    { ...made, marks: marksAlong(lines(taken.marks), newId) },
    lines(taken.folds),
    newId,
  );
}

/** Lines to scribe that are not named yet. */
export const marksAlong = (lines: readonly (readonly [Vec, Vec])[], newId: NewId): CardMark[] =>
  lines.map(([from, to]) => ({ id: newId(), name: '', from: [...from], to: [...to] }));

/** A card with a fold along each line that runs from one side of it to another. */
export const foldedAlong = (
  card: PatternDoc,
  lines: readonly (readonly [Vec, Vec])[],
  newId: NewId,
): PatternDoc =>
  lines.reduce((folded, line) => {
    const path = foldBetween(folded, line);
    return path ? { ...folded, folds: [...folded.folds, newFold(folded, newId(), path)] } : folded;
  }, card);
