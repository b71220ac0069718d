import { useEffect, useRef } from 'react';
import type { Post } from './usePost';

/**
 * Delay between the last change and sending, and before a server that did not answer is tried
 * again, ms.
 */
const [SEND_AFTER_MS, RETRY_MS] = [450, 4000];

/**
 * Sends a draft by itself when the hand rests, and at once when what shows it goes away. What is
 * refused waits for the user. `said` is the draft in a word: only when it changes is there anything
 * new to send.
 */
export function useSelfSending(
  kept: boolean,
  said: string,
  { state, refusal }: Pick<Post, 'state' | 'refusal'>,
  send: () => void,
): void {
  const latest = useRef(send);
  const waits = useRef(false);
  useEffect(() => {
    latest.current = send;
  });
  useEffect(() => {
    waits.current = kept && !refusal && state !== 'busy';
    if (!waits.current) return;
    const sending = setTimeout(
      () => latest.current(),
      state === 'failed' ? RETRY_MS : SEND_AFTER_MS,
    );
    return () => clearTimeout(sending);
  }, [kept, said, refusal, state]);
  useEffect(() => {
    const now = () => {
      if (waits.current) latest.current();
    };
    // A page that is left for another one, or closed, is not taken down: it is only hidden.
    window.addEventListener('pagehide', now);
    return () => {
      window.removeEventListener('pagehide', now);
      now();
    };
  }, []);
}
