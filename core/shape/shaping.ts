import type { Shaping, StepWork } from './shapingSchema';

export type { Shaping, StepWork };

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
