import { z } from 'zod';
import { text } from '../card/text';
import { eachOnce } from '../card/eachOnce';

/**
 * A place in a picture's own coordinates: pixels of the whole picture, turned upright, x to the
 * right, y down.
 */
const figure = z.number().finite().min(-100_000).max(100_000);
const place = z.tuple([figure, figure]);
const said = { id: text(24).min(1), name: text(80) };

/** What is drawn over a picture. The picture itself never changes. */
export const PictureMarkSchema = z.discriminatedUnion('kind', [
  z.strictObject({ ...said, kind: z.literal('pin'), at: place }),
  z.strictObject({ ...said, kind: z.literal('ring'), at: place, radius: figure.min(0) }),
  z.strictObject({ ...said, kind: z.literal('arrow'), from: place, to: place }),
  z.strictObject({ ...said, kind: z.literal('line'), points: z.array(place).min(2).max(400) }),
]);
export type PictureMark = z.infer<typeof PictureMarkSchema>;

/** What is said of a picture, and can be changed later. */
export const PictureSaidSchema = z.object({
  caption: text(400),
  marks: eachOnce(z.array(PictureMarkSchema).max(200)),
});
export type PictureSaid = z.infer<typeof PictureSaidSchema>;

/** As much of a freehand line as is kept, in pixels: a hand does not draw finer on a picture. */
export const LINE_STEP = 3;
