import pLimit from 'p-limit';
import type { Request, RequestHandler, Response } from 'express';

/** Where a secret is tried: a phrase, a PIN, a code, a passkey. */
const SECRETS = /^\/(sign-in|first|passkey|join(\/[^/]*)?)(\.data)?$/;

/** Requests that are answered at once, and those that may wait for their turn. */
const AT_ONCE = 2;
const MAX_WAITING = 200;

/** Longest that an answer holds its place, ms: a line that has gone silent keeps nobody waiting. */
const HELD_MS = 2000;

/** Resolves once all of a body has come in; it is then read by whoever comes next, as ever. */
const arrived = (request: Request): Promise<void> =>
  new Promise((done) => {
    const chunks: Buffer[] = [];
    let missing = Number(request.headers['content-length'] ?? 0);
    if (missing === 0) return done();
    const read = () => {
      for (let chunk: Buffer | null; (chunk = request.read() as Buffer | null);) {
        chunks.push(chunk);
        missing -= chunk.length;
      }
      if (missing > 0) return;
      request.off('readable', read);
      request.unshift(Buffer.concat(chunks));
      done();
    };
    request.on('readable', read);
  });

const answered = (response: Response): Promise<void> =>
  new Promise((done) => {
    const late = setTimeout(done, HELD_MS);
    response.once('close', () => {
      clearTimeout(late);
      done();
    });
  });

/**
 * Tries of secrets, a few at a time, whoever sends them: each takes the database and a core, and
 * what others read goes on between them. A lane for each way in, so that nobody on the network holds
 * up who sits at the machine. A request takes its place when all of it has arrived.
 */
export function secretsLane(): RequestHandler {
  const lane = pLimit(AT_ONCE);
  return (request, response, next) => {
    if (request.method !== 'POST' || !SECRETS.test(request.path)) return next();
    void arrived(request).then(() => {
      // Asked when it has arrived: of many that come together none is waiting before.
      if (lane.pendingCount >= MAX_WAITING) {
        response.set({ 'Retry-After': '5', Connection: 'close' }).status(503).type('text/plain');
        response.send('Many are signing in at once. Wait a moment, then try again.\n');
        return;
      }
      void lane(() => {
        if (response.closed) return;
        next();
        return answered(response);
      });
    });
  };
}
