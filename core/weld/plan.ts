import { z } from 'zod';
import { text } from '../card/text';
import { WeldPlanSchema } from './weldPlan';

/**
 * The plan document: what hangs on the edges of a piece and is no geometry: how each
 * is to be welded. Changing it leaves the card's own history alone. In version 1 it also said in a word
 * what an edge meets; that is a joint of the job now (`core/joint`).
 */
export const EdgePlanSchema = z.object({
  edge: text(24).min(1),
  /** Absent: as is usual for its joint. Null: not welded at all, whatever its joint. */
  weld: WeldPlanSchema.nullable().optional(),
});
export type EdgePlan = z.infer<typeof EdgePlanSchema>;

export const PLAN_VERSION = 2;
export const PlanSchema = z.object({
  version: z.literal(PLAN_VERSION),
  /** The system whose round figures are taken where nothing is planned; absent: millimetres. */
  usual: z.literal('in').optional(),
  edges: z.array(EdgePlanSchema).max(1000),
});
export type PlanDoc = z.infer<typeof PlanSchema>;
