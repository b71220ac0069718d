import { useCallback, useRef, useState } from 'react';
import { wait, waitsFor } from './outbox';

/** Why the server would not take something: sent again as it is, it would not be taken either. */
export type Refusal = {
  message: string;
  /** The id in what was sent, and what another page has said there meanwhile, where that is why. */
  id?: string;
  now?: unknown;
};

export type Post = {
  /**
   * Sends a record; true once the server has it. What was typed stays with the caller until then.
   */
  send: (body: object) => Promise<boolean>;
  /** The same, telling a refusal from an answer that did not come. */
  ask: (body: object) => Promise<'taken' | 'unanswered' | Refusal>;
  /** What was refused last, while nothing has been sent since. */
  refusal: Refusal | null;
  /**
   * Sends a record that may go in later: true once the server has it, or it waits here for a server
   * that does not answer, behind what waits already (`outbox`). `said`: what it is, `about`: what
   * it belongs to.
   */
  sendOrWait: (body: object, said: string, about: string) => Promise<boolean>;
  state: 'idle' | 'busy' | 'failed';
  /** What to tell the user when it did not go through. */
  problem: string | null;
};

/** Browsers keep no more than 64 kB alive of all that is on its way. */
const KEPT_ALIVE = 16_000;

/** A record is stamped when it is sent; sent again it is the same record. */
const withoutTime = (name: string, value: unknown): unknown => (name === 'at' ? undefined : value);

/**
 * Posts a record to the server without leaving the page; what the server answers, the records as
 * they are now, is handed on.
 */
export function usePost<Answer>(url: string, took: (answer: Answer) => void): Post {
  const [state, setState] = useState<Post['state']>('idle');
  const [problem, setProblem] = useState<string | null>(null);
  const [refusal, setRefusal] = useState<Refusal | null>(null);
  // What did not get an answer may have been written all the same: sent again as it was, it goes
  // under the same key.
  const unanswered = useRef(new Map<string, string>());
  const ask = useCallback<Post['ask']>(
    async (body) => {
      setState('busy');
      setRefusal(null);
      // Of a change the time can be what was changed.
      const said = JSON.stringify(body, 'mine' in body ? undefined : withoutTime);
      const key = unanswered.current.get(said) ?? crypto.randomUUID();
      unanswered.current.set(said, key);
      const fail = (why: string) => {
        setState('failed');
        setProblem(why);
        return 'unanswered' as const;
      };
      const text = JSON.stringify({ ...body, key });
      try {
        const response = await fetch(url, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: text,
          // Goes through even when the page is closed or loaded again meanwhile; of what is larger
          // browsers will have none.
          keepalive: text.length < KEPT_ALIVE,
        });
        if (response.status >= 400 && response.status < 500) {
          unanswered.current.delete(said);
          const answer = (await response.json().catch(() => ({}))) as {
            message?: string;
            now?: unknown;
          } & Answer;
          const {
            message = 'The server would not take it. What you typed is still here.',
            now,
            ...records
          } = answer;
          const refused: Refusal = { message, id: (body as { id?: string }).id, now };
          // What is there instead comes with it.
          took(records as Answer);
          setRefusal(refused);
          fail(message);
          return refused;
        }
        if (!response.ok) {
          const said = (await response.json().catch(() => ({}))) as { message?: string };
          return fail(
            said.message ??
              'The server could not take it. What you typed is still here: try again.',
          );
        }
        const answer = (await response.json().catch(() => null)) as Answer | null;
        if (answer !== null) took(answer);
      } catch {
        return fail('No answer from the server. What you typed is still here: try again.');
      }
      unanswered.current.delete(said);
      setState('idle');
      setProblem(null);
      return 'taken';
    },
    [took, url],
  );
  const send = useCallback<Post['send']>(async (body) => (await ask(body)) === 'taken', [ask]);
  const sendOrWait = useCallback<Post['sendOrWait']>(
    async (body, said, about) => {
      const keyed = JSON.stringify(body, withoutTime);
      const answer = waitsFor(url) ? 'unanswered' : await ask(body);
      if (answer === 'taken') return true;
      if (typeof answer === 'object') return false;
      // Under the key it may have been written by already.
      const key = unanswered.current.get(keyed) ?? crypto.randomUUID();
      unanswered.current.delete(keyed);
      wait({ key, url, body, said, about, at: Date.now() });
      setState('idle');
      setProblem(null);
      return true;
    },
    [ask, url],
  );
  return { send, ask, sendOrWait, state, problem, refusal };
}
