import type { PictureType } from '#core/picture/privacy';
import { task } from '../workers/task';

/** As large as a picture may be, bytes and pixels. */
export const MAX_PICTURE_BYTES = 25 * 1024 ** 2;
export const MAX_PICTURE_PIXELS = 50e6;
/**
 * As much of a picture may have to be held at once to unpack it, bytes: where it is interlaced or
 * progressive, all of it.
 */
export const MAX_HELD_BYTES = 150e6;

/** Why a picture is not taken in. */
export type NoPicture = 'none' | 'heif' | 'pixels' | 'held' | 'damaged';

export type KeptPicture = {
  /** SHA-256 of what is kept, in hexadecimal: its name. */
  digest: string;
  type: PictureType;
  /** Pixels, turned upright. */
  width: number;
  height: number;
  bytes: number;
  /** When the camera says it was taken, as its clock stood (no zone is known), or null. */
  taken: string | null;
};

/**
 * Takes private things off a picture that lies at `path`, and keeps it and its small copies in the
 * folder of pictures.
 */
export const keepPicture = task<
  { path: string },
  { ok: true; picture: KeptPicture } | { ok: false; why: NoPicture }
>('keep-picture', 'pictures');

/** Makes the copies of a picture that is kept anew. False when it cannot be read. */
export const copyPicture = task<{ digest: string; type: PictureType }, boolean>(
  'copy-picture',
  'pictures',
);

export const NO_PICTURE_WORDS: Record<NoPicture, string> = {
  none: 'is no picture that can be taken in: JPEG, PNG or WebP are.',
  heif: 'is in a phone’s own format (HEIC). In its camera settings choose “most compatible”, or send it as JPEG.',
  pixels: 'has more than 50 million pixels. Make it smaller and add it again.',
  held: 'is stored interlaced or progressive, and is too large to be unpacked that way. Save it plain (“baseline”, not interlaced), or smaller, and add it again.',
  damaged: 'is damaged or not all there. Copy it from the camera again.',
};
