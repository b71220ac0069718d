import { randomBytes } from 'node:crypto';
import { PassThrough } from 'node:stream';
import { text } from 'node:stream/consumers';
import { CacheProvider } from '@emotion/react';
import createEmotionServer from '@emotion/server/create-instance';
import { renderToPipeableStream } from 'react-dom/server';
import type { EntryContext, HandleErrorFunction } from 'react-router';
import { ServerRouter } from 'react-router';
import { DrawnHere } from './frame/drawnHere';
import { NonceContext } from './frame/nonce';
import { withStylesApart } from './frame/styleAttributes';
import { styleCache } from './frame/styleCache';
import { troubleIn, troubleMet } from './records/trouble.server';

/**
 * Renders the whole page before any of it is sent, so that the style tags it needs can stand in its
 * head before it is painted. Pages are small and their data is at hand; nothing is gained by
 * sending them in parts.
 */
export default async function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  context: EntryContext,
): Promise<Response> {
  if (status === 429 || status === 503) return inFewWords(status, headers, context);
  try {
    return await drawn(request, status, headers, context, true);
  } catch {
    // One odd record must not take the bar and the rail with it: without what can fall by itself
    // once more, and the browser says in its place what went wrong.
    return drawn(request, 500, headers, context, false);
  }
}

/**
 * What whoever has to wait is told, where the page itself asked (a page whose script runs shows it in
 * its place): in plain words, as drawing pages for many at once is what takes the time of others.
 */
function inFewWords(status: number, headers: Headers, context: EntryContext): Response {
  const { actionData, errors } = context.staticHandlerContext;
  const told = [...Object.values(actionData ?? {}), ...Object.values(errors ?? {})].map((one) => {
    const { message, data } = (one ?? {}) as { message?: unknown; data?: { message?: unknown } };
    return data?.message ?? message;
  });
  const message = told.find((one) => typeof one === 'string') ?? 'Too much is asked at the moment.';
  headers.set('Content-Type', 'text/plain; charset=utf-8');
  return new Response(`${String(message)}\n\nGo back and try again then.\n`, { status, headers });
}

function drawn(
  request: Request,
  status: number,
  headers: Headers,
  context: EntryContext,
  whole: boolean,
): Promise<Response> {
  const nonce = randomBytes(16).toString('base64');
  const cache = styleCache(nonce);
  const { extractCriticalToChunks, constructStyleTagsFromChunks } = createEmotionServer(cache);
  return new Promise((resolve, reject) => {
    let answered = status;
    const { pipe } = renderToPipeableStream(
      <CacheProvider value={cache}>
        <NonceContext.Provider value={nonce}>
          <DrawnHere.Provider value={whole}>
            <ServerRouter context={context} url={request.url} nonce={nonce} />
          </DrawnHere.Provider>
        </NonceContext.Provider>
      </CacheProvider>,
      {
        // The library’s own scripts bear it too: they put what is large in its place.
        nonce,
        onAllReady() {
          text(pipe(new PassThrough())).then((html) => {
            const styles = constructStyleTagsFromChunks(extractCriticalToChunks(html));
            headers.set('Content-Type', 'text/html; charset=utf-8');
            headers.set('Content-Security-Policy', policyOf(nonce));
            resolve(
              new Response(
                withStylesApart(
                  html.replace('</head>', () => `${styles}</head>`),
                  nonce,
                ),
                { status: answered, headers },
              ),
            );
          }, reject);
        },
        onShellError: reject,
        onError(error) {
          answered = 500;
          console.error(request.headers.get('x-patrone-request') ?? '', error);
        },
      },
    );
  });
}

/**
 * What a page may do: only what comes from here, and of what stands in it only what bears this
 * page’s own number, style attributes among it (`withStylesApart`). Scans are thinned by compiled
 * code that ships with the application.
 */
const policyOf = (nonce: string): string =>
  [
    "default-src 'self'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
    "object-src 'none'",
    "img-src 'self' data: blob:",
    `script-src 'self' 'nonce-${nonce}' 'wasm-unsafe-eval'`,
    "script-src-attr 'none'",
    `style-src 'self' 'nonce-${nonce}'`,
    "style-src-attr 'none'",
  ].join('; ');

/**
 * Trouble with the disk or the database is told to whoever asked (`asked`); anything else is a
 * fault, and logged.
 */
export const handleError: HandleErrorFunction = (error, { request, context }) => {
  if (request.signal.aborted) return;
  const trouble = troubleIn(error);
  if (trouble) context.set(troubleMet, trouble);
  // By the id that the log of requests has it under.
  else console.error(request.headers.get('x-patrone-request') ?? '', error);
};
