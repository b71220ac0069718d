import { useCallback, useEffect, useRef } from 'react';
import type { FitRecord } from '#core/format/job';
import type { Post } from '../forms/usePost';
import { keep, keptRecords, letGo } from './keptReadings';

type EdgeRecord = FitRecord['edges'][number];

/** How long to wait before readings that did not reach the server are sent again. */
const AGAIN_MS = 3000;

/**
 * Puts readings down: each is kept in the browser first, then sent, one request at a time and always the newest of an
 * edge, again and again until the server has it. What an earlier page could not send goes with it.
 */
export function useReadings(fits: readonly { id: string }[], post: Post): (fit: string, record: EdgeRecord) => void {
  const { send } = post;
  const known = useRef(fits);
  useEffect(() => {
    known.current = fits;
  }, [fits]);
  const busy = useRef(false);
  const retry = useRef<() => void>(() => undefined);
  const again = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);

  const flush = useCallback(async (): Promise<void> => {
    clearTimeout(again.current);
    if (busy.current) return;
    busy.current = true;
    for (let next = keptRecords(known.current)[0]; next; next = keptRecords(known.current)[0]) {
      const taken = await send({ intent: 'edge', id: next.fit, edge: next.record });
      if (!taken) break;
      letGo(next.fit, next.record);
    }
    busy.current = false;
    if (keptRecords(known.current).length > 0) again.current = setTimeout(() => retry.current(), AGAIN_MS);
  }, [send]);

  useEffect(() => {
    retry.current = () => void flush();
    const opening = setTimeout(() => void flush(), 0);
    const online = () => void flush();
    window.addEventListener('online', online);
    return () => {
      clearTimeout(opening);
      clearTimeout(again.current);
      window.removeEventListener('online', online);
    };
  }, [flush]);

  return useCallback(
    (fit, record) => {
      keep(fit, record);
      void flush();
    },
    [flush],
  );
}
