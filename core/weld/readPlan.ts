import { z } from 'zod';
import type { Result } from '../measure/result';
import { failure, stop } from '../measure/result';
import type { PlanDoc } from './plan';
import { PLAN_VERSION, PlanSchema } from './plan';
import { WeldPlanSchema } from './weldPlan';

/**
 * The one door for plans. Problems (stop): `document-too-new`, `document-unreadable`,
 * `document-ids-twice`.
 */
export function readPlan(given: unknown): Result<{ doc: PlanDoc }> {
  const version = z.looseObject({ version: z.number() }).safeParse(given);
  if (version.success && version.data.version > PLAN_VERSION) {
    const numbers = { version: version.data.version, knownVersion: PLAN_VERSION };
    return failure(stop('document-too-new', [], numbers));
  }
  const read = PlanSchema.safeParse(given);
  if (!read.success)
    return failure(stop('document-unreadable', [read.error.issues[0]?.path.join('.') || 'plan']));
  const ids = read.data.edges.map((e) => e.edge);
  const double = ids.filter((id, i) => ids.indexOf(id) !== i);
  return double.length > 0
    ? failure(stop('document-ids-twice', double))
    : { ok: true, doc: read.data };
}

/** The plan that a card of version 1 carried on its edges; null for a card that carried none. */
export function planOfVersion1(given: unknown): PlanDoc | null {
  const old = z
    .looseObject({
      version: z.literal(1),
      edges: z.array(
        z.looseObject({
          id: z.string(),
          meets: z.string().max(120),
          weld: WeldPlanSchema.nullable(),
          joint: z.looseObject({ kind: z.string() }),
        }),
      ),
    })
    .safeParse(given);
  if (!old.success) return null;
  return {
    version: PLAN_VERSION,
    edges: old.data.edges
      .map(({ id, meets, weld, joint }) => {
        // Of an edge that is not joined nothing was meant; of one that is, "not welded" was.
        const joined = joint.kind !== 'free' && joint.kind !== 'hem';
        return { edge: id, meets, ...(joined && { weld }) };
      })
      .filter((e) => e.meets !== '' || 'weld' in e),
  };
}
