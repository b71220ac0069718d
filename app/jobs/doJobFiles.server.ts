import { createReadStream } from 'node:fs';
import { mkdir, open, rm, stat } from 'node:fs/promises';
import type { PictureFile, PieceFile } from '#core/format/job';
import type { SurveyedFile } from '#core/survey/references';
import type { KeptPicture } from '../pictures/keepPicture';
import { NO_PICTURE_WORDS } from '../pictures/keepPicture';
import { unspokenOf } from '../records/pictures.server';
import { jobFileEnd, jobFileHead, jobFilePiece } from '#core/format/job';
import type { JobFilePart } from '#core/format/jobFileParts';
import { JobFileScanner, PartTooLarge } from '#core/format/jobFileParts';
import { edgesEver, readJobHead, readJobPiece, strayStructure } from '#core/format/readJob';
import type { EdgeWord } from '#core/joint/fromWords';
import { structureOfWords } from '#core/joint/fromWords';
import type { Problem, Result } from '#core/measure/result';
import { failure, stop } from '#core/measure/result';
import type { PictureType } from '#core/picture/privacy';
import { pictureName } from '../pictures/pictureFiles.server';
import { exportJob, importJob } from '../records/jobFile.server';
import { Viewer } from '../records/viewer.server';
import type { Progress } from '../workers/task';
import { doing } from '../workers/task';
import { takeIn, writeOut } from './jobFiles';
import type { Unpacked } from './jobPack.server';
import {
  DamagedPack,
  MAX_TEXT_BYTES,
  NoPackedPicture,
  NoRoom,
  dropPictures,
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
  tell: (progress: Progress) => void,
): Promise<Set<string> | null> {
  const file = await open(path, 'w');
  const named = new Set<string>();
  let all = 0;
  const note = (all: readonly { digest: string; type: PictureType }[]) => {
    for (const { digest, type } of all) named.add(pictureName(digest, type));
  };
  try {
    const found = await exportJob(Viewer.shop, job, withPictures, {
      head: async (head, pieces) => {
        all = pieces;
        note(head.pictures);
        await file.write(jobFileHead(head, all > 0));
      },
      piece: async (piece, place) => {
        note(piece.pictures);
        await file.write(jobFilePiece(piece, place));
        tell({ done: place + 1, of: 2 * all });
      },
    });
    if (!found) return null;
    await file.write(jobFileEnd(all > 0));
    return named;
  } finally {
    await file.close();
  }
}

export const writeOutNow = doing(writeOut, async ({ job, path, plain }, tell) => {
  if (plain) return (await writeText(job, path, false, tell)) !== null;
  const text = `${path}.text`;
  const named = await writeText(job, text, true, tell);
  if (!named) return false;
  await packJob(path, text, named, (bytes) => tell({ done: bytes, of: 0 }));
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

/** The members of a job file that say something of the job itself. */
const OF_HEAD = ['format', 'version', 'job', 'survey', 'structure', 'pictures'];

/** What is said of the job: by our own hand before its pieces, and no further is read. */
async function headOf(path: string): Promise<ReturnType<typeof readJobHead>> {
  const given: Record<string, unknown> = {};
  for await (const part of partsOf(path)) {
    if ('text' in part && OF_HEAD.includes(part.member)) given[part.member] = JSON.parse(part.text);
    // Of some older files say nothing; our own say all of the job before its pieces.
    if (Object.keys(given).length === OF_HEAD.length || part.member === 'pieces') break;
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
      if (size > MAX_TEXT_BYTES) return failure(stop('job-too-large', []));
      return await taken(path, from, (done) => tell({ done, of: size }));
    }
    const folder = `${path}.unpacked`;
    await mkdir(folder);
    const pack = await unpackJob(path, folder, (done) => tell({ done, of: 2 * size }));
    const text = await stat(pack.text);
    return await taken(
      pack.text,
      from,
      (done) => tell({ done: size * (1 + done / text.size), of: 2 * size }),
      pack,
    );
  } catch (error) {
    if (error instanceof Refused) return failure(...error.problems);
    if (error instanceof DamagedPack) return failure(stop('job-pack-damaged', [error.entry]));
    if (error instanceof NoPackedPicture)
      return failure(stop('job-pack-picture', [`${error.entry} ${NO_PICTURE_WORDS[error.why]}`]));
    if (error instanceof NoRoom) return failure(stop('job-no-room', []));
    if (error instanceof SyntaxError) return failure(stop('job-not-json', []));
    if (error instanceof PartTooLarge) return failure(stop('job-part-too-large', []));
    throw error;
  }
});

/**
 * A picture as it is, whatever the file says of it; refused where it says another size. One that is
 * not in the pack is lost, and shows as such.
 */
function asItIs<P extends PictureFile>(said: P, pack: Unpacked | null): P {
  const found = pack?.pictures.get(said.digest)?.picture;
  if (!found) return said;
  const { digest, type, width, height, bytes } = found;
  if (type !== said.type || width !== said.width || height !== said.height)
    throw new Refused([stop('job-pack-damaged', [said.name || said.digest])]);
  return { ...said, digest, bytes };
}

/** A finding whose outline is drawn on a picture names it by what the picture is kept under. */
function withOutlines(one: SurveyedFile, pack: Unpacked | null): SurveyedFile {
  const { body } = one;
  if (body.kind !== 'finding') return one;
  const looks = body.looks.map((look) => {
    const known = look.outline && pack?.pictures.get(look.outline.picture)?.picture.digest;
    return known ? { ...look, outline: { ...look.outline!, picture: known } } : look;
  });
  return { ...one, body: { ...body, looks } };
}

/**
 * Takes the text of a job in, and with it the pictures of its pack: they are taken up last, when
 * nothing of the text can be refused any more, and go again if the job then does not come to stand.
 */
async function taken(
  path: string,
  from: string,
  at: (bytes: number) => void,
  pack: Unpacked | null = null,
): Promise<Result<{ id: string }>> {
  const read = await headOf(path);
  if (!read.ok) return read;
  const { version } = read;
  const head = {
    ...read.head,
    survey: read.head.survey.map((one) => withOutlines(one, pack)),
    pictures: read.head.pictures.map((one) => asItIs(one, pack)),
  };
  let fresh: KeptPicture[] = [];
  const words: EdgeWord[][] = [];
  const edges: Set<string>[] = [];
  /** What older plans said in words; and whether what is joined is there. */
  const alsoJoined = () => {
    const said = structureOfWords(words, head.job.created);
    const stray = strayStructure([...head.structure, ...said], edges);
    if (stray !== null) throw new Refused([stop('job-unreadable', [`structure ${stray}`])]);
    return said;
  };
  async function* pieces(): AsyncGenerator<PieceFile> {
    let place = 0;
    for await (const part of partsOf(path, at)) {
      if (part.member !== 'pieces') continue;
      if ('text' in part) throw new Refused([stop('job-unreadable', ['pieces'])]);
      const found = readJobPiece(JSON.parse(part.piece), version, place++);
      if (!found.ok) throw new Refused(found.problems);
      const { pictures } = found.piece;
      words.push(found.words);
      edges.push(edgesEver(found.piece));
      yield { ...found.piece, pictures: pictures.map((one) => asItIs(one, pack)) };
    }
    if (pack) fresh = await takeUpPictures(pack);
  }
  try {
    return { ok: true, id: await importJob(Viewer.shop, head, pieces(), from, alsoJoined) };
  } catch (error) {
    await dropPictures(await unspokenOf(Viewer.shop, fresh));
    throw error;
  }
}
