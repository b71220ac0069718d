import { useCallback, useEffect, useState } from 'react';

/** What is typed and not yet put in the record, by what it is about; kept in the browser. */
const keyOf = (about: string) => `patrone:draft:${about}`;

export const forgetDraft = (about: string): void => localStorage.removeItem(keyOf(about));

function read<T>(about: string): T | null {
  try {
    return JSON.parse(localStorage.getItem(keyOf(about)) ?? 'null') as T | null;
  } catch {
    return null;
  }
}

/**
 * A form's contents that survive picking something else, another stage, a reload, and a server that is away. `set` takes
 * part of the fields; `drop` forgets the draft, or of it what was `sent`, and goes back to `initial`. `kept` says that something typed is waiting.
 */
export function useDraft<T extends object>(
  about: string,
  initial: T,
): { draft: T; kept: boolean; set: (change: Partial<T>) => void; drop: (sent?: Partial<T>) => void } {
  const [typed, setTyped] = useState<Partial<T> | null>(null);
  // Read after the first showing: the server that renders the page knows nothing of this browser.
  useEffect(() => {
    const reading = setTimeout(() => setTyped((now) => now ?? read<Partial<T>>(about)), 0);
    return () => clearTimeout(reading);
  }, [about]);
  const set = useCallback(
    (change: Partial<T>) =>
      setTyped((now) => {
        const next = { ...now, ...change };
        localStorage.setItem(keyOf(about), JSON.stringify(next));
        return next;
      }),
    [about],
  );
  const drop = useCallback(
    (sent?: Partial<T>) =>
      setTyped((now) => {
        // What was typed after it was sent has not arrived anywhere yet: that stays.
        const left = Object.entries(now ?? {}).filter(
          ([key, value]) => sent && JSON.stringify(value) !== JSON.stringify(sent[key as keyof T]),
        );
        if (left.length === 0) {
          forgetDraft(about);
          return null;
        }
        const next = Object.fromEntries(left) as Partial<T>;
        localStorage.setItem(keyOf(about), JSON.stringify(next));
        return next;
      }),
    [about],
  );
  return { draft: { ...initial, ...typed }, kept: typed !== null, set, drop };
}
