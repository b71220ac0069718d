import type { Brake, Part } from '../../../machine/brake';
import { sectionOf } from '../../../machine/brake';
import type { Failure, Result } from '../../../measure/result';
import type { Development } from '../developed';
import type { Frame } from '../refold';
import type { Body } from './bodies';
import type { BodyFrames } from './bodyFrames';
import { cached } from './cached';
import type { Sheet } from './clash';
import { isFree, overlap, ready, sheetOf, through } from './clash';
import { closedTo, composed, inverse } from './foldTransforms';
import type { Held, Hit, Standing, Swung } from './inTheWay';
import { fixedHit, standingIn, wayOf } from './inTheWay';
import type { Box } from './laid';
import { apart, boxOf, boxesTurned, laid, round, turnBetween } from './laid';
import type { Clamped, Pose } from './pose';
import { SIDES } from './pose';

/** Step at which the swing is checked, degrees; its end is checked too. */
const SWING_DEG = 6;
/**
 * Walls that meet are cut for each other (`corners.ts`), but returns on them are not: what crosses
 * nearer to a rim than this share of the thickness and this length, mm, is let be.
 */
const RIM = [0.5, 0.1] as const;

/**
 * A line of the machine with the piece on it: a fold, held on one of its two sides. Lines are counted
 * 2·fold + side.
 */
export type Line = { fold: number; side: 0 | 1; heldFace: number; swungFace: number; pose: Pose };

/** The two lines of each fold. */
export const linesOf = (
  { folds }: Development,
  poses: readonly Record<Clamped, Pose>[],
): readonly Line[] =>
  folds.flatMap(({ parent, child }, fold): Line[] => [
    { fold, side: 0, heldFace: parent, swungFace: child, pose: poses[fold]!.base },
    { fold, side: 1, heldFace: child, swungFace: parent, pose: poses[fold]!.far },
  ]);

/**
 * What is found of one body at one line, and of two. What is found is kept by the folds that decide
 * it, so that many orders are told from few looks: `made` holds those between the body and the face
 * that is held, or that swings, and no others.
 */
export type BodyLooks = {
  /** A body of the side that is held, against the parts that stand fast. */
  held: (line: number, body: number, made: number) => Held;
  /** A body of the side that swings, against bar, beam and bed all the way up, and the apron. */
  swung: (line: number, body: number, made: number) => Swung;
  /**
   * How deep a body that swings goes through one that is held, anywhere on the way up, mm; of `made`
   * what decides either.
   */
  through: (line: number, swings: number, isHeld: number, made: number) => number;
};

/** Problems: those of `sectionOf`. */
export function bodyLooks(
  development: Development,
  brake: Brake,
  thicknessMm: number,
  bodies: readonly Body[],
  { seen, deciding }: BodyFrames,
  lines: readonly Line[],
  anglesDeg: readonly number[],
): Result<{ looks: BodyLooks; parts: readonly Part[] }> {
  const section = sectionOf(brake, thicknessMm);
  if (!section.ok) return section as Failure;
  const part = (name: Part['name']) =>
    section.parts.filter((one) => one.name === name).map((one) => ready(one.section));
  const machine = {
    bar: part('bar'),
    beam: part('beam'),
    bed: part('bed'),
    apron: part('apron'),
    bench: part('bench'),
  };
  const plates = bodies.map(({ shell }) => shell);
  const rim = RIM[0] * thicknessMm + RIM[1];

  // How what swings lies flat in the machine, and at each look on its way up; and the turns from
  // the one to the others.
  const swings = lines.map(({ fold, side, pose }) => {
    const to = anglesDeg[fold]!;
    const n = Math.max(1, Math.ceil(to / SWING_DEG));
    const at = (deg: number) => {
      const out = closedTo(development, fold, deg);
      return composed(pose.onMachine, SIDES[side] === 'base' ? out : inverse(out));
    };
    const flat = at(0);
    const frames = Array.from({ length: n }, (_, i) => at((to * (i + 1)) / n));
    return { flat, frames, turns: frames.map((frame) => turnBetween(flat, frame)) };
  });

  const stands = (line: number, body: number, made: number): Frame =>
    composed(lines[line]!.pose.onMachine, seen(lines[line]!.heldFace, body, made));
  /** A bead on a face that lies in the machine is packed beside: it stands in no part that presses. */
  const isPressed = (body: number, face: number) =>
    bodies[body]!.kind === 'bead' && bodies[body]!.face === face;

  const STANDING = ['beam', 'bed', 'bench'] as const;
  /** The first of the parts that stand fast in which a plate is. */
  const inFixed = (plate: Body['shell'], frame: Frame, box: Box): Hit | null =>
    STANDING.reduce<Hit | null>(
      (hit, name) => hit ?? fixedHit(name, plate, frame, box, machine[name]),
      null,
    );

  const held = cached((line, body, made): Held => {
    const plate = plates[body]!;
    const frame = stands(line, body, made);
    const box = boxOf(plate, frame);
    const pressed = isPressed(body, lines[line]!.heldFace);
    const fixed = pressed ? null : inFixed(plate, frame, box);
    const bar = pressed ? null : standingIn(plate, frame, box, machine.bar);
    return { body, bar, fixed, box, ...wayOf(() => laid(plate, frame), box, thicknessMm) };
  });

  const inAny = [...machine.beam, ...machine.bed, ...machine.bar, ...machine.bench];
  const swung = cached((line, body, made): Swung => {
    const { swungFace, pose } = lines[line]!;
    const plate = plates[body]!;
    const own = seen(swungFace, body, made);
    const atRest = composed(pose.onApron, own);
    const rest = boxOf(plate, atRest);
    const pressed = isPressed(body, swungFace);
    let fixed =
      (pressed ? null : fixedHit('apron', plate, atRest, rest, machine.apron)) ??
      fixedHit('bench', plate, atRest, rest, machine.bench);
    const { flat, frames, turns } = swings[line]!;
    const boxes = boxesTurned(plate, composed(flat, own), turns);
    let bar: Standing | null = null;
    for (const [i, box] of boxes.entries()) {
      if (fixed) break;
      if (isFree(box, inAny)) continue;
      const frame = composed(frames[i]!, own);
      fixed = inFixed(plate, frame, box);
      const now = standingIn(plate, frame, box, machine.bar);
      if (now && bar)
        bar = {
          span: [Math.min(bar.span[0], now.span[0]), Math.max(bar.span[1], now.span[1])],
          depthMm: Math.max(bar.depthMm, now.depthMm),
        };
      else bar ??= now;
    }
    return {
      body,
      bar,
      fixed,
      box: round(boxes),
      end: boxes[boxes.length - 1]!,
      endFrame: () => composed(frames[frames.length - 1]!, own),
    };
  });

  /** What is held, in the machine. */
  const standing = cached((line, body, made): Sheet[] =>
    laid(plates[body]!, stands(line, body, made)).map(sheetOf),
  );
  const throughOf = cached((line, pair, made): number => {
    const [a, b] = [Math.floor(pair / plates.length), pair % plates.length];
    const { heldFace, swungFace } = lines[line]!;
    const own = seen(swungFace, a, made & deciding[swungFace]![a]!);
    const isEdge = bodies[a]!.kind === 'edge' && bodies[b]!.kind === 'edge';
    const ofHeld = made & deciding[heldFace]![b]!;
    const { box } = held(line, b, ofHeld);
    const { flat, frames, turns } = swings[line]!;
    let depth = 0;
    for (const [i, at] of boxesTurned(plates[a]!, composed(flat, own), turns).entries()) {
      if (apart(at, box)) continue;
      const sides = laid(plates[a]!, composed(frames[i]!, own)).map(sheetOf);
      const others = standing(line, b, ofHeld);
      if (isEdge) depth = Math.max(depth, overlap(sides, others, rim));
      for (const s of sides)
        for (const t of others) depth = Math.max(depth, through(s, t, rim), through(t, s, rim));
    }
    return depth;
  });
  return {
    ok: true,
    parts: section.parts,
    looks: {
      held,
      swung,
      through: (line, swings, isHeld, made) =>
        throughOf(line, swings * plates.length + isHeld, made),
    },
  };
}
