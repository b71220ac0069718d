import { cutOutOf } from '#core/card/cutOut';
import type { Vec } from '#core/measure/vector';
import type { Picture } from '#core/picture/picture';
import type { StraightPicture } from '#core/picture/straightPicture';
import { tappedScale } from '#core/picture/tapped';
import { trace } from '#core/picture/trace';
import type { TraceAnswer, TraceAsked } from './traced';
import { warmUp } from './warmUp';

/** Larger pictures are taken smaller: a finer one tells nothing more of a card's edge. */
const MAX_PIXELS = 3e6;

const say = (answer: TraceAnswer) => self.postMessage(answer);

self.onmessage = ({ data }: MessageEvent<TraceAsked | 'warm up'>) => {
  if (data === 'warm up') return warmUp();
  const { file, scale: given, toleranceMm, frameAt, cardAt } = data;
  void look(file).then(
    async (picture) => {
      const at = ([u, v]: Vec): Vec => [u * picture.width, v * picture.height];
      const tapped =
        frameAt && given.kind !== 'scan' && given.kind !== 'places'
          ? tappedScale(given, frameAt.map(at))
          : null;
      if (tapped && !tapped.ok) return say({ what: 'refused', problems: tapped.problems });
      const steps = trace(picture, tapped?.scale ?? given, toleranceMm, cardAt && cardAt.map(at));
      for (;;) {
        const step = steps.next();
        if (!step.done) {
          say({ what: 'progress', ...step.value });
          continue;
        }
        const found = step.value;
        if (!found.ok) return say({ what: 'refused', problems: found.problems });
        const { outline, holes, openings, lines, uMm, worstMm, cutOff, doubtful, straight } = found;
        const underlay = {
          picture: await pictureOf(straight),
          leftMm: straight.leftMm,
          topMm: straight.topMm,
          wideMm: straight.width * straight.stepMm,
          highMm: straight.height * straight.stepMm,
        };
        // Their corners are rounded off in being followed: twice as far off is still the form.
        const formed = openings.flatMap((path) => cutOutOf(path, 2 * toleranceMm) ?? []);
        const rest = {
          holes: [
            ...holes,
            ...formed.map(({ at: [x, y], ...hole }) => ({
              x,
              y,
              ...hole,
              seen: 'through' as const,
            })),
          ],
          openings: openings.length - formed.length,
          lines,
          uMm,
          worstMm,
          cutOff,
          doubtful,
        };
        return say({ what: 'found', found: { outline, ...rest, underlay } });
      }
    },
    () => say({ what: 'unreadable' }),
  );
};

async function look(file: Blob): Promise<Picture> {
  say({ what: 'progress', share: 0, doing: 'reading' });
  const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' });
  const by = Math.min(1, Math.sqrt(MAX_PIXELS / (bitmap.width * bitmap.height)));
  const [width, height] = [Math.round(bitmap.width * by), Math.round(bitmap.height * by)];
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  return { width, height, data: context.getImageData(0, 0, width, height).data };
}

function pictureOf({ width, height, data }: StraightPicture): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  canvas
    .getContext('2d')!
    .putImageData(new ImageData(Uint8ClampedArray.from(data), width, height), 0, 0);
  return canvas.convertToBlob({ type: 'image/jpeg', quality: 0.82 });
}
