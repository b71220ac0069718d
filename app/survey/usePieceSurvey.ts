import { createContext, useCallback, useContext } from 'react';
import { PIECE_SURVEY_MERGE } from '#core/format/mergeRules';
import type { OptionKind } from '#core/survey/kinds';
import type { PieceSurvey } from '#core/survey/pieceSurvey';
import type { SurveyVerdict } from '#core/survey/verdict';
import type { SelfSaved } from '../forms/useSelfSavedDraft';
import { useSelfSavedDraft } from '../forms/useSelfSavedDraft';
import { useNewer } from '../frame/useNewer';
import { usePiece } from '../piece/pieceContext';
import type { Picture } from '../records/pictures.server';

type Answer = { survey?: PieceSurvey; verdict?: SurveyVerdict | null };

const body = (since: Partial<PieceSurvey>, mine: Partial<PieceSurvey>) => ({ since, mine });

export type SavedSurvey = SelfSaved<PieceSurvey> & {
  /** The server's, of what it has; null where it could not be told. */
  verdict: SurveyVerdict | null;
};

/** What is surveyed of the piece at hand: it saves itself. */
export function usePieceSurveyOf(loaded: SurveyVerdict | null): SavedSurvey {
  const { id, survey, took } = usePiece();
  const [verdict, takeVerdict] = useNewer(loaded);
  const takeOver = useCallback(
    (answer: Answer) => {
      if (answer.survey)
        took({ survey: answer.survey, surveyWarnings: answer.verdict?.warnings ?? null });
      if (answer.verdict !== undefined) takeVerdict(answer.verdict);
    },
    [took, takeVerdict],
  );
  const about = `piece-survey ${id}`;
  const saved = useSelfSavedDraft<PieceSurvey, Answer>(
    about,
    survey,
    `/pieces/${id}/surveyed`,
    body,
    takeOver,
    PIECE_SURVEY_MERGE,
  );
  return { ...saved, verdict };
}

/** What the parts of a piece's survey stand on. */
export type SurveyInUse = SavedSurvey & {
  /** Pictures of what is surveyed of the job. */
  pictures: Picture[];
  takePictures: (pictures: Picture[]) => void;
  /** Hours that pieces of this shop took, by what was chosen for them. */
  hours: Partial<Record<OptionKind, number[]>>;
};

export const PieceSurveyContext = createContext<SurveyInUse | null>(null);

export function usePieceSurvey(): SurveyInUse {
  const inUse = useContext(PieceSurveyContext);
  if (!inUse) throw new Error('usePieceSurvey outside the survey of a piece');
  return inUse;
}
