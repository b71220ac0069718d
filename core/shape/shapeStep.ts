/** What kinds of steps there are in shaping a piece. */
export const STEP_KINDS = [
  'test-bead',
  'test-strip',
  'test-bend',
  'rough',
  'exact',
  'holes',
  'flare',
  'bead',
  'raise',
  'smooth',
  'tip-start',
  'strain',
  'tip-home',
  'turn',
  'angle',
  'lip',
  'notch',
  'pack',
  'fold',
  'leave',
  'check',
  'trim',
  'own',
] as const;
export type StepKind = (typeof STEP_KINDS)[number];

/** What is counted while a step is done. */
export type Counted = 'passes' | 'bites' | 'cuts' | 'holes';

/**
 * One step of the working order. `key` names it for good: by its kind and what it is about, so that
 * what is counted stays with it when the order is reckoned anew. `about`: ids of the card's edges,
 * folds, beads and holes. Lengths in mm, angles in degrees, strains as shares.
 */
export type ShapeStep = {
  key: string;
  what: StepKind;
  about: string[];
  /** The rule or fact that it is there for. */
  reason: string;
  figures: Record<string, number>;
  /**
   * What to count and how much of it is wanted; null where nothing is counted or nothing is known
   * of how much.
   */
  counts: { of: Counted; wanted: number | null } | null;
};
