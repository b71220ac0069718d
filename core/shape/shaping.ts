import { z } from 'zod';
import { text } from '../card/text';

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
  own: z.array(z.object({ key, text: text(300).min(1) })).max(200),
  work: z.record(key, StepWorkSchema),
});
export type Shaping = z.infer<typeof ShapingSchema>;

/** A piece whose shaping has not begun. */
export const unshaped = (): Shaping => ({ order: null, own: [], work: {} });

export const noWork = (): StepWork => ({
  count: 0,
  seconds: 0,
  since: null,
  note: '',
  done: null,
  before: [],
});

/** Figures of a step that differ by less than this share of themselves are the same work. */
const SAME_WORK = 0.02;

/**
 * Whether a step that is done was done to other figures than it has now (the card has changed since);
 * false where nothing is known of it.
 */
export const madeToOther = ({ as }: StepWork, figures: Readonly<Record<string, number>>): boolean =>
  as !== undefined &&
  [...new Set([...Object.keys(as), ...Object.keys(figures)])].some((name) => {
    const [was, is] = [as[name] ?? 0, figures[name] ?? 0];
    return Math.abs(was - is) > SAME_WORK * Math.max(Math.abs(was), Math.abs(is)) + 1e-3;
  });

/** How much of what a step counts is not counted; 0 where nothing is wanted, or a note says why. */
export const uncounted = ({ count, note }: StepWork, wanted: number | null): number =>
  wanted === null || note.trim() !== '' ? 0 : Math.max(0, wanted - count);

/** How long a step took until now, seconds. */
export const workedSeconds = (work: StepWork, now: number): number =>
  work.seconds + (work.since === null ? 0 : Math.max(0, (now - Date.parse(work.since)) / 1000));

/** The same step begun anew: what was counted stays to be seen. */
export const madeAgain = (work: StepWork, at: string): StepWork => ({
  ...noWork(),
  before: [
    ...work.before,
    { count: work.count, seconds: workedSeconds(work, Date.parse(at)), note: work.note, at },
  ].slice(-100),
});

/**
 * Steps in the order meant: an order of one's own as far as it goes, steps it does not name after
 * the one before them.
 */
export function inOwnOrder<S extends { key: string }>(
  reckoned: readonly S[],
  order: Shaping['order'],
): S[] {
  if (!order) return [...reckoned];
  const byKey = new Map(reckoned.map((step) => [step.key, step]));
  const listed = order.steps.flatMap((one) => byKey.get(one) ?? []);
  const known = new Set(listed.map((step) => step.key));
  const found = [...listed];
  reckoned.forEach((step, i) => {
    if (known.has(step.key)) return;
    const before = reckoned[i - 1];
    const at = before ? found.indexOf(before) + 1 : 0;
    found.splice(at, 0, step);
  });
  return found;
}
