import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { z } from 'zod';
import { failure } from '#core/measure/result';
import type { Segment } from '#core/measure/segment';
import type { Scale } from '#core/picture/findFrame';
import { pictureScale } from '#core/picture/pictureScale';
import type { Paper } from '#core/picture/scaleFrame';
import { PAPERS, cornerCards, scaleFrame } from '#core/picture/scaleFrame';
import { runToCompletion } from '#core/measure/runToCompletion';
import { TRACE_TOLERANCE_MM, trace } from '#core/picture/trace';
import type { Verb } from './verb';
import { verb } from './verb';

const figure = z.number();
const place = z.tuple([figure, figure]);
const papers = Object.keys(PAPERS) as [Paper, ...Paper[]];
const PaperSchema = z.enum(papers);
/** Larger pictures are refused: 100 megapixels. */
const MAX_PIXELS = 100_000_000;

const FrameSchema = z.union([
  z.object({ paper: PaperSchema, printedMm: place.optional() }),
  z.object({
    tapes: z
      .array(z.object({ from: z.string(), to: z.string(), mm: figure, uMm: figure.optional() }))
      .max(20),
  }),
  z.object({ dpi: figure }),
  z.object({ places: z.array(z.object({ at: place, mm: place })).max(100) }),
]);

function scaleOf(frame: z.output<typeof FrameSchema>): Scale {
  if ('paper' in frame) return { kind: 'paper', ...frame };
  if ('tapes' in frame) return { kind: 'corners', tapes: frame.tapes };
  return 'dpi' in frame
    ? { kind: 'scan', dpi: frame.dpi }
    : { kind: 'places', places: frame.places };
}

async function traced(path: string, scale: Scale, toleranceMm: number): Promise<object> {
  // Loaded here: no other verb has to wait for it.
  const { default: sharp } = await import('sharp');
  let read;
  try {
    read = await sharp(path, { limitInputPixels: MAX_PIXELS })
      .rotate()
      .toColourspace('srgb')
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
  } catch (error) {
    return { ok: false, problems: [{ code: 'cannot-read', message: (error as Error).message }] };
  }
  const { data, info } = read;
  if (info.width < 64 || info.height < 64)
    return failure({ code: 'no-frame', about: [], numbers: { missing: 0 } });
  const found = runToCompletion(
    trace({ width: info.width, height: info.height, data }, scale, toleranceMm),
  );
  if (!found.ok) return found;
  const { outline, holes, openings, lines, uMm, worstMm, cutOff, doubtful } = found;
  return {
    ok: true,
    outline: cornersOf(outline),
    holes,
    openings: openings.map(cornersOf),
    lines,
    uMm,
    worstMm,
    cutOff,
    doubtful,
  };
}

const cornersOf = (path: readonly Segment[]) =>
  path.map(({ a, bulge }) => ({ x: a[0], y: a[1], bulge }));

/** A photograph that comes along, wherever one stands and whether this is built or not. */
const EXAMPLE =
  ['../docs/card-on-frame.jpg', '../../docs/card-on-frame.jpg']
    .map((path) => fileURLToPath(new URL(path, import.meta.url)))
    .find((path) => existsSync(path)) ?? 'card.jpg';

const span = { from: place, to: place };

/** What is reckoned of photographs and scans. */
export const PICTURE_VERBS: Record<string, Verb> = {
  frame: verb(
    'The scale frame: its black areas, upright rectangles that lie on each other in part; or the four loose corner cards',
    z.union([
      z.object({ paper: PaperSchema, middle: z.enum(['white', 'dark']).default('white') }),
      z.object({ corners: z.literal(true) }),
    ]),
    { paper: 'a4' },
    (given) => {
      if ('corners' in given) return { ok: true, cards: cornerCards() };
      const { widthMm, heightMm, black, inside } = scaleFrame(given.paper, given.middle);
      return { ok: true, widthMm, heightMm, black, inside };
    },
  ),
  trace: verb(
    'A card from a photograph or scan: outline, holes and drawn lines in mm of the frame (paper, tapes between corner cards, dpi, or places)',
    z.object({
      picture: z.string().min(1).max(4096),
      frame: FrameSchema,
      toleranceMm: figure.positive().max(10).default(TRACE_TOLERANCE_MM),
    }),
    { picture: EXAMPLE, frame: { paper: 'a4' } },
    ({ picture, frame, toleranceMm }) => traced(picture, scaleOf(frame), toleranceMm),
  ),
  'picture-scale': verb(
    'Distances and round sizes on a flat thing in a photograph, from distances and right angles that are known on it',
    z.object({
      known: z.array(z.object({ ...span, mm: figure, uMm: figure.optional() })).max(100),
      square: z
        .array(z.tuple([place, place, place]))
        .max(100)
        .default([]),
      ask: z.array(z.object(span)).max(500).default([]),
      round: z.array(z.array(place).min(3).max(200)).max(100).default([]),
      uPx: figure.positive().default(1),
    }),
    {
      known: [
        { from: [100, 900], to: [1100, 880], mm: 900 },
        { from: [1100, 880], to: [1010, 240], mm: 600 },
        { from: [1010, 240], to: [210, 260], mm: 900 },
        { from: [210, 260], to: [100, 900], mm: 600 },
      ],
      square: [
        [
          [100, 900],
          [1100, 880],
          [1010, 240],
        ],
      ],
      ask: [{ from: [400, 600], to: [700, 600] }],
      uPx: 1,
    },
    (given) => pictureScale(given),
  ),
};
