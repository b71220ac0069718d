import type { Edge } from '../card/pattern';
import type { EdgePlan, PlanDoc } from './plan';
import { canBePlugged, isJoined, usualWeldPlan } from './start';
import type { WeldPlan } from './weldPlan';

/** What a plan says of an edge, apart from its schema: pages need this and not the validation. */

/**
 * How an edge is to be welded: as planned, else as is usual for its joint, in the plan's figures. Null for an edge that is
 * not joined, and for one that is said not to be welded. Plugs only where the joint overlaps.
 */
export function weldOf(
  plan: PlanDoc,
  { id, joint }: Pick<Edge, 'id' | 'joint'>,
  thicknessMm: number,
): WeldPlan | null {
  if (!isJoined(joint)) return null;
  const planned = plan.edges.find((e) => e.edge === id)?.weld;
  if (planned === undefined) return usualWeldPlan(joint, thicknessMm, undefined, plan.usual);
  return planned && !canBePlugged(joint) ? { ...planned, plugs: null } : planned;
}

/** The plan with what is said of one edge changed. */
export function setPlan(
  plan: PlanDoc,
  edge: string,
  change: Partial<Omit<EdgePlan, 'edge'>>,
): PlanDoc {
  const known = plan.edges.find((e) => e.edge === edge);
  const next = { edge, ...known, ...change };
  return {
    ...plan,
    edges: known ? plan.edges.map((e) => (e === known ? next : e)) : [...plan.edges, next],
  };
}
