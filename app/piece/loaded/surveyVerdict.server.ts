import type { PieceSurvey } from '#core/survey/pieceSurvey';
import type { SurveyVerdict } from '#core/survey/verdict';
import { surveyVerdict } from '#core/survey/verdict';
import { othersSurveyed } from '../../records/pieceSurvey.server';
import { surveyOf } from '../../records/survey.server';
import type { Viewer } from '../../records/viewer.server';

/** A piece as far as its survey is judged. */
export type SurveyedPiece = {
  id: string;
  job: string;
  structural: boolean;
  survey: PieceSurvey;
  layersApartMm: number;
};

export const NOTHING_TO_SAY: SurveyVerdict = {
  points: [],
  network: null,
  undetermined: [],
  notPlane: false,
  warnings: [],
};

/** Whether there is anything in the survey of a piece to say something of. */
export const hasSurvey = ({ takes, cutOut, layerCuts }: PieceSurvey): boolean =>
  takes.length > 0 || cutOut !== null || layerCuts.length > 0;

/**
 * What is to be said of the survey of a piece: reckoned here and now, which may take seconds of a
 * net of nonsense.
 */
export async function verdictOnSurvey(
  viewer: Viewer,
  piece: SurveyedPiece,
): Promise<SurveyVerdict> {
  if (!hasSurvey(piece.survey)) return NOTHING_TO_SAY;
  const [all, others] = [
    await surveyOf(viewer, piece.job),
    await othersSurveyed(viewer, piece.job, piece.id),
  ];
  return surveyVerdict({ ...piece, all, others });
}
