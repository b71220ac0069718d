/** What is chosen from in a survey, apart from its schema: pages need these and not the validation. */
export const SIDES_OF_VEHICLE = ['left', 'right', 'front', 'rear', 'centre'] as const;

export const MEASURE_KINDS = ['distance', 'height', 'gap', 'level', 'lean', 'thickness'] as const;
export type MeasureKind = (typeof MEASURE_KINDS)[number];

export const ROUND_STAGES = ['found', 'braced', 'cut', 'tacked', 'welded', 'other'] as const;
export type RoundStage = (typeof ROUND_STAGES)[number];

/** How good a reading is where nothing else is said, one standard deviation: tape 1 mm, rule 0.5, caliper 0.05, level 0.1°. */
export const USUAL_U: Record<MeasureKind, number> = {
  distance: 1,
  height: 1,
  gap: 0.5,
  level: 0.1,
  lean: 0.1,
  thickness: 0.05,
};

/** Whether a measure is read in degrees; else in millimetres. */
export const inDegrees = (kind: MeasureKind): boolean => kind === 'level' || kind === 'lean';
