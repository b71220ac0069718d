import type { PieceSurvey } from '#core/survey/pieceSurvey';
import { surveyWarningShort } from './surveyWords';
import type { RoadGiven, Stop } from './stop';
import { stop } from './stop';

/** Whether anything was looked at before the metal was cut. */
const isLookedAt = (survey: PieceSurvey): boolean =>
  survey.cutOut !== null ||
  survey.choice !== null ||
  [
    survey.takes,
    survey.mends,
    survey.braces,
    survey.layerCuts,
    survey.oldMetal,
    survey.options,
  ].some((list) => list.length > 0);

export function surveyStop({ survey, surveyWarnings, structural }: RoadGiven): Stop {
  if (surveyWarnings === null) return stop('attention', 'References not told');
  const wanted = surveyWarnings.flatMap((warning) => surveyWarningShort(warning) ?? []);
  if (wanted.length > 0) return stop('attention', wanted[0]!, ...wanted);
  if (!isLookedAt(survey))
    return structural
      ? stop(
          'unseen',
          'Structural: look first',
          'It holds the vehicle up. Say what it takes away, what braces it and where each layer is cut before anything is cut.',
        )
      : stop('unseen', 'Not looked at', 'Nothing was measured, found or decided for it.');
  const { cutOut, takes } = survey;
  if (cutOut)
    return stop(
      'done',
      cutOut.backAt ? 'Back in' : 'Cut out',
      'Cut out with its references measured.',
    );
  return takes.length > 0
    ? stop('done', 'Can be put back', 'Every reference it takes away can be put back.')
    : stop('done', 'Looked at', 'It takes no reference away.');
}
