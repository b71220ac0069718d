import { useMemo, useState } from 'react';
import type { PatternDoc } from '#core/card/pattern';
import { usePageWorker } from '../../workers/pageWorker';
import type { OverAnswer, OverAsked } from './over.worker';

const begun = () => new Worker(new URL('./over.worker.ts', import.meta.url), { type: 'module' });

/**
 * Another card laid on one, in a worker: of outlines with a thousand sides it takes seconds. Null
 * while none is chosen, and where one of both has no outline.
 */
export function useLaidOver(
  here: PatternDoc,
  there: PatternDoc | null,
  turnedOver: boolean,
): OverAnswer | 'laying' | 'failed' {
  const asked = useMemo(
    (): OverAsked | null => there && { here, there, turnedOver },
    [here, there, turnedOver],
  );
  const [answered, setAnswered] = useState<{
    of: OverAsked;
    laid: OverAnswer | 'failed';
  } | null>(null);
  usePageWorker<OverAsked, OverAnswer>(
    begun,
    asked,
    (laid, of) => setAnswered({ of, laid }),
    (of) => setAnswered({ of, laid: 'failed' }),
  );
  if (!asked) return null;
  return answered?.of === asked ? answered.laid : 'laying';
}
