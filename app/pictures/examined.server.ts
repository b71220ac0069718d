import { createHash } from 'node:crypto';
import readExif from 'exif-reader';
import sharp from 'sharp';
import type { Metadata } from 'sharp';
import { isHeif, pictureType, withoutPrivate } from '#core/picture/privacy';
import type { KeptPicture, NoPicture } from './keepPicture';
import { MAX_HELD_BYTES, MAX_PICTURE_PIXELS } from './keepPicture';
import type { PictureSize } from './pictureFiles.server';
import { SIZES } from './pictureFiles.server';

// One picture at a time and nothing kept for later: a picture of fifty million pixels is 200 MB
// when it is unpacked.
sharp.cache(false);
sharp.concurrency(1);

const opened = (bytes: Uint8Array) =>
  sharp(bytes, { limitInputPixels: false, failOn: 'truncated', sequentialRead: true });

export type Examined =
  { ok: true; picture: KeptPicture; clean: Uint8Array } | { ok: false; why: NoPicture };

/**
 * What has to be held at once to unpack a picture, bytes: all of one whose lines do not come from
 * top to bottom. A progressive JPEG is held as its coefficients, two bytes each.
 */
function heldBytes({ width, height, channels, depth, format, isProgressive }: Metadata): number {
  if (!isProgressive && format !== 'webp') return 0;
  const bytesEach = format === 'jpeg' || depth !== 'uchar' ? 2 : 1;
  return width * height * channels * bytesEach;
}

/** Whether a picture is too large to be unpacked, by what its head says of it. */
async function tooLarge(bytes: Uint8Array): Promise<NoPicture | null> {
  const head = await opened(bytes).metadata();
  if (head.width * head.height * (head.pages ?? 1) > MAX_PICTURE_PIXELS) return 'pixels';
  return heldBytes(head) > MAX_HELD_BYTES ? 'held' : null;
}

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

/** What the disk says is no fault of a picture. */
const ofDisk = (error: unknown): boolean => Boolean((error as NodeJS.ErrnoException).syscall);

/**
 * A picture as it comes in from anywhere, looked at before it is kept: its kind, its size by its own
 * head before anything is unpacked, what is private taken off. That it can be read to its end is
 * seen when its copies are made (`copyOf`).
 */
export async function examined(given: Uint8Array): Promise<Examined> {
  const type = pictureType(given);
  if (!type) return { ok: false, why: isHeif(given) ? 'heif' : 'none' };
  try {
    const { width, height, orientation = 1, exif } = await opened(given).metadata();
    const why = await tooLarge(given);
    if (why) return { ok: false, why };
    // Only a JPEG is always shown turned as it says; of the others the pixels themselves are
    // turned.
    const upright = type === 'jpeg' || orientation === 1 ? given : await turned(given, type);
    const clean = withoutPrivate(upright, type, orientation);
    if (!clean) return { ok: false, why: 'damaged' };
    const sideways = orientation >= 5;
    return {
      ok: true,
      clean,
      picture: {
        digest: createHash('sha256').update(clean).digest('hex'),
        type,
        width: sideways ? height : width,
        height: sideways ? width : height,
        bytes: clean.length,
        taken: takenOf(exif),
      },
    };
  } catch (error) {
    if (ofDisk(error)) throw error;
    return { ok: false, why: 'damaged' };
  }
}

const turned = (bytes: Uint8Array, type: 'png' | 'webp'): Promise<Buffer> => {
  const upright = opened(bytes).autoOrient();
  return (type === 'png' ? upright.png() : upright.webp({ lossless: true })).toBuffer();
};

/**
 * A copy of a picture, turned upright, as JPEG; null for one that is too large or cannot be read to
 * its end.
 */
export async function copyOf(
  bytes: Uint8Array,
  size: Exclude<PictureSize, 'whole'>,
): Promise<Buffer | null> {
  const longest = SIZES[size];
  try {
    if (await tooLarge(bytes)) return null;
    return await opened(bytes)
      .autoOrient()
      .resize({ width: longest, height: longest, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: size === 'small' ? 76 : 82 })
      .toBuffer();
  } catch (error) {
    if (ofDisk(error)) throw error;
    return null;
  }
}
