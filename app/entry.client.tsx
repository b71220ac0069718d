import { CacheProvider } from '@emotion/react';
import { StrictMode, startTransition } from 'react';
import { hydrateRoot } from 'react-dom/client';
import { HydratedRouter } from 'react-router/dom';
import { storeRead } from './forms/browserStore';
import { withStylesBack } from './frame/styleAttributes';
import { styleCache } from './frame/styleCache';

/** The number this page’s own scripts bear: style tags that are put in later must bear it too. */
const nonceHere = () => document.querySelector<HTMLScriptElement>('script[nonce]')?.nonce;

withStylesBack(document);
// What waits in this browser is at hand before the page asks for it.
void storeRead().then(() =>
  startTransition(() => {
    hydrateRoot(
      document,
      <StrictMode>
        <CacheProvider value={styleCache(nonceHere())}>
          <HydratedRouter />
        </CacheProvider>
      </StrictMode>,
    );
  }),
);
