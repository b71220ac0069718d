import { randomBytes } from 'node:crypto';
import { renameSync } from 'node:fs';
import type { RequestHandler } from 'express';
import pino from 'pino';

/** A log is begun anew when it has come to this, bytes; the one before it stays beside it. */
const MAX_BYTES = 10 * 1024 ** 2;

/** The name of the header under which the application hears of a request’s id. */
const REQUEST_ID = 'x-patrone-request';

/**
 * The log of the server: lines of JSON in the file that PATRONE_LOG names, else on the error output;
 * of the level that LOG_LEVEL names (info).
 */
export function openLog(): pino.Logger {
  const path = process.env.PATRONE_LOG;
  const level = process.env.LOG_LEVEL ?? 'info';
  const settings = { level, base: null, timestamp: pino.stdTimeFunctions.isoTime };
  if (!path)
    return pino({ ...settings, level: process.env.LOG_LEVEL ?? 'warn' }, pino.destination(2));
  const file = pino.destination({ dest: path, mkdir: true, append: true, sync: true, mode: 0o600 });
  let bytes = 0;
  const counted = {
    write(line: string) {
      file.write(line);
      bytes += line.length;
      if (bytes < MAX_BYTES) return;
      bytes = 0;
      renameSync(path, `${path}.1`);
      file.reopen();
    },
  };
  return pino(settings, counted);
}

/** The kind of address that was asked for: ids are left out of it, and what was searched for. */
export const routeOf = (path: string): string =>
  path.replace(/[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}/gi, ':id').slice(0, 200);

/** Writes a line for every request when it has been answered, or was given up by whoever asked. */
export const logged =
  (log: pino.Logger): RequestHandler =>
  (request, response, next) => {
    const start = performance.now();
    const id = randomBytes(6).toString('hex');
    request.headers[REQUEST_ID] = id;
    response.once('close', () => {
      const { statusCode: status, writableFinished } = response;
      const line = {
        id,
        method: request.method,
        route: routeOf(request.originalUrl.split('?')[0]!),
        status: writableFinished ? status : 'given up',
        ms: Math.round(performance.now() - start),
      };
      if (writableFinished && status >= 500) log.error(line, 'fault');
      else if (/^\/(health|assets\/)/.test(line.route)) log.debug(line, 'answered');
      else log.info(line, 'answered');
    });
    next();
  };
