import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, open, rename, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import yauzl from 'yauzl';
import yazl from 'yazl';
import { pictureType } from '#core/picture/privacy';
import { MOST_PICTURE_BYTES } from '../pictures/keepPicture';
import { isThere, picturesFolder } from '../pictures/pictureFiles.server';

/** The text of a job, unpacked, may be as large as a job file without pictures. */
export const MOST_TEXT_BYTES = 200 * 1024 ** 2;
/** As many pictures as are unpacked from one file. */
const MOST_PICTURES = 20_000;

/** A zip that is damaged, or has in it what no job file has; `entry` is what. */
export class DamagedPack extends Error {
  constructor(readonly entry: string) {
    super(`Damaged: ${entry}`);
  }
}

/** Whether a file is a zip, by how it begins. */
export async function isPack(path: string): Promise<boolean> {
  const file = await open(path);
  try {
    return (await file.read(Buffer.alloc(4), 0, 4, 0)).buffer.equals(
      Buffer.from('PK\x03\x04', 'latin1'),
    );
  } finally {
    await file.close();
  }
}

/**
 * Packs the text of a job and the pictures it speaks of, by their names in their folder. One that
 * is lost is left out.
 */
export async function packJob(
  path: string,
  text: string,
  named: ReadonlySet<string>,
): Promise<void> {
  const zip = new yazl.ZipFile();
  zip.addFile(text, 'job.json');
  for (const name of named) {
    const from = join(picturesFolder(), name);
    if (await isThere(from)) zip.addFile(from, packed(name), { compress: false });
  }
  zip.end();
  await pipeline(zip.outputStream, createWriteStream(path));
}

/**
 * In the pack the pictures lie in one folder; in the data folder in one by how their names begin.
 */
const packed = (name: string) => `pictures/${name.slice(3)}`;
const PICTURE = /^pictures\/([0-9a-f]{64})\.(jpg|png|webp)$/;
const ENDING = { jpeg: 'jpg', png: 'png', webp: 'webp' } as const;

/**
 * What was unpacked: where the text of the job is, and each picture by its name in the folder of
 * pictures.
 */
export type Unpacked = { text: string; pictures: Map<string, string> };

/**
 * Unpacks a job file into a folder, every entry as what its name says and no larger than that may
 * be, each picture checked against the sum it is named by. Throws `DamagedPack`. `tell`: so many
 * bytes of the file are done.
 */
export async function unpackJob(
  path: string,
  folder: string,
  tell: (done: number) => void,
): Promise<Unpacked> {
  const zip = await yauzl.openPromise(path).catch(() => {
    throw new DamagedPack('zip');
  });
  const found: Unpacked = { text: '', pictures: new Map() };
  try {
    for await (const entry of zip.eachEntry()) {
      const name = entry.fileName;
      const picture = PICTURE.exec(name);
      if (name === 'job.json' && !found.text) {
        found.text = join(folder, 'job.json');
        await put(zip, entry, found.text, MOST_TEXT_BYTES);
      } else if (picture) {
        if (found.pictures.size >= MOST_PICTURES) throw new DamagedPack(name);
        const [, digest, ending] = picture;
        const to = join(folder, `${digest}.${ending}`);
        const { sum, head } = await put(zip, entry, to, MOST_PICTURE_BYTES);
        const type = pictureType(head);
        if (sum !== digest || !type || ENDING[type] !== ending) throw new DamagedPack(name);
        found.pictures.set(`${digest!.slice(0, 2)}/${digest}.${ending}`, to);
      } else if (!name.endsWith('/')) throw new DamagedPack(name);
      tell(entry.relativeOffsetOfLocalHeader + entry.compressedSize);
    }
  } finally {
    zip.close();
  }
  if (!found.text) throw new DamagedPack('job.json');
  return found;
}

/** Puts an entry on the disk; its SHA-256 and its first bytes. */
async function put(
  zip: yauzl.ZipFile,
  entry: yauzl.Entry,
  to: string,
  most: number,
): Promise<{ sum: string; head: Uint8Array }> {
  const hash = createHash('sha256');
  let head: Buffer | null = null;
  let bytes = 0;
  const counted = new Transform({
    transform(chunk: Buffer, _, next) {
      head ??= chunk.subarray(0, 16);
      hash.update(chunk);
      bytes += chunk.length;
      // Whatever it says of its size: what comes out of it counts.
      next(bytes > most ? new DamagedPack(entry.fileName) : null, chunk);
    },
  });
  try {
    await pipeline(
      await zip.openReadStreamPromise(entry),
      counted,
      createWriteStream(to, { mode: 0o600 }),
    );
  } catch (error) {
    if ((error as NodeJS.ErrnoException).syscall) throw error;
    throw new DamagedPack(entry.fileName);
  }
  return { sum: hash.digest('hex'), head: head ?? Buffer.alloc(0) };
}

/** Moves unpacked pictures to where pictures are kept. One that is kept already is the same. */
export async function takeUpPictures({ pictures }: Unpacked): Promise<void> {
  for (const [name, from] of pictures) {
    const to = join(picturesFolder(), name);
    await mkdir(dirname(to), { recursive: true });
    if (await isThere(to)) await rm(from);
    else await rename(from, to);
  }
}
