import { z } from 'zod';
import { cardFromLengths } from '#core/card/fromLengths';
import { countingIds } from '#core/card/kinds';
import { letterAt } from '#core/card/outline';
import { slit } from '#core/card/slit';
import { LEAST_STRIP_MM, gapStrip } from '#core/fit/gapStrip';
import { area } from '#core/measure/path';
import type { Segment } from '#core/measure/segment';
import { reversed } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import type { Verb } from './verb';
import { verb } from './verb';

const mm = z.number().min(-100_000).max(100_000);
const place = z.tuple([mm, mm]);
const Outline = z
  .array(z.object({ x: mm, y: mm, bulge: z.number().min(-1000).max(1000).default(0) }))
  .min(3)
  .max(4000);

/** An outline as it is written, as segments counter-clockwise. */
function pathOf(outline: z.output<typeof Outline>): Segment[] {
  const path = outline.map(({ x, y, bulge }, i): Segment => {
    const next = outline[(i + 1) % outline.length]!;
    return { a: [x, y], b: [next.x, next.y], bulge };
  });
  return area(path) < 0 ? path.map(reversed).reverse() : path;
}
const written = (path: readonly Segment[]) =>
  path.map(({ a, bulge }) => ({ x: a[0], y: a[1], bulge }));

const PLATE: Vec[] = [
  [0, 0],
  [400, 0],
  [400, 100],
  [0, 100],
];

/** What is reckoned where metal is cut to come together: slits, and strips that are let in. */
export const SEAM_VERBS: Record<string, Verb> = {
  'from-lengths': verb(
    'The outline that stands for a piece of which only the lengths of its edges are known: on a circle, clockwise from A',
    z.object({ lengthsMm: z.array(mm).max(400) }),
    { lengthsMm: [520, 340, 515, 356] },
    ({ lengthsMm }) =>
      cardFromLengths(
        lengthsMm.map((lengthMm, i) => ({
          ...{ id: `e${i + 1}`, letter: letterAt(i), lengthMm },
          joint: { kind: 'free', trimMm: 0 },
        })),
        countingIds('s'),
      ),
  ),
  slit: verb(
    'A cut from the outline inward, its mouth opened by openMm (below 0 closed): the part on the right stays, the other turns about the end',
    z.object({ outline: Outline, from: place, to: place, openMm: mm }),
    { outline: PLATE.map(([x, y]) => ({ x, y })), from: [200, 0], to: [200, 80], openMm: 4 },
    ({ outline, from, to, openMm }) => {
      const found = slit(pathOf(outline), from, to, openMm);
      return found.ok ? { ...found, outline: written(found.outline) } : found;
    },
  ),
  'gap-strip': verb(
    'A strip let in where a gap is too wide to weld, from its readings along the edge; cut back further, evenly, where it would be too narrow',
    z.object({
      stations: z.array(z.object({ atMm: mm, gapMm: mm })).max(400),
      cutBackMm: z.tuple([mm, mm]).default([0, 0]),
      leastWidthMm: mm.default(LEAST_STRIP_MM),
      weldGapMm: mm.default(0),
    }),
    {
      stations: [
        { atMm: 0, gapMm: 5 },
        { atMm: 150, gapMm: 7.5 },
        { atMm: 300, gapMm: 6 },
      ],
      cutBackMm: [2, 2],
    },
    ({ stations, cutBackMm, leastWidthMm, weldGapMm }) =>
      gapStrip(stations, cutBackMm, leastWidthMm, weldGapMm),
  ),
};
