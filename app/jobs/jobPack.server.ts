import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, open, readFile, rename, rm, statfs, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import yauzl from 'yauzl';
import yazl from 'yazl';
import { copyOf, examined } from '../pictures/examined.server';
import type { KeptPicture, NoPicture } from '../pictures/keepPicture';
import { MAX_PICTURE_BYTES } from '../pictures/keepPicture';
import type { PictureSize } from '../pictures/pictureFiles.server';
import { SIZES, isThere, picturePath, picturesFolder } from '../pictures/pictureFiles.server';

/** The text of a job, unpacked, may be as large as a job file without pictures. */
export const MAX_TEXT_BYTES = 200 * 1024 ** 2;
/** As many pictures as are unpacked from one file. */
const MAX_PICTURES = 20_000;

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
 * is lost is left out. `tell`: bytes that have been written.
 */
export async function packJob(
  path: string,
  text: string,
  named: ReadonlySet<string>,
  tell: (bytes: number) => void,
): Promise<void> {
  const zip = new yazl.ZipFile();
  zip.addFile(text, 'job.json');
  for (const name of named) {
    const from = join(picturesFolder(), name);
    if (await isThere(from)) zip.addFile(from, packed(name), { compress: false });
  }
  zip.end();
  let bytes = 0;
  const counted = new Transform({
    transform(chunk: Buffer, _, next) {
      bytes += chunk.length;
      tell(bytes);
      next(null, chunk);
    },
  });
  await pipeline(zip.outputStream, counted, createWriteStream(path));
}

/**
 * In the pack the pictures lie in one folder; in the data folder in one by how their names begin.
 */
const packed = (name: string) => `pictures/${name.slice(3)}`;
const PICTURE = /^pictures\/([0-9a-f]{64})\.(jpg|png|webp)$/;
const ENDING = { jpeg: 'jpg', png: 'png', webp: 'webp' } as const;

/** A picture that was unpacked: what it is, and where it and its small copy lie. */
export type UnpackedPicture = { picture: KeptPicture; whole: string; small: string };

/**
 * What was unpacked: where the text of the job is, and each picture by the digest that the text
 * names it by (another than its own, where something private was taken off it).
 */
export type Unpacked = { text: string; pictures: Map<string, UnpackedPicture> };

/** As much may come out of one file, bytes; and this much of the disk stays free. */
const [MAX_UNPACKED_BYTES, STAYS_FREE_BYTES] = [4 * 1024 ** 3, 256 * 1024 ** 2];

type Entries = { text: yauzl.Entry; pictures: { entry: yauzl.Entry; digest: string }[] };

/**
 * What is in a pack, looked through before anything of it is written: every entry is one that a job
 * file has, is there once, and says of itself no more than it may be; all of it fits the disk.
 */
async function entriesOf(zip: yauzl.ZipFile, folder: string): Promise<Entries> {
  let text: yauzl.Entry | null = null;
  const pictures: Entries['pictures'] = [];
  const seen = new Set<string>();
  let bytes = 0;
  try {
    for await (const entry of zip.eachEntry()) {
      const name = entry.fileName;
      const picture = PICTURE.exec(name);
      bytes += entry.uncompressedSize;
      if (name.endsWith('/')) continue;
      if (seen.has(name)) throw new DamagedPack(name);
      seen.add(name);
      if (name === 'job.json' && entry.uncompressedSize <= MAX_TEXT_BYTES) text = entry;
      else if (picture && entry.uncompressedSize <= MAX_PICTURE_BYTES)
        pictures.push({ entry, digest: picture[1]! });
      else throw new DamagedPack(name);
      if (pictures.length > MAX_PICTURES) throw new DamagedPack(name);
    }
  } catch (error) {
    // A name that leads out of the folder, a list that breaks off: whatever cannot be read as a zip.
    if (error instanceof DamagedPack || (error as NodeJS.ErrnoException).syscall) throw error;
    throw new DamagedPack('zip');
  }
  if (!text) throw new DamagedPack('job.json');
  const { bavail, bsize } = await statfs(folder);
  if (bytes > MAX_UNPACKED_BYTES || bytes > bavail * bsize - STAYS_FREE_BYTES) throw new NoRoom();
  return { text, pictures };
}

/** What comes out of a pack is more than there is room for. */
export class NoRoom extends Error {}

/** A picture in a pack that would not be taken in by itself either. */
export class NoPackedPicture extends Error {
  constructor(
    readonly entry: string,
    readonly why: NoPicture,
  ) {
    super(`${entry}: ${why}`);
  }
}

/**
 * Unpacks a job file into a folder, every entry as what its name says and no larger than that may
 * be, each picture checked against the sum it is named by and looked at like one that is sent by
 * itself. Throws `DamagedPack`, `NoPackedPicture`, `NoRoom`. `tell`: bytes of the file that are done.
 */
export async function unpackJob(
  path: string,
  folder: string,
  tell: (done: number) => void,
): Promise<Unpacked> {
  const zip = await yauzl.openPromise(path, { autoClose: false }).catch(() => {
    throw new DamagedPack('zip');
  });
  try {
    const { text, pictures } = await entriesOf(zip, folder);
    const found: Unpacked = { text: join(folder, 'job.json'), pictures: new Map() };
    await put(zip, text, found.text, MAX_TEXT_BYTES);
    for (const { entry, digest } of pictures) {
      found.pictures.set(digest, await unpackPicture(zip, entry, digest, folder));
      tell(entry.relativeOffsetOfLocalHeader + entry.compressedSize);
    }
    return found;
  } finally {
    zip.close();
  }
}

async function unpackPicture(
  zip: yauzl.ZipFile,
  entry: yauzl.Entry,
  digest: string,
  folder: string,
): Promise<UnpackedPicture> {
  const whole = join(folder, digest);
  const { sum } = await put(zip, entry, whole, MAX_PICTURE_BYTES);
  const looked = await examined(await readFile(whole));
  if (!looked.ok) throw new NoPackedPicture(entry.fileName, looked.why);
  const { clean, picture } = looked;
  if (sum !== digest || !entry.fileName.endsWith(`.${ENDING[picture.type]}`))
    throw new DamagedPack(entry.fileName);
  const copy = await copyOf(clean, 'small');
  if (!copy) throw new NoPackedPicture(entry.fileName, 'damaged');
  if (picture.digest !== digest) await writeFile(whole, clean, { mode: 0o600 });
  const small = `${whole}-small`;
  await writeFile(small, copy, { mode: 0o600 });
  return { picture, whole, small };
}

/** Puts an entry on the disk; its SHA-256. */
async function put(
  zip: yauzl.ZipFile,
  entry: yauzl.Entry,
  to: string,
  most: number,
): Promise<{ sum: string }> {
  const hash = createHash('sha256');
  let bytes = 0;
  const counted = new Transform({
    transform(chunk: Buffer, _, next) {
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
  return { sum: hash.digest('hex') };
}

/**
 * Moves unpacked pictures to where pictures are kept; the digests of those that were not there
 * before. One that is kept already is the same.
 */
export async function takeUpPictures({ pictures }: Unpacked): Promise<KeptPicture[]> {
  const fresh: KeptPicture[] = [];
  for (const { picture, whole, small } of pictures.values()) {
    const { digest, type } = picture;
    const to = picturePath(digest, type, 'whole');
    await mkdir(dirname(to), { recursive: true });
    if (await isThere(to)) continue;
    await rename(small, picturePath(digest, type, 'small'));
    await rename(whole, to);
    fresh.push(picture);
  }
  return fresh;
}

/** Takes away again what was taken up for a job that then was not taken in. */
export async function dropPictures(pictures: readonly KeptPicture[]): Promise<void> {
  for (const { digest, type } of pictures)
    for (const size of Object.keys(SIZES) as PictureSize[])
      await rm(picturePath(digest, type, size), { force: true });
}
