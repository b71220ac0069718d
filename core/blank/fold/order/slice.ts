import type { Vec } from '../../../measure/vector';
import type { Development } from '../developed';
import type { Vec3 } from '../refold';
import { IDENTITY, composed, inverse, closedTo, waysBetween } from './foldTransforms';
import type { Body } from './bodies';
import { bodiesOf, rimIn } from './bodies';
import { poseOf } from './pose';
import type { OrderStep } from './solve';

/**
 * A plate cut through: from where to where in the section (x toward the one who folds, z up),
 * middle of the sheet.
 */
export type Cut = { kind: Body['kind']; face: number; from: Vec; to: Vec; held: boolean };

/**
 * Where and when a piece is cut through: folds `made` before, as far as each is taken, the fold
 * itself to `deg` degrees; where along the line, by itself in its middle.
 */
export type SliceAt = {
  made: readonly number[];
  anglesDeg: readonly number[];
  deg: number;
  alongMm?: number | undefined;
  /** Ids of edges that are turned over when all folds are made. */
  turnedAfter?: readonly string[] | undefined;
};

/** A plate in the machine's directions: its rim along the middle of the sheet. */
type Placed = {
  kind: Body['kind'];
  face: number;
  at: Vec3[];
  held: boolean;
  line: [number, number];
};

function platesAt(
  development: Development,
  step: OrderStep,
  { made, anglesDeg, deg, turnedAfter }: SliceAt,
): Placed[] {
  const { folds } = development;
  const fold = folds[step.fold]!;
  const { onMachine, line } = poseOf(fold, step.clamped);
  const held = step.clamped === 'base' ? fold.parent : fold.child;
  const ways = waysBetween(development)[held]!;
  const bodies = bodiesOf(
    development,
    anglesDeg.map((angle, i) => (i === step.fold ? deg : angle)),
    turnedAfter,
  );
  // A bend is drawn when it is made, beads not at all: they are told beside the drawing.
  const drawn = bodies.filter(
    (body) =>
      body.kind === 'face' ||
      body.kind === 'edge' ||
      (body.kind === 'bend' && (body.fold === step.fold || made.includes(body.fold!))),
  );
  return drawn.map((body) => {
    const { face, kind } = body;
    let frame = IDENTITY;
    for (const { fold: index, outward } of ways[face]!) {
      const angle = index === step.fold ? deg : made.includes(index) ? anglesDeg[index]! : 0;
      const closed = closedTo(development, index, angle);
      frame = composed(frame, outward ? closed : inverse(closed));
    }
    const whole = composed(onMachine, frame);
    const at = rimIn(body, whole);
    return {
      kind,
      face,
      at,
      held: !ways[face]!.some(({ fold: index }) => index === step.fold),
      line,
    };
  });
}

/**
 * Minimum distance of a section from the ends of a line, mm: at the very end there can be a relief.
 */
const IN_MM = 6;

/** The piece cut through square to the line while a fold is made. */
export function sliceOf(development: Development, step: OrderStep, sliced: SliceAt): Cut[] {
  return platesAt(development, step, sliced).flatMap(({ kind, face, at, held, line }): Cut[] => {
    const middle = Math.max(
      line[0] + IN_MM,
      Math.min(line[1] - IN_MM, sliced.alongMm ?? (line[0] + line[1]) / 2),
    );
    const crossings = at.flatMap((p, i): Vec[] => {
      const q = at[(i + 1) % at.length]!;
      if (p[1] > middle === q[1] > middle) return [];
      const share = (middle - p[1]) / (q[1] - p[1]);
      return [[p[0] + (q[0] - p[0]) * share, p[2] + (q[2] - p[2]) * share]];
    });
    // Cut through a hollow plate there can be several stretches, from crossing to crossing.
    const sorted = crossings.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
    return sorted.flatMap((from, i) =>
      i % 2 === 0 && sorted[i + 1] ? [{ kind, face, from, to: sorted[i + 1]!, held }] : [],
    );
  });
}

/** A plate that stands along the section, as it is seen in it: its rim. */
export type Wall = { kind: Body['kind']; face: number; rim: Vec[]; held: boolean };

/** Maximum thickness, seen from above, of a plate that counts as standing along the section, mm. */
const FLAT_MM = 3;

/**
 * The plates that no cut square to the line goes through, because they stand along it: walls at its
 * ends.
 */
export const wallsOf = (development: Development, step: OrderStep, sliced: SliceAt): Wall[] =>
  platesAt(development, step, sliced).flatMap(({ kind, face, at, held }): Wall[] => {
    const ys = at.map((p) => p[1]);
    return Math.max(...ys) - Math.min(...ys) > FLAT_MM
      ? []
      : [{ kind, face, rim: at.map(([x, , z]): Vec => [x, z]), held }];
  });
