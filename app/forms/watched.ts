/**
 * What is on its way from this browser, as pages watch it (`useSyncExternalStore`); `begin` takes
 * up what an earlier page left.
 */
export type Watched<T> = {
  subscribe: (tell: () => void) => () => void;
  snapshot: () => readonly T[];
  /** The server that renders a page knows nothing of this browser. */
  none: () => readonly T[];
};

export function watched<T>(begin: () => void): Watched<T> & { now: (next: readonly T[]) => void } {
  const NONE: readonly T[] = [];
  let all = NONE;
  const watchers = new Set<() => void>();
  return {
    subscribe(tell) {
      watchers.add(tell);
      begin();
      return () => watchers.delete(tell);
    },
    snapshot: () => all,
    none: () => NONE,
    now(next) {
      all = next;
      for (const tell of watchers) tell();
    },
  };
}
