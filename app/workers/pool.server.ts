import { availableParallelism } from 'node:os';
import { resolve } from 'node:path';
import { data } from 'react-router';
import workerpool from 'workerpool';
import type { Lane, Progress, Task } from './task';

/** One core stays with those who only read and write. */
const MAX_THREADS = Math.max(1, Math.min(4, availableParallelism() - 1));

/**
 * Each lane has threads of its own, so that nobody's picture makes anybody's paper wait. `waiting`:
 * with more than this waiting, whoever comes next is told to come again; `heapMb`: a thread that
 * needs more is given up with its task. What is unpacked beside the heap (pictures) is limited where
 * it is unpacked.
 */
const LANES: Record<Lane, { threads: number; waiting: number; heapMb: number }> = {
  shown: { threads: MAX_THREADS, waiting: 60, heapMb: 384 },
  papers: { threads: MAX_THREADS, waiting: 30, heapMb: 256 },
  pictures: { threads: 1, waiting: 60, heapMb: 160 },
  files: { threads: 1, waiting: 10, heapMb: 384 },
};

/** The program that the workers run. */
export const WORKER_PROGRAM = resolve('build/node/worker.js');

/** A thread that has had nothing to do for this long ends, ms: memory comes back. */
const IDLE_MS = 60_000;

type Pool = ReturnType<typeof workerpool.pool>;
const pools = new Map<Lane, { pool: Pool; idle?: NodeJS.Timeout }>();

function poolOf(lane: Lane): Pool {
  const known = pools.get(lane);
  if (known) return known.pool;
  const { threads, waiting, heapMb } = LANES[lane];
  const pool = workerpool.pool(WORKER_PROGRAM, {
    workerType: 'thread',
    maxWorkers: threads,
    maxQueueSize: waiting,
    workerThreadOpts: {
      resourceLimits: { maxOldGenerationSizeMb: heapMb, maxYoungGenerationSizeMb: 16 },
    },
  });
  pools.set(lane, { pool });
  return pool;
}

/**
 * What nobody waits for at a page is closed when nothing has been asked of it; what somebody waits
 * for stays ready.
 */
function closedWhenIdle(lane: Lane): void {
  const known = pools.get(lane);
  if (lane === 'shown' || lane === 'papers' || !known) return;
  clearTimeout(known.idle);
  known.idle = setTimeout(() => {
    const { busyWorkers, pendingTasks } = known.pool.stats();
    if (busyWorkers + pendingTasks > 0) return closedWhenIdle(lane);
    pools.delete(lane);
    void known.pool.terminate();
  }, IDLE_MS);
  known.idle.unref();
}

export type Limits = {
  /** Longest it may take once it has begun, ms: then it is given up. */
  limitMs?: number;
  /** Of work that tells its progress: longest it may tell none, ms, however long it takes in all. */
  quietMs?: number;
  /** Gives it up: whoever asked has gone. */
  signal?: AbortSignal;
  tell?: (progress: Progress) => void;
};

/** A task that was given up because it took longer, or more memory, than it may. */
export class TookTooLong extends Error {}

/** A thread that came to the end of its memory ends, and its task with it. */
const outOfMemory = (error: unknown): boolean =>
  error instanceof Error &&
  ((error as NodeJS.ErrnoException).code === 'ERR_WORKER_OUT_OF_MEMORY' ||
    error.message.includes('terminated'));

/**
 * Has a worker thread of the task's lane do it, and waits for what it finds. Throws `TookTooLong`;
 * 503 with a sentence when too much is waiting already; what the task throws, as an Error with its
 * message. A task that is given up ends with its thread: nothing of it goes on.
 */
export async function inWorker<Given, Found>(
  { name, lane }: Task<Given, Found>,
  given: Given,
  { limitMs, quietMs, signal, tell }: Limits,
): Promise<Found> {
  signal?.throwIfAborted();
  let running: ReturnType<Pool['exec']>;
  let quiet = false;
  let watch: NodeJS.Timeout | undefined;
  // Only from when it has begun: while others are before it nothing is to be told.
  const heard = (progress: Progress) => {
    tell?.(progress);
    if (quietMs === undefined) return;
    clearTimeout(watch);
    watch = setTimeout(() => {
      quiet = true;
      void running.cancel();
    }, quietMs);
  };
  try {
    running = poolOf(lane).exec(name, [given], { on: heard });
  } catch {
    throw data(
      { message: 'Much is being reckoned at the moment: try again in a minute.' },
      { status: 503 },
    );
  }
  const giveUp = () => void running.cancel();
  signal?.addEventListener('abort', giveUp, { once: true });
  try {
    return (await (limitMs === undefined ? running : running.timeout(limitMs))) as Found;
  } catch (error) {
    if (error instanceof workerpool.Promise.TimeoutError)
      throw new TookTooLong(`${name}: longer than ${limitMs} ms`);
    if (quiet) throw new TookTooLong(`${name}: told nothing for ${quietMs} ms`);
    if (!signal?.aborted && outOfMemory(error)) throw new TookTooLong(`${name}: out of memory`);
    throw error;
  } finally {
    clearTimeout(watch);
    signal?.removeEventListener('abort', giveUp);
    closedWhenIdle(lane);
  }
}
