import { availableParallelism } from 'node:os';
import { resolve } from 'node:path';
import { data } from 'react-router';
import workerpool from 'workerpool';
import type { Progress, Task } from './task';

/** More than this waiting for a worker, and whoever comes next is told to come again. */
const MOST_WAITING = 60;

/** One core stays with those who only read and write. */
const MOST_AT_ONCE = Math.max(1, Math.min(4, availableParallelism() - 1));

/** The program that the workers run. */
export const WORKER_PROGRAM = resolve('build/node/worker.js');

let pool: ReturnType<typeof workerpool.pool> | null = null;
const started = () =>
  (pool ??= workerpool.pool(WORKER_PROGRAM, {
    workerType: 'thread',
    minWorkers: 1,
    maxWorkers: MOST_AT_ONCE,
    maxQueueSize: MOST_WAITING,
    workerThreadOpts: {
      resourceLimits: { maxOldGenerationSizeMb: 384, maxYoungGenerationSizeMb: 16 },
    },
  }));

export type Limits = {
  /** Longest it may take once it has begun, ms: then it is given up. */
  limitMs: number;
  /** Gives it up: whoever asked has gone. */
  signal?: AbortSignal;
  tell?: (progress: Progress) => void;
};

/** A task that was given up because it took longer than it may. */
export class TookTooLong extends Error {}

/**
 * Has a worker thread do a task, and waits for what it finds. Throws `TookTooLong`; 503 with a
 * sentence when too much is waiting already; what the task throws, as an Error with its message. A
 * task that is given up ends with its thread: nothing of it goes on.
 */
export async function inWorker<Given, Found>(
  { name }: Task<Given, Found>,
  given: Given,
  { limitMs, signal, tell }: Limits,
): Promise<Found> {
  signal?.throwIfAborted();
  let running;
  try {
    running = started().exec(name, [given], { on: (progress: Progress) => tell?.(progress) });
  } catch {
    throw data(
      { message: 'Much is being reckoned at the moment: try again in a minute.' },
      { status: 503 },
    );
  }
  const giveUp = () => void running.cancel();
  signal?.addEventListener('abort', giveUp, { once: true });
  try {
    return (await running.timeout(limitMs)) as Found;
  } catch (error) {
    if (error instanceof workerpool.Promise.TimeoutError)
      throw new TookTooLong(`${name}: longer than ${limitMs} ms`);
    throw error;
  } finally {
    signal?.removeEventListener('abort', giveUp);
  }
}
