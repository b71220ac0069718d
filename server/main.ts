import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { createRequestHandler } from '@react-router/express';
import compression from 'compression';
import express from 'express';
import staticCompressed from 'express-static-gzip';
import helmet from 'helmet';
import pino from 'pino';
import type { ServerBuild } from 'react-router';
import { refusal } from './guard';

const log = pino({ level: process.env.LOG_LEVEL ?? 'warn' });
const port = Number(process.env.PORT ?? 4170);
const root = process.cwd();
const entry = resolve(root, 'build/server/index.js');
if (!existsSync(entry)) {
  console.error('The application is not built: run ./patrone start, which builds it.');
  process.exit(1);
}

const build = (await import(pathToFileURL(entry).href)) as ServerBuild;
const app = express();
app.disable('x-powered-by');
app.use(
  helmet({
    contentSecurityPolicy: {
      directives: {
        // The framework starts the page with small inline scripts, and the style library writes style tags.
        // Scans are thinned in a worker by compiled code that ships with the application.
        'script-src': ["'self'", "'unsafe-inline'", "'wasm-unsafe-eval'"],
        'style-src': ["'self'", "'unsafe-inline'"],
        'img-src': ["'self'", 'data:', 'blob:'],
        'upgrade-insecure-requests': null,
      },
    },
    strictTransportSecurity: false,
  }),
);
/** Of what is refused so much is let run out, bytes, and no longer than this, ms. */
const [LET_RUN_OUT, LET_RUN_OUT_MS] = [32 * 1024 ** 2, 3000];
app.use((request, response, next) => {
  const refused = refusal({
    method: request.method,
    path: request.path,
    host: request.headers.host,
    origin: request.headers.origin,
    contentLength: request.headers['content-length'],
    transferEncoding: request.headers['transfer-encoding'],
  });
  if (!refused) return next();
  const answer = () => {
    if (response.headersSent) return;
    response.set('Connection', 'close').status(refused.status).json({ message: refused.message });
  };
  // Who is still sending hears nothing of an answer when the line is cut: what is little is let run out, unread.
  if (Number(request.headers['content-length'] ?? 0) > LET_RUN_OUT) return answer();
  request.on('end', answer).on('error', answer).resume();
  setTimeout(answer, LET_RUN_OUT_MS).unref();
});
const isHere = ({ socket }: { socket: { remoteAddress?: string } }) =>
  /^(127\.|::1$|::ffff:127\.)/.test(socket.remoteAddress ?? '');
const built = (folder: string, serveStatic: object) =>
  staticCompressed(resolve(root, folder), {
    enableBrotli: true,
    orderPreference: ['br', 'gz'],
    index: false,
    serveStatic,
  });
const rootFiles = built('build/client', { maxAge: '1h' });
app.use('/assets', built('build/client/assets', { immutable: true, maxAge: '1y' }));
// A file of an older build, wanted by a page that was open over an update: gone, and no page of the application.
app.use('/assets', (_request, response) => void response.status(404).type('text/plain').send('Not here any more.'));
// Only what can be one of the few files at the root is looked for on the disk: every page would be, otherwise.
app.use(/^\/[^/]+\.(svg|png|ico|txt|webmanifest)$/, (request, response, next) => {
  request.url = request.originalUrl;
  rootFiles(request, response, next);
});
// A browser on this machine gains nothing by it, and everybody waits for it.
app.use(compression({ filter: (request, response) => !isHere(request) && compression.filter(request, response) }));
app.use(createRequestHandler({ build, mode: 'production' }));

const server = app.listen(port, '127.0.0.1', (error?: Error) => {
  if (error) {
    const busy = (error as NodeJS.ErrnoException).code === 'EADDRINUSE';
    console.error(
      busy
        ? `Port ${port} is taken by another program. Set PATRONE_PORT to a free one and run again.`
        : String(error),
    );
    process.exit(1);
  }
  log.info({ port }, 'serving');
});

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    server.close(() => process.exit(0));
    server.closeAllConnections();
  });
}
