import { segmentsOfEdge } from '../card/outline';
import type { Edge, PatternDoc } from '../card/pattern';
import { edgeOfRecord } from '../card/recordPlace';
import { runLength } from '../measure/run';
import type { Segment } from '../measure/segment';
import type { PlanDoc } from './plan';
import { weldOf } from './planned';
import { plugPositions, spreadOrder, tackOrder } from './spacing';
import type { WeldPlan } from './weldPlan';

/** A seam as planned and as far as it is made. Positions in mm along the edge as it is now. */
export type Seam = {
  edge: Edge;
  plan: WeldPlan;
  run: Segment[];
  lengthMm: number;
  closed: boolean;
  /**
   * Tacks numbered from 1 in the order to be made; plugs numbered along the edge. One of the two is
   * empty.
   */
  tacks: number[];
  plugs: number[];
  /** Numbers of the plugs in the order to weld them. */
  plugOrder: number[];
  tacksDone: Set<number>;
  plugsDone: Set<number>;
  /** Made at places that are no longer planned: the edge or the pitch was changed since. */
  elsewhere: number[];
};

/**
 * What a weld entry says that seams go by: on which edge, what kind of work, which numbers, and
 * where they were put.
 */
export type Welded = {
  edge: string;
  work: string;
  from: number | null;
  to: number | null;
  made: { placesMm: number[]; turned: boolean } | null;
  withdrawn: object | null;
};

/**
 * How far a seam is by its records: nothing made, some of its spots, only tacked (a butt that waits
 * for its run), or all that its plan asks: every plug, or a seam or stitch run over its tacks.
 */
export type SeamProgress = 'none' | 'begun' | 'tacked' | 'made';

/** `welds` of the piece; a run is one that stands, on this edge. */
export function seamProgress(
  seam: Seam,
  pattern: PatternDoc,
  welds: readonly Welded[],
): SeamProgress {
  const own = welds.filter(
    (weld) =>
      !weld.withdrawn &&
      edgeOfRecord(pattern, { edge: weld.edge, turned: weld.made?.turned ?? false })?.edge ===
        seam.edge,
  );
  if (own.some(({ work }) => work === 'seam' || work === 'stitch')) return 'made';
  const plugged = seam.plugs.length > 0;
  const [done, planned] = plugged
    ? [seam.plugsDone.size, seam.plugs.length]
    : [seam.tacksDone.size, seam.tacks.length];
  if (planned > 0 && done === planned) return plugged ? 'made' : 'tacked';
  return own.length > 0 ? 'begun' : 'none';
}

/**
 * Maximum distance of a made spot from the planned one it stands for, as a share of the pitch and
 * in mm.
 */
const SAME_SHARE = 0.2;
const SAME_MM = 6;

/**
 * Every edge that is to be welded, with its tacks and plugs. An edge that is the whole outline is a
 * closed loop.
 */
export function seamsOf(
  pattern: PatternDoc,
  plan: PlanDoc,
  thicknessMm: number,
  welds: readonly Welded[],
): Seam[] {
  const standing = welds.flatMap((weld) => {
    const found = weld.withdrawn
      ? null
      : edgeOfRecord(pattern, { edge: weld.edge, turned: weld.made?.turned ?? false });
    return found ? [{ weld, found }] : [];
  });
  return pattern.edges.flatMap((edge): Seam[] => {
    const planned = weldOf(plan, edge, thicknessMm);
    if (!planned) return [];
    const run = segmentsOfEdge(pattern, edge);
    const lengthMm = runLength(run);
    const closed = edge.sides.length === pattern.sides.length;
    const { plugs } = planned;
    const spaced = plugs
      ? plugPositions(lengthMm, plugs.pitchMm, plugs.endMm)
      : tackOrder(lengthMm, planned.tackPitchMm, closed);
    const spots = spaced.ok ? spaced.positionsMm : [];
    const same = Math.min(SAME_MM, SAME_SHARE * (plugs?.pitchMm ?? planned.tackPitchMm));
    const done = new Set<number>();
    const elsewhere: number[] = [];
    for (const { weld, found } of standing) {
      if (found.edge !== edge || weld.work !== (plugs ? 'plugs' : 'tacks')) continue;
      if (!weld.made) {
        // Written down before places were: by their numbers, up to the number there is now.
        for (let i = weld.from ?? 1; i <= Math.min(spots.length, weld.to ?? spots.length); i++)
          done.add(i);
        continue;
      }
      for (const mm of weld.made.placesMm) {
        const at = found.along(mm);
        if (at === null) continue;
        const i = spots.findIndex((spot) => Math.abs(spot - at) <= same);
        if (i >= 0) done.add(i + 1);
        else elsewhere.push(at);
      }
    }
    const none = new Set<number>();
    return [
      {
        edge,
        plan: planned,
        run,
        lengthMm,
        closed,
        tacks: plugs ? [] : spots,
        plugs: plugs ? spots : [],
        plugOrder: plugs ? spreadOrder(spots.length, closed).map((i) => i + 1) : [],
        tacksDone: plugs ? none : done,
        plugsDone: plugs ? done : none,
        elsewhere,
      },
    ];
  });
}
