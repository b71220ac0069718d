import type { Segment } from '../measure/segment';
import { flattened, nearest } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import type { Scene } from './photographed.arbitrary';
import { svgBox, svgPath, svgPolygons } from './photographed.arbitrary';
import { scaleFrame } from './scaleFrame';

/** Colours of what lies on the bench. */
export const WHITE = 'rgb(236,236,232)';
export const BLACK = 'rgb(22,22,24)';
export const MANILA = 'rgb(214,184,130)';
export const GRAY = 'rgb(150,150,150)';

/** A card with a rounded corner, sharp ones and a hollow side, in the mm of an A4 frame. */
export const CARD: Segment[] = [
  { a: [55, 60], b: [150, 66], bulge: 0 },
  { a: [150, 66], b: [158, 74], bulge: Math.tan(Math.PI / 8) },
  { a: [158, 74], b: [154, 170], bulge: 0 },
  { a: [154, 170], b: [100, 215], bulge: 0 },
  { a: [100, 215], b: [58, 205], bulge: -0.12 },
  { a: [58, 205], b: [55, 60], bulge: 0 },
];
/** Holes cut through, a ring that was rubbed, and a pencil line. */
export const HOLES: readonly [number, number, number][] = [
  [80, 90, 8],
  [120, 120, 14],
  [75, 180, 6.5],
];
export const RING: readonly [number, number, number] = [125, 160, 10];
export const LINE: readonly [Vec, Vec] = [
  [55, 110],
  [156.5, 110],
];

/** A card on an A4 frame on a bench, with more cut out of it if that is asked. */
export function onPaper(
  card: string,
  bench: Scene['bench'],
  middle: 'white' | 'dark' | 'cut out',
  more: readonly Segment[][] = [],
): Scene {
  const frame = scaleFrame('a4', middle === 'dark' ? 'dark' : 'white');
  const inside = frame.inside;
  const [low, high] = [inside[0]!, inside[2]!];
  // Cut out, the bench is seen in the middle: the paper is four strips.
  const paper =
    middle === 'cut out'
      ? svgBox(0, 0, 210, low[1], WHITE) +
        svgBox(0, high[1], 210, 297 - high[1], WHITE) +
        svgBox(0, 0, low[0], 297, WHITE) +
        svgBox(high[0], 0, 210 - high[0], 297, WHITE)
      : svgBox(0, 0, 210, 297, WHITE);
  const holes = HOLES.map(([x, y, d]): Segment[] => [
    { a: [x - d / 2, y], b: [x + d / 2, y], bulge: 1 },
    { a: [x + d / 2, y], b: [x - d / 2, y], bulge: 1 },
  ]);
  return {
    box: [-45, -45, 255, 342],
    bench,
    drawn:
      paper +
      svgPolygons(frame.black, BLACK) +
      `<path d="${[CARD, ...holes, ...more].map(svgPath).join('')}" fill-rule="evenodd" fill="${card}"/>` +
      `<path d="M${LINE.map((p) => p.join(' ')).join('L')}" stroke="rgb(90,90,95)" stroke-width="0.5" opacity="0.8"/>` +
      `<circle cx="${RING[0]}" cy="${RING[1]}" r="${RING[2] / 2}" fill="none" stroke="rgb(60,50,45)" stroke-width="1"/>`,
  };
}

const points = (path: readonly Segment[]) =>
  path
    .flatMap((s) => flattened(s, 0.005))
    .flatMap((p, i, all) => {
      const next = all[(i + 1) % all.length]!;
      const count = Math.max(1, Math.round(distance(p, next)));
      return Array.from({ length: count }, (_, k): Vec => [
        p[0] + ((next[0] - p[0]) * k) / count,
        p[1] + ((next[1] - p[1]) * k) / count,
      ]);
    });

/**
 * How far the one outline lies off the other, both ways, root of the mean of the squares and worst,
 * mm.
 */
export function off(
  found: readonly Segment[],
  true_: readonly Segment[],
): { rms: number; worst: number } {
  const far = (path: readonly Segment[], all: readonly Vec[]) =>
    all.map((p) => Math.min(...path.map((s) => nearest(s, p).distance)));
  const all = [...far(found, points(true_)), ...far(true_, points(found))];
  return {
    rms: Math.sqrt(all.reduce((sum, x) => sum + x * x, 0) / all.length),
    worst: Math.max(...all),
  };
}
