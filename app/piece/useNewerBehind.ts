import { useEffect, useRef } from 'react';
import { useLocation, useRevalidator } from 'react-router';

/** What was loaded or asked for within this is new enough, ms. */
const NEW_MS = 2000;
/** The stop that was gone to is shown first, ms. */
const AFTER_MS = 250;

/** After each change of stop asks behind whether the server has anything newer of the piece. */
export function useNewerBehind(): void {
  const { pathname } = useLocation();
  const { revalidate } = useRevalidator();
  const known = useRef<{ at: number; pathname: string } | null>(null);
  useEffect(() => {
    const last = known.current;
    known.current ??= { at: Date.now(), pathname };
    if (!last || last.pathname === pathname || Date.now() - last.at < NEW_MS) return;
    const asking = setTimeout(() => {
      known.current = { at: Date.now(), pathname };
      void revalidate();
    }, AFTER_MS);
    return () => clearTimeout(asking);
  }, [pathname, revalidate]);
}
