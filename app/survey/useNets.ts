import { useEffect, useRef, useState } from 'react';
import type { Nets } from '#core/survey/roundNetwork';
import { useSurvey } from './useSurvey';

/** The nets of the survey at hand, by round and side; the last ones while others are being reckoned, null before any. */
export function useNets(space: boolean): { nets: Nets; inSpace: boolean } | null {
  const { points, measures, rounds } = useSurvey();
  const [found, setFound] = useState<{ nets: Nets; inSpace: boolean } | null>(null);
  const worker = useRef<Worker | null>(null);
  const busy = useRef(false);
  useEffect(() => {
    // What is out of date is given up with its worker; one that is done with the last takes the next.
    if (busy.current) worker.current?.terminate();
    if (busy.current || !worker.current)
      worker.current = new Worker(new URL('./nets.worker.ts', import.meta.url), { type: 'module' });
    worker.current.onmessage = ({ data }: MessageEvent<Nets>) => {
      busy.current = false;
      setFound({ nets: data, inSpace: space });
    };
    busy.current = true;
    worker.current.postMessage([points, measures, rounds, space]);
  }, [points, measures, rounds, space]);
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
      busy.current = false;
    },
    [],
  );
  return found;
}
