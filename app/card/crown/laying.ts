import type { Problem } from '#core/measure/result';
import type { Vec } from '#core/measure/vector';
import type { Described, LaidPanel } from '#core/surface/panel/laidPanel';
import type { Hold } from '#core/surface/flatten/held';
import type { Part } from '#core/surface/flatten/part';
import type { Strip } from '#core/surface/flatten/strips';

/**
 * What is asked of the worker: a panel and the stretch-shrink balance it is cut by; with `compare`, the outlines of
 * the three schools.
 */
export type LayAsked = {
  ask: number;
  made: Described;
  balance: number;
  keep: readonly number[];
  hold: readonly Hold[];
  part: Part | null;
  strips: number;
  compare: boolean;
};

export type LayAnswer =
  | { ask: number; what: 'refused'; problems: Problem[] }
  /** `seams`: which edges of the outline lie on the cut of a part. */
  | {
      ask: number;
      what: 'laid';
      laid: LaidPanel;
      strips: Strip[];
      seams: boolean[];
      rough: boolean;
    }
  | { ask: number; what: 'compared'; outlines: { balance: number; line: Vec[]; mm2: number }[] };

/** Triangles of the first answer and of the one that stays. */
export const [ROUGH, FINE] = [900, 6000];
