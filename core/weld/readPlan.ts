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
  const read = PlanSchema.safeParse(version.data?.version === 1 ? fromVersion1(given) : given);
  if (!read.success)
    return failure(stop('document-unreadable', [read.error.issues[0]?.path.join('.') || 'plan']));
  const ids = read.data.edges.map((e) => e.edge);
  const double = ids.filter((id, i) => ids.indexOf(id) !== i);
  return double.length > 0
    ? failure(stop('document-ids-twice', double))
    : { ok: true, doc: read.data };
}

const V1PlanSchema = z.looseObject({
  edges: z.array(z.looseObject({ edge: z.string(), meets: z.string().max(120) })),
});

/** A plan of version 1 without its words: they are in the joints of the job. */
function fromVersion1(given: unknown): unknown {
  const old = V1PlanSchema.safeParse(given);
  if (!old.success) return given;
  const edges = old.data.edges.map(({ meets: _, ...edge }) => edge);
  // Of an edge that only had a word nothing is planned.
  return { ...old.data, version: PLAN_VERSION, edges: edges.filter((edge) => 'weld' in edge) };
}

/** What edges were said to meet in a plan of version 1; nothing in any other. */
export function wordsOfPlan(given: unknown): { edge: string; word: string }[] {
  const old = V1PlanSchema.extend({ version: z.literal(1) }).safeParse(given);
  return old.success
    ? old.data.edges.flatMap(({ edge, meets }) =>
        meets.trim() === '' ? [] : [{ edge, word: meets.trim() }],
      )
    : [];
}

/** The plan of version 1 that a card of version 1 carried on its edges; null for a card that carried none. */
export function planOfVersion1(given: unknown): object | null {
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
    version: 1,
    edges: old.data.edges
      .map(({ id, meets, weld, joint }) => {
        // Of an edge that is not joined nothing was meant; of one that is, "not welded" was.
        const joined = joint.kind !== 'free' && joint.kind !== 'hem';
        return { edge: id, meets, ...(joined && { weld }) };
      })
      .filter((e) => e.meets !== '' || 'weld' in e),
  };
}
