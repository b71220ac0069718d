import type { Brake } from '../../../machine/brake';
import { thickestAt } from '../../../machine/brake';
import type { Failure, Result } from '../../../measure/result';
import type { Development } from '../developed';
import type { Body } from './bodies';
import { bodiesOf } from './bodies';
import { bodyFrames } from './bodyFrames';
import { bodyLooks, linesOf } from './bodyLooks';
import { cachedAt } from './cached';
import type { Held, Hit } from './inTheWay';
import type { Box } from './laid';
import { apart, round } from './laid';
import type { EntryClearance, Step, SwingingSide } from './passage';
import { passageOf } from './passage';
import { beyond } from './plates';
import type { Clamped, Pose } from './pose';
import { poseOf } from './pose';

export type Stepper = {
  /**
   * Whether a fold can be made with the others of `made` (as bits) made before, held on one side.
   */
  step: (fold: number, clamped: Clamped, made: number) => Step;
  poses: Record<Clamped, Pose>[];
};

/**
 * What is held, with some of its folds made: nothing of it in a fixed part, or what is; and what it
 * means for the way in and out.
 */
type ClampedSide = {
  all: readonly Held[];
  fixed: Hit | null;
  box: Box | null;
  way: EntryClearance | null;
};

/**
 * Can each fold of a piece be made in a machine, with some of the others made before? What is found
 * for a part of the piece is kept by how the folds between it and the line stand, so that many
 * orders are told from few looks.
 *
 * @param anglesDeg how far each fold is taken on the machine (one that is left open, less than it
 * is to be)
 * @param turnedAfter ids of edges that are turned over when all folds are made: what stands on the
 * others is there from the first fold on
 *
 * Problems: those of `sectionOf`.
 */
export function stepper(
  development: Development,
  brake: Brake,
  anglesDeg: readonly number[],
  turnedAfter: readonly string[] = [],
): Result<Stepper> {
  const { folds } = development;
  const thickness = folds[0]?.bend.thicknessMm ?? 1;
  const bodies = bodiesOf(development, anglesDeg, turnedAfter);
  const poses = folds.map((fold): Record<Clamped, Pose> => ({
    base: poseOf(fold, 'base'),
    far: poseOf(fold, 'far'),
  }));
  const lines = linesOf(development, poses);
  const frames = bodyFrames(development, bodies, anglesDeg);
  const { deciding, ownFold, foldsBetween } = frames;
  const looked = bodyLooks(development, brake, thickness, bodies, frames, lines, anglesDeg);
  if (!looked.ok) return looked as Failure;
  const { looks, parts } = looked;
  const whose = (body: number) => whoseOf(bodies[body]!);
  const shells = bodies.map(({ shell }) => shell);
  const { wayIn, inAndOut } = passageOf(brake, shells, parts, whose);

  // What hangs together on one side of a line depends on the folds on that side alone.
  const far = beyond(development);
  const sides = lines.map(({ fold, side, heldFace, swungFace }) => {
    const isSwung = (body: number) => far[fold]![bodies[body]!.face] === (side === 0);
    // The metal of the bend that is being made is where the machine bends it.
    const nearest = (face: number) =>
      bodies
        .flatMap((body, i) => (body.fold === fold ? [] : [i]))
        .sort((a, b) => foldsBetween(face, a) - foldsBetween(face, b));
    const swinging = nearest(swungFace).filter(isSwung);
    const still = nearest(heldFace).filter((body) => !isSwung(body));
    const all = (face: number, some: readonly number[]) =>
      some.reduce((sum, body) => sum | deciding[face]![body]!, 0);
    return {
      ...{ swinging, still },
      ofSwinging: all(swungFace, swinging),
      ofStill: all(heldFace, still),
    };
  });
  /**
   * Nearest to the line first; at the first that stands in a part of the machine no other has to be
   * looked at.
   */
  const together = <One extends { fixed: Hit | null; box: Box }>(
    some: readonly number[],
    of: (body: number) => One,
  ) => {
    const all: One[] = [];
    for (const body of some) {
      const one = of(body);
      if (one.fixed) return { all, fixed: { ...one.fixed, ...whose(body) }, box: null };
      all.push(one);
    }
    return { all, fixed: null, box: round(all.map(({ box }) => box)) };
  };
  /** The metal of a bend stands up when its fold is made. */
  const there = (some: readonly number[], made: number) =>
    some.filter((body) => ownFold[body] === 0 || made & ownFold[body]!);
  const stillAt = cachedAt((line, made): ClampedSide => {
    const { heldFace, pose } = lines[line]!;
    const found = together(there(sides[line]!.still, made), (body) =>
      looks.held(line, body, made & deciding[heldFace]![body]!),
    );
    return { ...found, way: found.fixed ? null : wayIn(found.all, pose.line) };
  });
  const movingAt = cachedAt((line, made): SwingingSide => {
    const { swungFace } = lines[line]!;
    const found = together(there(sides[line]!.swinging, made), (body) =>
      looks.swung(line, body, made & deciding[swungFace]![body]!),
    );
    return { ...found, isClear: found.all.every(({ bar }) => bar === null), out: new Map() };
  });

  const tooMuch = folds.map((_, fold): Hit | null => {
    const [from, to] = poses[fold]!.base.line;
    const most = thickestAt(brake, to - from);
    if (to - from > brake.lengthMm) return { of: 'length', depthMm: to - from - brake.lengthMm };
    return most !== null && thickness > most
      ? { of: 'thickness', depthMm: thickness - most }
      : null;
  });

  const isFlat = (body: number) => ['face', 'bend'].includes(bodies[body]!.kind);

  function look(fold: number, side: number, made: number): Step {
    const hit = tooMuch[fold];
    if (hit) return { ok: false, hit };
    const line = 2 * fold + side;
    const { ofStill, ofSwinging } = sides[line]!;
    const still = stillAt(line, made & ofStill);
    if (still.fixed) return { ok: false, hit: still.fixed };
    const moving = movingAt(line, made & ofSwinging);
    if (moving.fixed) return { ok: false, hit: moving.fixed };
    const clash = itself(line, still, moving, made);
    return clash ? { ok: false, hit: clash } : inAndOut(lines[line]!.pose.line, still.way!, moving);
  }

  /** Whether what swings meets what is held. */
  function itself(
    line: number,
    still: ClampedSide,
    moving: SwingingSide,
    made: number,
  ): Hit | null {
    const { heldFace, swungFace } = lines[line]!;
    for (const a of moving.all) {
      if (apart(a.box, still.box!)) continue;
      for (const b of still.all) {
        // What lay flat with what it swings from stands clear of it.
        if ((a.body === swungFace && b.body === heldFace) || apart(a.box, b.box)) continue;
        const between = made & deciding[a.body]![b.body]!;
        // Nothing stands up between two that lay flat together.
        if (between === 0 && isFlat(a.body) && isFlat(b.body)) continue;
        const depthMm = looks.through(line, a.body, b.body, between);
        if (depthMm > 0) return { of: 'piece', depthMm, ...whose(a.body) };
      }
    }
    return null;
  }

  return {
    ok: true,
    poses,
    step: (fold, clamped, made) => look(fold, clamped === 'far' ? 1 : 0, made & ~(1 << fold)),
  };
}

/** What is told of a body that is in the way: the face it is on, and its edge where it is turned. */
const whoseOf = ({ kind, face, of }: Body): Pick<Hit, 'face' | 'edge'> => ({
  face,
  ...(kind === 'edge' && of !== null ? { edge: of } : {}),
});
