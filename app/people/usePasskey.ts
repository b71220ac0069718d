import {
  browserSupportsWebAuthn,
  startAuthentication,
  startRegistration,
} from '@simplewebauthn/browser';
import { useCallback, useSyncExternalStore } from 'react';

/**
 * Whether this browser makes passkeys for this address: it does for names, over a line that is
 * sealed or this machine’s own.
 */
const can = (): boolean =>
  browserSupportsWebAuthn() && window.isSecureContext && !/^[\d.]+$|^\[/.test(location.hostname);
const never = () => () => undefined;

async function asked(body: object): Promise<{ message?: string }> {
  const answer = await fetch('/passkey', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  }).catch(() => null);
  if (!answer) return { message: 'No answer from the server: try again.' };
  const said = (await answer.json().catch(() => ({}))) as { message?: string };
  return answer.ok ? said : { message: said.message ?? 'The server would not have it: try again.' };
}

/** Why no passkey came of it, in words. */
function whyNot(error: unknown): string {
  const name = error instanceof Error ? error.name : '';
  if (name === 'InvalidStateError') return 'This device has a passkey for you already.';
  if (name === 'NotAllowedError' || name === 'AbortError')
    return 'No passkey was given. Try again, or use the pass phrase.';
  return 'This browser could not do it. Use the pass phrase.';
}

export type Passkey = {
  can: boolean;
  /** Has one made; its answer for the server, or why there is none. */
  make: (
    want: { want: 'make' } | { want: 'first'; name: string },
  ) => Promise<{ answer: string } | { message: string }>;
  /** Signs in with one; null when it is done, else why not. */
  enter: (stays: boolean) => Promise<string | null>;
};

/** Passkeys of this browser. */
export function usePasskey(): Passkey {
  const able = useSyncExternalStore(never, can, () => false);
  const make = useCallback<Passkey['make']>(async (want) => {
    try {
      const options = await asked(want);
      if (options.message !== undefined) return { message: options.message };
      return { answer: JSON.stringify(await startRegistration({ optionsJSON: options as never })) };
    } catch (error) {
      return { message: whyNot(error) };
    }
  }, []);
  const enter = useCallback<Passkey['enter']>(async (stays) => {
    try {
      const options = await asked({ want: 'enter' });
      if (options.message !== undefined) return options.message;
      const answer = await startAuthentication({ optionsJSON: options as never });
      return (await asked({ want: 'entered', answer, stays })).message ?? null;
    } catch (error) {
      return whyNot(error);
    }
  }, []);
  return { can: able, make, enter };
}
