import type { MergeRules } from '#core/format/merge';
import { mergedRecord } from '#core/format/merge';
import { kept } from './browserStore';
import { useCallback, useEffect, useRef, useState } from 'react';

/** What is typed and not yet put in the record, by what it is about; kept in the browser. */
const keyOf = (about: string) => `patrone:draft:${about}`;

export const forgetDraft = (about: string): void => kept.remove(keyOf(about));

/** What was typed, and of each field what stood there when it was first typed over. */
type Kept<T> = { typed: Partial<T>; since: Partial<T> };

function read<T>(about: string): Kept<T> | null {
  try {
    const found = JSON.parse(kept.get<string>(keyOf(about)) ?? 'null') as
      Kept<T> | Partial<T> | null;
    if (found === null) return null;
    // Drafts of an older program hold only what was typed.
    return 'typed' in found && 'since' in found
      ? (found as Kept<T>)
      : { typed: found as Partial<T>, since: {} };
  } catch {
    return null;
  }
}

/**
 * A form's contents that survive picking something else, another stage, a reload, and a server that
 * is away. `set` takes part of the fields; `drop` forgets the draft, or of it what was `sent`, and
 * goes back to `initial`. `kept` says that something typed is waiting; `since` is the record as it
 * stood where it was typed over, or as another page wrote it meanwhile, once the user is shown that
 * (`told`): what was typed then goes on from there, with what the other page put in (`rules` of how
 * the record merges).
 */
export function useDraft<T extends object>(
  about: string,
  initial: T,
  told?: T,
  rules?: MergeRules<T>,
): {
  draft: T;
  since: T;
  kept: boolean;
  set: (change: Partial<T>) => void;
  drop: (sent?: Partial<T>) => void;
} {
  const [held, setHeld] = useState<Kept<T> | null>(null);
  const standing = useRef(initial);
  useEffect(() => {
    standing.current = initial;
  });
  // Read after the first showing: the server that renders the page knows nothing of this browser.
  useEffect(() => {
    const reading = setTimeout(() => setHeld((now) => now ?? read<T>(about)), 0);
    return () => clearTimeout(reading);
  }, [about]);
  const keep = useCallback(
    (next: Kept<T>): Kept<T> => {
      kept.set(keyOf(about), JSON.stringify(next));
      return next;
    },
    [about],
  );
  const set = useCallback(
    (change: Partial<T>) =>
      setHeld((now) => {
        const first = Object.keys(change).map((key) => [key, standing.current[key as keyof T]]);
        const since = { ...(Object.fromEntries(first) as Partial<T>), ...now?.since };
        return keep({ typed: { ...now?.typed, ...change }, since });
      }),
    [keep],
  );
  const drop = useCallback(
    (sent?: Partial<T>) =>
      setHeld((now) => {
        // What was typed after it was sent has not arrived anywhere yet: that stays, and stands on
        // what was sent, or, where nothing of it was, on what it stood on before.
        const left = Object.entries(now?.typed ?? {}).filter(
          ([key, value]) => sent && JSON.stringify(value) !== JSON.stringify(sent[key as keyof T]),
        );
        if (left.length === 0) {
          forgetDraft(about);
          return null;
        }
        const before = now?.since;
        const since = Object.fromEntries(
          left.map(([key]) => [
            key,
            key in sent! ? sent![key as keyof T] : before?.[key as keyof T],
          ]),
        ) as Partial<T>;
        return keep({ typed: Object.fromEntries(left) as Partial<T>, since });
      }),
    [about, keep],
  );
  // With the showing itself, not after it: whoever keeps again as soon as they see it has seen it.
  const [seen, setSeen] = useState<T>();
  if (told && told !== seen) {
    setSeen(told);
    setHeld((now) => {
      if (!now) return now;
      const keys = Object.keys(now.typed) as (keyof T)[];
      const { merged } = mergedRecord<Partial<T>>(
        { ...initial, ...now.since },
        now.typed,
        told,
        rules as MergeRules<Partial<T>>,
      );
      const only = (all: Partial<T>) =>
        Object.fromEntries(keys.map((key) => [key, all[key]])) as Partial<T>;
      return keep({ typed: only(merged), since: only(told) });
    });
  }
  return {
    draft: { ...initial, ...held?.typed },
    since: { ...initial, ...held?.since },
    kept: held !== null,
    set,
    drop,
  };
}
