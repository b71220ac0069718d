import type { Bead, BeadPath, PatternDoc } from '#core/card/pattern';

/** A bead along a path: as the one laid last, or round and low as most are. */
export const newBead = (pattern: PatternDoc, id: string, path: BeadPath): Bead => {
  const last = pattern.beads.at(-1);
  return {
    id,
    path,
    section: last?.section ?? { kind: 'arc', widthMm: 12, heightMm: 3 },
    toward: last?.toward ?? 'face',
    drawsIn: null,
    acrossRadiusMm: null,
    acrossOn: null,
    atFolds: null,
    meets: null,
  };
};
