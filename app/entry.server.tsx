import { PassThrough } from 'node:stream';
import { text } from 'node:stream/consumers';
import { CacheProvider } from '@emotion/react';
import createEmotionServer from '@emotion/server/create-instance';
import { renderToPipeableStream } from 'react-dom/server';
import type { EntryContext, HandleErrorFunction } from 'react-router';
import { ServerRouter } from 'react-router';
import { styleCache } from './frame/styleCache';
import { troubleIn, troubleMet } from './records/trouble.server';

/**
 * Renders the whole page before any of it is sent, so that the style tags it needs can stand in its head before it is
 * painted. Pages are small and their data is at hand; nothing is gained by sending them in parts.
 */
export default function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  context: EntryContext,
): Promise<Response> {
  const cache = styleCache();
  const { extractCriticalToChunks, constructStyleTagsFromChunks } = createEmotionServer(cache);
  return new Promise((resolve, reject) => {
    let answered = status;
    const { pipe } = renderToPipeableStream(
      <CacheProvider value={cache}>
        <ServerRouter context={context} url={request.url} />
      </CacheProvider>,
      {
        onAllReady() {
          text(pipe(new PassThrough())).then((html) => {
            const styles = constructStyleTagsFromChunks(extractCriticalToChunks(html));
            headers.set('Content-Type', 'text/html; charset=utf-8');
            resolve(
              new Response(
                html.replace('</head>', () => `${styles}</head>`),
                { status: answered, headers },
              ),
            );
          }, reject);
        },
        onShellError: reject,
        onError(error) {
          answered = 500;
          console.error(error);
        },
      },
    );
  });
}

/** Trouble with the disk or the database is told to whoever asked (`asked`); anything else is a fault, and logged. */
export const handleError: HandleErrorFunction = (error, { request, context }) => {
  if (request.signal.aborted) return;
  const trouble = troubleIn(error);
  if (trouble) context.set(troubleMet, trouble);
  else console.error(error);
};
