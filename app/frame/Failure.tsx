import { useEffect, useState } from 'react';
import { isRouteErrorResponse } from 'react-router';
import { Lost } from './Lost';

type Standing = 'asking' | 'ok' | 'server' | 'database';

const KEPT = 'Nothing you saved is lost; what you were typing on a card is kept in this browser.';

/**
 * A page that could not be shown for a reason nobody foresaw: what failed is found out and said, be it the server, its
 * database, or the page itself.
 */
export function Failure({ error }: { error: unknown }) {
  const [standing, setStanding] = useState<Standing>('asking');
  useEffect(() => {
    let here = true;
    const tell = (found: Standing) => here && setStanding(found);
    fetch('/health').then(
      (answer) => tell(answer.ok ? 'ok' : 'database'),
      () => tell('server'),
    );
    return () => {
      here = false;
    };
  }, []);
  if (standing === 'server')
    return <Lost title="The server does not answer" text={`Is it still running? ${KEPT} Try again in a moment.`} />;
  if (standing === 'database')
    return <Lost title="The database does not answer" text={`The server runs, but without its database it can show nothing. ${KEPT} Try again in a moment.`} />; // prettier-ignore
  const what = isRouteErrorResponse(error)
    ? `The server answered ${error.status}${error.statusText ? ` (${error.statusText})` : ''}.`
    : error instanceof Error
      ? `It stopped at: ${error.message}.`
      : '';
  return (
    <Lost
      title="This page could not be shown"
      text={`${what} ${standing === 'ok' ? 'The server and its database answer, so the fault is in this page.' : ''} ${KEPT}`}
    />
  );
}
