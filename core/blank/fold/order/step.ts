import type { Brake, Part } from '../../../machine/brake';
import { FINGER_GAP_MM, sectionOf, thickestAt } from '../../../machine/brake';
import type { Problem, Result } from '../../../measure/result';
import type { Development } from '../developed';
import type { Frame, Vec3 } from '../refold';
import type { Sheet } from './clash';
import { depthWithin, ready, sheetOf, spanWithin, through } from './clash';
import type { Span } from './fingers';
import { fingersFor } from './fingers';
import type { Held, Hit, Out, Sides, Swung } from './inTheWay';
import { behind, reachOf, wayOf } from './inTheWay';
import { STILL, after, apply, back, closedTo, waysBetween } from './lie';
import { beyond, platesOf } from './plates';
import type { Clamped, Pose } from './pose';
import { poseOf } from './pose';

/** A fold as it can be made: the fingers under the bar and where each begins along the line, null for a bar all along. Or what it hits. */
export type Step = { ok: true; fingersMm: number[] | null; fingersAtMm: number[] | null } | { ok: false; hit: Hit };
export type Stepper = {
  /** Whether a fold can be made with the others of `made` (as bits) made before, held on one side. */
  step: (fold: number, clamped: Clamped, made: number) => Step;
  poses: Record<Clamped, Pose>[];
};

/** The swing is looked at every so many degrees, and at its end. */
const SWING_DEG = 6;
/** Corners that meet are fitted by hand: what crosses nearer to a rim than so many thicknesses and mm is let be. */
const RIM = [1.5, 0.5] as const;
/** A shell of the sheet so thin is left out when it is held against the machine, mm. */
const SHELL_MM = 0.02;

/**
 * Can each fold of a piece be made in a machine, with some of the others made before? What is found for a part of the piece
 * is kept by how the folds between it and the line stand, so that many orders are told from few looks.
 *
 * @param anglesDeg how far each fold is taken on the machine (one that is left open, less than it is to be)
 * Problems: those of `sectionOf`.
 */
export function stepper(development: Development, brake: Brake, anglesDeg: readonly number[]): Result<Stepper> {
  const { folds } = development;
  const thickness = folds[0]?.bend.thicknessMm ?? 1;
  const section = sectionOf(brake, thickness);
  if (!section.ok) return section as { ok: false; problems: Problem[] };
  const part = (name: Part['name']) => section.parts.filter((one) => one.name === name).map((one) => one.section);
  const machine = { bar: part('bar').map(ready), beam: part('beam').map(ready), bed: part('bed').map(ready), apron: part('apron').map(ready) }; // prettier-ignore
  const plates = platesOf(development).map(({ outline }): Sides => [-SHELL_MM, SHELL_MM - thickness].map((height) => outline.map(([x, y]): Vec3 => [x, y, height]))); // prettier-ignore
  const faces = plates.map((_, face) => face);
  const ways = waysBetween(development);
  const bits = ways.map((row) => row.map((way) => way.reduce((sum, { fold }) => sum | (1 << fold), 0)));
  const far = beyond(development);
  const poses = folds.map((fold): Record<Clamped, Pose> => ({ base: poseOf(fold, 'base'), far: poseOf(fold, 'far') })); // prettier-ignore
  const rim = RIM[0] * thickness + RIM[1];
  const gap = brake.fingerGapMm ?? FINGER_GAP_MM;
  const made_ = folds.map((_, fold) => closedTo(development, fold, anglesDeg[fold]!));
  const madeBack = made_.map(back);
  const swings = folds.map((_, fold) => {
    const to = anglesDeg[fold]!;
    const n = Math.max(1, Math.ceil(to / SWING_DEG));
    const out = Array.from({ length: n }, (_, i) => closedTo(development, fold, (to * (i + 1)) / n));
    return [out, out.map(back)].map((frames, side) =>
      frames.map((frame) => after(poses[fold]![side === 0 ? 'base' : 'far'].onMachine, frame)),
    );
  });

  /** A plate as another face sees it, the folds between them made that are among these. */
  const seen = cached((from: number, face: number, made: number): Sides => {
    let frame: Frame = STILL;
    for (const { fold, outward } of ways[from]![face]!)
      if (made & (1 << fold)) frame = after(frame, (outward ? made_ : madeBack)[fold]!);
    return plates[face]!.map((side) => side.map((p) => apply(frame, p)));
  });
  const lay = (sides: Sides, frame: Frame): Sides => sides.map((side) => side.map((p) => apply(frame, p)));
  const heldOf = (fold: number, side: number) => (side === 0 ? folds[fold]!.parent : folds[fold]!.child);
  const swungOf = (fold: number, side: number) => (side === 0 ? folds[fold]!.child : folds[fold]!.parent);
  const poseAt = (fold: number, side: number) => poses[fold]![side === 0 ? 'base' : 'far'];

  const held = cached((line: number, face: number, made: number): Held => {
    const [fold, side] = [line >> 1, line & 1];
    const at = lay(seen(heldOf(fold, side), face, made), poseAt(fold, side).onMachine);
    const fixed =
      (['beam', 'bed'] as const).map((name) => fixedHit(name, at, machine[name])).find((one) => one !== null) ?? null;
    return { face, ...wayOf(at, thickness, machine.bar), fixed }; // prettier-ignore
  });

  /** What swings, against bar, beam and bed all the way up, and against the apron it lies on. */
  const swung = cached((line: number, face: number, made: number): Swung => {
    const [fold, side] = [line >> 1, line & 1];
    const pose = poseAt(fold, side);
    const own = seen(swungOf(fold, side), face, made);
    const onApron = lay(own, pose.onApron);
    let fixed: Hit | null = fixedHit('apron', onApron, machine.apron); // prettier-ignore
    const spans: Span[] = [];
    let deep = 0;
    const at = swings[fold]![side]!.map((frame) => lay(own, frame));
    for (const end of at) {
      for (const name of ['beam', 'bed'] as const) fixed ??= fixedHit(name, end, machine[name]);
      const span = spanWithin(end, machine.bar);
      if (!span) continue;
      spans.push(span);
      deep = Math.max(deep, depthWithin(end, machine.bar));
    }
    const span: Span = [Math.min(...spans.map(([y]) => y)), Math.max(...spans.map(([, y]) => y))];
    return {
      face,
      bar: spans.length > 0 ? { span, depthMm: deep } : null,
      fixed,
      at,
      end: at[at.length - 1]!,
      out: new Map(),
    };
  });

  /** What is held, in the machine. */
  const standing = cached((line: number, face: number, made: number): Sheet[] =>
    lay(seen(heldOf(line >> 1, line & 1), face, made), poseAt(line >> 1, line & 1).onMachine).map(sheetOf),
  );
  const swinging = cached((line: number, face: number, made: number): { reach: [number, number]; at: Sheet[][] } => {
    const at = swung(line, face, made).at.map((sides) => sides.map(sheetOf));
    return { reach: reachOf(at.flat()), at };
  });
  /** How deep what swings goes through what is held, anywhere on the way up. */
  const against = cached((line: number, pair: number, made: number): number => {
    const [a, b] = [Math.floor(pair / plates.length), pair % plates.length];
    const [fold, side] = [line >> 1, line & 1];
    const mine = swinging(line, a, made & bits[swungOf(fold, side)]![a]!);
    const theirs = standing(line, b, made & bits[heldOf(fold, side)]![b]!);
    const [low, high] = reachOf(theirs);
    // Farther from the line, or nearer, than ever the other comes.
    if (low > mine.reach[1] || high < mine.reach[0]) return 0;
    let depth = 0;
    for (const sheets of mine.at)
      for (const s of sheets) for (const t of theirs) depth = Math.max(depth, through(s, t, rim), through(t, s, rim));
    return depth;
  });

  const swept = cached((lift: number, _: number, __: number) => ({
    bar: part('bar').map((one) => ready(behind(one, lift))),
    beam: part('beam').map((one) => ready(behind(one, lift))),
  }));

  // What hangs together on one side of a line depends on the folds on that side alone: asked once for each of their states.
  const lines = folds.flatMap((_, fold) =>
    [0, 1].map((side) => {
      const [at, on] = [heldOf(fold, side), swungOf(fold, side)];
      const isSwung = (face: number) => far[fold]![face] === (side === 0);
      const nearest = (from: number) => [...faces].sort((a, b) => ways[from]![a]!.length - ways[from]![b]!.length);
      const [swinging, still] = [nearest(on).filter(isSwung), nearest(at).filter((face) => !isSwung(face))];
      const all = (of: number, some: readonly number[]) => some.reduce((sum, face) => sum | bits[of]![face]!, 0);
      const pairs = swinging.flatMap((a) =>
        // What lay flat with what it swings from stands clear of it.
        still.flatMap((b) => (a === on && b === at ? [] : [{ pair: a * plates.length + b, between: bits[a]![b]! }])),
      );
      return { swinging, still, ofSwinging: all(on, swinging), ofStill: all(at, still), at, on, pairs };
    }),
  );
  /** Nearest to the line first; at the first that stands in a part of the machine no other has to be looked at. */
  const together = <One extends { fixed: Hit | null }>(some: readonly number[], of: (face: number) => One) => {
    const all: One[] = [];
    for (const face of some) {
      const one = of(face);
      if (one.fixed) return { all, fixed: { ...one.fixed, face } };
      all.push(one);
    }
    return { all, fixed: null };
  };
  const stillAt = cached((line: number, _: number, made: number) => {
    const { still, at } = lines[line]!;
    return together(still, (face) => held(line, face, made & bits[at]![face]!));
  });
  const movingAt = cached((line: number, _: number, made: number) => {
    const { swinging, on } = lines[line]!;
    return together(swinging, (face) => swung(line, face, made & bits[on]![face]!));
  });

  const look = (fold: number, side: number, made: number): Step => {
    const hit = (of: Hit['of'], depthMm: number): Step => ({ ok: false, hit: { of, depthMm } });
    const line = 2 * fold + side;
    const { line: along } = poseAt(fold, side);
    const long = along[1] - along[0];
    if (long > brake.lengthMm) return hit('length', long - brake.lengthMm);
    const most = thickestAt(brake, long);
    if (most !== null && thickness > most) return hit('thickness', thickness - most);
    const { ofStill, ofSwinging, pairs } = lines[line]!;
    const still = stillAt(line, 0, made & ofStill);
    if (still.fixed) return { ok: false, hit: still.fixed };
    const moving = movingAt(line, 0, made & ofSwinging);
    if (moving.fixed) return { ok: false, hit: moving.fixed };
    for (const { pair, between } of pairs) {
      if ((made & between) === 0) continue;
      const depth = against(line, pair, made & between);
      if (depth > 0)
        return { ok: false, hit: { of: 'piece', depthMm: depth, face: Math.floor(pair / plates.length) } };
    }
    return inAndOut(still.all, moving.all, along);
  };

  function outWith({ end, out }: Swung, lift: number): Out {
    let found = out.get(lift);
    if (!found) {
      const { bar, beam } = swept(lift, 0, 0);
      const span = spanWithin(end, bar);
      found = { beam: fixedHit('beam', end, beam), bar: span && { span, depthMm: depthWithin(end, bar) } }; // prettier-ignore
      out.set(lift, found);
    }
    return found;
  }

  const sets = new Map<string, ReturnType<typeof fingersFor>>();
  function setFor(along: Span, blocked: readonly Span[]): ReturnType<typeof fingersFor> {
    const key = [along, ...blocked].map(([from, to]) => `${from.toFixed(3)} ${to.toFixed(3)}`).join();
    let found = sets.get(key);
    if (!found) sets.set(key, (found = fingersFor(along, blocked, brake.fingersMm ?? [], gap)));
    return found;
  }

  /**
   * In from the front and out again; or, where fingers stand beside and not under it, slid in from where there are none: then
   * nothing may be where fingers are, and all that stands up passes under the beam.
   */
  function inAndOut(still: readonly Held[], moving: readonly Swung[], along: Span): Step {
    const front = byTheFront(still, moving, along);
    if (front.ok || brake.fingersMm === null) return front;
    const down = Math.max(0, ...still.map((one) => one.down));
    const up = Math.max(0, ...still.map((one) => one.up));
    const reach = Math.max(...[...still.map(({ span }) => span), along].map(([, y]) => y)) - Math.min(...[...still.map(({ span }) => span), along].map(([y]) => y)); // prettier-ignore
    const clear = [...still, ...moving].every(({ bar }) => bar === null);
    if (!clear || down > brake.openMm || up + down > brake.noseHeightMm + brake.openMm || 2 * reach > brake.lengthMm) return front; // prettier-ignore
    const set = setFor(along, []);
    return set.ok ? withFingers(set) : front;
  }

  /** The bar is lifted for what stands up behind the line, and the piece with it for what hangs down behind the bed. */
  function byTheFront(still: readonly Held[], moving: readonly Swung[], along: Span): Step {
    const hit = (of: Hit['of'], depthMm: number, by: { alongMm?: number; face?: number } = {}): Step => ({ ok: false, hit: { of, depthMm, ...by } }); // prettier-ignore
    const down = Math.max(0, ...still.map((one) => one.down));
    if (down > brake.openMm) return hit('way in', down - brake.openMm);
    const walls = still.filter((one) => one.bar || one.up + down > brake.openMm);
    // Fingers go between what stands up; what they cannot go under, all of the beam would have to pass.
    const tall = Math.max(0, ...walls.map((one) => one.up)) + down - brake.noseHeightMm - brake.openMm;
    if (tall > 0) return hit('beam', tall);
    const lift = down + Math.max(0, ...still.filter((one) => !walls.includes(one)).map((one) => one.up));
    const raised = Math.round(lift * 1000) / 1000;
    const blocked = walls.map(({ face, bar, span, up }) => ({ face, ...(bar ?? { span, depthMm: up + down - brake.openMm }) })); // prettier-ignore
    for (const one of moving) {
      const { beam, bar } = outWith(one, raised);
      if (beam) return hit('way out', beam.depthMm, { alongMm: beam.alongMm, face: one.face });
      if (one.bar) blocked.push({ face: one.face, ...one.bar });
      if (bar) blocked.push({ face: one.face, ...bar });
    }
    const [deepest] = [...blocked].sort((a, b) => b.depthMm - a.depthMm);
    const by = deepest ? { alongMm: middleOf(deepest.span), face: deepest.face } : {};
    if (brake.fingersMm === null)
      return deepest ? hit('bar', deepest.depthMm, by) : { ok: true, fingersMm: null, fingersAtMm: null };
    const set = setFor(along, blocked.map(({ span }) => span)); // prettier-ignore
    return set.ok ? withFingers(set) : hit('bar', Math.max(set.overMm, 0.1), by);
  }

  const step = cached((fold: number, side: number, made: number) => look(fold, side, made));
  return { ok: true, poses, step: (fold, clamped, made) => step(fold, clamped === 'far' ? 1 : 0, made & ~(1 << fold)) }; // prettier-ignore
}

const middleOf = ([from, to]: Span): number => (from + to) / 2;

/** What of a plate is in a fixed part of the machine. */
function fixedHit<Of extends Hit['of']>(
  of: Of,
  at: Sides,
  part: Parameters<typeof spanWithin>[1],
): { of: Of; depthMm: number; alongMm: number } | null {
  const span = spanWithin(at, part);
  return span && { of, depthMm: depthWithin(at, part), alongMm: middleOf(span) };
}

const withFingers = ({ fingersMm, atMm }: { fingersMm: number[]; atMm: number[] }): Step => ({
  ok: true,
  fingersMm,
  fingersAtMm: atMm,
});

/** A function of three numbers that is asked often with the same: two small ones and bits. */
function cached<T>(of: (a: number, b: number, bits: number) => T): (a: number, b: number, bits: number) => T {
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
