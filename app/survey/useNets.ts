import { useMemo, useState } from 'react';
import type { Nets } from '#core/survey/roundNetwork';
import { usePageWorker } from '../workers/pageWorker';
import type { NetsAsked } from './nets.worker';
import { useSurvey } from './useSurvey';

const begun = () => new Worker(new URL('./nets.worker.ts', import.meta.url), { type: 'module' });

type Found = { nets: ReadonlyMap<string, Nets>; inSpace: boolean; failed: boolean };

/**
 * The nets of the survey at hand by the round's id, as far as they are reckoned: the round `first`
 * before the others. The last ones stand until there are others.
 */
export function useNets(space: boolean, first: string | undefined): Found {
  const { points, measures, rounds } = useSurvey();
  const [found, setFound] = useState<Found>({ nets: new Map(), inSpace: space, failed: false });
  // Only what changes the nets is a new question; which round is wanted first is not.
  const [began] = useState(first);
  const asked = useMemo((): NetsAsked => {
    const here = ({ id }: { id: string }) => id === began;
    const others = [...rounds].reverse().filter((round) => !here(round));
    return { points, measures, rounds: [...rounds.filter(here), ...others], space };
  }, [points, measures, rounds, space, began]);
  usePageWorker<NetsAsked, [string, Nets]>(
    begun,
    asked,
    ([id, nets], { space: inSpace }) =>
      setFound((last) => ({
        nets: new Map([...(last.inSpace === inSpace ? last.nets : []), [id, nets]]),
        inSpace,
        failed: false,
      })),
    ({ space: inSpace }) => setFound((last) => ({ ...last, inSpace, failed: true })),
  );
  return found;
}
