import type { Development } from '#core/blank/fold/developed';
import type { Folding } from '#core/blank/fold/folding';
import type { PatternDoc } from '#core/card/pattern';
import type { CutDown } from '#core/cutdown/cutDown';
import type { PieceKind } from '#core/format/lists';
import type { FitRecord, InspectionRecord, WeldRecord } from '#core/format/job';
import type { Problem, Result } from '#core/measure/result';
import type { PieceSurvey } from '#core/survey/pieceSurvey';
import type { ShapeStep } from '#core/shape/shapeStep';
import type { Shaping } from '#core/shape/shaping';
import type { SurveyWarning } from '#core/survey/verdict';
import type { StopState } from '../../frame/StopMark';
import type { Joined } from './joined';

/** How a stop stands: its mark, a word beside it, and the reasons, told where one touches it. */
export type Stop = { state: StopState; note: string; why: string[] };

export const stop = (state: StopState, note: string, ...why: string[]): Stop => ({
  state,
  note,
  why,
});

/** What a road is reckoned from: the records of one piece, and its card as it is now. */
export type RoadGiven = {
  kind: PieceKind;
  cutDown: CutDown;
  survey: PieceSurvey;
  structural: boolean;
  thicknessMm: number;
  /** Its edges as their joints have them: by these it is tried and welded. */
  joined: Pick<Joined, 'pattern' | 'plan' | 'thicknessAt' | 'structuralAt'>;
  /** The working order, and how far it is. */
  steps: readonly ShapeStep[];
  shaping: Shaping;
  folding: Pick<Folding, 'turnedAfter'>;
  /** What is to be said of its survey; null where that could not be told. */
  surveyWarnings: readonly SurveyWarning[] | null;
  pattern: PatternDoc;
  /** How much has changed on the card it was made from that it could take over. */
  changedThere?: number;
  problems: readonly Problem[];
  development: Result<{ development: Development }>;
  revision: number;
  /** The last print: which revision, and what it was made from (null for old ones). */
  printed: { revision: number; digest: string | null } | null;
  /** What a print would be made from now; null while there is no blank. */
  digest: string | null;
  fit: FitRecord | null;
  welds: readonly WeldRecord[];
  inspections: readonly InspectionRecord[];
};
