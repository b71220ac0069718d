/** Progress reported by a task: `done` steps of `of`. */
export type Progress = { done: number; of: number };

/**
 * Tasks of different lanes never wait for each other: what a page shows of pieces, papers to print,
 * pictures that come in, whole jobs as files.
 */
export type Lane = 'shown' | 'papers' | 'pictures' | 'files';

/**
 * Work that would make everybody wait if the server did it between two requests, so that a worker
 * thread does: its name, its lane and, for the compiler alone, what it is given and what it finds.
 * Both are plain data, copied from thread to thread.
 */
export type Task<Given, Found> = { name: string; lane: Lane; types?: (given: Given) => Found };

export const task = <Given, Found>(name: string, lane: Lane): Task<Given, Found> => ({
  name,
  lane,
});

/**
 * A task and who does it: known to the worker's program alone, so that the server need not load
 * what it takes.
 */
export type Doing = {
  name: string;
  run: (given: never, tell: (progress: Progress) => void) => unknown;
};

export const doing = <Given, Found>(
  { name }: Task<Given, Found>,
  run: (given: Given, tell: (progress: Progress) => void) => Found | Promise<Found>,
): Doing => ({ name, run });
