import { useCallback, useEffect, useRef, useState } from 'react';
import type { Problem } from '#core/measure/result';
import type { Vec3 } from '#core/surface/mesh/mesh';
import type { Scan } from '#core/surface/mesh/packed';
import { hearing } from '../../workers/pageWorker';
import type { ScanAnswer, ScanAsked, ScanTold, ScanUnit } from './scanning';

type State = {
  doing: 'reading' | 'cleaning' | 'thinning' | null;
  problems: Problem[];
  told: ScanTold | null;
  kept: number;
  /** Whether the file itself is here still, so that something can be cut out of it. */
  here: boolean;
};
const NOTHING: State = { doing: null, problems: [], told: null, kept: 0, here: false };

export type Scanning = State & {
  read: (file: File, unit: ScanUnit) => void;
  cut: (outline: Vec3[]) => void;
  stop: () => void;
};

/**
 * A scan read, cleaned, thinned and cut in a worker, which keeps the whole of it while the page is
 * open.
 */
export function useScan(onScan: (scan: Scan) => void): Scanning {
  const [state, setState] = useState(NOTHING);
  const worker = useRef<Worker | null>(null);
  const done = useRef(onScan);
  useEffect(() => {
    done.current = onScan;
  });
  const stop = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
    setState(NOTHING);
  }, []);
  useEffect(() => () => worker.current?.terminate(), []);
  const ask = useCallback((asked: ScanAsked) => {
    if (asked.what === 'read') {
      worker.current?.terminate();
      worker.current = new Worker(new URL('./scan.worker.ts', import.meta.url), { type: 'module' });
      const answered = (data: ScanAnswer) => {
        if (data.what === 'progress')
          return setState((was) => ({ ...was, doing: data.doing, problems: [] }));
        if (data.what === 'refused')
          return setState((was) => ({
            ...was,
            doing: null,
            problems: data.problems,
            told: data.told ?? was.told,
          }));
        setState({ doing: null, problems: [], told: data.told, kept: data.kept, here: true });
        done.current(data.scan);
      };
      hearing<ScanAnswer>(worker.current, answered, () =>
        setState({ ...NOTHING, problems: [{ code: 'worker-failed' }] }),
      );
    }
    setState((was) => ({ ...was, doing: 'reading', problems: [] }));
    worker.current?.postMessage(asked);
  }, []);
  return {
    ...state,
    stop,
    read: useCallback((file, unit) => ask({ what: 'read', file, unit }), [ask]),
    cut: useCallback((outline) => ask({ what: 'cut', outline }), [ask]),
  };
}
