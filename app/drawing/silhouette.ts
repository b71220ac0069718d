import { holePath } from '#core/card/holeForm';
import { endsOfFold } from '#core/card/foldPlace';
import { outlineOf } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { svgPath } from '#core/format/svg';
import type { Box } from '#core/measure/path';
import { box, points } from '#core/measure/path';
import type { Segment } from '#core/measure/segment';
import { thinned } from '#core/measure/thin';
import type { Vec } from '#core/measure/vector';

/**
 * Maximum number of sides of a drawing in small; one with more is thinned: to less than shows at
 * the size of a hand, 1/400 of the whole.
 */
const MAX_SIDES = 60;
const THINNED_TO = 1 / 400;
/** As many folds, and of the holes the largest, as can be told apart in small. */
const MAX_FOLDS = 60;
const MAX_HOLES = 60;

/**
 * A piece in small, in mm from its own top left corner: outline, folds and holes, each as path
 * data.
 */
export type Silhouette = { d: string; w: number; h: number; folds: string; holes: string };

/** Null for a card with no outline yet. */
export function silhouetteOf(pattern: PatternDoc): Silhouette | null {
  const { path } = outlineOf(pattern);
  if (path.length === 0) return null;
  const bounds = box(path);
  const tenth = (n: number) => Math.round(n * 10) / 10;
  const place = ([x, y]: Vec): Vec => [tenth(x - bounds.minX), tenth(bounds.maxY - y)];
  const few =
    path.length <= MAX_SIDES ? path : closed(thinned(points(path), sizeOf(bounds) * THINNED_TO));
  return {
    d: svgPath(few, place),
    w: Math.max(1, bounds.maxX - bounds.minX),
    h: Math.max(1, bounds.maxY - bounds.minY),
    folds: pattern.folds
      .slice(0, MAX_FOLDS)
      .map((fold) => {
        const ends = endsOfFold(pattern, fold)?.map(place);
        return ends ? `M${ends[0]!.join(' ')}L${ends[1]!.join(' ')}` : '';
      })
      .join(''),
    holes: largest(pattern.holes)
      .map((hole) => {
        const path = holePath([hole.x, hole.y], hole);
        if (path) return svgPath(path, place);
        const [x, y] = place([hole.x, hole.y]);
        const r = tenth(hole.diameterMm / 2);
        return `M${tenth(x - r)} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`;
      })
      .join(''),
  };
}

const sizeOf = (b: Box): number => Math.max(b.maxX - b.minX, b.maxY - b.minY);

const closed = (polygon: readonly Vec[]): Segment[] =>
  polygon.map((a, i) => ({ a, b: polygon[(i + 1) % polygon.length]!, bulge: 0 }));

const largest = (holes: PatternDoc['holes']): PatternDoc['holes'] =>
  holes.length <= MAX_HOLES
    ? holes
    : [...holes].sort((a, b) => b.diameterMm - a.diameterMm).slice(0, MAX_HOLES);
