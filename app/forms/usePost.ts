import { useCallback, useState } from 'react';

export type Post = {
  /** Sends a record; true once the server has it. What was typed stays with the caller until then. */
  send: (body: object) => Promise<boolean>;
  state: 'idle' | 'busy' | 'failed';
  /** What to tell the user when it did not go through. */
  problem: string | null;
};

/** Posts a record to the server without leaving the page; what the server answers, the records as they are now, is handed on. */
export function usePost<Answer>(url: string, took: (answer: Answer) => void): Post {
  const [state, setState] = useState<Post['state']>('idle');
  const [problem, setProblem] = useState<string | null>(null);
  const send = useCallback(
    async (body: object): Promise<boolean> => {
      setState('busy');
      const fail = (said: string) => {
        setState('failed');
        setProblem(said);
        return false;
      };
      try {
        const response = await fetch(url, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify(body),
          // Goes through even when the page is closed or loaded again meanwhile.
          keepalive: true,
        });
        if (response.status >= 400 && response.status < 500) {
          const said = (await response.json().catch(() => ({}))) as { message?: string };
          return fail(said.message ?? 'The server would not take it. What you typed is still here.');
        }
        if (!response.ok) return fail('The server could not take it. What you typed is still here: try again.');
        const answer = (await response.json().catch(() => null)) as Answer | null;
        if (answer !== null) took(answer);
      } catch {
        return fail('No answer from the server. What you typed is still here: try again.');
      }
      setState('idle');
      setProblem(null);
      return true;
    },
    [took, url],
  );
  return { send, state, problem };
}
