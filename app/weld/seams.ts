import { segmentsOfEdge } from '#core/card/outline';
import type { Edge, PatternDoc } from '#core/card/pattern';
import type { WeldRecord } from '#core/format/job';
import type { Segment } from '#core/measure/segment';
import { runLength } from '#core/measure/run';
import { plugPositions, tackOrder } from '#core/weld/spacing';

/** A seam as planned and as far as it is made: positions in mm along the edge, numbered from 1 in the order to be made. */
export type Seam = {
  edge: Edge;
  run: Segment[];
  lengthMm: number;
  closed: boolean;
  tacks: number[];
  plugs: number[];
  tacksDone: Set<number>;
  plugsDone: Set<number>;
};

/** Every edge that is to be welded, with its tacks and plugs. An edge that is the whole outline is a closed loop. */
export function seamsOf(pattern: PatternDoc, welds: readonly WeldRecord[]): Seam[] {
  return pattern.edges.flatMap((edge) => {
    if (!edge.weld) return [];
    const run = segmentsOfEdge(pattern, edge);
    const lengthMm = runLength(run);
    const closed = edge.sides.length === pattern.sides.length;
    const tacks = tackOrder(lengthMm, edge.weld.tackPitchMm, closed);
    const { plugs } = edge.weld;
    const plugged = plugs ? plugPositions(lengthMm, plugs.pitchMm, plugs.endMm) : null;
    const own = welds.filter((weld) => weld.edge === edge.id);
    const done = (work: WeldRecord['work'], count: number) =>
      new Set(
        own
          .filter((weld) => weld.work === work)
          .flatMap(({ from, to }) =>
            Array.from(
              { length: Math.max(0, Math.min(count, to ?? count) - (from ?? 1) + 1) },
              (_, i) => (from ?? 1) + i,
            ),
          ),
      );
    const tackList = plugged ? [] : tacks.ok ? tacks.positionsMm : [];
    const plugList = plugged?.ok ? plugged.positionsMm : [];
    return [
      {
        edge,
        run,
        lengthMm,
        closed,
        tacks: tackList,
        plugs: plugList,
        tacksDone: done('tacks', tackList.length),
        plugsDone: done('plugs', plugList.length),
      },
    ];
  });
}
