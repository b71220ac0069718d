import type { Brake, Part } from '../../../machine/brake';
import { sectionOf, thickestAt } from '../../../machine/brake';
import type { Problem, Result } from '../../../measure/result';
import type { Development } from '../developed';
import type { Frame } from '../refold';
import type { Sheet } from './clash';
import { isFree, overlap, ready, sheetOf, through } from './clash';
import type { Held, Hit, Standing, Swung } from './inTheWay';
import { fixedHit, standingIn, wayOf } from './inTheWay';
import type { Box } from './laid';
import { apart, boxOf, boxesTurned, laid, round, turnBetween } from './laid';
import { IDENTITY, composed, inverse, closedTo, waysBetween } from './foldTransforms';
import type { EntryClearance, SwingingSide, Step } from './passage';
import { passageOf } from './passage';
import type { Body } from './bodies';
import { bodiesOf } from './bodies';
import { beyond } from './plates';
import type { Clamped, Pose } from './pose';
import { SIDES, poseOf } from './pose';

export type Stepper = {
  /**
   * Whether a fold can be made with the others of `made` (as bits) made before, held on one side.
   */
  step: (fold: number, clamped: Clamped, made: number) => Step;
  poses: Record<Clamped, Pose>[];
};

/** Step at which the swing is checked, degrees; its end is checked too. */
const SWING_DEG = 6;
/**
 * Walls that meet are cut for each other (`corners.ts`), but returns on them are not: what crosses
 * nearer to a rim than this share of the thickness and this length, mm, is let be.
 */
const RIM = [0.5, 0.1] as const;

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
  const bodies = bodiesOf(development, anglesDeg, turnedAfter);
  const plates = bodies.map(({ shell }) => shell);
  const faceOf = bodies.map(({ face }) => face);
  const ways = waysBetween(development);
  const ofWay = ways.map((row) =>
    row.map((way) => way.reduce((sum, { fold }) => sum | (1 << fold), 0)),
  );
  // The folds that decide how one body lies to another: those between their faces, and of a bend
  // its own.
  const ownFold = bodies.map(({ fold }) => (fold === null ? 0 : 1 << fold));
  const bits = bodies.map((a, i) =>
    bodies.map((b, j) => ofWay[a.face]![b.face]! | ownFold[i]! | ownFold[j]!),
  );
  const far = beyond(development);
  const whose = (body: number) => whoseOf(bodies[body]!);
  const poses = folds.map((fold): Record<Clamped, Pose> => ({
    base: poseOf(fold, 'base'),
    far: poseOf(fold, 'far'),
  }));
  const rim = RIM[0] * thickness + RIM[1];
  const { wayIn, inAndOut } = passageOf(brake, plates, section.parts, whose);
  const closed = folds.map((_, fold) => closedTo(development, fold, anglesDeg[fold]!));
  const opened = closed.map(inverse);
  // How what swings lies flat in the machine, and at each look on its way up; and the turns from
  // the one to the others.
  const swings = folds.map((_, fold) =>
    SIDES.map((side) => {
      const to = anglesDeg[fold]!;
      const n = Math.max(1, Math.ceil(to / SWING_DEG));
      const at = (deg: number) => {
        const out = closedTo(development, fold, deg);
        return composed(poses[fold]![side].onMachine, side === 'base' ? out : inverse(out));
      };
      const flat = at(0);
      const frames = Array.from({ length: n }, (_, i) => at((to * (i + 1)) / n));
      return { flat, frames, turns: frames.map((frame) => turnBetween(flat, frame)) };
    }),
  );

  /** Where a body lies as a face sees it, the folds between them made that are among these. */
  const seen = cached((from: number, body: number, made: number): Frame => {
    let frame: Frame = IDENTITY;
    for (const { fold, outward } of ways[from]![faceOf[body]!]!)
      if (made & (1 << fold)) frame = composed(frame, (outward ? closed : opened)[fold]!);
    return composed(frame, bodies[body]!.on);
  });
  const heldOf = (fold: number, side: number) =>
    side === 0 ? folds[fold]!.parent : folds[fold]!.child;
  const swungOf = (fold: number, side: number) =>
    side === 0 ? folds[fold]!.child : folds[fold]!.parent;
  const poseAt = (fold: number, side: number) => poses[fold]![side === 0 ? 'base' : 'far'];
  const stands = (line: number, body: number, made: number): Frame =>
    composed(poseAt(line >> 1, line & 1).onMachine, seen(heldOf(line >> 1, line & 1), body, made));
  /** A bead on a face that lies in the machine is packed beside: it stands in no part that presses. */
  const isPressed = (body: number, face: number) =>
    bodies[body]!.kind === 'bead' && faceOf[body] === face;

  const STANDING = ['beam', 'bed', 'bench'] as const;
  /** The first of the parts that stand fast in which a plate is. */
  const inFixed = (plate: Body['shell'], frame: Frame, box: Box): Hit | null =>
    STANDING.reduce<Hit | null>(
      (hit, name) => hit ?? fixedHit(name, plate, frame, box, machine[name]),
      null,
    );

  const held = cached((line: number, body: number, made: number): Held => {
    const plate = plates[body]!;
    const frame = stands(line, body, made);
    const box = boxOf(plate, frame);
    const pressed = isPressed(body, heldOf(line >> 1, line & 1));
    const fixed = pressed ? null : inFixed(plate, frame, box);
    const bar = pressed ? null : standingIn(plate, frame, box, machine.bar);
    return { body, bar, fixed, box, ...wayOf(() => laid(plate, frame), box, thickness) };
  });

  const inAny = [...machine.beam, ...machine.bed, ...machine.bar, ...machine.bench];
  /** What swings, against bar, beam and bed all the way up, and against the apron it lies on. */
  const swung = cached((line: number, body: number, made: number): Swung => {
    const [fold, side] = [line >> 1, line & 1];
    const plate = plates[body]!;
    const own = seen(swungOf(fold, side), body, made);
    const atRest = composed(poseAt(fold, side).onApron, own);
    const rest = boxOf(plate, atRest);
    const pressed = isPressed(body, swungOf(fold, side));
    let fixed =
      (pressed ? null : fixedHit('apron', plate, atRest, rest, machine.apron)) ??
      fixedHit('bench', plate, atRest, rest, machine.bench);
    const { flat, frames, turns } = swings[fold]![side]!;
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
  const standing = cached((line: number, body: number, made: number): Sheet[] =>
    laid(plates[body]!, stands(line, body, made)).map(sheetOf),
  );
  /** How deep what swings goes through what is held, anywhere on the way up. */
  const against = cached((line: number, pair: number, made: number): number => {
    const [a, b] = [Math.floor(pair / plates.length), pair % plates.length];
    const [fold, side] = [line >> 1, line & 1];
    const own = seen(swungOf(fold, side), a, made & bits[swungOf(fold, side)]![a]!);
    const isEdge = bodies[a]!.kind === 'edge' && bodies[b]!.kind === 'edge';
    const ofHeld = made & bits[heldOf(fold, side)]![b]!;
    const { box } = held(line, b, ofHeld);
    const { flat, frames, turns } = swings[fold]![side]!;
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

  // What hangs together on one side of a line depends on the folds on that side alone: asked once
  // for each of their states.
  const lines = folds.flatMap((_, fold) =>
    [0, 1].map((side) => {
      const [at, on] = [heldOf(fold, side), swungOf(fold, side)];
      const isSwung = (body: number) => far[fold]![faceOf[body]!] === (side === 0);
      const away = (from: number, body: number) => ways[from]![faceOf[body]!]!.length;
      // The metal of the bend that is being made is where the machine bends it.
      const nearest = (from: number) =>
        bodies
          .flatMap((body, i) => (body.fold === fold ? [] : [i]))
          .sort((a, b) => away(from, a) - away(from, b));
      const [swinging, still] = [
        nearest(on).filter(isSwung),
        nearest(at).filter((body) => !isSwung(body)),
      ];
      const all = (of: number, some: readonly number[]) =>
        some.reduce((sum, body) => sum | bits[of]![body]!, 0);
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
  const stillAt = cached((line: number, _: number, made: number): ClampedSide => {
    const { still, at, along } = lines[line]!;
    const found = together(there(still, made), (body) => held(line, body, made & bits[at]![body]!));
    return { ...found, way: found.fixed ? null : wayIn(found.all, along) };
  });
  const movingAt = cached((line: number, _: number, made: number): SwingingSide => {
    const { swinging, on } = lines[line]!;
    const found = together(there(swinging, made), (body) =>
      swung(line, body, made & bits[on]![body]!),
    );
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

  const isFlat = (body: number) => ['face', 'bend'].includes(bodies[body]!.kind);

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
  function itself(
    line: number,
    still: ClampedSide,
    moving: SwingingSide,
    made: number,
  ): Hit | null {
    const { at, on } = lines[line]!;
    for (const a of moving.all) {
      if (apart(a.box, still.box!)) continue;
      for (const b of still.all) {
        // What lay flat with what it swings from stands clear of it.
        if ((a.body === on && b.body === at) || apart(a.box, b.box)) continue;
        const between = made & bits[a.body]![b.body]!;
        // Nothing stands up between two that lay flat together.
        if (between === 0 && isFlat(a.body) && isFlat(b.body)) continue;
        const depth = against(line, a.body * plates.length + b.body, between);
        if (depth > 0) return { of: 'piece', depthMm: depth, ...whose(a.body) };
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

/** A function of three numbers that is asked often with the same: two small ones and bits. */
function cached<T>(
  of: (a: number, b: number, bits: number) => T,
): (a: number, b: number, bits: number) => T {
  const known = new Map<number, Map<number, T>>();
  return (a, b, bits) => {
    const first = a * 10_000_019 + b;
    let row = known.get(first);
    if (!row) known.set(first, (row = new Map()));
    let found = row.get(bits);
    if (found === undefined) row.set(bits, (found = of(a, b, bits)));
    return found;
  };
}
