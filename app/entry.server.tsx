import { CacheProvider } from '@emotion/react';
import createEmotionServer from '@emotion/server/create-instance';
import { renderToString } from 'react-dom/server';
import type { EntryContext } from 'react-router';
import { ServerRouter } from 'react-router';
import { styleCache } from './shell/styleCache';

/** Renders the whole page at once, so that the style tags it needs can stand in its head before it is painted. */
export default function handleRequest(request: Request, status: number, headers: Headers, context: EntryContext): Response {
  const cache = styleCache();
  const { extractCriticalToChunks, constructStyleTagsFromChunks } = createEmotionServer(cache);
  const html = renderToString(
    <CacheProvider value={cache}>
      <ServerRouter context={context} url={request.url} />
    </CacheProvider>,
  );
  const styles = constructStyleTagsFromChunks(extractCriticalToChunks(html));
  headers.set('Content-Type', 'text/html; charset=utf-8');
  return new Response(`<!DOCTYPE html>${html.replace('</head>', `${styles}</head>`)}`, { status, headers });
}
