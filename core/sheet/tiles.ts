import type { Result } from '../measure/result';
import { failure } from '../measure/result';
import { ROUNDING } from '../measure/tolerance';

/**
 * Paper sizes, mm, upright. A sizes by ISO 216; Letter and Tabloid by ANSI/ASME Y14.1 (8.5 × 11 and
 * 11 × 17 in).
 */
export const PAPERS = {
  a4: { name: 'A4', widthMm: 210, heightMm: 297 },
  a3: { name: 'A3', widthMm: 297, heightMm: 420 },
  letter: { name: 'Letter', widthMm: 215.9, heightMm: 279.4 },
  tabloid: { name: 'Tabloid', widthMm: 279.4, heightMm: 431.8 },
} as const;
export type Paper = keyof typeof PAPERS;

export type Tile = {
  /** Row letter and column number, `A1` at the top left. */
  name: string;
  row: number;
  column: number;
  /** Bottom left corner of the tile's window on the drawing, mm. */
  x: number;
  y: number;
};

export type Tiling = {
  paper: Paper;
  landscape: boolean;
  pageWidthMm: number;
  pageHeightMm: number;
  /** Kept clear all round for the printer; check bars and names stand in it. */
  marginMm: number;
  overlapMm: number;
  /** Window of drawing that each page shows, mm. */
  windowWidthMm: number;
  windowHeightMm: number;
  rows: number;
  columns: number;
  tiles: Tile[];
};

const MAX_PAGES = 400;

/**
 * Lays pages over a drawing, each overlapping its neighbours by `overlapMm`, upright or on their
 * side, whichever needs fewer. The drawing stands in the middle of the pages.
 *
 * Problems: `nothing-to-print`, `paper-too-small` (margins and overlap leave no window),
 * `too-many-pages` (numbers: pages).
 */
export function tilePages(
  drawing: { minX: number; minY: number; maxX: number; maxY: number },
  paper: Paper,
  { marginMm = 15, overlapMm = 10 }: { marginMm?: number; overlapMm?: number } = {},
): Result<{ tiling: Tiling }> {
  const width = drawing.maxX - drawing.minX;
  const height = drawing.maxY - drawing.minY;
  if (!(width > 0 && height > 0)) return failure({ code: 'nothing-to-print' });
  const layouts = [false, true].map((landscape) => {
    const { widthMm, heightMm } = PAPERS[paper];
    const pageWidthMm = landscape ? heightMm : widthMm;
    const pageHeightMm = landscape ? widthMm : heightMm;
    const windowWidthMm = pageWidthMm - 2 * marginMm;
    const windowHeightMm = pageHeightMm - 2 * marginMm;
    const count = (size: number, window: number) =>
      Math.max(1, Math.ceil((size - overlapMm) / (window - overlapMm) - ROUNDING));
    const columns = count(width, windowWidthMm);
    const rows = count(height, windowHeightMm);
    return {
      paper,
      landscape,
      pageWidthMm,
      pageHeightMm,
      marginMm,
      overlapMm,
      windowWidthMm,
      windowHeightMm,
      rows,
      columns,
    };
  });
  const [upright, sideways] = layouts as [(typeof layouts)[0], (typeof layouts)[0]];
  const best =
    sideways.rows * sideways.columns < upright.rows * upright.columns ? sideways : upright;
  if (Math.min(best.windowWidthMm, best.windowHeightMm) <= overlapMm)
    return failure({ code: 'paper-too-small' });
  const pages = best.rows * best.columns;
  if (pages > MAX_PAGES) return failure({ code: 'too-many-pages', numbers: { pages } });

  const stepX = best.windowWidthMm - overlapMm;
  const stepY = best.windowHeightMm - overlapMm;
  const coveredX = stepX * best.columns + overlapMm;
  const coveredY = stepY * best.rows + overlapMm;
  const left = drawing.minX - (coveredX - width) / 2;
  const top = drawing.maxY + (coveredY - height) / 2;
  const tiles: Tile[] = [];
  for (let row = 0; row < best.rows; row++) {
    for (let column = 0; column < best.columns; column++) {
      tiles.push({
        name: `${rowName(row)}${column + 1}`,
        row,
        column,
        x: left + column * stepX,
        y: top - row * stepY - best.windowHeightMm,
      });
    }
  }
  return { ok: true, tiling: { ...best, tiles } };
}

const rowName = (row: number): string =>
  row < 26
    ? String.fromCharCode(65 + row)
    : rowName(Math.floor(row / 26) - 1) + String.fromCharCode(65 + (row % 26));

/**
 * Points at which register crosses stand on a tile, mm on the drawing: each is seen on every page
 * that shares it.
 */
export function registerMarks(tiling: Tiling, tile: Tile): { x: number; y: number }[] {
  const half = tiling.overlapMm / 2;
  return [tile.x + half, tile.x + tiling.windowWidthMm - half].flatMap((x) =>
    [tile.y + half, tile.y + tiling.windowHeightMm - half].map((y) => ({ x, y })),
  );
}
