import { createHash } from 'node:crypto';
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { PictureType } from '#core/picture/privacy';
import { doing } from '../workers/task';
import { copyOf, examined } from './examined.server';
import { copyPicture, keepPicture } from './keepPicture';
import { incoming, isThere, picturePath } from './pictureFiles.server';

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

/** Puts the copies of a picture; false for one that cannot be read to its end: nothing is put then. */
async function putCopies(bytes: Uint8Array, digest: string, type: PictureType): Promise<boolean> {
  // Unpacked once: the smaller is made from the larger.
  const large = await copyOf(bytes, 'large');
  const small = large && (await copyOf(large, 'small'));
  if (!small) return false;
  await put(picturePath(digest, type, 'large'), large);
  await put(picturePath(digest, type, 'small'), small);
  return true;
}

export const keepPictureNow = doing(keepPicture, async ({ path }) => {
  const found = await examined(await readFile(path));
  if (!found.ok) return found;
  const { clean, picture } = found;
  const { digest, type } = picture;
  if (!(await putCopies(clean, digest, type)))
    return { ok: false as const, why: 'damaged' as const };
  const whole = picturePath(digest, type, 'whole');
  if (!(await isThere(whole))) await put(whole, clean);
  return { ok: true as const, picture };
});

export const copyPictureNow = doing(copyPicture, async ({ digest, type }) => {
  const bytes = await readFile(picturePath(digest, type, 'whole')).catch(() => null);
  return bytes !== null && putCopies(bytes, digest, type);
});
