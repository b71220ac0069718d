import { randomUUID } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { and, asc, eq } from 'drizzle-orm';
import sharp from 'sharp';
import { keepPictureNow } from '#app/pictures/doKeepPicture.server';
import type { KeptPicture } from '#app/pictures/keepPicture';
import { incoming } from '#app/pictures/pictureFiles.server';
import { dbOf } from '#app/records/database.server';
import { pictures, pieces, records } from '#app/records/schema.server';
import type { Viewer } from '#app/records/viewer.server';
import { DRAWINGS } from '../demo/drawings';
import { DEMO_PICTURES } from '../demo/pictures';

/**
 * Hangs the drawings that stand for photographs on the demonstration job, by the way that pictures
 * come in.
 */
export async function putDemoPictures(viewer: Viewer, job: string): Promise<void> {
  const db = dbOf(viewer);
  for (const { drawing, taken, piece, on, of = '', caption, marks } of DEMO_PICTURES) {
    const path = join(await incoming(), randomUUID());
    try {
      const day = taken.replaceAll('-', ':').replace('T', ' ');
      await sharp(Buffer.from(DRAWINGS[drawing]()))
        .jpeg({ quality: 86 })
        .withExif({ IFD2: { DateTimeOriginal: day } })
        .toFile(path);
      const kept = (await keepPictureNow.run({ path } as never, () => undefined)) as {
        ok: true;
        picture: KeptPicture;
      };
      const [row] =
        piece === null
          ? []
          : await db
              .select()
              .from(pieces)
              .where(and(eq(pieces.job, job), eq(pieces.name, piece)));
      const [record] =
        row && (on === 'fit' || on === 'weld')
          ? await db
              .select({ id: records.id })
              .from(records)
              .where(and(eq(records.piece, row.id), eq(records.kind, on)))
              .orderBy(asc(records.seq))
              .limit(1)
          : [];
      const at = new Date(`${taken}.000Z`);
      await db.insert(pictures).values({
        ...kept.picture,
        taken: at,
        at,
        job,
        piece: row?.id ?? null,
        owner: on,
        of: record?.id ?? of,
        name: `${drawing}.jpg`,
        caption,
        marks: [...marks],
      });
    } finally {
      await rm(path, { force: true });
    }
  }
}
