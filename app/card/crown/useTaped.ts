import { useEffect, useMemo, useRef, useState } from 'react';
import type { PatternDoc } from '#core/card/pattern';
import { paperOf } from '#core/card/tapedCard';
import type { Problem } from '#core/measure/result';
import type { Taped } from '#core/surface/packed';
import type { TapeAnswer } from './taping';

/**
 * The surface under a card with tucks, set up in a worker once it is wanted: null while it is on
 * its way, and where there is none.
 */
export function useTaped(
  pattern: PatternDoc,
  wanted: boolean,
): { taped: Taped | null; problems: Problem[]; busy: boolean } {
  const [found, setFound] = useState<{ key: string; answer: TapeAnswer } | null>(null);
  const worker = useRef<Worker | null>(null);
  const key = useMemo(
    () => (wanted && pattern.tucks.length > 0 ? JSON.stringify(paperOf(pattern)) : null),
    [pattern, wanted],
  );
  useEffect(() => {
    if (!key) return;
    const own = new Worker(new URL('./tape.worker.ts', import.meta.url), { type: 'module' });
    worker.current = own;
    const refused = () =>
      setFound({ key, answer: { what: 'refused', problems: [{ code: 'taped-fine', about: [] }] } });
    own.onmessage = ({ data }: MessageEvent<TapeAnswer>) => setFound({ key, answer: data });
    own.onerror = refused;
    own.postMessage(JSON.parse(key));
    return () => own.terminate();
  }, [key]);
  const answer = key && found?.key === key ? found.answer : null;
  return {
    taped: answer?.what === 'taped' ? answer.taped : null,
    problems: answer?.what === 'refused' ? answer.problems : [],
    busy: key !== null && answer === null,
  };
}
