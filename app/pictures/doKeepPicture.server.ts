import { createHash } from 'node:crypto';
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import readExif from 'exif-reader';
import sharp from 'sharp';
import type { PictureType } from '#core/picture/privacy';
import { isHeif, pictureType, withoutPrivate } from '#core/picture/privacy';
import { doing } from '../workers/task';
import type { KeptPicture, NoPicture } from './keepPicture';
import { MOST_PICTURE_PIXELS, copyPicture, keepPicture } from './keepPicture';
import type { PictureSize } from './pictureFiles.server';
import { SIZES, incoming, isThere, picturePath } from './pictureFiles.server';

// One picture at a time and nothing kept for later: a picture of fifty million pixels is 200 MB
// when it is unpacked.
sharp.cache(false);
sharp.concurrency(1);

const opened = (bytes: Uint8Array) =>
  sharp(bytes, { limitInputPixels: false, failOn: 'truncated', sequentialRead: true });

type Kept = { ok: true; picture: KeptPicture } | { ok: false; why: NoPicture };

/**
 * When the camera says it was taken, or null: for the order of the pictures, not a moment in any
 * zone.
 */
function takenOf(exif: Buffer | undefined): string | null {
  try {
    const at = exif && readExif(exif).Photo?.DateTimeOriginal;
    return at instanceof Date && at.getUTCFullYear() >= 1980 && at.getUTCFullYear() < 2200
      ? at.toISOString()
      : null;
  } catch {
    return null;
  }
}

/** Written beside its place and moved there, so that nobody ever finds half of it. */
async function put(path: string, bytes: Uint8Array): Promise<void> {
  await mkdir(dirname(path), { recursive: true });
  const part = join(
    await incoming(),
    `${createHash('sha1').update(path).digest('hex')}-${process.pid}-${Date.now()}`,
  );
  await writeFile(part, bytes, { mode: 0o600 });
  await rename(part, path);
}

/** The copies of a picture, turned upright; throws for a picture that cannot be read to its end. */
async function putCopies(bytes: Uint8Array, digest: string, type: PictureType): Promise<void> {
  for (const [size, longest] of Object.entries(SIZES) as [PictureSize, number | null][]) {
    if (longest === null) continue;
    const copy = await opened(bytes)
      .autoOrient()
      .resize({ width: longest, height: longest, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: size === 'small' ? 76 : 82 })
      .toBuffer();
    await put(picturePath(digest, type, size), copy);
  }
}

export const keepPictureNow = doing(keepPicture, async ({ path }): Promise<Kept> => {
  const given = await readFile(path);
  const type = pictureType(given);
  if (!type) return { ok: false, why: isHeif(given) ? 'heif' : 'none' };
  try {
    const { width, height, orientation = 1, exif, pages = 1 } = await opened(given).metadata();
    if (width * height * pages > MOST_PICTURE_PIXELS) return { ok: false, why: 'pixels' };
    // Only a JPEG is always shown turned as it says; of the others the pixels themselves are
    // turned.
    const upright = type === 'jpeg' || orientation === 1 ? given : await turned(given, type);
    const clean = withoutPrivate(upright, type, orientation);
    if (!clean) return { ok: false, why: 'damaged' };
    const digest = createHash('sha256').update(clean).digest('hex');
    await putCopies(clean, digest, type);
    const whole = picturePath(digest, type, 'whole');
    if (!(await isThere(whole))) await put(whole, clean);
    const sideways = orientation >= 5;
    return {
      ok: true,
      picture: {
        digest,
        type,
        width: sideways ? height : width,
        height: sideways ? width : height,
        bytes: clean.length,
        taken: takenOf(exif),
      },
    };
  } catch (error) {
    // What the disk says is no fault of the picture.
    if ((error as NodeJS.ErrnoException).syscall) throw error;
    return { ok: false, why: 'damaged' };
  }
});

const turned = (bytes: Uint8Array, type: 'png' | 'webp'): Promise<Buffer> => {
  const upright = opened(bytes).autoOrient();
  return (type === 'png' ? upright.png() : upright.webp({ lossless: true })).toBuffer();
};

export const copyPictureNow = doing(copyPicture, async ({ digest, type }) => {
  try {
    await putCopies(await readFile(picturePath(digest, type, 'whole')), digest, type);
    return true;
  } catch {
    return false;
  }
});
