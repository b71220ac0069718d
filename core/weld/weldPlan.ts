import { z } from 'zod';
import { PROCESSES } from '../card/kinds';

const size = z.number().finite().min(0).max(100_000);

/** How an edge is meant to be welded. Lengths in mm. */
export const WeldPlanSchema = z.object({
  process: z.enum(PROCESSES),
  tackPitchMm: z.number().finite().min(5).max(1000),
  plugs: z
    .object({
      holeMm: z.number().min(1).max(30),
      pitchMm: z.number().min(5).max(1000),
      endMm: size,
    })
    .nullable(),
});
export type WeldPlan = z.infer<typeof WeldPlanSchema>;
