import { useState } from 'react';
import { isRouteErrorResponse } from 'react-router';

/** What the server answers, or null while it does not; what it refuses is passed on. */
export async function unlessAway<T>(load: () => Promise<T>): Promise<T | null> {
  try {
    return await load();
  } catch (error) {
    if (isRouteErrorResponse(error)) throw error;
    return null;
  }
}

/** What a page was last loaded with: it stands on that while the server does not answer. */
export function useLast<T>(now: T | null): T | null {
  const [known, setKnown] = useState(now);
  if (now !== null && now !== known) setKnown(now);
  return now ?? known;
}
