import { useCallback } from 'react';
import type { Development } from '#core/blank/fold/developed';
import { runLength } from '#core/measure/run';
import { paceLearnt } from '#core/shape/pace';
import type { ShapeStep } from '#core/shape/shapeStep';
import { usePost } from '../forms/usePost';
import { usePiece } from '../piece/pieceContext';

/** Work of less than this says nothing of the pace, seconds. */
const MIN_SECONDS = 60;
const nothing = () => {};

/** So short a stretch says nothing, m. */
const MIN_METRES = 0.001;

/**
 * Along how much of a flange or bead a step works, m; null for what is not counted by the metre.
 */
function workedAlong(
  step: ShapeStep,
  { beads }: Development,
): { what: 'flange' | 'bead'; metres: number } | null {
  const bead = step.what === 'bead' ? beads.find((one) => one.id === step.about[0]) : undefined;
  const mm = bead
    ? bead.runs.reduce((sum, run) => sum + runLength(run), 0)
    : step.what === 'strain'
      ? (step.figures.toMm ?? 0) - (step.figures.fromMm ?? 0)
      : 0;
  return mm / 1000 > MIN_METRES ? { what: bead ? 'bead' : 'flange', metres: mm / 1000 } : null;
}

/**
 * How long a step takes at the pace of this shop, seconds, and by how many readings; null where
 * that is not known.
 */
export function useForecast(step: ShapeStep): { seconds: number; readings: number } | null {
  const { metal, facts, shop, development } = usePiece();
  const worked = development.ok ? workedAlong(step, development.development) : null;
  const pace = worked && paceLearnt(shop, metal, facts.thicknessMm, worked.what);
  return pace && { seconds: worked.metres * pace.hoursPerMetre * 3600, readings: pace.readings };
}

/** Tells the shop what a metre of flange or bead took, when a step was done by the watch. */
export function usePace(): (step: ShapeStep, seconds: number) => void {
  const { id, metal, facts, development } = usePiece();
  const { send } = usePost<object>('/shop/readings', nothing);
  return useCallback(
    (step, seconds) => {
      if (seconds < MIN_SECONDS || !development.ok) return;
      const worked = workedAlong(step, development.development);
      if (!worked) return;
      const reading = {
        metal: metal.id,
        thicknessMm: facts.thicknessMm,
        tool: null,
        piece: id,
        at: new Date().toISOString(),
        ...worked,
        hours: seconds / 3600,
      };
      void send({ intent: 'add', of: { list: 'paces', reading } });
    },
    [id, metal, facts, development, send],
  );
}
