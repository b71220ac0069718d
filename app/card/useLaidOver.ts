import { useEffect, useMemo, useState } from 'react';
import type { PatternDoc } from '#core/card/pattern';
import type { OverAnswer, OverAsked } from './over.worker';

/**
 * Another card laid on one, in a worker: of outlines with a thousand sides it takes seconds. Null
 * while none is chosen.
 */
export function useLaidOver(
  here: PatternDoc,
  there: PatternDoc | null,
  turnedOver: boolean,
): OverAnswer | 'laying' {
  const asked = useMemo(() => there && { here, there, turnedOver }, [here, there, turnedOver]);
  const [answered, setAnswered] = useState<{ of: OverAsked; laid: OverAnswer } | null>(null);
  useEffect(() => {
    if (!asked) return;
    const worker = new Worker(new URL('./over.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<OverAnswer>) =>
      setAnswered({ of: asked, laid: data });
    worker.postMessage(asked satisfies OverAsked);
    return () => worker.terminate();
  }, [asked]);
  if (!asked) return null;
  return answered?.of === asked ? answered.laid : 'laying';
}
