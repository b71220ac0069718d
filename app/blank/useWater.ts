import { useMemo, useState } from 'react';
import type { Development } from '#core/blank/fold/developed';
import type { FallRemedy, Water, WaterAsked } from '#core/blank/fold/water/water';
import { waterOn } from '#core/blank/fold/water/water';
import type { Result } from '#core/measure/result';
import type { FallAnswer, FallAsked } from './fall.worker';
import type { useFolding } from '../folding/useFolding';
import { usePageWorker } from '../workers/pageWorker';

const begun = () => new Worker(new URL('./fall.worker.ts', import.meta.url), { type: 'module' });

export type Watered = {
  saved: ReturnType<typeof useFolding>;
  /** Null where it is not said how the piece lies. */
  water: Result<{ water: Water }> | null;
  /**
   * What makes it fall, each tried in a worker; null where nothing has to be mended, or while it is
   * being tried.
   */
  remedies: FallRemedy[] | 'trying' | 'failed' | null;
};

/** Where rain runs on the piece as it is said to lie; only while that is `wanted`. */
export function useWater(
  development: Development,
  saved: Watered['saved'],
  wanted: boolean,
): Watered {
  const { lies, drains, fallDeg } = saved.draft;
  const said = JSON.stringify(lies && { lies, drains, fallDeg });
  const asked = useMemo(() => JSON.parse(said) as WaterAsked | null, [said]);
  const water = useMemo(
    () => (wanted && asked ? waterOn(development, asked) : null),
    [development, asked, wanted],
  );
  const mend = water?.ok === true && !water.water.dry ? asked : null;
  const question = useMemo(
    (): FallAsked | null => mend && JSON.stringify({ development, asked: mend }),
    [development, mend],
  );
  const [tried, setTried] = useState<{ of: FallAsked; found: FallRemedy[] | 'failed' } | null>(
    null,
  );
  usePageWorker<FallAsked, FallAnswer>(
    begun,
    question,
    (found, of) => setTried({ of, found }),
    (of) => setTried({ of, found: 'failed' }),
  );
  const found = tried && tried.of === question ? tried.found : 'trying';
  return { saved, water, remedies: mend ? found : null };
}
