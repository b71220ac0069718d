import { createContext } from 'react-router';

/**
 * Why something could not be done that was asked rightly, or could not be kept as it was sent: what
 * to answer, and what to say.
 */
export type Trouble = { status: 400 | 503 | 507; message: string };

const FULL: Trouble = {
  status: 507,
  message:
    'The disk is full: nothing was saved. What you typed is still here; make room and try again.',
};
const AWAY: Trouble = {
  status: 503,
  message: 'The database does not answer. What you typed is still here: try again in a moment.',
};
/** A sign or a figure that no database keeps: what checks what was sent let it through. */
const UNFIT: Trouble = {
  status: 400,
  message:
    'What was sent holds a sign or a figure that cannot be kept. Nothing was stored: take it out and try again.',
};
const BUSY: Trouble = {
  status: 503,
  message: 'Somebody else is writing there. What you typed is still here: try again in a moment.',
};

/**
 * What PostgreSQL and its driver call it (Appendix A of its manual), and what it is to whoever
 * asked.
 */
const CODES: Record<string, Trouble> = {
  '53100': FULL,
  ENOSPC: FULL,
  '53300': BUSY,
  '55P03': BUSY,
  '57014': BUSY,
  '40P01': BUSY,
  '57P01': AWAY,
  '57P02': AWAY,
  '57P03': AWAY,
  ECONNREFUSED: AWAY,
  ECONNRESET: AWAY,
  EPIPE: AWAY,
  '22001': UNFIT,
  '22003': UNFIT,
  '22007': UNFIT,
  '22008': UNFIT,
  '22021': UNFIT,
  '22P02': UNFIT,
  '22P05': UNFIT,
  '23514': UNFIT,
};

/** What the driver says, without a code, of a database that is away. */
const AWAY_SAID =
  /^Connection terminated|^timeout exceeded when trying to connect|^Client has encountered a connection error|^connect ECONN/;

/**
 * What stood in the way, where it was the disk or the database; the query builder wraps what the
 * driver said.
 */
export function troubleIn(error: unknown): Trouble | null {
  // From a worker what it threw comes as plain data.
  if (typeof error !== 'object' || error === null) return null;
  const { code, message, cause } = error as { code?: unknown; message?: unknown; cause?: unknown };
  if (typeof code === 'string' && CODES[code]) return CODES[code];
  if (AWAY_SAID.test(String(message))) return AWAY;
  if (error instanceof AggregateError) return troubleIn(error.errors[0]);
  return troubleIn(cause);
}

/** What stood in the way of the request that is being answered. */
export const troubleMet = createContext<Trouble | null>(null);

/**
 * The answer to a request that trouble stood in the way of: as it was made, not as a fault of ours;
 * a page stays a page.
 */
export function toldInstead(answer: Response, { status, message }: Trouble): Response {
  const { headers } = answer;
  const isPage =
    headers.get('Content-Type')?.startsWith('text/html') || headers.has('X-Remix-Response');
  return isPage
    ? new Response(answer.body, { status, headers })
    : Response.json({ message }, { status });
}
