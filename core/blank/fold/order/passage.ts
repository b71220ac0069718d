import type { Brake, Part } from '../../../machine/brake';
import { FINGER_GAP_MM } from '../../../machine/brake';
import { isFree, ready } from './clash';
import type { Span } from './fingers';
import { fingersFor } from './fingers';
import type { Held, Hit, Standing, Swung } from './inTheWay';
import { behind, fixedHit, middleOf, standingIn } from './inTheWay';
import type { Box, Shell } from './laid';

/**
 * A fold as it can be made: the fingers under the bar and where each begins along the line, null
 * for a bar all along, and a number that is the same for the same widths. Or what it hits.
 */
export type Step =
  | { ok: true; fingersMm: number[] | null; fingersAtMm: number[] | null; set: number }
  | { ok: false; hit: Hit };

/** Where no finger may stand, and how deep what stands there is in the section. */
type Blocked = Standing & { body: number };
/** All that is in the way of fingers, told in words to be looked up by, and the deepest of it. */
type InWay = { spans: readonly Span[]; key: string; deepest: Blocked | null };
/**
 * The clamped side on its way in: how far it hangs down and stands up, the height the beam would
 * have to pass, the lift of the bar, all mm, and its reach along the line.
 */
export type EntryClearance = {
  down: number;
  up: number;
  tall: number;
  raised: number;
  reach: Span;
  isClear: boolean;
  inWay: InWay;
};
/** The swinging side, and by lift of the bar, mm, how it comes out. */
export type SwingingSide = {
  all: readonly Swung[];
  fixed: Hit | null;
  box: Box | null;
  isClear: boolean;
  out: Map<number, ExitClearance>;
};
type ExitClearance = { hit: Hit | null; inWay: InWay };

/**
 * How a piece gets into a machine for a fold and out again, and the fingers that go between what
 * stands up.
 */
export type Passage = {
  wayIn: (all: readonly Held[], along: Span) => EntryClearance;
  inAndOut: (along: Span, still: EntryClearance, moving: SwingingSide) => Step;
};

/** @param whose what is told of a body that is in the way, by its index */
export function passageOf(
  brake: Brake,
  plates: readonly Shell[],
  parts: readonly Part[],
  whose: (body: number) => Pick<Hit, 'face' | 'edge'>,
): Passage {
  const gap = brake.fingerGapMm ?? FINGER_GAP_MM;
  const lifted = new Map<number, Record<'bar' | 'beam', ReturnType<typeof ready>[]>>();
  /** Bar and beam lifted by `lift` mm, with all that lies behind them. */
  const swept = (lift: number) => {
    let found = lifted.get(lift);
    const of = (name: Part['name']) =>
      parts.filter((one) => one.name === name).map(({ section }) => ready(behind(section, lift)));
    if (!found) lifted.set(lift, (found = { bar: of('bar'), beam: of('beam') }));
    return found;
  };

  /** What is held: how far bar and piece are lifted for it, and where no finger goes. */
  function wayIn(all: readonly Held[], along: Span): EntryClearance {
    const down = Math.max(0, ...all.map((one) => one.down));
    const walls = all.filter((one) => one.bar || one.up + down > brake.openMm);
    const most = (some: readonly Held[]) => Math.max(0, ...some.map((one) => one.up));
    const spans = [...all.map(({ span }) => span), along];
    return {
      down,
      up: most(all),
      // Fingers go between what stands up; what they cannot go under, all of the beam would have to
      // pass.
      tall: most(walls) + down - brake.noseHeightMm - brake.openMm,
      raised: Math.round((down + most(all.filter((one) => !walls.includes(one)))) * 1000) / 1000,
      reach: [Math.min(...spans.map(([y]) => y)), Math.max(...spans.map(([, y]) => y))],
      isClear: all.every(({ bar }) => bar === null),
      inWay: inWayOf(
        walls.map(({ body, bar, span, up }) => ({
          body,
          ...(bar ?? { span, depthMm: up + down - brake.openMm }),
        })),
      ),
    };
  }

  /** What swung, drawn out to the front at the end, the bar lifted by `raised` mm. */
  function wayOut({ all, out }: SwingingSide, raised: number): ExitClearance {
    const known = out.get(raised);
    if (known) return known;
    const { bar, beam } = swept(raised);
    const blocked: Blocked[] = [];
    let hit: Hit | null = null;
    for (const { body, bar: stood, end, endFrame } of all) {
      if (stood) blocked.push({ body, ...stood });
      if (isFree(end, beam) && isFree(end, bar)) continue;
      const [plate, frame] = [plates[body]!, endFrame()];
      const hooks = fixedHit('beam', plate, frame, end, beam);
      if (hooks) {
        hit = { ...hooks, of: 'way out', ...whose(body) };
        break;
      }
      const atEnd = standingIn(plate, frame, end, bar);
      if (atEnd) blocked.push({ body, ...atEnd });
    }
    const found: ExitClearance = { hit, inWay: inWayOf(blocked) };
    out.set(raised, found);
    return found;
  }

  const sets = new Map<string, ReturnType<typeof fingersFor>>();
  function setFor(along: Span, ...some: readonly InWay[]): ReturnType<typeof fingersFor> {
    const key = `${along[0]} ${along[1]}${some.map((one) => one.key).join('')}`;
    let found = sets.get(key);
    if (!found)
      sets.set(
        key,
        (found = fingersFor(
          along,
          some.flatMap(({ spans }) => spans),
          brake.fingersMm ?? [],
          gap,
        )),
      );
    return found;
  }
  const widths = new Map<string, number>();
  const withFingers = ({ fingersMm, atMm }: { fingersMm: number[]; atMm: number[] }): Step => {
    const key = fingersMm.join();
    const set = widths.get(key) ?? widths.size + 1;
    widths.set(key, set);
    return { ok: true, fingersMm, fingersAtMm: atMm, set };
  };

  /**
   * In from the front and out again; or, where fingers stand beside and not under it, slid in from
   * where there are none: then nothing may be where fingers are, and all that stands up passes
   * under the beam.
   */
  function inAndOut(along: Span, still: EntryClearance, moving: SwingingSide): Step {
    const front = byTheFront(along, still, moving);
    if (front.ok || brake.fingersMm === null || !still.isClear || !moving.isClear) return front;
    const { down, up, reach } = still;
    const isFar = 2 * (reach[1] - reach[0]) > brake.lengthMm;
    if (down > brake.openMm || up + down > brake.noseHeightMm + brake.openMm || isFar) return front;
    const set = setFor(along);
    return set.ok ? withFingers(set) : front;
  }

  /**
   * The bar is lifted for what stands up behind the line, and the piece with it for what hangs down
   * behind the bed.
   */
  function byTheFront(along: Span, still: EntryClearance, moving: SwingingSide): Step {
    if (still.down > brake.openMm)
      return { ok: false, hit: { of: 'way in', depthMm: still.down - brake.openMm } };
    if (still.tall > 0) return { ok: false, hit: { of: 'beam', depthMm: still.tall } };
    const { hit, inWay } = wayOut(moving, still.raised);
    if (hit) return { ok: false, hit };
    const [a, b] = [still.inWay.deepest, inWay.deepest];
    const deepest = a && b ? (b.depthMm > a.depthMm ? b : a) : (a ?? b);
    const inBar = (depthMm: number): Step => ({
      ok: false,
      hit: {
        of: 'bar',
        depthMm,
        ...(deepest ? { alongMm: middleOf(deepest.span), ...whose(deepest.body) } : {}),
      },
    });
    if (brake.fingersMm === null)
      return deepest
        ? inBar(deepest.depthMm)
        : { ok: true, fingersMm: null, fingersAtMm: null, set: 0 };
    const set = setFor(along, still.inWay, inWay);
    return set.ok ? withFingers(set) : inBar(Math.max(set.overMm, 0.1));
  }

  return { wayIn, inAndOut };
}

function inWayOf(blocked: readonly Blocked[]): InWay {
  const [first = null, ...rest] = blocked;
  const deepest = rest.reduce((most, one) => (one.depthMm > most!.depthMm ? one : most), first);
  const spans = blocked.map(({ span }) => span);
  return {
    spans,
    deepest,
    key: spans.map(([from, to]) => `|${from.toFixed(3)} ${to.toFixed(3)}`).join(''),
  };
}
