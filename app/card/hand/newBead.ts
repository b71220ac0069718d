import type { Unit } from '#core/measure/length';
import { usualLength } from '#core/measure/length';
import type { Bead, BeadPath, PatternDoc } from '#core/card/pattern';

/** A bead along a path: as the one laid last, or round and low as most are. */
export const newBead = (pattern: PatternDoc, id: string, path: BeadPath, unit: Unit): Bead => {
  const last = pattern.beads.at(-1);
  return {
    id,
    path,
    section: last?.section ?? {
      kind: 'arc',
      widthMm: usualLength(12, unit),
      heightMm: usualLength(3, unit),
    },
    toward: last?.toward ?? 'face',
    drawsIn: null,
    acrossRadiusMm: null,
    acrossOn: null,
    atFolds: null,
    meets: null,
  };
};
