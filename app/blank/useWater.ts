import { useEffect, useMemo, useState } from 'react';
import type { Development } from '#core/blank/fold/developed';
import type { FallRemedy, Water, WaterAsked } from '#core/blank/fold/water/water';
import { waterOn } from '#core/blank/fold/water/water';
import type { Result } from '#core/measure/result';
import type { FallAnswer, FallAsked } from './fall.worker';
import type { useFolding } from '../folding/useFolding';

export type Watered = {
  saved: ReturnType<typeof useFolding>;
  /** Null where it is not said how the piece lies. */
  water: Result<{ water: Water }> | null;
  /**
   * What makes it fall, each tried in a worker; null where nothing has to be mended, or while it is
   * being tried.
   */
  remedies: FallRemedy[] | 'trying' | null;
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
  const [tried, setTried] = useState<{
    of: Development;
    asked: WaterAsked;
    found: FallRemedy[];
  } | null>(null);
  useEffect(() => {
    if (!mend) return;
    const worker = new Worker(new URL('./fall.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<FallAnswer>) =>
      setTried({ of: development, asked: mend, found: data });
    worker.postMessage(JSON.stringify({ development, asked: mend }) satisfies FallAsked);
    return () => worker.terminate();
  }, [development, mend]);
  const found = tried?.of === development && tried.asked === mend ? tried.found : 'trying';
  return { saved, water, remedies: mend ? found : null };
}
