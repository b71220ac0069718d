import type { Result } from '#core/measure/result';
import { task } from '../workers/task';

/**
 * Writes a job as a file at a path, piece by piece: the plain JSON without pictures, or a zip of
 * that (`job.json`) and the pictures it speaks of. False when there is no such job.
 */
export const writeOut = task<{ job: string; path: string; plain: boolean }, boolean>(
  'write-out',
  'files',
);

/**
 * Takes a job file at a path in as a new job, all of it or nothing; tells how many bytes of it have
 * been read.
 */
export const takeIn = task<{ path: string; from: string }, Result<{ id: string }>>(
  'take-in',
  'files',
);
