import { z } from 'zod';
import { text } from '../card/text';
import { eachOnce } from '../card/eachOnce';

const moment = text(40);
const mm = z.number().finite().min(-10_000).max(10_000);
const count = z.number().int().min(0).max(1_000_000);
const seconds = z.number().min(0).max(10_000_000);

/**
 * How far one step is. `since` is when the watch was last started, null while it stands; `seconds`
 * what it had run by then. What was counted when it was made before stays in `before`.
 */
export const StepWorkSchema = z.object({
  count,
  seconds,
  since: moment.nullable(),
  note: text(1000),
  done: moment.nullable(),
  /** The figures of the step as it was done: what it was made to, where that is known. */
  as: z.record(text(40).min(1), z.number().finite()).optional(),
  before: z.array(z.object({ count, seconds, note: text(1000), at: moment })).max(100),
  /**
   * Of a checking strip: how far below it the panel lies at stations along it, mm (below 0: above
   * it).
   */
  gaps: z
    .array(z.object({ at: mm, lowMm: mm }))
    .max(60)
    .optional(),
});
export type StepWork = z.infer<typeof StepWorkSchema>;

const key = text(160).min(1);

/** How the shaping of a piece is meant and how far it is; steps by their keys. */
export const ShapingSchema = z.object({
  /**
   * An order of one's own; null: as it is reckoned. Steps that are not in it come where they are
   * reckoned.
   */
  order: z.object({ steps: z.array(key).max(1000) }).nullable(),
  /** Steps of one's own. */
  own: eachOnce(z.array(z.object({ key, text: text(300).min(1) })).max(200), 'key'),
  work: z.record(key, StepWorkSchema),
});
export type Shaping = z.infer<typeof ShapingSchema>;
