import { createContext, useCallback, useContext, useMemo } from 'react';
import type { Measure, ReferencePlace, Round, SurveyBody, Surveyed } from '#core/survey/references';
import { inHand, roundsOf } from '#core/survey/inHand';
import type { Post } from '../forms/usePost';
import { usePost } from '../forms/usePost';
import { useNewer } from '../frame/useNewer';

export type Survey = {
  job: string;
  all: readonly Surveyed[];
  points: Surveyed<ReferencePlace>[];
  measures: Surveyed<Measure>[];
  rounds: Surveyed<Round>[];
  took: (answer: { survey?: Surveyed[] }) => void;
  post: Post;
  /** Writes something new down; its id once the server has it, null where it was not taken. */
  add: (body: SurveyBody, id?: string) => Promise<string | null>;
  /** Changes some of what is said of a thing. */
  change: (id: string, since: object, mine: object) => Promise<boolean>;
};

/** What is surveyed of a job: as loaded, and since then as the server answered. */
export function useSurveyOf(job: string, loaded: readonly Surveyed[]): Survey {
  const [all, takeAll] = useNewer(loaded);
  const took = useCallback(
    ({ survey }: { survey?: Surveyed[] }) => survey && takeAll(survey),
    [takeAll],
  );
  const post = usePost(`/jobs/${job}/survey`, took);
  const { send } = post;
  const add = useCallback(
    async (body: SurveyBody, id = crypto.randomUUID().slice(0, 8)) => {
      return (await send({ intent: 'new', id, body })) ? id : null;
    },
    [send],
  );
  const change = useCallback(
    (id: string, since: object, mine: object) => send({ intent: 'change', id, since, mine }),
    [send],
  );
  return useMemo(
    () => ({
      job,
      all,
      points: inHand(all, 'point'),
      measures: inHand(all, 'measure'),
      rounds: roundsOf(all),
      took,
      post,
      add,
      change,
    }),
    [job, all, took, post, add, change],
  );
}

export const SurveyContext = createContext<Survey | null>(null);

export function useSurvey(): Survey {
  const survey = useContext(SurveyContext);
  if (!survey) throw new Error('useSurvey outside a survey');
  return survey;
}
