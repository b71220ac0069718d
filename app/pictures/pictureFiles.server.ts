import { mkdir, stat } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import type { PictureType } from '#core/picture/privacy';

/** A picture as it came (private things taken off), and its copies by their longer side, pixels. */
export const SIZES = { whole: null, large: 1600, small: 320 } as const;
export type PictureSize = keyof typeof SIZES;

const ENDINGS: Record<PictureType, string> = { jpeg: 'jpg', png: 'png', webp: 'webp' };

/** The folder of the pictures: the data folder's, where the server is told of it. */
export const picturesFolder = (): string => process.env.PATRONE_PICTURES ?? resolve('pictures');

/**
 * The name of a picture's file within the folder: by what is in it, so that the same picture is
 * there once.
 */
export const pictureName = (digest: string, type: PictureType): string =>
  `${digest.slice(0, 2)}/${digest}.${ENDINGS[type]}`;

/** Where a picture of a size lies. Copies are JPEG, whatever they were made from. */
export const picturePath = (digest: string, type: PictureType, size: PictureSize): string =>
  size === 'whole'
    ? join(picturesFolder(), pictureName(digest, type))
    : join(picturesFolder(), digest.slice(0, 2), `${digest}-${SIZES[size]}.jpg`);

export const isThere = (path: string): Promise<boolean> =>
  stat(path).then(
    (found) => found.isFile() && found.size > 0,
    () => false,
  );

/**
 * The folder for what comes in, made where it is not yet; on the same disk, so that it is moved
 * into its place at once.
 */
export async function incoming(): Promise<string> {
  const folder = join(picturesFolder(), 'incoming');
  await mkdir(folder, { recursive: true });
  return folder;
}
