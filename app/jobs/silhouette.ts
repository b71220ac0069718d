import { endsOfFold } from '#core/card/foldPlace';
import { outlineOf } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { svgPath } from '#core/format/svg';
import { box } from '#core/measure/path';
import type { Vec } from '#core/measure/vector';

/** A piece in small: its outline as path data in mm from its own top left corner, with folds and holes. */
export type Silhouette = {
  d: string;
  w: number;
  h: number;
  folds: [Vec, Vec][];
  holes: { at: Vec; r: number }[];
};

/** Null for a card with no outline yet. */
export function silhouetteOf(pattern: PatternDoc): Silhouette | null {
  const { path } = outlineOf(pattern);
  if (path.length === 0) return null;
  const bounds = box(path);
  const tenth = (n: number) => Math.round(n * 10) / 10;
  const place = ([x, y]: Vec): Vec => [tenth(x - bounds.minX), tenth(bounds.maxY - y)];
  return {
    d: svgPath(path, place),
    w: Math.max(1, bounds.maxX - bounds.minX),
    h: Math.max(1, bounds.maxY - bounds.minY),
    folds: pattern.folds.flatMap((fold): [Vec, Vec][] => {
      const ends = endsOfFold(pattern, fold);
      return ends ? [[place(ends[0]), place(ends[1])]] : [];
    }),
    holes: pattern.holes.map((hole) => ({ at: place([hole.x, hole.y]), r: tenth(hole.diameterMm / 2) })),
  };
}
