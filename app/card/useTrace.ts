import { useCallback, useEffect, useRef, useState } from 'react';
import type { Problem } from '#core/measure/result';
import type { TraceAnswer, TraceAsked, TraceFound } from './traced';

export type Tracing =
  | { state: 'none' }
  | { state: 'looking'; share: number; doing: Extract<TraceAnswer, { what: 'progress' }>['doing'] }
  /** `url`: of the picture seen square on. */
  | { state: 'found'; found: TraceFound; url: string }
  | { state: 'refused'; problems: Problem[] }
  | { state: 'unreadable' };

/** Looks at a picture in a worker of its own, so that the page stays alive: how far it is, what it found, and to stop it. */
export function useTrace(): { tracing: Tracing; look: (asked: TraceAsked) => void; stop: () => void } {
  const [tracing, setTracing] = useState<Tracing>({ state: 'none' });
  const worker = useRef<Worker | null>(null);
  const url = useRef<string | null>(null);
  const end = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
    if (url.current) URL.revokeObjectURL(url.current);
    url.current = null;
  }, []);
  useEffect(() => end, [end]);
  const look = useCallback(
    (asked: TraceAsked) => {
      end();
      setTracing({ state: 'looking', share: 0, doing: 'reading' });
      const one = new Worker(new URL('./trace.worker.ts', import.meta.url), { type: 'module' });
      worker.current = one;
      one.onerror = () => setTracing({ state: 'unreadable' });
      one.onmessage = ({ data }: MessageEvent<TraceAnswer>) => {
        if (data.what === 'progress') return setTracing({ state: 'looking', share: data.share, doing: data.doing });
        end();
        if (data.what === 'found') {
          url.current = URL.createObjectURL(data.found.underlay.picture);
          return setTracing({ state: 'found', found: data.found, url: url.current });
        }
        setTracing(data.what === 'refused' ? { state: 'refused', problems: data.problems } : { state: 'unreadable' });
      };
      one.postMessage(asked);
    },
    [end],
  );
  const stop = useCallback(() => {
    end();
    setTracing({ state: 'none' });
  }, [end]);
  return { tracing, look, stop };
}
