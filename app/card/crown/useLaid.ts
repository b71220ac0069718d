import { useEffect, useRef, useState } from 'react';
import type { Problem } from '#core/measure/result';
import type { Described, LaidPanel } from '#core/surface/panel/laidPanel';
import type { Strip } from '#core/surface/flatten/strips';
import { hearing } from '../../workers/pageWorker';
import type { LayAnswer, LayAsked } from './laying';

export type Laid = { laid: LaidPanel; strips: Strip[]; seams: boolean[]; rough: boolean };
export type Outlines = Extract<LayAnswer, { what: 'compared' }>['outlines'];

type Answered = { key: string; found: Laid | null; problems: Problem[]; outlines: Outlines | null };
/** `stale`: what is found is of what was asked before. */
type State = Omit<Answered, 'key'> & { busy: boolean; stale: boolean };

export type LayWanted = Omit<LayAsked, 'ask' | 'made'> & { made: Described | null };

const begun = () => new Worker(new URL('./lay.worker.ts', import.meta.url), { type: 'module' });

/** A panel laid flat once, finely, in a worker of its own; what stood in the way instead. */
export function laidOnce(asked: Omit<LayAsked, 'ask' | 'compare'>): Promise<Laid | Problem[]> {
  const worker = begun();
  return new Promise<Laid | Problem[]>((answered) => {
    hearing<LayAnswer>(
      worker,
      (answer) => {
        if (answer.what === 'refused') answered(answer.problems);
        if (answer.what === 'laid' && !answer.rough) answered(answer);
      },
      () => answered([{ code: 'worker-failed' }]),
    );
    worker.postMessage({ ...asked, ask: 1, compare: false } satisfies LayAsked);
  }).finally(() => worker.terminate());
}

/**
 * A panel laid flat in a worker, first roughly, then finely; the last answer stands, as `busy`,
 * until the next is there. What is asked while one is on its way puts an end to that one. Nothing
 * is laid for null.
 */
export function useLaid(wanted: LayWanted): State {
  const { made } = wanted;
  const [answered, setAnswered] = useState<Answered | null>(null);
  const worker = useRef<Worker | null>(null);
  const count = useRef(0);
  const key = JSON.stringify(wanted);
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
    },
    [],
  );
  useEffect(() => {
    const asked = JSON.parse(key) as LayWanted;
    const ask = ++count.current;
    if (!asked.made) return;
    worker.current ??= begun();
    hearing<LayAnswer>(
      worker.current,
      (answer) => {
        if (answer.ask !== count.current) return;
        if (answer.what === 'compared')
          setAnswered((was) => was && { ...was, outlines: answer.outlines });
        else if (answer.what === 'refused')
          setAnswered({ key, found: null, problems: answer.problems, outlines: null });
        else setAnswered({ key, found: answer, problems: [], outlines: null });
      },
      () => {
        worker.current = null;
        setAnswered({
          key,
          found: null,
          problems: [{ code: 'worker-failed' }],
          outlines: null,
        });
      },
    );
    worker.current.postMessage({ ...asked, ask } as LayAsked);
  }, [key]);
  if (!made) return { found: null, problems: [], outlines: null, busy: false, stale: false };
  if (!answered) return { found: null, problems: [], outlines: null, busy: true, stale: false };
  const now = answered.key === key;
  const { found, problems, outlines } = answered;
  return {
    found,
    problems: now ? problems : [],
    outlines: now ? outlines : null,
    busy: !now || found?.rough === true,
    stale: !now,
  };
}
