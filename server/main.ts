import type { Server, ServerResponse } from 'node:http';
import { createServer } from 'node:https';
import { resolve } from 'node:path';
import { createRequestHandler } from '@react-router/express';
import compression from 'compression';
import express from 'express';
import type { Express, RequestHandler } from 'express';
import staticCompressed from 'express-static-gzip';
import helmet from 'helmet';
import * as build from 'virtual:react-router/server-build';
import { networkNames, networkPort, tlsFiles } from '#app/frame/network.server';
import type { Served } from './guard';
import { LOOPBACK, refusal } from './guard';
import { logged, openLog } from './requestLog';
import { secretsLane } from './secretsLane';

const log = openLog();
const port = Number(process.env.PORT ?? 4170);
const root = process.cwd();
/**
 * What the application is told of the line a request came over, under names that nobody else can
 * use.
 */
const [FROM, SECURE, DATA] = ['x-patrone-from', 'x-patrone-secure', 'x-patrone-data'];
/** Maximum part of a refused request that is read to its end, bytes, and the time for it, ms. */
const [LET_RUN_OUT, LET_RUN_OUT_MS] = [32 * 1024 ** 2, 3000];

/** Longest that a line may say nothing while something is asked or answered, ms. */
const LONGEST_BODY_MS = 120_000;

/** The door, the same for every address, as it is reached here. */
const door =
  (served: () => Served): RequestHandler =>
  (request, response, next) => {
    const to = served();
    for (const name of Object.keys(request.headers))
      if (name.startsWith('x-patrone-')) delete request.headers[name];
    request.headers[FROM] = request.socket.remoteAddress ?? 'unknown';
    request.headers[SECURE] = to.secure ? 'yes' : 'no';
    request.headers[DATA] = request.path.endsWith('.data') ? 'yes' : 'no';
    const refused = refusal(
      {
        method: request.method,
        target: request.originalUrl,
        path: request.path,
        host: request.headers.host,
        origin: request.headers.origin,
        contentLength: request.headers['content-length'],
        transferEncoding: request.headers['transfer-encoding'],
      },
      to,
    );
    if (!refused) {
      // A job file may take as long as it keeps coming, or being written (both look to that themselves).
      if (!/^\/take-in$|\/file$/.test(request.path))
        request.setTimeout(LONGEST_BODY_MS, () => request.destroy());
      return next();
    }
    const answer = () => {
      if (response.headersSent) return;
      response.set('Connection', 'close').status(refused.status).json({ message: refused.message });
    };
    // Who is still sending hears nothing of an answer when the line is cut: what is little is let
    // run out, unread.
    if (Number(request.headers['content-length'] ?? 0) > LET_RUN_OUT) return answer();
    request.on('end', answer).on('error', answer).resume();
    setTimeout(answer, LET_RUN_OUT_MS).unref();
  };

const isHere = ({ socket }: { socket: { remoteAddress?: string } }) =>
  /^(127\.|::1$|::ffff:127\.)/.test(socket.remoteAddress ?? '');
const built = (folder: string, serveStatic: object) =>
  staticCompressed(resolve(root, folder), {
    enableBrotli: true,
    orderPreference: ['br', 'gz'],
    index: false,
    serveStatic,
  });
const rootFiles = built('build/client', {
  maxAge: '1h',
  // What keeps the others must itself be asked for each time.
  setHeaders: (response: ServerResponse, path: string) => {
    if (/sw\.js(\.br|\.gz)?$/.test(path)) response.setHeader('Cache-Control', 'no-cache');
  },
});
const handled = createRequestHandler({ build, mode: 'production' });

/** The application as it is reached at one address. */
function reached(served: () => Served): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    helmet({
      // Pages say their own, with what they begin with by name (entry.server); for files this is
      // all.
      contentSecurityPolicy: false,
      // To nobody else; to ourselves it goes, or what a form posts would come from nowhere.
      referrerPolicy: { policy: 'same-origin' },
      frameguard: { action: 'deny' },
      // A browser that was told so would let nobody past the warning about a certificate of one’s
      // own.
      strictTransportSecurity: false,
    }),
  );
  // Nothing of this machine or phone is wanted but what its user hands over (OWASP Secure Headers).
  app.use((_request, response, next) => {
    response.set(
      'Permissions-Policy',
      'accelerometer=(), camera=(), display-capture=(), geolocation=(), gyroscope=(), microphone=(), payment=(), usb=()',
    );
    next();
  });
  app.use(door(served));
  app.use(logged(log));
  app.use('/assets', built('build/client/assets', { immutable: true, maxAge: '1y' }));
  // A file of an older build, wanted by a page that was open over an update: gone, and no page of
  // the application.
  app.use(
    '/assets',
    (_request, response) => void response.status(404).type('text/plain').send('Not here any more.'),
  );
  // Only what can be one of the few files at the root is looked for on the disk: every page would
  // be, otherwise.
  app.use(/^\/(sw\.js|[^/]+\.(svg|png|ico|txt|webmanifest))$/, (request, response, next) => {
    request.url = request.originalUrl;
    rootFiles(request, response, next);
  });
  // A browser on this machine gains nothing by it, and everybody waits for it.
  const compressed = compression();
  app.use((request, response, next) =>
    isHere(request) ? next() : compressed(request, response, next),
  );
  app.use(secretsLane());
  app.use(handled);
  return app;
}

const taken = (at: number, setting: string) => (error?: Error) => {
  if (!error) return log.info({ port: at }, 'serving');
  const busy = (error as NodeJS.ErrnoException).code === 'EADDRINUSE';
  console.error(
    busy
      ? `Port ${at} is taken by another program. Set ${setting} to a free one and run again.`
      : String(error),
  );
  process.exit(1);
};

const servers: Server[] = [
  reached(() => LOOPBACK).listen(port, '127.0.0.1', taken(port, 'PATRONE_PORT')),
];

// On the shop's network only where ./patrone was told so, and only over TLS.
const tls = tlsFiles();
if (tls) {
  const server = createServer(
    { ...tls, minVersion: 'TLSv1.2' },
    reached(() => ({ secure: true, names: networkNames() })),
  );
  server.on('error', taken(networkPort(), 'PATRONE_NETWORK_PORT'));
  servers.push(
    server.listen(networkPort(), '0.0.0.0', () => taken(networkPort(), 'PATRONE_NETWORK_PORT')()),
  );
}

// Looked to by what reads it: the longest that may come in takes hours on a slow line.
for (const server of servers) server.requestTimeout = 0;

/** What is under way when the server is told to stop may take this long to end, ms. */
const LAST_REQUESTS_MS = 10_000;

/** Stops listening, lets what is under way end, then goes. */
async function goodbye(): Promise<void> {
  setTimeout(() => process.exit(0), LAST_REQUESTS_MS).unref();
  // Lines that are kept open for a next request have none to wait for.
  const idle = setInterval(() => servers.forEach((server) => server.closeIdleConnections()), 50);
  await Promise.all(servers.map((server) => new Promise((done) => server.close(done))));
  clearInterval(idle);
  process.exit(0);
}

let leaving = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    if (!leaving) void goodbye();
    leaving = true;
  });
