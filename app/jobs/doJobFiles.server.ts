import { createReadStream } from 'node:fs';
import { mkdir, open, rm, stat } from 'node:fs/promises';
import type { PieceFile } from '#core/format/job';
import { jobFileEnd, jobFileHead, jobFilePiece } from '#core/format/job';
import type { JobFilePart } from '#core/format/jobFileParts';
import { JobFileScanner, PartTooLarge } from '#core/format/jobFileParts';
import { readJobHead, readJobPiece } from '#core/format/readJob';
import type { Problem, Result } from '#core/measure/result';
import { failure, stop } from '#core/measure/result';
import type { PictureType } from '#core/picture/privacy';
import { pictureName } from '../pictures/pictureFiles.server';
import { exportJob, importJob } from '../records/jobFile.server';
import { Viewer } from '../records/viewer.server';
import { doing } from '../workers/task';
import { takeIn, writeOut } from './jobFiles';
import {
  DamagedPack,
  MOST_TEXT_BYTES,
  isPack,
  packJob,
  takeUpPictures,
  unpackJob,
} from './jobPack.server';

/**
 * Writes the text of a job to a path; answers what pictures it speaks of, or null when there is no
 * such job.
 */
async function writeText(
  job: string,
  path: string,
  withPictures: boolean,
): Promise<Set<string> | null> {
  const file = await open(path, 'w');
  const named = new Set<string>();
  let any = false;
  const note = (all: readonly { digest: string; type: PictureType }[]) => {
    for (const { digest, type } of all) named.add(pictureName(digest, type));
  };
  try {
    const found = await exportJob(Viewer.shop, job, withPictures, {
      head: async (head, pieces) => {
        any = pieces > 0;
        note(head.pictures);
        await file.write(jobFileHead(head, any));
      },
      piece: async (piece, place) => {
        note(piece.pictures);
        await file.write(jobFilePiece(piece, place));
      },
    });
    if (!found) return null;
    await file.write(jobFileEnd(any));
    return named;
  } finally {
    await file.close();
  }
}

export const writeOutNow = doing(writeOut, async ({ job, path, plain }) => {
  if (plain) return (await writeText(job, path, false)) !== null;
  const text = `${path}.text`;
  const named = await writeText(job, text, true);
  if (!named) return false;
  await packJob(path, text, named);
  await rm(text);
  return true;
});

/**
 * The parts of a job file, as it is read from the disk; `at` is told how many bytes have been read.
 */
async function* partsOf(
  path: string,
  at: (bytes: number) => void = () => undefined,
): AsyncGenerator<JobFilePart> {
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

/** What is said of the job: by our own hand before its pieces, and no further is read. */
async function headOf(path: string): Promise<ReturnType<typeof readJobHead>> {
  const given: Record<string, unknown> = {};
  for await (const part of partsOf(path)) {
    if ('text' in part && ['format', 'version', 'job', 'survey', 'pictures'].includes(part.member))
      given[part.member] = JSON.parse(part.text);
    // Of pictures older files say nothing; our own say all of the job before its pieces.
    if (Object.keys(given).length === 5 || part.member === 'pieces') break;
  }
  return readJobHead(given);
}

/**
 * Takes a job file at a path in as a new job, all of it or nothing; tells how many bytes of it have
 * been read.
 */
export const takeInNow = doing(takeIn, async ({ path, from }, tell) => {
  try {
    const { size } = await stat(path);
    if (!(await isPack(path))) {
      if (size > MOST_TEXT_BYTES) return failure(stop('job-too-large', []));
      return await taken(path, from, (done) => tell({ done, of: size }));
    }
    const folder = `${path}.unpacked`;
    await mkdir(folder);
    const pack = await unpackJob(path, folder, (done) => tell({ done, of: 2 * size }));
    const text = await stat(pack.text);
    // Before it is taken in: a picture that nothing speaks of does no harm, one that is spoken of
    // and not there does.
    await takeUpPictures(pack);
    return await taken(pack.text, from, (done) =>
      tell({ done: size * (1 + done / text.size), of: 2 * size }),
    );
  } catch (error) {
    if (error instanceof Refused) return failure(...error.problems);
    if (error instanceof DamagedPack) return failure(stop('job-pack-damaged', [error.entry]));
    if (error instanceof SyntaxError) return failure(stop('job-not-json', []));
    if (error instanceof PartTooLarge) return failure(stop('job-part-too-large', []));
    throw error;
  }
});

/** Takes the text of a job in. */
async function taken(
  path: string,
  from: string,
  at: (bytes: number) => void,
): Promise<Result<{ id: string }>> {
  const read = await headOf(path);
  if (!read.ok) return read;
  const { head, version } = read;
  async function* pieces(): AsyncGenerator<PieceFile> {
    let place = 0;
    for await (const part of partsOf(path, at)) {
      if (part.member !== 'pieces') continue;
      if ('text' in part) throw new Refused([stop('job-unreadable', ['pieces'])]);
      const found = readJobPiece(JSON.parse(part.piece), version, place++);
      if (!found.ok) throw new Refused(found.problems);
      yield found.piece;
    }
  }
  return { ok: true, id: await importJob(Viewer.shop, head, pieces(), from) };
}
