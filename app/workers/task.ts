/** How far a task has come, as it tells it itself: so many of so many. */
export type Progress = { done: number; of: number };

/**
 * Work that would make everybody wait if the server did it between two requests, so that a worker thread does. What it is
 * given and what it finds are plain data: they are copied from thread to thread. It throws only where the program is wrong.
 */
export type Task<Given, Found> = {
  name: string;
  run: (given: Given, tell: (progress: Progress) => void) => Found | Promise<Found>;
};

export const task = <Given, Found>(name: string, run: Task<Given, Found>['run']): Task<Given, Found> => ({
  name,
  run,
});
