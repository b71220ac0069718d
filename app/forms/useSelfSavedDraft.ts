import { useCallback, useMemo } from 'react';
import type { MergeRules } from '#core/format/merge';
import { alike, forgetSent, rememberSent, wasSent } from './sentBefore';
import type { Refusal } from './usePost';
import { usePost } from './usePost';
import { useDraft } from './useDraft';
import { useSelfSending } from './useSelfSending';

export type SelfSaved<T> = {
  draft: T;
  set: (change: Partial<T>) => void;
  /** Something waits in this browser. */
  kept: boolean;
  state: 'idle' | 'busy' | 'failed';
  /** Why the server would not take it; it then waits for the user. */
  refusal: Refusal | null;
  /** Gives what waits up, and takes what is there. */
  drop: () => void;
  /** Sends it once more: shown what is there instead, one's own then stands. */
  send: () => Promise<void>;
};

/**
 * A draft that sends itself, field by field: only what was touched goes, since it stood as it was
 * touched. It is kept in the browser while the server is away and when the page is closed; what
 * another page has written meanwhile is told. `body` is what is posted; the answer goes to `took`.
 */
export function useSelfSavedDraft<T extends object, Answer extends object>(
  about: string,
  initial: T,
  url: string,
  body: (since: Partial<T>, mine: Partial<T>) => object,
  took: (answer: Answer) => void,
  rules?: MergeRules<T>,
): SelfSaved<T> {
  const post = usePost(url, took);
  const { ask, refusal, state } = post;
  const { draft, since, kept, set, drop } = useDraft<T>(
    about,
    initial,
    refusal?.now as T | undefined,
    rules,
  );
  const changed = useMemo(
    () =>
      (Object.keys(draft) as (keyof T)[]).filter(
        (key) => JSON.stringify(draft[key]) !== JSON.stringify(since[key]),
      ),
    [draft, since],
  );
  const send = useCallback(async () => {
    // What is no more is sent as nothing: a field that is missing would be none.
    const only = (all: T) =>
      Object.fromEntries(changed.map((key) => [key, all[key] ?? null])) as Partial<T>;
    const mine = only(draft);
    const stood = only(since);
    const taken = () => {
      forgetSent(about);
      drop(mine);
    };
    // Remembered before it goes: the page may be closed before the answer is here.
    rememberSent(about, mine);
    const answer = await ask(body(stood, mine));
    if (answer === 'taken') taken();
    if (typeof answer !== 'object' || !answer.now) return;
    // What stands there instead may be what was sent from here, its answer lost: then one's own
    // goes on from that.
    const now = answer.now as Partial<T>;
    const other = changed.filter(
      (key) => !alike(now[key], stood[key]) && !alike(now[key], mine[key]),
    );
    if (
      other.length === 0 ||
      !wasSent(
        about,
        other.map((key) => [String(key), now[key] ?? null]),
      )
    )
      return;
    if ((await ask(body(only({ ...since, ...now }), mine))) === 'taken') taken();
  }, [about, ask, body, changed, draft, drop, since]);
  useSelfSending(
    kept,
    JSON.stringify(changed.map((key) => draft[key])),
    post,
    () => void (changed.length === 0 ? drop() : send()),
  );
  return { draft, set, kept, refusal, state, drop, send };
}
