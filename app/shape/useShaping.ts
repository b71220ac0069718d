import { useCallback, useMemo } from 'react';
import type { MergeRules } from '#core/format/merge';
import { SHAPING_MERGE } from '#core/format/mergeRules';
import type { Shaping, StepWork } from '#core/shape/shaping';
import { noWork } from '#core/shape/shaping';
import type { SelfSaved } from '../forms/useSelfSavedDraft';
import { useSelfSavedDraft } from '../forms/useSelfSavedDraft';
import { usePiece } from '../piece/pieceContext';

type Answer = { shaping?: Shaping };
/** The work on each step a field of its own, so that it is kept, sent and merged by itself. */
type Flat = Pick<Shaping, 'order' | 'own'> & Record<`work ${string}`, StepWork | null>;

const WORK = 'work ';
const isWork = (key: string): key is `work ${string}` => key.startsWith(WORK);

/** As the server takes it. */
function nested(all: Partial<Flat>): object {
  const { order, own } = all;
  const work = Object.entries(all)
    .filter(([key]) => isWork(key))
    .map(([key, one]) => [key.slice(WORK.length), one ?? null]);
  return {
    ...('order' in all && { order: order ?? null }),
    ...('own' in all && { own: own ?? [] }),
    ...(work.length > 0 && { work: Object.fromEntries(work) as object }),
  };
}
const body = (since: Partial<Flat>, mine: Partial<Flat>) => ({
  since: nested(since),
  mine: nested(mine),
});

export type Shaped = {
  shaping: Shaping;
  saved: SelfSaved<Flat>;
  workOn: (key: string) => StepWork;
  setWork: (key: string, change: Partial<StepWork>) => void;
  setOrder: (steps: readonly string[] | null) => void;
  setOwn: (own: Shaping['own']) => void;
};

/**
 * How the piece at hand is shaped, and how far it is: it saves itself, and is kept in this browser
 * while the server is away.
 */
export function useShaping(): Shaped {
  const { id, shaping: known, took } = usePiece();
  const takeOver = useCallback(
    (answer: Answer) => answer.shaping && took({ shaping: answer.shaping }),
    [took],
  );
  const initial = useMemo((): Flat => {
    const work = Object.entries(known.work).map(([key, one]) => [`${WORK}${key}`, one] as const);
    return { order: known.order, own: known.own, ...Object.fromEntries(work) };
  }, [known]);
  const saved = useSelfSavedDraft<Flat, Answer>(
    `shaping ${id}`,
    initial,
    `/pieces/${id}/shaping`,
    body,
    takeOver,
    SHAPING_MERGE as MergeRules<Flat>,
  );
  const { draft, set } = saved;
  const shaping = useMemo((): Shaping => {
    const work = Object.entries(draft).flatMap(([key, one]) =>
      isWork(key) && one ? [[key.slice(WORK.length), one as StepWork] as const] : [],
    );
    return { order: draft.order, own: draft.own, work: Object.fromEntries(work) };
  }, [draft]);
  const workOn = (key: string) => shaping.work[key] ?? noWork();
  return {
    shaping,
    saved,
    workOn,
    setWork: (key, change) => set({ [`${WORK}${key}`]: { ...workOn(key), ...change } }),
    setOrder: (steps) => set({ order: steps && { steps: [...steps] } }),
    setOwn: (own) => set({ own }),
  };
}
