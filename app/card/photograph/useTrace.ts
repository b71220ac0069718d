import { useCallback, useEffect, useRef, useState } from 'react';
import type { Problem } from '#core/measure/result';
import { hearing } from '../../workers/pageWorker';
import type { TraceAnswer, TraceAsked, TraceFound } from './traced';

export type Tracing =
  | { state: 'none' }
  | { state: 'looking'; share: number; doing: Extract<TraceAnswer, { what: 'progress' }>['doing'] }
  /** `url`: of the picture seen square on. */
  | { state: 'found'; found: TraceFound; url: string }
  | { state: 'refused'; problems: Problem[] }
  | { state: 'unreadable' };

/** A worker that looks at pictures, begun and warmed before it was asked anything. */
function ready() {
  const worker = new Worker(new URL('./trace.worker.ts', import.meta.url), { type: 'module' });
  worker.postMessage('warm up');
  return { one: worker, busy: false };
}

/**
 * Looks at a picture in a worker of its own, so that the page stays alive: how far it is, what it
 * found, and to stop it.
 */
export function useTrace(): {
  tracing: Tracing;
  look: (asked: TraceAsked) => void;
  stop: () => void;
} {
  const [tracing, setTracing] = useState<Tracing>({ state: 'none' });
  const worker = useRef<{ one: Worker; busy: boolean } | null>(null);
  const url = useRef<string | null>(null);
  const forget = useCallback(() => {
    if (url.current) URL.revokeObjectURL(url.current);
    url.current = null;
  }, []);
  const end = useCallback(() => {
    worker.current?.one.terminate();
    worker.current = null;
    forget();
  }, [forget]);
  useEffect(() => {
    worker.current = ready();
    return end;
  }, [end]);
  const look = useCallback(
    (asked: TraceAsked) => {
      // One that is done is asked again: its code is warm. One that is at work is given up with
      // what it was at.
      if (worker.current?.busy) end();
      forget();
      setTracing({ state: 'looking', share: 0, doing: 'reading' });
      const failed = () => {
        end();
        setTracing({ state: 'unreadable' });
      };
      const answered = (data: TraceAnswer) => {
        if (data.what === 'progress')
          return setTracing({ state: 'looking', share: data.share, doing: data.doing });
        if (worker.current) worker.current.busy = false;
        if (data.what === 'found') {
          url.current = URL.createObjectURL(data.found.underlay.picture);
          return setTracing({ state: 'found', found: data.found, url: url.current });
        }
        setTracing(
          data.what === 'refused'
            ? { state: 'refused', problems: data.problems }
            : { state: 'unreadable' },
        );
      };
      const { one } = worker.current ?? ready();
      worker.current = { one, busy: true };
      asking(one, asked, answered, failed);
    },
    [end, forget],
  );
  const stop = useCallback(() => {
    end();
    setTracing({ state: 'none' });
  }, [end]);
  return { tracing, look, stop };
}

function asking(
  worker: Worker,
  asked: TraceAsked,
  answered: (data: TraceAnswer) => void,
  failed: () => void,
): void {
  hearing<TraceAnswer>(worker, answered, failed).postMessage(asked);
}
