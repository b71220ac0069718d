import { useEffect, useRef, useState } from 'react';
import type { Nets } from '#core/survey/roundNetwork';
import type { NetsAsked } from './nets.worker';
import { useSurvey } from './useSurvey';

type Found = { nets: ReadonlyMap<string, Nets>; inSpace: boolean };

/**
 * The nets of the survey at hand by the round's id, as far as they are reckoned: the round `first`
 * before the others. The last ones stand until there are others.
 */
export function useNets(space: boolean, first: string | undefined): Found {
  const { points, measures, rounds } = useSurvey();
  const [found, setFound] = useState<Found>({ nets: new Map(), inSpace: space });
  const wanted = useRef(first);
  useEffect(() => {
    wanted.current = first;
  });
  useEffect(() => {
    const worker = new Worker(new URL('./nets.worker.ts', import.meta.url), { type: 'module' });
    const here = (id: string) => id === wanted.current;
    worker.onmessage = ({ data: [id, nets] }: MessageEvent<[string, Nets]>) =>
      setFound((last) => ({
        nets: new Map([...(last.inSpace === space ? last.nets : []), [id, nets]]),
        inSpace: space,
      }));
    const asked: NetsAsked = {
      points,
      measures,
      rounds: [
        ...rounds.filter(({ id }) => here(id)),
        ...[...rounds].reverse().filter(({ id }) => !here(id)),
      ],
      space,
    };
    worker.postMessage(asked);
    // What is out of date is given up with its worker.
    return () => worker.terminate();
  }, [points, measures, rounds, space]);
  return found;
}
