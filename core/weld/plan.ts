import { z } from 'zod';
import { text } from '../card/text';
import { WeldPlanSchema } from './weldPlan';

/**
 * The plan document: what hangs on the edges of a piece and is no geometry. Whom each meets and how
 * it is to be welded; changing it leaves the card's own history alone.
 */
export const EdgePlanSchema = z.object({
  edge: text(24).min(1),
  meets: text(120),
  /** Absent: as is usual for its joint. Null: not welded at all, whatever its joint. */
  weld: WeldPlanSchema.nullable().optional(),
});
export type EdgePlan = z.infer<typeof EdgePlanSchema>;

export const PLAN_VERSION = 1;
export const PlanSchema = z.object({
  version: z.literal(PLAN_VERSION),
  /** The system whose round figures are taken where nothing is planned; absent: millimetres. */
  usual: z.literal('in').optional(),
  edges: z.array(EdgePlanSchema).max(1000),
});
export type PlanDoc = z.infer<typeof PlanSchema>;
