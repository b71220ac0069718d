import { createReadStream } from 'node:fs';
import { open, stat } from 'node:fs/promises';
import type { PieceFile } from '#core/format/job';
import { jobFileEnd, jobFileHead, jobFilePiece } from '#core/format/job';
import type { JobFilePart } from '#core/format/jobFileParts';
import { JobFileScanner, PartTooLarge } from '#core/format/jobFileParts';
import { readJobHead, readJobPiece } from '#core/format/readJob';
import type { Problem } from '#core/measure/result';
import { failure, stop } from '#core/measure/result';
import { exportJob, importJob } from '../records/jobFile.server';
import { Viewer } from '../records/viewer.server';
import { doing } from '../workers/task';
import { takeIn, writeOut } from './jobFiles';

/** Writes a job as a file at a path, piece by piece. False when there is no such job. */
export const writeOutNow = doing(writeOut, async ({ job, path }) => {
  const file = await open(path, 'w');
  let any = false;
  try {
    const found = await exportJob(Viewer.shop, job, {
      head: async (head, pieces) => {
        any = pieces > 0;
        await file.write(jobFileHead(head, any));
      },
      piece: async (piece, place) => void (await file.write(jobFilePiece(piece, place))),
    });
    if (found) await file.write(jobFileEnd(any));
    return found;
  } finally {
    await file.close();
  }
});

/** The parts of a job file, as it is read from the disk; `at` is told how many bytes have been read. */
async function* partsOf(path: string, at: (bytes: number) => void = () => undefined): AsyncGenerator<JobFilePart> {
  const scanner = new JobFileScanner();
  const file = createReadStream(path, 'utf8');
  for await (const chunk of file) {
    yield* scanner.take(chunk as string);
    at(file.bytesRead);
  }
  scanner.end();
}

/** A job file that cannot be taken in, in the middle of taking it in. */
class Refused extends Error {
  constructor(readonly problems: Problem[]) {
    super('The file is refused');
  }
}

/** What is said of the job, wherever in the file it stands: by our own hand at its beginning, and no further is read. */
async function headOf(path: string): Promise<ReturnType<typeof readJobHead>> {
  const given: Record<string, unknown> = {};
  for await (const part of partsOf(path)) {
    if ('text' in part && ['format', 'version', 'job'].includes(part.member))
      given[part.member] = JSON.parse(part.text);
    if (Object.keys(given).length === 3) break;
  }
  return readJobHead(given);
}

/** Takes a job file at a path in as a new job, all of it or nothing; tells how many bytes of it have been read. */
export const takeInNow = doing(takeIn, async ({ path, from }, tell) => {
  try {
    const read = await headOf(path);
    if (!read.ok) return read;
    const { head, version } = read;
    const { size } = await stat(path);
    async function* pieces(): AsyncGenerator<PieceFile> {
      let place = 0;
      for await (const part of partsOf(path, (done) => tell({ done, of: size }))) {
        if (part.member !== 'pieces') continue;
        if ('text' in part) throw new Refused([stop('job-unreadable', ['pieces'])]);
        const found = readJobPiece(JSON.parse(part.piece), version, place++);
        if (!found.ok) throw new Refused(found.problems);
        yield found.piece;
      }
    }
    return { ok: true, id: await importJob(Viewer.shop, head, pieces(), from) };
  } catch (error) {
    if (error instanceof Refused) return failure(...error.problems);
    if (error instanceof SyntaxError) return failure(stop('job-not-json', []));
    if (error instanceof PartTooLarge) return failure(stop('job-part-too-large', []));
    throw error;
  }
});
