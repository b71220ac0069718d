import { useEffect, useState } from 'react';
import { isRouteErrorResponse } from 'react-router';
import { Lost } from './Lost';

/**
 * What was found out: nothing yet, that all answers, that the server does not, or what it says is
 * wrong.
 */
type Standing = 'asking' | 'ok' | 'server' | { wrong: string };

const KEPT =
  'Nothing you saved is lost; what you were typing on a card is kept in this browser, where its store has room.';

/**
 * A page that could not be shown for a reason nobody foresaw: what failed is found out and said, be
 * it the server, its database, or the page itself.
 */
export function Failure({ error }: { error: unknown }) {
  const [standing, setStanding] = useState<Standing>('asking');
  useEffect(() => {
    let here = true;
    const tell = (found: Standing) => here && setStanding(found);
    fetch('/health').then(
      async (answer) => tell(answer.ok ? 'ok' : { wrong: await answer.text() }),
      () => tell('server'),
    );
    return () => {
      here = false;
    };
  }, []);
  if (standing === 'server')
    return (
      <Lost
        title="The server does not answer"
        text={`It starts itself again, after a few seconds or, where it keeps stopping, after five minutes at most. ${KEPT}`}
      />
    );
  if (typeof standing === 'object')
    return <Lost title="The server runs, but" text={`${standing.wrong} ${KEPT}`} />;
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
