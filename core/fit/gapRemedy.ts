import type { JointKind, Process } from '../card/kinds';
import type { Joint } from '../card/pattern';
import type { EdgeCondition, Reading } from './gapCondition';
import { edgeConditionOf } from './gapCondition';
import type { Target } from './target';
import { wantedAlong } from './target';

/**
 * What is done about a gap that is wider than wanted: welded all the same, closed with a thicker
 * rod, built up from the stronger edge, a strip let in; an overlap is clamped or dressed down, a
 * shut line moved at hinge or striker.
 */
export type GapRemedy =
  'weldable' | 'thicker-rod' | 'build-up' | 'strip' | 'clamp-down' | 'shut-line';

/** Edges that touch may stand apart by this and still fuse, mm (common practice). */
const TOUCHING_MM = 0.3;
/** Wider than this a butt is not built up: a strip is let in, mm (common practice). */
const BUILT_UP_MM = 3;
/** An overlap that stands off by more is not clamped as it should be, mm (common practice). */
const CLAMPED_MM = 0.5;

/**
 * The widest gap that is welded as it is, mm; common practice. TIG, gas and braze: edges that touch;
 * MIG: about the thickness of the sheet; over a backing twice as much (TIG and gas: the thickness).
 */
function weldableGap(joint: JointKind, process: Process | null, thicknessMm: number): number {
  const mig = process === 'mig' || process === null;
  switch (joint) {
    case 'butt':
      return mig ? thicknessMm : TOUCHING_MM;
    case 'backed-butt':
      return mig ? 2 * thicknessMm : Math.max(TOUCHING_MM, thicknessMm);
    case 'lap':
    case 'joggle':
    case 'plug-flange':
      return CLAMPED_MM;
    case 'free':
    case 'hem':
      return Infinity;
  }
}

/**
 * What to do about a gap of an edge that is wider than wanted. One answer for trial fit and weld.
 * Not metal: where it can, the whole piece is moved first.
 */
export function gapRemedy(
  gapMm: number,
  joint: JointKind,
  process: Process | null,
  thicknessMm: number,
): GapRemedy {
  if (joint === 'free' || joint === 'hem') return 'shut-line';
  if (gapMm <= weldableGap(joint, process, thicknessMm)) return 'weldable';
  if (joint !== 'butt' && joint !== 'backed-butt') return 'clamp-down';
  if (process === 'gas' || process === 'braze' || gapMm > BUILT_UP_MM) return 'strip';
  return process === 'tig' ? 'thicker-rod' : 'build-up';
}

/**
 * How an edge lies, with what to do where it is wide. `longMm`: the most that is still to be trimmed
 * of what was left on for it; null where nothing is.
 */
export type EdgeFit = EdgeCondition & { remedy: GapRemedy | null; longMm: number | null };

/** How an edge lies against what is wanted along it now; `remedy` null where nothing is wide. */
export function edgeFit(
  record: {
    own: boolean;
    targetMm: number;
    toleranceMm: number;
    flushMm: number;
    stations: readonly Reading[];
  },
  joint: Joint,
  process: Process | null,
  thicknessMm: number,
): EdgeFit {
  const target: Pick<Target, 'gapMm' | 'toleranceMm' | 'flushMm'> = wantedAlong(
    record,
    joint.kind,
    process,
    thicknessMm,
  );
  // Metal left on to be trimmed is no tightness: it takes that much of the gap until it is off.
  const leftMm = 'trimMm' in joint ? joint.trimMm : 0;
  const short = ({ gapMm }: Reading) => (gapMm === null ? 0 : target.gapMm - gapMm);
  const over = record.stations.filter(
    (one) => short(one) > target.toleranceMm && short(one) <= leftMm + target.toleranceMm,
  );
  const longMm = over.length > 0 ? Math.max(...over.map(short)) : null;
  const lie = edgeConditionOf(
    record.stations.map((one) => (over.includes(one) ? { ...one, gapMm: target.gapMm } : one)),
    target,
  );
  const widestMm = Math.max(...record.stations.map(({ gapMm }) => gapMm ?? -Infinity));
  return {
    ...lie,
    good: lie.good && longMm === null,
    longMm,
    remedy: lie.wide.length > 0 ? gapRemedy(widestMm, joint.kind, process, thicknessMm) : null,
  };
}
