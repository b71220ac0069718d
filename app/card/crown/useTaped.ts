import { useMemo, useState } from 'react';
import type { PatternDoc } from '#core/card/pattern';
import { paperOf } from '#core/card/tapedCard';
import type { Problem } from '#core/measure/result';
import type { Taped } from '#core/surface/mesh/packed';
import { usePageWorker } from '../../workers/pageWorker';
import type { TapeAnswer } from './taping';

const begun = () => new Worker(new URL('./tape.worker.ts', import.meta.url), { type: 'module' });

/**
 * The surface under a card with tucks, set up in a worker once it is wanted: null while it is on
 * its way, and where there is none.
 */
export function useTaped(
  pattern: PatternDoc,
  wanted: boolean,
): { taped: Taped | null; problems: Problem[]; busy: boolean } {
  type Paper = ReturnType<typeof paperOf>;
  const [found, setFound] = useState<{ of: Paper; answer: TapeAnswer } | null>(null);
  const key = useMemo(
    () => (wanted && pattern.tucks.length > 0 ? JSON.stringify(paperOf(pattern)) : null),
    [pattern, wanted],
  );
  const paper = useMemo(() => (key === null ? null : (JSON.parse(key) as Paper)), [key]);
  usePageWorker<Paper, TapeAnswer>(
    begun,
    paper,
    (answer, of) => setFound({ of, answer }),
    (of) => setFound({ of, answer: { what: 'refused', problems: [{ code: 'worker-failed' }] } }),
  );
  const answer = paper && found?.of === paper ? found.answer : null;
  return {
    taped: answer?.what === 'taped' ? answer.taped : null,
    problems: answer?.what === 'refused' ? answer.problems : [],
    busy: paper !== null && answer === null,
  };
}
