import type { Segment } from '../../measure/segment';
import { directionAt, flattened, nearest, pointAt } from '../../measure/segment';
import type { Vec } from '../../measure/vector';
import { cross, sub } from '../../measure/vector';
import { outlineOf } from '../outline';
import type { PatternDoc } from '../pattern';

/**
 * Where an edge of one card lies farthest from the same edge of another: `mm` outward of it, below
 * 0 inward.
 */
export type EdgeDistance = { edge: string; mm: number; at: Vec };

/** An arc is looked at so closely, mm. */
const FLATTENED_MM = 0.02;

/**
 * How far each edge that two cards share lies out of the other's, where that is most: `here`
 * against `there`, both lying alike. Looked at from corner to corner and at points along the arcs
 * of both.
 */
export function edgeDistances(here: PatternDoc, there: PatternDoc): EdgeDistance[] {
  const [ours, theirs] = [here, there].map(runs) as [
    Map<string, Segment[]>,
    Map<string, Segment[]>,
  ];
  return here.edges.flatMap(({ id }) => {
    const [mine, other] = [ours.get(id), theirs.get(id)];
    return mine && other && mine.length > 0 && other.length > 0
      ? [{ edge: id, ...apart(mine, other) }]
      : [];
  });
}

function runs(doc: PatternDoc): Map<string, Segment[]> {
  const { path, sideIds } = outlineOf(doc);
  const of = new Map(path.map((segment, i) => [sideIds[i]!, segment]));
  return new Map(
    doc.edges.map(({ id, sides }) => [id, sides.flatMap((side) => of.get(side) ?? [])]),
  );
}

function apart(mine: readonly Segment[], other: readonly Segment[]): { mm: number; at: Vec } {
  let found: { mm: number; at: Vec } = { mm: 0, at: mine[0]!.a };
  for (const at of pointsOn(mine)) {
    const { mm } = outOf(other, at);
    if (Math.abs(mm) > Math.abs(found.mm)) found = { mm, at };
  }
  // Where the other one bulges and this does not, that is seen from the other alone.
  for (const at of pointsOn(other)) {
    const { mm, foot } = outOf(mine, at);
    if (Math.abs(mm) > Math.abs(found.mm) + 1e-9) found = { mm: -mm, at: foot };
  }
  return found;
}

const pointsOn = (run: readonly Segment[]): Vec[] => [
  ...run.flatMap((s) => flattened(s, FLATTENED_MM)),
  run[run.length - 1]!.b,
];

/**
 * How far a point lies out of a run of an outline, to its right, and the nearest place on it.
 * Beyond its ends only what it lies out square to it counts: a run that goes on longer lies no
 * farther out for that.
 */
function outOf(run: readonly Segment[], p: Vec): { mm: number; foot: Vec } {
  let best = { distance: Infinity, at: 0, on: run[0]! };
  for (const on of run) {
    const found = nearest(on, p);
    if (found.distance < best.distance) best = { ...found, on };
  }
  const { at, on } = best;
  const foot = pointAt(on, at);
  const out = cross(sub(p, foot), directionAt(on, at));
  const beyond = (at === 0 && on === run[0]) || (at === 1 && on === run[run.length - 1]);
  return { mm: beyond ? out : Math.sign(out) * best.distance, foot };
}
