import type { Folding } from '#core/blank/fold/folding';
import type { Practice, SheetMetal } from '#core/blank/fold/practice';
import type { Shop } from '#core/blank/shopSchema';
import type { PatternDoc } from '#core/card/pattern';
import type { Unit } from '#core/measure/length';
import type { Problem } from '#core/measure/result';
import type { MetalId } from '#core/metal/metals';
import type { Paper } from '#core/sheet/tiles';
import { task } from '../workers/task';

/** What a card for the bench is drawn from. */
export type BenchCard = {
  pattern: PatternDoc;
  metal: MetalId;
  sheet: SheetMetal;
  practice: Practice;
  brake: Shop['brakes'][number];
  springs: Shop['springs'];
  longFirst: boolean;
  folding: Folding;
  /** Ids of the edges beyond which a gap is to be adjusted. */
  gaps: string[];
  head: { title: string; job: string; shop: string; sheet: string; revision: number; date: string };
  unit: Unit;
  paper: Paper;
};
export type BenchCardDrawn = { ok: true; body: Uint8Array } | { ok: false; problems: Problem[] };

/** Draws the steps of folding, each with its picture and room to write down what came of it. */
export const drawBenchCard = task<BenchCard, BenchCardDrawn>('draw-bench-card', 'papers');
