import type { Dates } from '../frame/dates';
import type { Shop } from '#core/blank/shopSchema';
import type { PatternDoc } from '#core/card/pattern';
import type { PieceFacts } from '#core/format/job';
import type { HolesAt } from '#core/joint/holes';
import type { Unit } from '#core/measure/length';
import type { Result } from '#core/measure/result';
import type { Paper } from '#core/sheet/tiles';
import type { PlanDoc } from '#core/weld/plan';
import { task } from '../workers/task';

/** The files that a pattern leaves the house as. */
export const FILES = [
  'blank.pdf',
  'blank.svg',
  'blank.dxf',
  'card.pdf',
  'card.svg',
  'card.dxf',
  'folds.csv',
] as const;
export type PatternFile = (typeof FILES)[number];

export type PatternGiven = {
  file: PatternFile;
  paper: Paper;
  unit: Unit;
  facts: PieceFacts;
  job: string;
  card: PatternDoc;
  revision: number;
  /** As its joints have it, and by the id of each edge where its holes are and what it meets. */
  joined: {
    pattern: PatternDoc;
    plan: PlanDoc;
    holes: Record<string, HolesAt>;
    meets: Record<string, string>;
  };
  shop: Shop;
  /** The moment of drawing, ISO 8601. */
  at: string;
  dates: Dates;
};
/** The file, or why there is none. */
export type PatternDrawn = Result<{ body: Uint8Array | string }>;

/** Draws a pattern that leaves the house: the card or its blank, as asked. */
export const drawPattern = task<PatternGiven, PatternDrawn>('draw-pattern', 'papers');
