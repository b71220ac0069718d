import { kept, storeRead } from './browserStore';
import type { Watched } from './watched';
import { watched } from './watched';

/**
 * A record that waits in this browser for the server: kept through a closed page, sent in the order
 * it was written, under one key.
 */
export type Queued = {
  /**
   * What it is sent under: sent a second time, because an answer was lost, it is the same record.
   */
  key: string;
  url: string;
  body: object;
  /** What it is, in words, and what it belongs to. */
  said: string;
  about: string;
  at: number;
};
export type Waiting = Queued & {
  /** Why the server would not take it; it then waits for the user. */
  refused: string | null;
};

/** Delay before a server that did not answer is tried again, ms. */
const RETRY_MS = 4000;

const KIND = 'record:';
const answers = new Set<(about: string, answer: object) => void>();

/** What waits, first what was written first. */
const waiting = watched<Waiting>(begin);
export const waitingRecords: Watched<Waiting> = waiting;

/** Has `tell` know what the server answers to a record that waited. */
export function onAnswer(tell: (about: string, answer: object) => void): () => void {
  answers.add(tell);
  return () => answers.delete(tell);
}

/** Whether something waits already for an address: what is written after it goes after it. */
export const waitsFor = (url: string): boolean =>
  waiting.snapshot().some((one) => one.url === url && one.refused === null);

/** Puts a record behind what waits already. */
export function wait(record: Queued): void {
  waiting.now([...waiting.snapshot(), { ...record, refused: null }]);
  kept.set(KIND + record.key, record);
  tryLater();
}

let later: ReturnType<typeof setTimeout> | undefined;
/** One try at a time is on its way, however much waits. */
function tryLater(): void {
  clearTimeout(later);
  later = setTimeout(() => void pump(), RETRY_MS);
}

/** Gives a record up. */
export function giveUp(key: string): void {
  waiting.now(waiting.snapshot().filter((one) => one.key !== key));
  kept.remove(KIND + key);
}

/** Tries a record that was refused once more. */
export function sendAgain(key: string): void {
  waiting.now(waiting.snapshot().map((one) => (one.key === key ? { ...one, refused: null } : one)));
  void pump();
}

let begun = false;
/** What waits from an earlier page is taken up again. */
function begin(): void {
  if (begun) return;
  begun = true;
  window.addEventListener('online', () => void pump());
  void storeRead().then(() => {
    const all = waiting.snapshot();
    const known = new Set(all.map((one) => one.key));
    const left = kept.keys(KIND).flatMap((name) => {
      const one = kept.get<Queued>(name);
      return one && !known.has(one.key) ? [{ ...one, refused: null }] : [];
    });
    waiting.now([...left, ...all].sort((a, b) => a.at - b.at));
    return pump();
  });
}

let pumping = false;
/**
 * Sends what waits, one after another; a server that does not answer is tried again, as long as
 * anything waits.
 */
async function pump(): Promise<void> {
  if (pumping) return;
  pumping = true;
  try {
    for (;;) {
      const next = waiting.snapshot().find((one) => one.refused === null);
      if (!next) return;
      if (!(await sent(next))) break;
    }
  } finally {
    pumping = false;
  }
  tryLater();
}

/** Whether the server has said something about a record: taken, or refused. */
async function sent({ key, url, body, about }: Waiting): Promise<boolean> {
  try {
    const headers = { 'Content-Type': 'application/json' };
    const response = await fetch(url, {
      method: 'POST',
      headers,
      body: JSON.stringify({ ...body, key }),
    });
    // Signed out meanwhile: it goes in once somebody is signed in again.
    if (response.status === 401 || response.status >= 500) return false;
    const answer = (await response.json().catch(() => ({}))) as { message?: string };
    if (response.ok) {
      // Told first: what it answers takes the place of what waited.
      for (const tell of answers) tell(about, answer);
      giveUp(key);
      return true;
    }
    const why = answer.message ?? 'The server would not take it.';
    waiting.now(
      waiting.snapshot().map((one) => (one.key === key ? { ...one, refused: why } : one)),
    );
    return true;
  } catch {
    return false;
  }
}
