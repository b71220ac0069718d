import { useCallback } from 'react';
import { runLength } from '#core/measure/run';
import type { ShapeStep } from '#core/shape/step';
import { usePost } from '../forms/usePost';
import { usePiece } from '../piece/pieceContext';

/** Work of less than this says nothing of the pace, seconds. */
const LEAST_SECONDS = 60;
const nothing = () => {};

/** Tells the shop what a metre of flange or bead took, when a step was done by the watch. */
export function usePace(): (step: ShapeStep, seconds: number) => void {
  const { id, metal, facts, development } = usePiece();
  const { send } = usePost<object>('/shop/readings', nothing);
  return useCallback(
    (step, seconds) => {
      if (seconds < LEAST_SECONDS || !development.ok) return;
      const bead = step.what === 'bead' ? development.development.beads.find((one) => one.id === step.about[0]) : undefined;
      const beadMm = bead ? bead.runs.reduce((sum, run) => sum + runLength(run), 0) : 0;
      const mm = step.what === 'strain' ? (step.figures.toMm ?? 0) - (step.figures.fromMm ?? 0) : beadMm;
      if (mm <= 1) return;
      const reading = { metal: metal.id, thicknessMm: facts.thicknessMm, tool: null, piece: id, at: new Date().toISOString(), what: bead ? 'bead' : 'flange', metres: mm / 1000, hours: seconds / 3600 };
      void send({ intent: 'add', of: { list: 'paces', reading } });
    },
    [id, metal, facts, development, send],
  );
} // prettier-ignore
