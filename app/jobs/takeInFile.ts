import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream as WebStream } from 'node:stream/web';
import busboy from 'busboy';
import { redirect } from 'react-router';
import { cut } from '#core/card/cut';
import { storable } from '#core/card/text';
import { problemSentence } from '../frame/sentences';
import { incoming } from '../pictures/pictureFiles.server';
import { TookTooLong, inWorker } from '../workers/pool.server';
import type { Progress } from '../workers/task';
import type { Route } from './+types/takeInFile';
import { takeIn } from './jobFiles';

const MAX_BYTES = 2 * 1024 ** 3;
/** Longest that taking a file in may come no further, ms; in all it takes what it takes. */
const QUIET_MS = 60_000;
/** A file that is being sent has to bring as much in a minute, bytes: else its sender is gone. */
const MIN_A_MINUTE = 256 * 1024;

export type TakenIn = { to: string } | { refused: string };

/** The file of a form, put on the disk as it comes; its name, or why it could not be had. */
async function received(
  request: Request,
  path: string,
): Promise<{ name: string } | { refused: string }> {
  const type = request.headers.get('content-type') ?? '';
  if (!request.body || !/^multipart\/form-data\b.*\bboundary=[^;\s]/i.test(type))
    return { refused: 'No file was sent.' };
  let name: string | null = null;
  let tooLarge = false;
  const form = busboy({
    headers: { 'content-type': type },
    limits: { files: 1, fileSize: MAX_BYTES },
  });
  const writing: Promise<void>[] = [];
  form.on('file', (_field, file, info) => {
    name = storable(info.filename ?? '') ? cut(info.filename || 'The file', 200) : 'The file';
    file.on('limit', () => (tooLarge = true));
    writing.push(pipeline(file, createWriteStream(path)));
  });
  const source = Readable.fromWeb(request.body as WebStream);
  let since = 0;
  source.on('data', (chunk: Uint8Array) => (since += chunk.length));
  source.pause();
  const watch = setInterval(() => {
    if (since < MIN_A_MINUTE) source.destroy(new Error('nothing comes any more'));
    since = 0;
  }, 60_000);
  try {
    await new Promise<void>((done, fail) => {
      source.once('error', fail);
      form.once('error', fail).once('close', done);
      source.pipe(form);
    });
    await Promise.all(writing);
  } catch {
    // Heard to its end all the same: a sender who is cut off gets no answer.
    source.unpipe(form);
    source.resume();
    return { refused: 'The file did not arrive whole: send it again.' };
  } finally {
    clearInterval(watch);
  }
  if (tooLarge) return { refused: 'That file is larger than a job file can be (2 GB).' };
  return name === null ? { refused: 'No file was sent.' } : { name };
}

async function takenIn(request: Request, tell: (progress: Progress) => void): Promise<TakenIn> {
  const folder = await mkdtemp(join(await incoming(), 'in-'));
  try {
    const path = join(folder, 'job.json');
    const file = await received(request, path);
    if ('refused' in file) return file;
    const limits = { quietMs: QUIET_MS, signal: request.signal, tell };
    const found = await inWorker(takeIn, { path, from: file.name }, limits);
    if (found.ok) return { to: `/jobs/${found.id}` };
    return {
      refused: `${file.name}: ${problemSentence(found.problems[0]!, null, (mm) => `${mm} mm`)}`,
    };
  } catch (error) {
    if (error instanceof TookTooLong)
      return {
        refused:
          'Taking that file in came to a stand: nothing of it was taken in. Try again when the machine is less busy.',
      };
    throw error;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/**
 * Takes a job file in as a new job. Whoever accepts `application/x-ndjson` is told line by line how
 * far it has come (`{done, of}`), then where it is or why it was refused; anyone else is sent on to
 * the job, or told with 400.
 */
export async function action({ request }: Route.ActionArgs) {
  if (!request.headers.get('accept')?.includes('application/x-ndjson')) {
    const taken = await takenIn(request, () => undefined);
    return 'to' in taken ? redirect(taken.to) : Response.json(taken, { status: 400 });
  }
  const lines = new ReadableStream<Uint8Array>({
    async start(stream) {
      const say = (line: object) =>
        stream.enqueue(new TextEncoder().encode(`${JSON.stringify(line)}\n`));
      try {
        say(await takenIn(request, say));
        stream.close();
      } catch (error) {
        stream.error(error);
      }
    },
  });
  return new Response(lines, {
    headers: { 'Content-Type': 'application/x-ndjson', 'Cache-Control': 'no-store' },
  });
}
