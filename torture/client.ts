import { randomUUID } from 'node:crypto';

/** What came of a request: the status, or that no answer came. */
export type Answer = { status: number; text: string; location: string | null; ms: number };

/**
 * The longest time anybody may be kept waiting, ms. It is judged by the full `./patrone torture`,
 * which has a machine to itself; the short form that runs with the tests shares one with strangers,
 * and only calls out a request that hangs.
 */
export const TOO_LONG_MS = 2000;
/** Without an answer for this long, ms, a request hangs on any machine. */
export const HANGS_MS = 60_000;

export const chance = (share: number): boolean => Math.random() < share;
export const pick = <T>(list: readonly T[]): T => list[Math.floor(Math.random() * list.length)]!;
export const key = (): string => randomUUID();
export const rest = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

/** Asks once; null when no answer came, or the asker went away before it did (`dropMs`). */
export async function ask(
  url: string,
  init: RequestInit = {},
  dropMs?: number,
): Promise<Answer | null> {
  const start = performance.now();
  const gone = new AbortController();
  const dropping = dropMs === undefined ? undefined : setTimeout(() => gone.abort(), dropMs);
  try {
    const answer = await fetch(url, { redirect: 'manual', ...init, signal: gone.signal });
    const text = await answer.text();
    return {
      status: answer.status,
      text,
      location: answer.headers.get('location'),
      ms: performance.now() - start,
    };
  } catch {
    return null;
  } finally {
    clearTimeout(dropping);
  }
}

export const json = (body: unknown): RequestInit => ({
  method: 'POST',
  headers: { 'Content-Type': 'application/json' },
  body: JSON.stringify(body),
});
export const form = (fields: Record<string, string>): RequestInit => ({
  method: 'POST',
  body: new URLSearchParams(fields),
});
