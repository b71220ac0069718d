import { createStore, delMany, entries, set, setMany } from 'idb-keyval';
import type { UseStore } from 'idb-keyval';
import { useSyncExternalStore } from 'react';

/**
 * The one store of this browser for whatever waits for the server: documents, drafts, readings,
 * records, pictures, each under a key that begins with its kind. It is read once, before the page
 * begins (`storeRead`); from then on it is asked and told at once, and written behind: only what has
 * been written is kept. What could not be written (the store is full, or there is none) is told
 * (`useNotKept`) and tried again.
 */
const held = new Map<string, unknown>();
/** What is to be written still; undefined takes a key away. */
const dirty = new Map<string, unknown>();
/** What could not be written at the last try. */
const failed = new Set<string>();

/** Delay before a failed write is tried again, ms. */
const AGAIN_MS = 3000;
/** A page begins without its store where that is not read by then, ms. */
const PATIENCE_MS = 3000;

/** Where older programs kept things, and where a page that is closed leaves what is not written yet. */
const [OLD, LATE] = ['patrone:', 'patrone-late:'];

let opened: UseStore | null = null;
const store = (): UseStore => (opened ??= createStore('patrone', 'kept'));

/** Other windows of this browser hold the same. Null on the server. */
const others = typeof window === 'undefined' ? null : new BroadcastChannel('patrone-kept');
const watchers = new Set<() => void>();
const told = (): void => {
  for (const tell of watchers) tell();
};

export const kept = {
  get: <T>(key: string): T | null => (held.get(key) as T | undefined) ?? null,
  keys: (prefix: string): string[] => [...held.keys()].filter((key) => key.startsWith(prefix)),
  set(key: string, value: unknown): void {
    held.set(key, value);
    change(key, value);
  },
  remove(key: string): void {
    if (!held.delete(key) && !dirty.has(key)) return;
    change(key, undefined);
  },
};

/** Whether the page is being closed: it may not see its next writing through. */
let closing = false;
/** What is left in localStorage until it is written where it belongs. */
const late = new Set<string>();

/** Leaves text where it is written at once, for the next page to take over. */
function leave(key: string, value: unknown): void {
  if (typeof value !== 'string') return;
  try {
    localStorage.setItem(LATE + key, value);
    late.add(key);
  } catch {
    // Full as well: it was told that it is not kept.
  }
}

/** What has been written is left nowhere else, unless something newer is. */
function arrived(key: string): void {
  failed.delete(key);
  if (!dirty.has(key) && late.delete(key)) localStorage.removeItem(LATE + key);
}

function change(key: string, value: unknown): void {
  dirty.set(key, value);
  if (closing) leave(key, value);
  others?.postMessage([key, value]);
  void written();
}

const NOTHING: ReadonlyMap<string, unknown> = new Map();
let beingWritten = NOTHING;
let writing = false;
/** Writes what is to be written, until nothing is, or it cannot be. */
async function written(): Promise<void> {
  if (writing) return;
  writing = true;
  try {
    while (dirty.size > 0) {
      beingWritten = new Map(dirty);
      dirty.clear();
      await put(beingWritten);
      beingWritten = NOTHING;
      if (failed.size > 0) {
        setTimeout(() => void written(), AGAIN_MS);
        return;
      }
    }
  } finally {
    writing = false;
    told();
  }
}

/** Writes all of it together; where that cannot be, one by one, so that what is small is kept. */
async function put(batch: ReadonlyMap<string, unknown>): Promise<void> {
  const values = [...batch].filter(([, value]) => value !== undefined);
  const gone = [...batch.keys()].filter((key) => batch.get(key) === undefined);
  try {
    if (gone.length > 0) await delMany(gone, store());
    if (values.length > 0) await setMany(values, store());
    for (const key of batch.keys()) arrived(key);
  } catch {
    for (const [key, value] of values) {
      try {
        await set(key, value, store());
        arrived(key);
      } catch {
        failed.add(key);
        if (!dirty.has(key)) dirty.set(key, value);
      }
    }
  }
}

/** What older programs kept in other places of this browser is taken over from there. */
async function takenOver(): Promise<[string, unknown][]> {
  const found: [string, unknown][] = [];
  for (const start of [OLD, LATE])
    for (const key of Object.keys(localStorage).filter((one) => one.startsWith(start))) {
      found.push([start === OLD ? key : key.slice(LATE.length), localStorage.getItem(key)]);
    }
  for (const [kind, database] of [
    ['record:', 'patrone-records'],
    ['picture:', 'patrone-pictures'],
  ] as const) {
    const all = (await indexedDB.databases?.()) ?? [];
    if (!all.some(({ name }) => name === database)) continue;
    const old = await entries<string, unknown>(createStore(database, 'waiting'));
    found.push(...old.map(([key, value]): [string, unknown] => [kind + key, value]));
    indexedDB.deleteDatabase(database);
  }
  return found;
}

async function read(): Promise<void> {
  try {
    for (const [key, value] of await entries<string, unknown>(store()))
      if (!dirty.has(key)) held.set(key, value);
    const over = await takenOver();
    for (const [key, value] of over) if (value !== null) kept.set(key, value);
    await written();
    if (failed.size > 0) return;
    for (const key of Object.keys(localStorage))
      if (key.startsWith(OLD) || key.startsWith(LATE)) localStorage.removeItem(key);
  } catch {
    // No store (a private window of some browsers): what waits is held by this page alone, and the
    // first writing says so.
  }
}

let reading: Promise<unknown> | null = null;
/** Reads the store, once; a page begins when that is done. */
export const storeRead = (): Promise<unknown> =>
  (reading ??= Promise.race([
    read(),
    new Promise((enough) => setTimeout(enough, PATIENCE_MS)),
  ]).then(() => {
    others?.addEventListener(
      'message',
      ({ data: [key, value] }: MessageEvent<[string, unknown]>) => {
        if (value === undefined) held.delete(key);
        else held.set(key, value);
      },
    );
    window.addEventListener('pagehide', () => {
      closing = true;
      for (const [key, value] of [...beingWritten, ...dirty]) leave(key, value);
    });
    window.addEventListener('pageshow', () => (closing = false));
  }));

/** Whether something waits that this browser could not keep: it is lost when the page is closed. */
export const useNotKept = (): boolean =>
  useSyncExternalStore(
    (tell) => {
      watchers.add(tell);
      return () => watchers.delete(tell);
    },
    () => failed.size > 0,
    () => false,
  );

/** Where what waits for the server is held: said only of what the browser could keep. */
export const useHeldWord = (): string =>
  useNotKept() ? 'held by this page alone' : 'kept in this browser';
