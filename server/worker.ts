import workerpool from 'workerpool';
import { takeIn, writeOut } from '#app/jobs/jobFiles.server';
import { sumUp } from '#app/piece/summing.server';
import { drawPattern } from '#app/sheet/drawPattern.server';
import type { Task } from '#app/workers/task';

/** What worker threads can be asked to do. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- Each task is called with what it is given by name only.
const tasks: Task<any, unknown>[] = [sumUp, drawPattern, writeOut, takeIn];

workerpool.worker(
  Object.fromEntries(
    tasks.map(({ name, run }) => [name, (given: unknown) => run(given, (done) => workerpool.workerEmit(done))]),
  ),
);
