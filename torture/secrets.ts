import { ask, form, rest } from './client';

/** What came of many tries of secrets at once: how many were judged, and how readers fared. */
export type Tried = { judged: number; aloneMs: number; readMs: number; wrong: string[] };

/** Tries that are free: of one name, and from one address whatever names are tried. */
const FREE_OF_A_NAME = 4;
const FREE_OF_AN_ADDRESS = 30;
const READERS = 10;
/** Pages read before any is timed. */
const WARM_PAGES = 200;
/** Most that readers may wait beside tries, as a share of what they wait alone. */
const MAX_OF_ALONE = 1.25;
/** A reader looks at a page for up to this long before the next, ms, as in the bench. */
const LOOKS_MS = 1000;
/** Time for which readers are timed with nothing beside them, ms. */
const ALONE_MS = 5000;

/** The most that may be judged in `ms`: those that are free, then one after each wait, doubled. */
function mostIn(ms: number, free: number): number {
  let [most, left, wait] = [free, ms / 1000, 2];
  for (; left >= wait; wait *= 2) [most, left] = [most + 1, left - wait];
  return most;
}

/**
 * Sends `together` wrong sign-ins at once for one name, then for as many names, while ten read
 * pages: how many were judged, and the 95th of a hundred of what the readers waited, alone and
 * beside them, ms.
 */
export async function secretsAtOnce(
  at: string,
  together: number,
  page: string,
  tooLongMs: number,
): Promise<Tried> {
  const wrong: string[] = [];
  // A server that has just begun takes a second for its first page, and is slow for its first hundred.
  for (let i = 0; i < WARM_PAGES; i++) await ask(`${at}${page}`);
  /** The 95th of a hundred of what ten readers wait while something else is done, ms. */
  const readersBeside = async (other: () => Promise<unknown>): Promise<number> => {
    const waited: number[] = [];
    let over = false;
    const readers = Array.from({ length: READERS }, async () => {
      while (!over) {
        const found = await ask(`${at}${page}`);
        if (found?.status !== 200)
          wrong.push(`a reader was answered ${found?.status ?? 'nothing'}`);
        waited.push(found?.ms ?? Infinity);
        await rest(Math.random() * LOOKS_MS);
      }
    });
    await other();
    over = true;
    await Promise.all(readers);
    return waited.sort((a, b) => a - b)[Math.floor(waited.length * 0.95)] ?? 0;
  };
  const trying = async (nameOf: (i: number) => string, free: number) => {
    const start = performance.now();
    const answers = await Promise.all(
      Array.from({ length: together }, (_, i) =>
        ask(`${at}/sign-in`, form({ name: nameOf(i), phrase: `wrong phrase ${i}` })),
      ),
    );
    const other = answers.filter((one) => ![401, 429, 503].includes(one?.status ?? 0));
    if (other.length > 0)
      wrong.push(`${other.length} tries were answered ${other[0]?.status ?? 'nothing'}`);
    const judged = answers.filter((one) => one?.status === 401).length;
    const most = mostIn(performance.now() - start, free);
    if (judged > most) wrong.push(`of ${together} at once ${judged} were judged, not ${most}`);
    return judged;
  };
  const aloneMs = await readersBeside(() => rest(ALONE_MS));
  let judged = 0;
  const readMs = await readersBeside(async () => {
    judged += await trying(() => 'Tried together', FREE_OF_A_NAME);
    judged += await trying((i) => `Tried ${i}`, FREE_OF_AN_ADDRESS);
  });
  // On a machine on which readers wait that long anyway it is what the tries add that counts.
  if (readMs > Math.max(tooLongMs, MAX_OF_ALONE * aloneMs))
    wrong.push(`the 95th of a hundred readers waited ${readMs.toFixed(0)} ms beside them`);
  return { judged, aloneMs, readMs, wrong };
}
