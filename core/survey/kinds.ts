/**
 * What is chosen from in a survey, apart from its schema: pages need these and not the validation.
 */
export const SIDES_OF_VEHICLE = ['left', 'right', 'front', 'rear', 'centre'] as const;

export const MEASURE_KINDS = ['distance', 'height', 'gap', 'level', 'lean', 'thickness'] as const;
export type MeasureKind = (typeof MEASURE_KINDS)[number];

export const ROUND_STAGES = ['found', 'braced', 'cut', 'tacked', 'welded', 'other'] as const;
export type RoundStage = (typeof ROUND_STAGES)[number];

/** The layers of a closed section from the outside in: each is the neighbour of the next. */
export const LAYERS = ['outer', 'inner', 'structural'] as const;
export type Layer = (typeof LAYERS)[number];

/** How something was found out, each looking deeper than the one before. */
export const LOOKS = ['seen', 'probed', 'sanded', 'cut'] as const;
export type LookKind = (typeof LOOKS)[number];

/** What can be done about a piece. */
export const OPTION_KINDS = ['patch', 'panel', 'mend', 'buy', 'donor'] as const;
export type OptionKind = (typeof OPTION_KINDS)[number];

/**
 * How good a reading is where nothing else is said, one standard deviation: tape 1 mm, rule 0.5,
 * caliper 0.05, level 0.1°.
 */
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
