import type { Brake, Part } from '../../../machine/brake';
import { sectionOf, thickestAt } from '../../../machine/brake';
import type { Problem, Result } from '../../../measure/result';
import type { Development } from '../developed';
import type { Frame } from '../refold';
import type { Sheet } from './clash';
import { isFree, ready, sheetOf, through } from './clash';
import type { Held, Hit, Standing, Swung } from './inTheWay';
import { fixedHit, standingIn, wayOf } from './inTheWay';
import type { Box, Shell } from './laid';
import { apart, boxOf, boxesTurned, laid, round, turnBetween } from './laid';
import { STILL, after, back, closedTo, waysBetween } from './lie';
import type { In, Moving, Step } from './passage';
import { passageOf } from './passage';
import { beyond, platesOf } from './plates';
import type { Clamped, Pose } from './pose';
import { SIDES, poseOf } from './pose';

export type Stepper = {
  /**
   * Whether a fold can be made with the others of `made` (as bits) made before, held on one side.
   */
  step: (fold: number, clamped: Clamped, made: number) => Step;
  poses: Record<Clamped, Pose>[];
};

/** The swing is looked at every so many degrees, and at its end. */
const SWING_DEG = 6;
/**
 * Walls that meet are cut for each other (`corners.ts`), but returns on them are not: what crosses
 * nearer to a rim than this share of the thickness and this length, mm, is let be.
 */
const RIM = [0.5, 0.1] as const;
/** A shell of the sheet so thin is left out when it is held against the machine, mm. */
const SHELL_MM = 0.02;

/**
 * What is held, with some of its folds made: nothing of it in a fixed part, or what is; and what it
 * means for the way in and out.
 */
type Still = { all: readonly Held[]; fixed: Hit | null; box: Box | null; way: In | null };

/**
 * Can each fold of a piece be made in a machine, with some of the others made before? What is found
 * for a part of the piece is kept by how the folds between it and the line stand, so that many
 * orders are told from few looks.
 *
 * @param anglesDeg how far each fold is taken on the machine (one that is left open, less than it
 * is to be) Problems: those of `sectionOf`.
 */
export function stepper(
  development: Development,
  brake: Brake,
  anglesDeg: readonly number[],
): Result<Stepper> {
  const { folds } = development;
  const thickness = folds[0]?.bend.thicknessMm ?? 1;
  const section = sectionOf(brake, thickness);
  if (!section.ok) return section as { ok: false; problems: Problem[] };
  const part = (name: Part['name']) =>
    section.parts.filter((one) => one.name === name).map((one) => one.section);
  const machine = {
    bar: part('bar').map(ready),
    beam: part('beam').map(ready),
    bed: part('bed').map(ready),
    apron: part('apron').map(ready),
    bench: part('bench').map(ready),
  };
  const plates = platesOf(development).map(({ outline }): Shell => ({
    rim: outline,
    heights: [SHELL_MM - thickness, -SHELL_MM],
  }));
  const faces = plates.map((_, face) => face);
  const ways = waysBetween(development);
  const bits = ways.map((row) =>
    row.map((way) => way.reduce((sum, { fold }) => sum | (1 << fold), 0)),
  );
  const far = beyond(development);
  const poses = folds.map((fold): Record<Clamped, Pose> => ({
    base: poseOf(fold, 'base'),
    far: poseOf(fold, 'far'),
  }));
  const rim = RIM[0] * thickness + RIM[1];
  const { wayIn, inAndOut } = passageOf(brake, plates, section.parts);
  const closed = folds.map((_, fold) => closedTo(development, fold, anglesDeg[fold]!));
  const opened = closed.map(back);
  // How what swings lies flat in the machine, and at each look on its way up; and the turns from
  // the one to the others.
  const swings = folds.map((_, fold) =>
    SIDES.map((side) => {
      const to = anglesDeg[fold]!;
      const n = Math.max(1, Math.ceil(to / SWING_DEG));
      const at = (deg: number) => {
        const out = closedTo(development, fold, deg);
        return after(poses[fold]![side].onMachine, side === 'base' ? out : back(out));
      };
      const flat = at(0);
      const frames = Array.from({ length: n }, (_, i) => at((to * (i + 1)) / n));
      return { flat, frames, turns: frames.map((frame) => turnBetween(flat, frame)) };
    }),
  );

  /**
   * Where a plate lies as another face sees it, the folds between them made that are among these.
   */
  const seen = cached((from: number, face: number, made: number): Frame => {
    let frame: Frame = STILL;
    for (const { fold, outward } of ways[from]![face]!)
      if (made & (1 << fold)) frame = after(frame, (outward ? closed : opened)[fold]!);
    return frame;
  });
  const heldOf = (fold: number, side: number) =>
    side === 0 ? folds[fold]!.parent : folds[fold]!.child;
  const swungOf = (fold: number, side: number) =>
    side === 0 ? folds[fold]!.child : folds[fold]!.parent;
  const poseAt = (fold: number, side: number) => poses[fold]![side === 0 ? 'base' : 'far'];
  const stands = (line: number, face: number, made: number): Frame =>
    after(poseAt(line >> 1, line & 1).onMachine, seen(heldOf(line >> 1, line & 1), face, made));

  const STANDING = ['beam', 'bed', 'bench'] as const;
  /** The first of the parts that stand fast in which a plate is. */
  const inFixed = (plate: Shell, frame: Frame, box: Box): Hit | null =>
    STANDING.reduce<Hit | null>(
      (hit, name) => hit ?? fixedHit(name, plate, frame, box, machine[name]),
      null,
    );

  const held = cached((line: number, face: number, made: number): Held => {
    const plate = plates[face]!;
    const frame = stands(line, face, made);
    const box = boxOf(plate, frame);
    const fixed = inFixed(plate, frame, box);
    const bar = standingIn(plate, frame, box, machine.bar);
    return { face, bar, fixed, box, ...wayOf(() => laid(plate, frame), box, thickness) };
  });

  const inAny = [...machine.beam, ...machine.bed, ...machine.bar, ...machine.bench];
  /** What swings, against bar, beam and bed all the way up, and against the apron it lies on. */
  const swung = cached((line: number, face: number, made: number): Swung => {
    const [fold, side] = [line >> 1, line & 1];
    const plate = plates[face]!;
    const own = seen(swungOf(fold, side), face, made);
    const atRest = after(poseAt(fold, side).onApron, own);
    const rest = boxOf(plate, atRest);
    let fixed =
      fixedHit('apron', plate, atRest, rest, machine.apron) ??
      fixedHit('bench', plate, atRest, rest, machine.bench);
    const { flat, frames, turns } = swings[fold]![side]!;
    const boxes = boxesTurned(plate, after(flat, own), turns);
    let bar: Standing | null = null;
    for (const [i, box] of boxes.entries()) {
      if (fixed) break;
      if (isFree(box, inAny)) continue;
      const frame = after(frames[i]!, own);
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
      face,
      bar,
      fixed,
      box: round(boxes),
      end: boxes[boxes.length - 1]!,
      endFrame: () => after(frames[frames.length - 1]!, own),
    };
  });

  /** What is held, in the machine. */
  const standing = cached((line: number, face: number, made: number): Sheet[] =>
    laid(plates[face]!, stands(line, face, made)).map(sheetOf),
  );
  /** How deep what swings goes through what is held, anywhere on the way up. */
  const against = cached((line: number, pair: number, made: number): number => {
    const [a, b] = [Math.floor(pair / plates.length), pair % plates.length];
    const [fold, side] = [line >> 1, line & 1];
    const own = seen(swungOf(fold, side), a, made & bits[swungOf(fold, side)]![a]!);
    const ofHeld = made & bits[heldOf(fold, side)]![b]!;
    const { box } = held(line, b, ofHeld);
    const { flat, frames, turns } = swings[fold]![side]!;
    let depth = 0;
    for (const [i, at] of boxesTurned(plates[a]!, after(flat, own), turns).entries()) {
      if (apart(at, box)) continue;
      for (const s of laid(plates[a]!, after(frames[i]!, own)).map(sheetOf))
        for (const t of standing(line, b, ofHeld))
          depth = Math.max(depth, through(s, t, rim), through(t, s, rim));
    }
    return depth;
  });

  // What hangs together on one side of a line depends on the folds on that side alone: asked once
  // for each of their states.
  const lines = folds.flatMap((_, fold) =>
    [0, 1].map((side) => {
      const [at, on] = [heldOf(fold, side), swungOf(fold, side)];
      const isSwung = (face: number) => far[fold]![face] === (side === 0);
      const nearest = (from: number) =>
        [...faces].sort((a, b) => ways[from]![a]!.length - ways[from]![b]!.length);
      const [swinging, still] = [
        nearest(on).filter(isSwung),
        nearest(at).filter((face) => !isSwung(face)),
      ];
      const all = (of: number, some: readonly number[]) =>
        some.reduce((sum, face) => sum | bits[of]![face]!, 0);
      return {
        swinging,
        still,
        ofSwinging: all(on, swinging),
        ofStill: all(at, still),
        at,
        on,
        along: poseAt(fold, side).line,
      };
    }),
  );
  /**
   * Nearest to the line first; at the first that stands in a part of the machine no other has to be
   * looked at.
   */
  const together = <One extends { fixed: Hit | null; box: Box }>(
    some: readonly number[],
    of: (face: number) => One,
  ) => {
    const all: One[] = [];
    for (const face of some) {
      const one = of(face);
      if (one.fixed) return { all, fixed: { ...one.fixed, face }, box: null };
      all.push(one);
    }
    return { all, fixed: null, box: round(all.map(({ box }) => box)) };
  };
  const stillAt = cached((line: number, _: number, made: number): Still => {
    const { still, at, along } = lines[line]!;
    const found = together(still, (face) => held(line, face, made & bits[at]![face]!));
    return { ...found, way: found.fixed ? null : wayIn(found.all, along) };
  });
  const movingAt = cached((line: number, _: number, made: number): Moving => {
    const { swinging, on } = lines[line]!;
    const found = together(swinging, (face) => swung(line, face, made & bits[on]![face]!));
    return { ...found, isClear: found.all.every(({ bar }) => bar === null), out: new Map() };
  });

  const tooMuch = folds.map((_, fold): Hit | null => {
    const [from, to] = poseAt(fold, 0).line;
    const most = thickestAt(brake, to - from);
    if (to - from > brake.lengthMm) return { of: 'length', depthMm: to - from - brake.lengthMm };
    return most !== null && thickness > most
      ? { of: 'thickness', depthMm: thickness - most }
      : null;
  });

  function look(fold: number, side: number, made: number): Step {
    const hit = tooMuch[fold];
    if (hit) return { ok: false, hit };
    const line = 2 * fold + side;
    const { ofStill, ofSwinging } = lines[line]!;
    const still = stillAt(line, 0, made & ofStill);
    if (still.fixed) return { ok: false, hit: still.fixed };
    const moving = movingAt(line, 0, made & ofSwinging);
    if (moving.fixed) return { ok: false, hit: moving.fixed };
    const clash = itself(line, still, moving, made);
    return clash ? { ok: false, hit: clash } : inAndOut(lines[line]!.along, still.way!, moving);
  }

  /** Whether what swings meets what is held. */
  function itself(line: number, still: Still, moving: Moving, made: number): Hit | null {
    const { at, on } = lines[line]!;
    for (const a of moving.all) {
      if (apart(a.box, still.box!)) continue;
      for (const b of still.all) {
        // What lay flat with what it swings from stands clear of it.
        if ((a.face === on && b.face === at) || apart(a.box, b.box)) continue;
        const between = made & bits[a.face]![b.face]!;
        if (between === 0) continue;
        const depth = against(line, a.face * plates.length + b.face, between);
        if (depth > 0) return { of: 'piece', depthMm: depth, face: a.face };
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

/** A function of three numbers that is asked often with the same: two small ones and bits. */
function cached<T>(
  of: (a: number, b: number, bits: number) => T,
): (a: number, b: number, bits: number) => T {
  const known = new Map<number, Map<number, T>>();
  return (a, b, bits) => {
    const first = a * 100_003 + b;
    let row = known.get(first);
    if (!row) known.set(first, (row = new Map()));
    let found = row.get(bits);
    if (found === undefined) row.set(bits, (found = of(a, b, bits)));
    return found;
  };
}
