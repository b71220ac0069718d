import type { Blank, BlankHole } from '../blank/blank';
import { segmentsOfEdge } from '../card/outline';
import type { PatternDoc } from '../card/pattern';
import { outwardAlong, pointAlong, runLength } from '../measure/run';
import type { Vec } from '../measure/vector';
import { along } from '../measure/vector';
import type { PlanDoc } from './plan';
import { weldOf } from './planned';
import { plugPositions } from './spacing';

export type PlugCentres = { edge: string; holeMm: number; centres: Vec[]; pitchMm: number };

/** A place on the rim of a face is looked up this far inside it, mm. */
const INSIDE_MM = 1e-3;

/**
 * Plug holes on the blank: spaced along each edge that is to be plugged as it is on the finished
 * piece, so that drawing, blank and print carry the same number of them, and each taken to the
 * blank with the face it is on, to the middle of the overlap. `blank` must be the card's own.
 * `holesAt` says of an edge whether its holes are in the overlap that the card adds, inside the rim
 * by a distance, mm, or in what lies beyond, which is not this blank.
 */
export function plugsOnBlank(
  doc: PatternDoc,
  plan: PlanDoc,
  thicknessMm: number,
  blank: Blank,
  holesAt: (edge: string) => 'here' | 'beyond' | { inMm: number },
): PlugCentres[] {
  return doc.edges.flatMap((edge) => {
    const plugs = weldOf(plan, edge, thicknessMm)?.plugs;
    if (!plugs) return [];
    const run = segmentsOfEdge(doc, edge);
    const found = plugPositions(runLength(run), plugs.pitchMm, plugs.endMm);
    const allowance = blank.edges.find((e) => e.id === edge.id)?.allowance;
    const where = holesAt(edge.id);
    if (!found.ok || !allowance || where === 'beyond') return [];
    const centres = found.positionsMm.flatMap((mm): Vec[] => {
      const p = pointAlong(run, mm);
      const out = outwardAlong(run, mm);
      if (!p) return [];
      if (where !== 'here') return [blank.fromCard(along(p, out, -where.inMm))];
      return [
        along(blank.fromCard(along(p, out, -INSIDE_MM)), out, INSIDE_MM + allowance.middleMm),
      ];
    });
    const [first, second] = found.positionsMm;
    return [
      {
        edge: edge.id,
        holeMm: plugs.holeMm,
        centres,
        pitchMm: second === undefined ? 0 : second - first!,
      },
    ];
  });
}

/** Plugs as holes of the blank, for drawings and for marking out. */
export const plugHoles = (runs: readonly PlugCentres[]): BlankHole[] =>
  runs.flatMap((run) =>
    run.centres.map((centre, i) => ({
      id: `${run.edge}-${i + 1}`,
      centre,
      diameterMm: run.holeMm,
    })),
  );
