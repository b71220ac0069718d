import { useCallback, useEffect, useMemo, useRef } from 'react';
import { useRevalidator } from 'react-router';
import type { Post } from '../../forms/usePost';
import type { EdgeRecord, KeptReading, Quarrel } from './keptReading';
import type { ReadingClash } from '#core/fit/mergeReadings';
import { keep, letGo, quarrel, refused, takenMeanwhile, toBeSent } from './keptReadings';

/** How long to wait before readings that did not reach the server are sent again. */
const AGAIN_MS = 3000;

export type Readings = {
  /** Puts down what was read along an edge at a trial, and what that was made from. */
  put: (fit: string, record: EdgeRecord, before: EdgeRecord | null, of: KeptReading['of']) => void;
  /** Sends what waits after somebody has settled it. */
  flush: () => void;
  /** How trials and readings of the piece are sent. */
  post: Post;
};

/**
 * Puts readings of trials that the server has (`fits`) down: each is kept in the browser first,
 * then sent, one request at a time and always the newest of an edge, again and again until the
 * server has it or says why it will not. What an earlier page could not send goes with it, and what
 * was read at a trial that waited for the server once that is there.
 */
export function useReadings(fits: readonly { id: string }[], post: Post): Readings {
  const { ask } = post;
  const known = useRef(fits);
  // The page before this one may have heard of its last reading while this one was on its way.
  const { revalidate } = useRevalidator();
  const looked = useRef(false);
  useEffect(() => {
    // Once, as the page begins: from then on it hears itself.
    if (!looked.current && takenMeanwhile()) void revalidate();
    looked.current = true;
  }, [revalidate]);
  const busy = useRef(false);
  const retry = useRef<() => void>(() => undefined);
  const again = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);

  const flush = useCallback(async (): Promise<void> => {
    clearTimeout(again.current);
    if (busy.current) return;
    busy.current = true;
    for (let next = toBeSent(known.current)[0]; next; next = toBeSent(known.current)[0]) {
      const answer = await ask({
        intent: 'edge',
        id: next.fit,
        edge: next.record,
        since: next.since,
      });
      if (answer === 'unanswered') break;
      if (answer === 'taken') letGo(next.fit, next.record);
      else {
        const found = answer.now as
          | (Omit<Quarrel, 'there' | 'disputed'> & { edge: EdgeRecord; clashes: ReadingClash[] })
          | undefined;
        if (!found) refused(next.fit, next.record.edge, answer.message);
        else {
          const { edge: there, clashes, elsewhere, by } = found;
          quarrel(next.fit, next.record, { there, disputed: clashes, elsewhere, by });
        }
      }
    }
    busy.current = false;
    if (toBeSent(known.current).length > 0)
      again.current = setTimeout(() => retry.current(), AGAIN_MS);
  }, [ask]);

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

  useEffect(() => {
    known.current = fits;
    retry.current();
  }, [fits]);

  const put = useCallback(
    (fit: string, record: EdgeRecord, before: EdgeRecord | null, of: KeptReading['of']) => {
      keep(fit, record, before, of);
      void flush();
    },
    [flush],
  );
  return useMemo(() => ({ put, flush: () => void flush(), post }), [put, flush, post]);
}
