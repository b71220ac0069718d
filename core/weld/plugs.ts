import type { BlankEdge } from '../blank/fold/develop';
import type { Edge } from '../card/pattern';
import type { Segment } from '../measure/segment';
import { directionAt, offsetRight, pointAt, segmentLength } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { right } from '../measure/vector';
import { plugPositions } from './spacing';

/** The point so far along a run of segments, mm from its start. */
export function pointAlong(run: readonly Segment[], mm: number): Vec | null {
  let left = mm;
  for (const s of run) {
    const l = segmentLength(s);
    if (left <= l + 1e-9) return pointAt(s, l === 0 ? 0 : Math.min(1, Math.max(0, left / l)));
    left -= l;
  }
  const last = run[run.length - 1];
  return last ? last.b : null;
}

/** The outward direction of a run (to its right) so far along it. */
export function outwardAlong(run: readonly Segment[], mm: number): Vec {
  let left = mm;
  for (const s of run) {
    const l = segmentLength(s);
    if (left <= l + 1e-9) return right(directionAt(s, l === 0 ? 0 : Math.min(1, left / l)));
    left -= l;
  }
  const last = run[run.length - 1];
  return last ? right(directionAt(last, 1)) : [0, 0];
}

export const runLength = (run: readonly Segment[]): number => run.reduce((sum, s) => sum + segmentLength(s), 0);

export type PlugCentres = { edge: string; holeMm: number; centres: Vec[]; pitchMm: number };

/** Plug holes on the blank: along the middle of each overlap that is to be plugged, spaced over the edge's own length. */
export function plugsOnBlank(edges: readonly Edge[], blank: readonly BlankEdge[]): PlugCentres[] {
  return edges.flatMap((edge) => {
    const on = blank.find((b) => b.id === edge.id);
    const plugs = edge.weld?.plugs;
    if (!plugs || !on || on.net.length === 0) return [];
    const length = runLength(on.net);
    const found = plugPositions(length, plugs.pitchMm, plugs.endMm);
    if (!found.ok) return [];
    const middle = on.net.map((s) => offsetRight(s, on.allowance.middleMm));
    const stretch = runLength(middle) / length;
    const centres = found.positionsMm
      .map((mm) => pointAlong(middle, mm * stretch))
      .filter((p): p is Vec => p !== null);
    const [first, second] = found.positionsMm;
    return [{ edge: edge.id, holeMm: plugs.holeMm, centres, pitchMm: second === undefined ? 0 : second - first! }];
  });
}
