import { createContext, useContext } from 'react';
import type { Development } from '#core/blank/fold/developed';
import type { Shop } from '#core/blank/shopSchema';
import type { PatternDoc } from '#core/card/pattern';
import type { Metal } from '#core/metal/metals';
import type { Problem, Result } from '#core/measure/result';
import type { PieceFacts } from '#core/format/job';
import type { Fit } from '../records/fits.server';
import type { Inspection, Weld } from '../records/welds.server';
import type { Road } from './stages';
import type { PlanDoc } from '#core/weld/plan';
import type { Editor } from './useDocument';

export type Pick = { kind: 'edge' | 'fold' | 'hole' | 'corner'; id: string } | null;

/** How the last step of a stop is undone, and what to say of it. */
export type StopUndo = { undo: () => string } | null;

/** Everything a stage knows of the piece it shows. */
export type PieceView = {
  id: string;
  facts: PieceFacts;
  metal: Metal;
  shop: Shop;
  card: Editor<PatternDoc>;
  plan: Editor<PlanDoc>;
  pattern: PatternDoc;
  problems: Problem[];
  development: Result<{ development: Development }>;
  road: Road;
  fits: Fit[];
  welds: Weld[];
  inspections: Inspection[];
  pick: Pick;
  setPick: (pick: Pick) => void;
  /** A stop that keeps its own last steps (readings) says here how one is undone. */
  setUndo: (undo: StopUndo | null) => void;
};

export const PieceContext = createContext<PieceView | null>(null);

export function usePiece(): PieceView {
  const view = useContext(PieceContext);
  if (!view) throw new Error('usePiece outside a piece');
  return view;
}
