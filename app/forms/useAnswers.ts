import { useFetcher } from 'react-router';

type FieldsOf<Answer> = Answer extends object ? keyof Answer : never;
type FieldOf<Answer, K extends PropertyKey> = Answer extends object
  ? K extends keyof Answer
    ? Answer[K]
    : undefined
  : never;
/** What one of several answers may say: every field of any of them, each of which may be missing. */
export type AnyOf<Answers> = { [K in FieldsOf<Answers>]?: FieldOf<Answers, K> };

/**
 * A fetcher whose answers are typed by what gives them: `Answers` is what an action of a route
 * answers (its `Route.ComponentProps['actionData']`, which knows of `clientAction` too). Any field of
 * any of its answers can be asked for.
 */
export function useAnswers<Answers>(options?: { key?: string }) {
  const fetcher = useFetcher(options);
  const data = fetcher.data as AnyOf<Answers> | undefined;
  return { ...fetcher, data };
}
